"use client";
import { Button, type MenuProps } from "antd";
import Link from "next/link";
import { Logo } from "@/ui/Logo";
import { PersonButton } from "@/features/people/PersonButton";
import { HeadLinks } from "@/features/site/SiteHead";
import { MenuButton } from "@/ui/MenuButton";
import { ThemeToggle } from "@/ui/ThemeToggle";
import styles from "./Case.module.css";
import { SavedWord } from "./SaveNote";
import { useCase } from "./session/caseContext";
import { Steps } from "./Steps";

/** Which job, where it stands, and what can be opened beside the next reading. */
export function CaseHead() {
  const { job, log, analysis, folded, sheets, workbench } = useCase();
  return (
    <header className={styles.head}>
      <Link href="/" className={styles.brand} aria-label="Radicula: all jobs">
        <Logo /> radicula
      </Link>
      <h1 className={styles.job} title={job.title}>
        <b>{job.machine ?? job.title}</b>
        {job.machine ? <span className="muted"> · {job.title}</span> : null}
      </h1>
      <SavedWord state={log.state} />
      <Steps
        stage={analysis?.stage}
        folded={folded}
        onIntake={() => sheets.open("intake")}
        onScan={() => sheets.open("codes")}
        onRepair={() => sheets.open("repair")}
      />
      <span className={styles.tools}>
        <HeadLinks />
        {workbench ? (
          <Link href={workbench} className={styles.tool}>
            This wiring
          </Link>
        ) : null}
        <MenuButton
          items={useMore()}
          button={(onClick) => (
            <Button type="text" aria-haspopup="menu" onClick={onClick}>
              More
            </Button>
          )}
        />
        <Button type="text" onClick={() => sheets.open("help")} aria-label="Keys and help">
          ?
        </Button>
        <PersonButton />
        <ThemeToggle />
      </span>
    </header>
  );
}

function useMore(): MenuProps["items"] {
  const { job, sheets, open } = useCase();
  const calculators = (
    <Link href="/calculators" target="_blank">
      Calculators
    </Link>
  );
  const asFound = open.length ? `Restore before closing (${open.length})` : "Restore before closing";
  const same = job.machine && job.others ? `Other jobs of this machine (${job.others})` : "";
  return [
    ...(same && job.machine
      ? [{ key: "same", label: <Link href={`/?machine=${encodeURIComponent(job.machine)}`}>{same}</Link> }]
      : []),
    { key: "before", label: "Seen before", onClick: () => sheets.open("before") },
    { key: "runs", label: "Guided tests", onClick: () => sheets.open("runs") },
    { key: "watch", label: "Move one place at a time", onClick: () => sheets.open("watch") },
    { key: "disturbed", label: asFound, onClick: () => sheets.open("disturbed") },
    { key: "repair", label: "Log a repair", onClick: () => sheets.open("repair") },
    { key: "report", label: <Link href={`/job/${job.id}/report`}>Report</Link> },
    { key: "meter", label: "Check the meter", onClick: () => sheets.open("meter") },
    { key: "seen", label: "Seen on the machine", onClick: () => sheets.open("seen") },
    { key: "other", label: "Another reading", onClick: () => sheets.open("other") },
    { key: "calculators", label: calculators },
    { key: "bench", label: "Practise on this machine", onClick: () => sheets.open("bench") },
    { key: "json", label: <a href={`/api/jobs/${job.id}/export`}>Save the job (JSON)</a> },
    { key: "zip", label: <a href={`/api/jobs/${job.id}/export?as=zip`}>Save the job with photos, zip</a> },
  ];
}
