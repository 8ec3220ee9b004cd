"use client";
import { Button } from "antd";
import Link from "next/link";
import { loadPage } from "@/ui/loadPage";
import { Anything, askAuth } from "./askAuth";
import styles from "./people.module.css";
import { SignIn } from "./SignIn";
import { useSigned } from "./Signed";

/** Another person takes over; or this one signs out. */
export function Switch({ onDone }: { readonly onDone: () => void }) {
  const { person: last, isSignedOut, look } = useSigned();
  const person = isSignedOut ? undefined : last;
  const signOut = async () => {
    await askAuth("sign-out", {}, Anything);
    loadPage("/sign-in");
  };
  return (
    <div className={styles.ways}>
      {person ? (
        <div className={styles.own}>
          <Link href="/account" onClick={onDone}>
            My account
          </Link>
          {person.role === "lead" || person.role === "administrator" ? (
            <Link href="/people" onClick={onDone}>
              People
            </Link>
          ) : null}
          <Button onClick={() => void signOut()}>Sign out</Button>
        </div>
      ) : null}
      {person ? <h2 className={styles.sub}>Somebody else takes over</h2> : null}
      <SignIn
        hasCompany={false}
        to={location.pathname}
        except={person?.id}
        onDone={() => {
          void look();
          onDone();
        }}
      />
    </div>
  );
}
