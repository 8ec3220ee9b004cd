"use client";
import { Button, type MenuProps } from "antd";
import Link from "next/link";
import { Logo } from "@/ui/Logo";
import { PersonButton } from "@/features/people/PersonButton";
import { HeadLinks } from "@/features/site/HeadLinks";
import { MenuButton } from "@/ui/MenuButton";
import { ThemeToggle } from "@/ui/ThemeToggle";
import styles from "./Case.module.css";
import { SavedWord } from "./SaveNote";
import { useCase } from "./session/caseContext";
import { Steps } from "./Steps";
import { t } from "@/messages";

/** Which job, where it stands, and what can be opened beside the next reading. */
export function CaseHead() {
  const { job, log, analysis, folded, sheets, workbench } = useCase();
  return (
    <header className={styles.head}>
      <Link href="/" prefetch={false} className={styles.brand} aria-label={t("job.radiculaAllJobs")}>
        <Logo /> {t("job.radicula")}
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
          <Link href={workbench} prefetch={false} className={styles.tool}>
            {t("job.thisWiring")}
          </Link>
        ) : null}
        <MenuButton
          items={useMore()}
          button={(onClick) => (
            <Button type="text" aria-haspopup="menu" onClick={onClick}>
              {t("job.more")}
            </Button>
          )}
        />
        <Button type="text" onClick={() => sheets.open("help")} aria-label={t("job.keysAndHelp")}>
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
      {t("job.calculators")}
    </Link>
  );
  const asFound = open.length
    ? t("job.restoreBeforeClosing", { openCount: open.length })
    : t("job.restoreBeforeClosing2");
  const same = job.machine && job.others ? t("job.otherJobsOfThisMachine", { others: job.others }) : "";
  return [
    ...(same && job.machine
      ? [{ key: "same", label: <Link href={`/?machine=${encodeURIComponent(job.machine)}`}>{same}</Link> }]
      : []),
    { key: "before", label: t("job.seenBefore"), onClick: () => sheets.open("before") },
    { key: "runs", label: t("job.guidedTests"), onClick: () => sheets.open("runs") },
    { key: "watch", label: t("job.moveOnePlaceAtATime"), onClick: () => sheets.open("watch") },
    { key: "recording", label: t("job.recording"), onClick: () => sheets.open("recording") },
    { key: "disturbed", label: asFound, onClick: () => sheets.open("disturbed") },
    { key: "repair", label: t("job.logARepair"), onClick: () => sheets.open("repair") },
    { key: "report", label: <Link href={`/job/${job.id}/report`}>{t("job.report")}</Link> },
    { key: "meter", label: t("job.checkTheMeter"), onClick: () => sheets.open("meter") },
    { key: "seen", label: t("job.seenOnTheMachine"), onClick: () => sheets.open("seen") },
    { key: "other", label: t("job.anotherReading"), onClick: () => sheets.open("other") },
    { key: "calculators", label: calculators },
    { key: "bench", label: t("job.practiseOnThisMachine"), onClick: () => sheets.open("bench") },
    { key: "json", label: <a href={`/api/jobs/${job.id}/export`}>{t("job.saveTheJobJson")}</a> },
    { key: "zip", label: <a href={`/api/jobs/${job.id}/export?as=zip`}>{t("job.saveTheJobWithPhotosZip")}</a> },
  ];
}
