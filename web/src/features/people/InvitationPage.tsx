"use client";
import { Alert, Button, Form } from "antd";
import { loadPage } from "@/ui/loadPage";
import { Logo } from "@/ui/Logo";
import { Anything, askAuth } from "./askAuth";
import styles from "./people.module.css";
import { NewPassword } from "./SignIn";
import { useAsking } from "./useAsking";

/** Where an invited person chooses a password. */
export function InvitationPage({ code, person }: { readonly code: string; readonly person: string | undefined }) {
  const { ask, isBusy, wrong } = useAsking();
  const accept = async ({ password }: { readonly password: string }) => {
    const done = await ask(() => askAuth("invitation/accept", { code, password }, Anything));
    if (done !== undefined) loadPage("/account?new=1");
  };
  return (
    <main id="content" className={styles.entry}>
      <span className={styles.brand}>
        <Logo /> radicula
      </span>
      {person === undefined ? (
        <>
          <h1>This invitation has ended</h1>
          <p>It was used already, or it is too old. Ask a lead or an administrator for a new one.</p>
        </>
      ) : (
        <>
          <h1>Welcome, {person}</h1>
          {wrong ? <Alert type="error" title={wrong} showIcon style={{ marginBottom: 16 }} /> : null}
          <Form layout="vertical" requiredMark={false} onFinish={accept}>
            <NewPassword />
            <Button type="primary" htmlType="submit" loading={isBusy} block>
              Set the password and sign in
            </Button>
          </Form>
        </>
      )}
    </main>
  );
}
