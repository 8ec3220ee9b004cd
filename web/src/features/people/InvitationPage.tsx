"use client";
import { Alert, Button, Form } from "antd";
import { loadPage } from "@/ui/loadPage";
import { Logo } from "@/ui/Logo";
import { Anything, askAuth } from "./askAuth";
import styles from "./people.module.css";
import { NewPassword } from "./SignIn";
import { useAsking } from "./useAsking";
import { t } from "@/messages";

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
        <Logo /> {t("people.radicula")}
      </span>
      {person === undefined ? (
        <>
          <h1>{t("people.thisInvitationHasEnded")}</h1>
          <p>{t("people.itWasUsedAlreadyOrIt")}</p>
        </>
      ) : (
        <>
          <h1>{t("people.welcome", { person })}</h1>
          {wrong ? <Alert type="error" title={wrong} showIcon style={{ marginBottom: 16 }} /> : null}
          <Form layout="vertical" requiredMark={false} onFinish={accept}>
            <NewPassword />
            <Button type="primary" htmlType="submit" loading={isBusy} block>
              {t("people.setThePasswordAndSignIn")}
            </Button>
          </Form>
        </>
      )}
    </main>
  );
}
