"use client";
import { SiteHead } from "@/features/site/SiteHead";
import { Alert, App, Button, Form, Input } from "antd";
import { useCallback, useEffect, useState } from "react";
import { z } from "zod";
import { Anything, askAuth } from "./askAuth";
import { addPasskey } from "./passkeys";
import styles from "./people.module.css";
import { NewPassword } from "./SignIn";
import { useSigned } from "./Signed";
import { useAsking } from "./useAsking";

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
          <h1>{person?.name ?? "My account"}</h1>
        </div>
        {isNew ? (
          <Alert
            type="success"
            showIcon
            title="You are signed in. Set a PIN for the shared tablet, and write down recovery codes."
            style={{ marginBottom: 16 }}
          />
        ) : null}
        {ways && !ways.isFull ? (
          <Alert
            type="info"
            showIcon
            title="You signed in with a PIN. Sign in with your password or passkey to change anything here."
            style={{ marginBottom: 16 }}
          />
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
  const { message } = App.useApp();
  const [form] = Form.useForm<{ pin: string }>();
  const set = async (pin: string | null) => {
    if ((await ask(() => askAuth("pin/set", { pin }, Anything))) === undefined) return;
    message.success(pin === null ? "PIN removed" : "PIN set");
    form.resetFields();
    await onDone();
  };
  return (
    <section className={styles.section}>
      <h2>PIN for a shared tablet</h2>
      <p>
        {hasPin
          ? "You have a PIN. It works on devices where you gave your password within 30 days."
          : "With a PIN, people take turns at one tablet in two taps: their name, then the PIN."}
      </p>
      {wrong ? <Alert type="error" title={wrong} showIcon style={{ marginBottom: 12 }} /> : null}
      <Form form={form} layout="inline" onFinish={({ pin }) => void set(pin)}>
        <Form.Item name="pin" rules={[{ required: true, pattern: /^\d{4,8}$/, message: "Type 4 to 8 digits." }]}>
          <Input.Password
            aria-label="New PIN"
            placeholder="4 to 8 digits"
            inputMode="numeric"
            maxLength={8}
            autoComplete="off"
          />
        </Form.Item>
        <Button htmlType="submit" loading={isBusy}>
          {hasPin ? "Change the PIN" : "Set the PIN"}
        </Button>
        {hasPin ? (
          <Button type="link" onClick={() => void set(null)}>
            Remove it
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
      <h2>Recovery codes</h2>
      <p>
        {left
          ? `${left} codes left. Each lets you set a new password once.`
          : "You have none. Each code lets you set a new password once, if you lose yours."}
      </p>
      {wrong ? <Alert type="error" title={wrong} showIcon style={{ marginBottom: 12 }} /> : null}
      {fresh.length ? (
        <>
          <b>Write these down now. They are not shown again.</b>
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
        {left ? "Make new codes (the old ones end)" : "Make recovery codes"}
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
      <h2>Passkeys</h2>
      <p>A passkey signs you in with the fingerprint, face or screen lock of a device, or with a security key.</p>
      {wrong ? <Alert type="error" title={wrong} showIcon style={{ marginBottom: 12 }} /> : null}
      <ul className={styles.codes} style={{ gridTemplateColumns: "1fr" }}>
        {list.map((k) => (
          <li key={k.id}>
            {k.name ?? "Passkey"}, added {k.at.slice(0, 10)}{" "}
            <Button
              type="link"
              onClick={() => void done(ask(() => askAuth("passkey/delete-passkey", { id: k.id }, Anything)))}
            >
              Remove
            </Button>
          </li>
        ))}
      </ul>
      <Button loading={isBusy} onClick={() => void done(ask(() => addPasskey(`Passkey ${list.length + 1}`)))}>
        Add a passkey of this device
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
  const { message } = App.useApp();
  const [form] = Form.useForm<Passwords>();
  const change = async (values: Passwords) => {
    const body = { ...values, revokeOtherSessions: true };
    if ((await ask(() => askAuth("change-password", body, Anything))) === undefined) return;
    form.resetFields();
    message.success("Password changed. All other devices are signed out.");
  };
  return (
    <section className={styles.section}>
      <h2>Password</h2>
      {wrong ? <Alert type="error" title={wrong} showIcon style={{ marginBottom: 12 }} /> : null}
      <Form form={form} layout="vertical" requiredMark={false} onFinish={(v) => void change(v)}>
        <Form.Item
          name="currentPassword"
          label="Old password"
          rules={[{ required: true, message: "Type your old password." }]}
        >
          <Input.Password autoComplete="current-password" maxLength={128} />
        </Form.Item>
        <NewPassword name="newPassword" />
        <Button htmlType="submit" loading={isBusy}>
          Change the password
        </Button>
      </Form>
    </section>
  );
}
