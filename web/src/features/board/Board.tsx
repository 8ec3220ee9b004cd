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

const STATES: Readonly<Record<JobState | "", string>> = {
  "": "All jobs",
  open: "Cause open",
  found: "Cause found",
  closed: "Closed",
  due: "To be asked, or due",
  archived: "Archived",
  deleted: "Deleted",
};
const SORTS: Readonly<Record<JobSort, string>> = {
  touched: "Last worked on first",
  started: "Newest first",
  machine: "By machine",
};

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
          <h1>{machine === undefined ? "Jobs" : `Jobs of ${machine}`}</h1>
          <span className={styles.actions}>
            <OpenFile as="job" testId="import" />
            <Practise wirings={wirings} />
            <NewJob wirings={wirings} />
          </span>
        </div>
        <FindForm
          path="/"
          find={find}
          says="Find a machine, a complaint, a code"
          label="Find jobs"
          isFiltered={isFiltered}
        >
          {machine === undefined ? null : <input type="hidden" name="machine" value={machine} />}
          <FindChoice name="state" label="How far" value={state ?? ""} options={STATES} />
          <FindChoice name="sort" label="Order" value={sort} options={SORTS} />
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
                          label: `All ${job.ofMachine} jobs of ${job.machine}`,
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
              Show {count(older, "more job")} too
            </Link>
          </p>
        ) : null}
      </main>
    </div>
  );
}

function nothingHere(isFiltered: boolean, state: JobState | undefined): string {
  if (state === "archived") return "Nothing is archived.";
  if (state === "deleted") return "Nothing is deleted. Deleted jobs stay here, and can be put back.";
  return isFiltered
    ? "No job fits. Look for fewer words, or show all."
    : "No jobs yet. Start one with what the customer says, or open a file.";
}

function JobLink({ job }: { readonly job: JobSummary }) {
  return (
    <Link href={`/job/${job.id}`} className={styles.job}>
      <span className={styles.machine}>{job.machine ?? "Machine not named"}</span>
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
            ? "An entry of its logbook is damaged"
            : (job.verdict ?? `${count(job.readings, "reading")} so far`)}
          {job.practice ? " · simulated machine" : ""}
        </span>
        <span className="muted">
          {[(job.lastAt ?? job.createdAt).slice(0, 10), job.lastBy].filter(Boolean).join(" · ")}
        </span>
      </span>
    </Link>
  );
}
export const count = (n: number, what: string) => (n === 1 ? `1 ${what}` : `${n === 0 ? "no" : n} ${what}s`);
