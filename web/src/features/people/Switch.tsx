"use client";
import { Button } from "antd";
import Link from "next/link";
import { loadPage } from "@/ui/loadPage";
import { Anything, askAuth } from "./askAuth";
import styles from "./people.module.css";
import { SignIn } from "./SignIn";
import { useSigned } from "./Signed";
import { t } from "@/messages";

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
            {t("people.myAccount")}
          </Link>
          {person.role === "lead" || person.role === "administrator" ? (
            <Link href="/people" onClick={onDone}>
              {t("people.people")}
            </Link>
          ) : null}
          <Button onClick={() => void signOut()}>{t("people.signOut")}</Button>
        </div>
      ) : null}
      {person ? <h2 className={styles.sub}>{t("people.somebodyElseTakesOver")}</h2> : null}
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
