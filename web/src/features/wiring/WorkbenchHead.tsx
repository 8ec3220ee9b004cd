"use client";
import type { DraftState } from "./useDraft";
import { Button, Input, Select, type InputRef } from "antd";
import Link from "next/link";
import type { RefObject } from "react";
import { Logo } from "@/ui/Logo";
import { PersonButton } from "@/features/people/PersonButton";
import { HeadLinks } from "@/features/site/HeadLinks";
import { ThemeToggle } from "@/ui/ThemeToggle";
import type { Bench } from "./useBench";
import styles from "./Workbench.module.css";
import { t } from "@/messages";
import { worded } from "@radicula/core/words";

const SAVE_WORDS: Readonly<Record<DraftState, string>> = worded(() => ({
  saved: t("wiring.saved"),
  saving: t("wiring.saving"),
  waiting: t("wiring.notSavedYetKeptOnThis"),
  stale: t("wiring.changedInAnotherWindow"),
  refused: t("wiring.notSavedTheServerRefusesIt"),
}));

/** Names of the wiring, whether it is saved, and the way back to the job. */
export function WorkbenchHead({
  bench,
  finder,
}: {
  readonly bench: Bench;
  readonly finder: RefObject<InputRef | null>;
}) {
  const { chart, change, draft, job, find, setFind, nextFound, going, toJob } = bench;
  return (
    <header className={styles.head}>
      <Link href="/" className={styles.brand} aria-label={t("wiring.radiculaAllJobs")}>
        <Logo /> {t("wiring.radicula")}
      </Link>
      <h1>
        <Input
          variant="borderless"
          size="small"
          aria-label={t("wiring.nameOfTheWiring")}
          value={chart.name}
          placeholder={t("wiring.nameOfTheWiring")}
          maxLength={120}
          onChange={(e) => change((c) => ({ ...c, name: e.target.value }))}
          style={{
            width: `${Math.min(30, Math.max(12, (chart.name || t("wiring.newWiring")).length * 0.95 + 1))}ch`,
            fontWeight: 700,
          }}
        />
      </h1>
      <Input
        variant="borderless"
        size="small"
        aria-label={t("wiring.machineType")}
        value={chart.machineType}
        placeholder={t("wiring.machineType2")}
        maxLength={80}
        onChange={(e) => change((c) => ({ ...c, machineType: e.target.value }))}
        style={{ width: 150 }}
      />
      <Select
        size="small"
        variant="borderless"
        aria-label={t("wiring.nominalVoltage")}
        value={chart.nominalVolt}
        onChange={(v: 12 | 24) => change((c) => ({ ...c, nominalVolt: v }))}
        options={[
          { value: 12, label: "12 V" },
          { value: 24, label: "24 V" },
        ]}
      />
      <span className="muted" role="status" data-state={draft.state}>
        {SAVE_WORDS[draft.state]}
      </span>
      <span className={styles.tools}>
        <Input
          ref={finder}
          size="small"
          allowClear
          placeholder={t("wiring.findNameColourCode")}
          aria-label={t("wiring.find")}
          value={find}
          onChange={(e) => setFind(e.target.value)}
          onPressEnter={nextFound}
          style={{ width: 190 }}
        />
        <HeadLinks />
        <PersonButton />
        <ThemeToggle />
        {job ? (
          <Button type="primary" loading={going} onClick={() => void toJob()} title={t("wiring.ctrlEnter")}>
            {job.started ? t("wiring.backToTheJob") : t("wiring.toTheCodes")}
          </Button>
        ) : null}
      </span>
    </header>
  );
}
