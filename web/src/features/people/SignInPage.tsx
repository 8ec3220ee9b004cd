"use client";
import { Alert } from "antd";
import { loadPage } from "@/ui/loadPage";
import { Logo } from "@/ui/Logo";
import styles from "./people.module.css";
import { SignIn } from "./SignIn";

/** The way in; leads back to where one wanted to go. */
export function SignInPage(p: {
  readonly to: string;
  readonly hasCompany: boolean;
  readonly hasNobody: boolean;
  readonly wasRefused: boolean;
}) {
  return (
    <main id="content" className={styles.entry}>
      <span className={styles.brand}>
        <Logo /> radicula
      </span>
      <h1>Sign in</h1>
      {p.hasNobody ? (
        <Alert
          type="info"
          showIcon
          title="Nobody can sign in yet"
          description={
            <>
              On the machine that runs the server, type{" "}
              <code>npm run people -- add &quot;YOUR NAME&quot; SIGN-IN-NAME administrator</code> and open the link it
              prints.
            </>
          }
          style={{ marginBottom: 16 }}
        />
      ) : null}
      {p.wasRefused ? (
        <Alert
          type="error"
          showIcon
          title="The company sign-in did not let you in"
          description="An administrator has to add you with your e-mail address first."
          style={{ marginBottom: 16 }}
        />
      ) : null}
      <SignIn hasCompany={p.hasCompany} to={p.to} onDone={() => loadPage(p.to)} />
    </main>
  );
}
