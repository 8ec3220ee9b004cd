"use client";
import { SiteHead } from "@/features/site/SiteHead";
import { Alert, Button, Form, Input } from "antd";
import { useMessages } from "@/ui/Theme";
import { useCallback, useEffect, useState } from "react";
import { z } from "zod";
import { Anything, askAuth } from "./askAuth";
import { addPasskey } from "./passkeys";
import styles from "./people.module.css";
import { NewPassword } from "./SignIn";
import { useSigned } from "./Signed";
import { useAsking } from "./useAsking";
import { t } from "@/messages";

const Ways = z.object({
  hasPin: z.boolean(),
  isFull: z.boolean(),
  recoveryCodes: z.number(),
  passkeys: z.array(z.object({ id: z.string(), name: z.string().nullable(), at: z.string() })),
});
type Ways = z.infer<typeof Ways>;
const Codes = z.object({ codes: z.array(z.string()) });

/** What I sign in with. */
export function AccountPage({ isNew }: { readonly isNew: boolean }) {
  const { person } = useSigned();
  const [ways, setWays] = useState<Ways | undefined>(undefined);
  const look = useCallback(
    () => askAuth("ways", undefined, Ways).then((answer) => setWays(answer.ok ? answer.body : undefined)),
    [],
  );
  useEffect(() => {
    void look();
    // another person may have taken over on this page
  }, [look, person?.id]);
  return (
    <div className={styles.page}>
      <SiteHead />
      <main id="content">
        <div className={styles.title}>
          <h1>{person?.name ?? t("people.myAccount")}</h1>
        </div>
        {isNew ? (
          <Alert type="success" showIcon title={t("people.youAreSignedInSetA")} style={{ marginBottom: 16 }} />
        ) : null}
        {ways && !ways.isFull ? (
          <Alert type="info" showIcon title={t("people.youSignedInWithAPin")} style={{ marginBottom: 16 }} />
        ) : null}
        {ways ? (
          <>
            <Pin hasPin={ways.hasPin} onDone={look} />
            <RecoveryCodes left={ways.recoveryCodes} onDone={look} />
            <Passkeys list={ways.passkeys} onDone={look} />
            <Password />
          </>
        ) : null}
      </main>
    </div>
  );
}

function Pin({ hasPin, onDone }: { readonly hasPin: boolean; readonly onDone: () => Promise<void> }) {
  const { ask, isBusy, wrong } = useAsking();
  const message = useMessages();
  const [form] = Form.useForm<{ pin: string }>();
  const set = async (pin: string | null) => {
    if ((await ask(() => askAuth("pin/set", { pin }, Anything))) === undefined) return;
    message.success(pin === null ? t("people.pinRemoved") : t("people.pinSet"));
    form.resetFields();
    await onDone();
  };
  return (
    <section className={styles.section}>
      <h2>{t("people.pinForASharedTablet")}</h2>
      <p>{hasPin ? t("people.youHaveAPinItWorks") : t("people.withAPinPeopleTakeTurns")}</p>
      {wrong ? <Alert type="error" title={wrong} showIcon style={{ marginBottom: 12 }} /> : null}
      <Form form={form} layout="inline" onFinish={({ pin }) => void set(pin)}>
        <Form.Item name="pin" rules={[{ required: true, pattern: /^\d{4,8}$/, message: t("people.type4To8Digits") }]}>
          <Input.Password
            aria-label={t("people.newPin")}
            placeholder={t("people.n4To8Digits")}
            inputMode="numeric"
            maxLength={8}
            autoComplete="off"
          />
        </Form.Item>
        <Button htmlType="submit" loading={isBusy}>
          {hasPin ? t("people.changeThePin") : t("people.setThePin")}
        </Button>
        {hasPin ? (
          <Button type="link" onClick={() => void set(null)}>
            {t("people.removeIt")}
          </Button>
        ) : null}
      </Form>
    </section>
  );
}

function RecoveryCodes({ left, onDone }: { readonly left: number; readonly onDone: () => Promise<void> }) {
  const { ask, isBusy, wrong } = useAsking();
  const [fresh, setFresh] = useState<readonly string[]>([]);
  const make = async () => {
    const made = await ask(() => askAuth("recovery-codes/new", {}, Codes));
    if (!made) return;
    setFresh(made.codes);
    await onDone();
  };
  return (
    <section className={styles.section}>
      <h2>{t("people.recoveryCodes")}</h2>
      <p>{left ? t("people.codesLeftEachLetsYouSet", { left }) : t("people.youHaveNoneEachCodeLets")}</p>
      {wrong ? <Alert type="error" title={wrong} showIcon style={{ marginBottom: 12 }} /> : null}
      {fresh.length ? (
        <>
          <b>{t("people.writeTheseDownNowTheyAre")}</b>
          <ul className={styles.codes}>
            {fresh.map((c) => (
              <li key={c} className="mono">
                {c}
              </li>
            ))}
          </ul>
        </>
      ) : null}
      <Button onClick={() => void make()} loading={isBusy}>
        {left ? t("people.makeNewCodesTheOldOnes") : t("people.makeRecoveryCodes")}
      </Button>
    </section>
  );
}

function Passkeys({ list, onDone }: { readonly list: Ways["passkeys"]; readonly onDone: () => Promise<void> }) {
  const { ask, isBusy, wrong } = useAsking();
  const done = async (answer: Promise<unknown>) => {
    if ((await answer) !== undefined) await onDone();
  };
  return (
    <section className={styles.section}>
      <h2>{t("people.passkeys")}</h2>
      <p>{t("people.aPasskeySignsYouInWith")}</p>
      {wrong ? <Alert type="error" title={wrong} showIcon style={{ marginBottom: 12 }} /> : null}
      <ul className={styles.codes} style={{ gridTemplateColumns: "1fr" }}>
        {list.map((k) => (
          <li key={k.id}>
            {k.name ?? t("people.passkey")}
            {t("people.added", { at: k.at.slice(0, 10) })}{" "}
            <Button
              type="link"
              onClick={() => void done(ask(() => askAuth("passkey/delete-passkey", { id: k.id }, Anything)))}
            >
              {t("people.remove")}
            </Button>
          </li>
        ))}
      </ul>
      <Button
        loading={isBusy}
        onClick={() => void done(ask(() => addPasskey(t("people.passkey2", { listCount: list.length + 1 }))))}
      >
        {t("people.addAPasskeyOfThisDevice")}
      </Button>
    </section>
  );
}

interface Passwords {
  readonly currentPassword: string;
  readonly newPassword: string;
}
function Password() {
  const { ask, isBusy, wrong } = useAsking();
  const message = useMessages();
  const [form] = Form.useForm<Passwords>();
  const change = async (values: Passwords) => {
    const body = { ...values, revokeOtherSessions: true };
    if ((await ask(() => askAuth("change-password", body, Anything))) === undefined) return;
    form.resetFields();
    message.success(t("people.passwordChangedAllOtherDevicesAre"));
  };
  return (
    <section className={styles.section}>
      <h2>{t("people.password")}</h2>
      {wrong ? <Alert type="error" title={wrong} showIcon style={{ marginBottom: 12 }} /> : null}
      <Form form={form} layout="vertical" requiredMark={false} onFinish={(v) => void change(v)}>
        <Form.Item
          name="currentPassword"
          label={t("people.oldPassword")}
          rules={[{ required: true, message: t("people.typeYourOldPassword") }]}
        >
          <Input.Password autoComplete="current-password" maxLength={128} />
        </Form.Item>
        <NewPassword name="newPassword" />
        <Button htmlType="submit" loading={isBusy}>
          {t("people.changeThePassword")}
        </Button>
      </Form>
    </section>
  );
}
