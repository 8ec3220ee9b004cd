"use client";
import { Button, Input } from "antd";
import { z } from "zod";
import { get } from "@/ui/send";
import { useState } from "react";
import type { RevisionSummary } from "@/server/repo/wirings";
import styles from "./Workbench.module.css";
import { readerLocale } from "@radicula/core/words";
import { t } from "@/messages";

const Changes = z.object({
  changes: z.array(
    z.object({
      change: z.string(),
      what: z.string(),
      id: z.string(),
      fields: z.array(z.object({ field: z.string(), before: z.string(), after: z.string() })),
    }),
  ),
});

/** Frozen states of the wiring, newest first: what changed between them, and a new one. */
export function Revisions({
  wiringId,
  revisions,
  onFreeze,
}: {
  readonly wiringId: string;
  readonly revisions: readonly RevisionSummary[];
  readonly onFreeze: (note: string) => Promise<void>;
}) {
  const [note, setNote] = useState("");
  const [busy, setBusy] = useState(false);
  const [shown, setShown] = useState<
    { readonly number: number; readonly changes: z.infer<typeof Changes>["changes"] } | undefined
  >(undefined);
  const compare = async (after: number) => {
    const compared = await get(`/api/wirings/${wiringId}/revisions?before=${after - 1}&after=${after}`, Changes);
    if (compared.ok) setShown({ number: after, changes: compared.body.changes });
  };
  const freeze = async () => {
    setBusy(true);
    await onFreeze(note);
    setNote("");
    setBusy(false);
  };
  return (
    <section className={styles.revisions}>
      <header>
        <h2>{t("wiring.revisions")}</h2>
        <span className="muted">{t("wiring.aJobStaysWithTheOne")}</span>
      </header>
      <div className={styles.pasteRow}>
        <Input
          value={note}
          onChange={(e) => setNote(e.target.value)}
          placeholder={t("wiring.whatIsNewInAFew")}
          maxLength={400}
          onPressEnter={() => void freeze()}
          style={{ flex: "1 1 240px", width: "auto" }}
        />
        <Button type="primary" loading={busy} onClick={() => void freeze()}>
          {t("wiring.saveARevision")}
        </Button>
      </div>
      <ul className={styles.list}>
        {revisions.map((r) => (
          <li key={r.number}>
            <div>
              <b>{t("wiring.revision", { number: r.number })}</b>{" "}
              <span className="muted">
                {new Date(r.at).toLocaleString(readerLocale(), { dateStyle: "medium", timeStyle: "short" })}
              </span>{" "}
              {r.note}
            </div>
            <span>
              {r.number > 1 ? (
                <Button size="small" type="text" onClick={() => void compare(r.number)}>
                  {t("wiring.whatChanged")}
                </Button>
              ) : null}
              <Button size="small" type="text" href={`/api/wirings/${wiringId}/export?as=wiring&revision=${r.number}`}>
                {t("wiring.json")}
              </Button>
            </span>
            {shown?.number === r.number ? (
              <ul className={styles.changes}>
                {shown.changes.length ? (
                  shown.changes.slice(0, 200).map((c) => (
                    <li key={`${c.what} ${c.id}`}>
                      {c.change} {c.what} <b className="mono">{c.id}</b>
                      {c.fields.length ? `: ${fieldsText(c.fields)}` : ""}
                    </li>
                  ))
                ) : (
                  <li>{t("wiring.nothing")}</li>
                )}
              </ul>
            ) : null}
          </li>
        ))}
        {revisions.length === 0 ? <li className="muted">{t("wiring.noneYetStartingAJobSaves")}</li> : null}
      </ul>
    </section>
  );
}

const fieldsText = (fields: z.infer<typeof Changes>["changes"][number]["fields"]) =>
  fields.map((f) => `${f.field} ${f.before || "none"} → ${f.after || "none"}`).join("; ");
