"use client";
import type { WorkshopSettings } from "@radicula/core";
import { issueText } from "@radicula/core/words";
import { Button, Input, InputNumber, Switch } from "antd";
import { useState } from "react";
import { SiteHead } from "@/features/site/SiteHead";
import { Done, put } from "@/ui/send";
import styles from "./Report.module.css";

/** What the workshop puts on its reports and counts with. */
export function SettingsPage({ settings }: { readonly settings: WorkshopSettings }) {
  const [draft, setDraft] = useState(settings);
  const [said, setSaid] = useState<string | undefined>(undefined);
  const change = (part: Partial<WorkshopSettings>) => {
    setDraft((d) => ({ ...d, ...part }));
    setSaid(undefined);
  };
  const number = (field: "labourPerHour" | "taxPercent", value: number | null) => {
    const next = { ...draft };
    if (value === null) delete next[field];
    else next[field] = value;
    setDraft(next);
    setSaid(undefined);
  };
  const save = async () => {
    const kept = await put("/api/settings", draft, Done);
    setSaid(kept.ok ? "Saved." : kept.issues.map(issueText).join(" "));
  };
  return (
    <div className={styles.page}>
      <SiteHead />
      <main id="content">
        <h1>Workshop</h1>
        <p className="muted">Stands at the head of every report, and is what times and parts are counted with.</p>
        <form
          className={styles.form}
          onSubmit={(e) => {
            e.preventDefault();
            void save();
          }}
        >
          <label>
            Name
            <Input value={draft.name} maxLength={120} onChange={(e) => change({ name: e.target.value })} />
          </label>
          <label>
            Address
            <Input.TextArea
              rows={2}
              value={draft.address}
              maxLength={400}
              onChange={(e) => change({ address: e.target.value })}
            />
          </label>
          <label>
            Telephone, mail
            <Input value={draft.contact} maxLength={200} onChange={(e) => change({ contact: e.target.value })} />
          </label>
          <div className={styles.row}>
            <label>
              Currency
              <Input
                value={draft.currency}
                maxLength={3}
                style={{ width: 100 }}
                onChange={(e) => change({ currency: e.target.value.toUpperCase() })}
              />
            </label>
            <label>
              One hour of work costs
              <InputNumber
                min={0}
                max={1e6}
                value={draft.labourPerHour ?? null}
                onChange={(v) => number("labourPerHour", v)}
              />
            </label>
            <label>
              Tax, %
              <InputNumber
                min={0}
                max={100}
                value={draft.taxPercent ?? null}
                onChange={(v) => number("taxPercent", v)}
              />
            </label>
          </div>
          <label className={styles.choice}>
            <Switch checked={draft.useLessons} onChange={(useLessons) => change({ useLessons })} />
            Closed jobs of the same wiring count in new jobs from the start
          </label>
          <Button type="primary" size="large" htmlType="submit">
            Save
          </Button>
          <p role="status">{said}</p>
        </form>
      </main>
    </div>
  );
}
