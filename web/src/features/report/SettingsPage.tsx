"use client";
import type { WorkshopSettings } from "@radicula/core";
import { issueText } from "@radicula/core/words";
import { Button, Input, InputNumber, Switch } from "antd";
import { useState } from "react";
import { SiteHead } from "@/features/site/SiteHead";
import { Done, put } from "@/ui/send";
import styles from "./Report.module.css";
import { t } from "@/messages";

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
    setSaid(kept.ok ? t("report.saved") : kept.issues.map(issueText).join(" "));
  };
  return (
    <div className={styles.page}>
      <SiteHead />
      <main id="content">
        <h1>{t("report.workshop")}</h1>
        <p className="muted">{t("report.standsAtTheHeadOfEvery")}</p>
        <form
          className={styles.form}
          onSubmit={(e) => {
            e.preventDefault();
            void save();
          }}
        >
          <label>
            {t("report.name")}
            <Input value={draft.name} maxLength={120} onChange={(e) => change({ name: e.target.value })} />
          </label>
          <label>
            {t("report.address")}
            <Input.TextArea
              rows={2}
              value={draft.address}
              maxLength={400}
              onChange={(e) => change({ address: e.target.value })}
            />
          </label>
          <label>
            {t("report.telephoneMail")}
            <Input value={draft.contact} maxLength={200} onChange={(e) => change({ contact: e.target.value })} />
          </label>
          <div className={styles.row}>
            <label>
              {t("report.currency")}
              <Input
                value={draft.currency}
                maxLength={3}
                style={{ width: 100 }}
                onChange={(e) => change({ currency: e.target.value.toUpperCase() })}
              />
            </label>
            <label>
              {t("report.oneHourOfWorkCosts")}
              <InputNumber
                min={0}
                max={1e6}
                value={draft.labourPerHour ?? null}
                onChange={(v) => number("labourPerHour", v)}
              />
            </label>
            <label>
              {t("report.tax")}
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
            {t("report.closedJobsOfTheSameWiring")}
          </label>
          <Button type="primary" size="large" htmlType="submit">
            {t("report.save")}
          </Button>
          <p role="status">{said}</p>
        </form>
      </main>
    </div>
  );
}
