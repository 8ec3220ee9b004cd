"use client";
import { Alert } from "antd";
import { loadPage } from "@/ui/loadPage";
import { Logo } from "@/ui/Logo";
import styles from "./people.module.css";
import { SignIn } from "./SignIn";
import { t } from "@/messages";

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
        <Logo /> {t("people.radicula")}
      </span>
      <h1>{t("people.signIn")}</h1>
      {p.hasNobody ? (
        <Alert
          type="info"
          showIcon
          title={t("people.nobodyCanSignInYet")}
          description={
            <>
              {t("people.onTheMachineThatRunsThe")} <code>{t("people.npmRunPeopleAddYourName")}</code>{" "}
              {t("people.andOpenTheLinkItPrints")}
            </>
          }
          style={{ marginBottom: 16 }}
        />
      ) : null}
      {p.wasRefused ? (
        <Alert
          type="error"
          showIcon
          title={t("people.theCompanySignInDidNot")}
          description={t("people.anAdministratorHasToAddYou")}
          style={{ marginBottom: 16 }}
        />
      ) : null}
      <SignIn hasCompany={p.hasCompany} to={p.to} onDone={() => loadPage(p.to)} />
    </main>
  );
}
