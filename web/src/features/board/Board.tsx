import { FindChoice, FindForm } from "@/features/site/FindForm";
import { OpenFile } from "@/features/site/OpenFile";
import { PutAwayMenu } from "@/features/site/PutAwayMenu";
import { SiteHead } from "@/features/site/SiteHead";
import type { JobSort, JobState, JobSummary } from "@/server/repo/jobs";
import Link from "next/link";
import styles from "./Board.module.css";
import { NewJob, type WiringChoice } from "./NewJob";
import { Practise } from "./Practise";
import { SameMachine } from "./SameMachine";
import { waitsFor } from "./waitsFor";
import { t } from "@/messages";
import { worded } from "@radicula/core/words";

const STATES: Readonly<Record<JobState | "", string>> = worded(() => ({
  "": t("board.allJobs"),
  open: t("board.causeOpen"),
  found: t("board.causeFound"),
  closed: t("board.closed"),
  due: t("board.toBeAskedOrDue"),
  archived: t("board.archived"),
  deleted: t("board.deleted"),
}));
const SORTS: Readonly<Record<JobSort, string>> = worded(() => ({
  touched: t("board.lastWorkedOnFirst"),
  started: t("board.newestFirst"),
  machine: t("board.byMachine"),
}));

interface Props {
  readonly jobs: readonly JobSummary[];
  /** how many jobs, older than these, are not drawn yet */
  readonly older: number;
  readonly wirings: readonly WiringChoice[];
  /** what was looked for */
  readonly find: string;
  readonly state: JobState | undefined;
  readonly sort: JobSort;
  /** only this machine's, side by side */
  readonly machine: string | undefined;
}

/** The jobs, and what each waits for. */
export function Board({ jobs, older, wirings, find, state, sort, machine }: Props) {
  const isFiltered = find !== "" || state !== undefined || machine !== undefined;
  const query = { ...(find ? { find } : {}), ...(state ? { state } : {}), ...(machine ? { machine } : {}), sort };
  return (
    <div className={styles.page}>
      <SiteHead here="jobs" />
      <main id="content">
        <div className={styles.title}>
          <h1>{machine === undefined ? t("board.jobs") : t("board.jobsOf", { machine })}</h1>
          <span className={styles.actions}>
            <OpenFile as="job" testId="import" />
            <Practise wirings={wirings} />
            <NewJob wirings={wirings} />
          </span>
        </div>
        <FindForm
          path="/"
          find={find}
          says={t("board.findAMachineAComplaintA")}
          label={t("board.findJobs")}
          isFiltered={isFiltered}
        >
          {machine === undefined ? null : <input type="hidden" name="machine" value={machine} />}
          <FindChoice name="state" label={t("board.howFar")} value={state ?? ""} options={STATES} />
          <FindChoice name="sort" label={t("board.order")} value={sort} options={SORTS} />
        </FindForm>
        {jobs.length === 0 ? (
          <p className={styles.empty}>{nothingHere(isFiltered, state)}</p>
        ) : machine !== undefined ? (
          <SameMachine jobs={jobs} />
        ) : (
          <ul className={styles.list}>
            {jobs.map((job) => (
              <li key={job.id} className={styles.row}>
                <JobLink job={job} />
                <PutAwayMenu
                  kind="jobs"
                  id={job.id}
                  name={job.title}
                  where={job.putAway}
                  {...(job.machine && job.ofMachine > 1
                    ? {
                        machine: {
                          path: `/?machine=${encodeURIComponent(job.machine)}`,
                          label: t("board.allJobsOf", { ofMachine: job.ofMachine, machine: job.machine }),
                        },
                      }
                    : {})}
                />
              </li>
            ))}
          </ul>
        )}
        {older > 0 ? (
          <p>
            <Link href={{ query: { ...query, all: 1 } }} prefetch={false}>
              {t("board.showToo", { count: older })}
            </Link>
          </p>
        ) : null}
      </main>
    </div>
  );
}

function nothingHere(isFiltered: boolean, state: JobState | undefined): string {
  if (state === "archived") return t("board.nothingIsArchived");
  if (state === "deleted") return t("board.nothingIsDeletedDeletedJobsStay");
  return isFiltered ? t("board.noJobFitsLookForFewer") : t("board.noJobsYetStartOneWith");
}

function JobLink({ job }: { readonly job: JobSummary }) {
  return (
    <Link href={`/job/${job.id}`} className={styles.job}>
      <span className={styles.machine}>{job.machine ?? t("board.machineNotNamed")}</span>
      <span className={styles.what}>
        <span className={styles.name}>{job.title}</span>
        {job.complaint ? <span className={styles.complaint}>{job.complaint}</span> : null}
        <span className={styles.codes}>
          {job.codes.map((c) => (
            <span key={c} className="mono">
              {c}
            </span>
          ))}
        </span>
      </span>
      <span className={styles.state}>
        <b data-done={job.verdict !== null} suppressHydrationWarning>
          {waitsFor(job)}
        </b>
        <span className="muted">
          {job.unreadable
            ? t("board.anEntryOfItsLogbookIs")
            : (job.verdict ?? t("board.readingsSoFar", { count: job.readings }))}
          {job.practice ? t("board.simulatedMachine") : ""}
        </span>
        <span className="muted">
          {[(job.lastAt ?? job.createdAt).slice(0, 10), job.lastBy].filter(Boolean).join(" · ")}
        </span>
      </span>
    </Link>
  );
}
