"use client";
import { Alert, Button, Form, Input } from "antd";
import { useEffect, useState } from "react";
import { z } from "zod";
import { loadPage } from "@/ui/loadPage";
import { Anything, askAuth } from "./askAuth";
import { signInByPasskey } from "./passkeys";
import styles from "./people.module.css";
import { PinPad } from "./PinPad";
import { useAsking } from "./useAsking";
import { t } from "@/messages";

const OnDevice = z.object({ people: z.array(z.object({ id: z.string(), name: z.string(), hasPin: z.boolean() })) });
type DevicePerson = z.infer<typeof OnDevice>["people"][number];
const Redirect = z.object({ url: z.string() });

/**
 * All ways in: a name this device knows and its PIN, a password, a passkey, the company's own sign-in, a recovery code.
 */
export function SignIn({
  hasCompany,
  to,
  except,
  onDone,
}: {
  readonly hasCompany: boolean;
  /** where the company's sign-in comes back to */
  readonly to: string;
  /** who is signed in already */
  readonly except?: string | undefined;
  readonly onDone: () => void;
}) {
  const { ask, isBusy, wrong } = useAsking();
  const [known, setKnown] = useState<readonly DevicePerson[]>([]);
  const [chosen, setChosen] = useState<DevicePerson | undefined>(undefined);
  const [isRecovering, setRecovering] = useState(false);
  useEffect(() => {
    void askAuth("device/people", undefined, OnDevice).then((a) => {
      if (a.ok) setKnown(a.body.people.filter((p) => p.hasPin));
    });
  }, []);
  const done = async <T,>(answer: Promise<T | undefined>) => {
    if ((await answer) !== undefined) onDone();
  };
  const alert = wrong ? <Alert type="error" title={wrong} showIcon /> : null;
  const others = known.filter((p) => p.id !== except);
  if (chosen)
    return (
      <div className={styles.ways}>
        <b>{chosen.name}</b>
        {alert}
        <PinPad
          isBusy={isBusy}
          onPin={(pin) => void done(ask(() => askAuth("pin/switch", { id: chosen.id, pin }, Anything)))}
        />
        <button type="button" className="link" onClick={() => setChosen(undefined)}>
          {t("people.somebodyElseOrSignInWith")}
        </button>
      </div>
    );
  if (isRecovering)
    return (
      <div className={styles.ways}>
        {alert}
        <Recovery isBusy={isBusy} onSend={(values) => void done(ask(() => askAuth("recover", values, Anything)))} />
        <button type="button" className="link" onClick={() => setRecovering(false)}>
          {t("people.back")}
        </button>
      </div>
    );
  const byCompany = async () => {
    const answer = await ask(() =>
      askAuth(
        "sign-in/social",
        { provider: "company", callbackURL: to, errorCallbackURL: "/sign-in?refused=1" },
        Redirect,
      ),
    );
    if (answer) loadPage(answer.url);
  };
  return (
    <div className={styles.ways}>
      {others.length ? (
        <div className={styles.faces}>
          {others.map((p) => (
            <Button key={p.id} onClick={() => setChosen(p)}>
              {p.name}
            </Button>
          ))}
        </div>
      ) : null}
      {alert}
      <Form
        layout="vertical"
        requiredMark={false}
        onFinish={(values: { username: string; password: string }) =>
          void done(ask(() => askAuth("sign-in/username", values, Anything)))
        }
      >
        <Form.Item
          name="username"
          label={t("people.signInName")}
          rules={[{ required: true, message: t("people.typeYourSignInName") }]}
        >
          <Input autoComplete="username webauthn" autoCapitalize="none" maxLength={60} />
        </Form.Item>
        <Form.Item
          name="password"
          label={t("people.password")}
          rules={[{ required: true, message: t("people.typeYourPassword") }]}
        >
          <Input.Password autoComplete="current-password" maxLength={128} />
        </Form.Item>
        <Button type="primary" htmlType="submit" loading={isBusy} block>
          {t("people.signIn")}
        </Button>
      </Form>
      <Button onClick={() => void done(ask(signInByPasskey))}>{t("people.useAPasskey")}</Button>
      {hasCompany ? <Button onClick={() => void byCompany()}>{t("people.useTheCompanySignIn")}</Button> : null}
      <button type="button" className="link" onClick={() => setRecovering(true)}>
        {t("people.iLostMyPassword")}
      </button>
    </div>
  );
}

interface RecoveryValues {
  readonly username: string;
  readonly code: string;
  readonly password: string;
}
function Recovery({ isBusy, onSend }: { readonly isBusy: boolean; readonly onSend: (v: RecoveryValues) => void }) {
  return (
    <Form layout="vertical" requiredMark={false} onFinish={onSend}>
      <p>{t("people.typeOneOfTheRecoveryCodes")}</p>
      <Form.Item
        name="username"
        label={t("people.signInName")}
        rules={[{ required: true, message: t("people.typeYourSignInName") }]}
      >
        <Input autoComplete="username" autoCapitalize="none" maxLength={60} />
      </Form.Item>
      <Form.Item
        name="code"
        label={t("people.recoveryCode")}
        rules={[{ required: true, message: t("people.typeARecoveryCode") }]}
      >
        <Input autoComplete="off" maxLength={60} className="mono" />
      </Form.Item>
      <NewPassword />
      <Button type="primary" htmlType="submit" loading={isBusy} block>
        {t("people.setThePasswordAndSignIn")}
      </Button>
    </Form>
  );
}

export function NewPassword({ name = "password" }: { readonly name?: string }) {
  return (
    <Form.Item
      name={name}
      label={t("people.newPassword")}
      extra={t("people.atLeast12CharactersSeveralWords")}
      rules={[{ required: true, min: 12, message: t("people.chooseAPasswordOfAtLeast") }]}
    >
      <Input.Password autoComplete="new-password" maxLength={128} />
    </Form.Item>
  );
}
