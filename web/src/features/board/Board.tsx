import type { JobState, JobSummary } from "@/server/repo/jobs";
import { Logo } from "@/ui/Logo";
import { PersonButton } from "@/features/people/PersonButton";
import { ThemeToggle } from "@/ui/ThemeToggle";
import Link from "next/link";
import styles from "./Board.module.css";
import { Importer } from "./Importer";
import { Practise } from "./Practise";
import { NewJob, type WiringChoice } from "./NewJob";
import { waitsFor } from "./waitsFor";

/** The jobs, and what each waits for. */
export function Board({
  jobs,
  older,
  wirings,
  find,
  state,
}: {
  readonly jobs: readonly JobSummary[];
  /** how many jobs, older than these, are not drawn yet */
  readonly older: number;
  readonly wirings: readonly WiringChoice[];
  /** what was looked for */
  readonly find: string;
  readonly state: JobState | undefined;
}) {
  const isFiltered = find !== "" || state !== undefined;
  return (
    <div className={styles.page}>
      <header className={styles.head}>
        <span className={styles.brand}>
          <Logo /> radicula
        </span>
        <nav className={styles.nav}>
          <b aria-current="page">Jobs</b>
          <Link href="/wirings">Wirings</Link>
          <Link href="/calculators">Calculators</Link>
          <PersonButton />
          <ThemeToggle />
        </nav>
      </header>
      <main className={styles.main}>
        <div className={styles.title}>
          <h1>Jobs</h1>
          <span className={styles.actions}>
            <Importer />
            <Practise wirings={wirings} />
            <NewJob wirings={wirings} />
          </span>
        </div>
        <form className={styles.find} role="search">
          <input
            name="find"
            defaultValue={find}
            placeholder="Find a machine, a complaint, a code"
            aria-label="Find jobs"
            maxLength={120}
          />
          <select name="state" defaultValue={state ?? ""} aria-label="How far">
            <option value="">All jobs</option>
            <option value="open">Cause open</option>
            <option value="found">Cause found</option>
            <option value="closed">Closed</option>
          </select>
          <button type="submit">Find</button>
          {isFiltered ? <Link href="/">Show all</Link> : null}
        </form>
        {jobs.length === 0 ? (
          <p className={styles.empty}>
            {isFiltered
              ? "No job fits. Look for fewer words, or show all."
              : "No jobs yet. Start one with what the customer says, or open a file."}
          </p>
        ) : (
          <ul className={styles.list}>
            {jobs.map((job) => (
              <li key={job.id}>
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
                    <b data-done={job.verdict !== null}>{waitsFor(job)}</b>
                    <span className="muted">
                      {job.unreadable
                        ? "An entry of its logbook is damaged"
                        : (job.verdict ?? `${count(job.readings, "reading")} so far`)}
                      {job.practice ? " · simulated machine" : ""}
                    </span>
                    <span className="muted">{(job.lastAt ?? job.createdAt).slice(0, 10)}</span>
                  </span>
                </Link>
              </li>
            ))}
          </ul>
        )}
        {older > 0 ? (
          <p>
            <Link href={{ query: { ...(find ? { find } : {}), ...(state ? { state } : {}), all: 1 } }} prefetch={false}>
              Show {count(older, "older job")} too
            </Link>
          </p>
        ) : null}
      </main>
    </div>
  );
}
const count = (n: number, what: string) => (n === 1 ? `1 ${what}` : `${n === 0 ? "no" : n} ${what}s`);
