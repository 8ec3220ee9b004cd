"use client";
import type { DraftState } from "./useDraft";
import { Button, Input, Select, type InputRef } from "antd";
import Link from "next/link";
import type { RefObject } from "react";
import { Logo } from "@/ui/Logo";
import { PersonButton } from "@/features/people/PersonButton";
import { HeadLinks } from "@/features/site/SiteHead";
import { ThemeToggle } from "@/ui/ThemeToggle";
import type { Bench } from "./useBench";
import styles from "./Workbench.module.css";

const SAVE_WORDS: Readonly<Record<DraftState, string>> = {
  saved: "Saved",
  saving: "Saving…",
  waiting: "Not saved yet: kept on this device",
  stale: "Changed in another window",
  refused: "Not saved: the server refuses it",
};

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
      <Link href="/" className={styles.brand} aria-label="Radicula: all jobs">
        <Logo /> radicula
      </Link>
      <h1>
        <Input
          variant="borderless"
          size="small"
          aria-label="Name of the wiring"
          value={chart.name}
          placeholder="Name of the wiring"
          maxLength={120}
          onChange={(e) => change((c) => ({ ...c, name: e.target.value }))}
          style={{
            width: `${Math.min(30, Math.max(12, (chart.name || "New wiring").length * 0.95 + 1))}ch`,
            fontWeight: 700,
          }}
        />
      </h1>
      <Input
        variant="borderless"
        size="small"
        aria-label="Machine type"
        value={chart.machineType}
        placeholder="machine type"
        maxLength={80}
        onChange={(e) => change((c) => ({ ...c, machineType: e.target.value }))}
        style={{ width: 150 }}
      />
      <Select
        size="small"
        variant="borderless"
        aria-label="Nominal voltage"
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
          placeholder="Find name, colour, code"
          aria-label="Find"
          value={find}
          onChange={(e) => setFind(e.target.value)}
          onPressEnter={nextFound}
          style={{ width: 190 }}
        />
        <HeadLinks />
        <PersonButton />
        <ThemeToggle />
        {job ? (
          <Button type="primary" loading={going} onClick={() => void toJob()} title="Ctrl Enter">
            {job.started ? "Back to the job" : "To the codes"}
          </Button>
        ) : null}
      </span>
    </header>
  );
}
