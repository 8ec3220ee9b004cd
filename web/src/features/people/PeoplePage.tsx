"use client";
import { SiteHead } from "@/features/site/SiteHead";
import { Alert, Button, Form, Input, Modal, Select } from "antd";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { z } from "zod";
import { say } from "@/messages/issues";
import type { PersonRow } from "@/server/people/repo";
import type { Role } from "@/ui/roles";
import { post, put, type Posted } from "@/ui/send";
import { Done } from "@/ui/send";
import styles from "./people.module.css";
import { useSigned } from "./Signed";
import { t } from "@/messages";
import { worded } from "@radicula/core/words";

export interface EventRow {
  readonly id: number;
  readonly at: string;
  readonly what: string;
  readonly by: string | null;
  readonly about: string | null;
  readonly address: string | null;
}
const Invited = z.object({ code: z.string() });
const ROLE_TEXTS: Readonly<Record<Role, string>> = worded(() => ({
  reader: t("people.readerSeesEverything"),
  technician: t("people.technicianWorksOnJobsAndWirings"),
  lead: t("people.leadAlsoAddsPeople"),
  administrator: t("people.administratorAlsoChangesRoles"),
}));
const shortRole = (role: Role) => ROLE_TEXTS[role].split(":")[0];

/** Who may sign in, and who came in. */
export function PeoplePage({
  people,
  events,
}: {
  readonly people: readonly PersonRow[];
  readonly events: readonly EventRow[];
}) {
  const router = useRouter();
  const { person } = useSigned();
  const [wrong, setWrong] = useState<string | undefined>(undefined);
  const [invited, setInvited] = useState<{ readonly name: string; readonly code: string } | undefined>(undefined);
  const [isAdding, setAdding] = useState(false);
  const isAdministrator = person?.role === "administrator";
  const mayManage = (p: { readonly role: Role }) => isAdministrator || p.role === "reader" || p.role === "technician";

  const done = <T,>(answer: Posted<T>): answer is Extract<Posted<T>, { ok: true }> => {
    setWrong(answer.ok ? undefined : say(answer.issues[0]!).text);
    router.refresh();
    return answer.ok;
  };
  const change = async (id: string, body: object) => done(await put(`/api/people/${id}`, body, Done));
  const invite = async ({ id, name }: PersonRow) => {
    const made = await post(`/api/people/${id}/invitation`, {}, Invited);
    if (done(made)) setInvited({ name, code: made.body.code });
  };
  const add = async (values: {
    readonly name: string;
    readonly username: string;
    readonly role: Role;
    readonly email?: string;
  }) => {
    const { email, ...rest } = values;
    const made = await post("/api/people", { ...rest, ...(email ? { email } : {}) }, Invited);
    if (!done(made)) return;
    setAdding(false);
    setInvited({ name: values.name, code: made.body.code });
  };
  return (
    <div className={styles.page}>
      <SiteHead />
      <main id="content">
        <div className={styles.title}>
          <h1>{t("people.people")}</h1>
          <Button type="primary" onClick={() => setAdding(true)}>
            {t("people.addAPerson")}
          </Button>
        </div>
        {wrong && !isAdding ? <Alert type="error" showIcon title={wrong} style={{ marginBottom: 12 }} /> : null}
        {invited ? <Invitation {...invited} onClose={() => setInvited(undefined)} /> : null}
        <div className={styles.scroll}>
          <table className={styles.table}>
            <thead>
              <tr>
                <th>{t("people.name")}</th>
                <th>{t("people.signInName")}</th>
                <th>{t("people.role")}</th>
                <th>{t("people.lastSeen")}</th>
                <th aria-label={t("people.whatCanBeDone")} />
              </tr>
            </thead>
            <tbody>
              {people.map((p) => (
                <PersonLine
                  key={p.id}
                  of={p}
                  mayGiveRoles={isAdministrator}
                  onChange={mayManage(p) ? (body) => void change(p.id, body) : undefined}
                  onInvite={() => void invite(p)}
                />
              ))}
            </tbody>
          </table>
        </div>
        <div className={styles.title}>
          <h2>{t("people.whoCameIn")}</h2>
        </div>
        <Events events={events} />
      </main>
      <Modal
        open={isAdding}
        title={t("people.addAPerson")}
        footer={null}
        onCancel={() => setAdding(false)}
        destroyOnHidden
      >
        {wrong ? <Alert type="error" showIcon title={wrong} style={{ marginBottom: 12 }} /> : null}
        <AddForm isAdministrator={isAdministrator} onAdd={(v) => void add(v)} />
      </Modal>
    </div>
  );
}

function PersonLine({
  of: p,
  mayGiveRoles,
  onChange,
  onInvite,
}: {
  readonly of: PersonRow;
  readonly mayGiveRoles: boolean;
  /** none where this person may not be changed by who looks */
  readonly onChange: ((body: { readonly role: Role } | { readonly isDisabled: boolean }) => void) | undefined;
  readonly onInvite: () => void;
}) {
  return (
    <tr>
      <td>
        {p.name}
        {p.isDisabled ? <span className="muted"> {t("people.mayNotSignIn")}</span> : null}
      </td>
      <td className="mono">{p.username}</td>
      <td>
        {mayGiveRoles ? (
          <Select<Role>
            aria-label={t("people.roleOf", { name: p.name })}
            value={p.role}
            style={{ width: 160 }}
            onChange={(role) => onChange?.({ role })}
            popupMatchSelectWidth={false}
            optionLabelProp="title"
            options={(Object.keys(ROLE_TEXTS) as Role[]).map((r) => ({
              value: r,
              label: ROLE_TEXTS[r],
              title: shortRole(r),
            }))}
          />
        ) : (
          shortRole(p.role)
        )}
      </td>
      <td>{p.lastSeen ? shownTime(p.lastSeen) : p.hasSignedUp ? t("people.signedOut") : t("people.invited")}</td>
      <td>
        {onChange ? (
          <>
            {p.isDisabled ? null : (
              <Button type="text" onClick={onInvite}>
                {p.hasSignedUp ? t("people.newPassword") : t("people.newInvitation")}
              </Button>
            )}
            <Button type="text" onClick={() => onChange({ isDisabled: !p.isDisabled })}>
              {p.isDisabled ? t("people.letInAgain") : t("people.shutOut")}
            </Button>
          </>
        ) : null}
      </td>
    </tr>
  );
}
const shownTime = (at: Date | string) => new Date(at).toISOString().slice(0, 16).replace("T", " ");

function Invitation({
  name,
  code,
  onClose,
}: {
  readonly name: string;
  readonly code: string;
  readonly onClose: () => void;
}) {
  const link = `${location.origin}/invitation?code=${code}`;
  return (
    <Alert
      type="success"
      showIcon
      closable={{ onClose }}
      title={t("people.giveThisLinkToItWorks", { name })}
      description={<code>{link}</code>}
      style={{ marginBottom: 16 }}
    />
  );
}

interface NewPersonValues {
  readonly name: string;
  readonly username: string;
  readonly role: Role;
  readonly email?: string;
}
function AddForm({
  isAdministrator,
  onAdd,
}: {
  readonly isAdministrator: boolean;
  readonly onAdd: (v: NewPersonValues) => void;
}) {
  const roles = (Object.keys(ROLE_TEXTS) as Role[]).filter(
    (r) => isAdministrator || r === "reader" || r === "technician",
  );
  return (
    <Form layout="vertical" requiredMark={false} onFinish={onAdd} initialValues={{ role: "technician" }}>
      <Form.Item
        name="name"
        label={t("people.fullName")}
        rules={[{ required: true, min: 2, message: t("people.typeTheFullName") }]}
      >
        <Input maxLength={60} autoComplete="off" />
      </Form.Item>
      <Form.Item
        name="username"
        label={t("people.signInName")}
        rules={[
          {
            required: true,
            pattern: /^[A-Za-z0-9][A-Za-z0-9._-]{2,29}$/,
            message: t("people.use3To30LettersDigits"),
          },
        ]}
      >
        <Input maxLength={30} autoCapitalize="none" autoComplete="off" />
      </Form.Item>
      <Form.Item name="role" label={t("people.role")}>
        <Select options={roles.map((r) => ({ value: r, label: ROLE_TEXTS[r] }))} />
      </Form.Item>
      <Form.Item
        name="email"
        label={t("people.eMailAddressOnlyForThe")}
        rules={[{ type: "email", message: t("people.thisIsNotAnEMail") }]}
      >
        <Input maxLength={200} autoComplete="off" />
      </Form.Item>
      <Button type="primary" htmlType="submit" block>
        {t("people.addAndInvite")}
      </Button>
    </Form>
  );
}

const EVENT_TEXTS: Readonly<Record<string, string>> = worded(() => ({
  "signed-in": t("people.signedIn"),
  "signed-in-by-pin": t("people.signedInWithAPin"),
  "signed-in-by-passkey": t("people.signedInWithAPasskey"),
  "signed-in-by-company": t("people.signedInWithTheCompany"),
  "signed-in-by-invitation": t("people.choseAPassword"),
  "signed-in-by-recovery-code": t("people.usedARecoveryCode"),
  "sign-in-failed": t("people.failedToSignIn"),
  "locked-out": t("people.lockedOutAfterTooManyTries"),
  "signed-out": t("people.signedOut"),
  "password-changed": t("people.changedThePassword"),
  "pin-set": t("people.changedThePin"),
  "passkey-added": t("people.addedAPasskey"),
  "passkey-removed": t("people.removedAPasskey"),
  "recovery-codes-made": t("people.madeRecoveryCodes"),
  "person-added": t("people.addedAPerson"),
  "person-invited": t("people.invited"),
  "person-changed": t("people.changedTheRoleOf"),
  "person-disabled": t("people.shutOut2"),
  "person-enabled": t("people.letInAgain2"),
}));
function Events({ events }: { readonly events: readonly EventRow[] }) {
  return (
    <div className={styles.scroll}>
      <table className={styles.table}>
        <thead>
          <tr>
            <th>{t("people.whenUtc")}</th>
            <th>{t("people.who")}</th>
            <th>{t("people.what")}</th>
            <th>{t("people.from")}</th>
          </tr>
        </thead>
        <tbody>
          {events.map((e) => (
            <tr key={e.id}>
              <td className="mono">{shownTime(e.at)}</td>
              <td>{e.by ?? e.about ?? ""}</td>
              <td>
                {EVENT_TEXTS[e.what] ?? e.what}
                {e.by && e.about ? ` ${e.about}` : ""}
              </td>
              <td className="mono">{e.address ?? ""}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
