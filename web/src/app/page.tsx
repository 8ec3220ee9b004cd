import { Board } from "@/features/board/Board";
import { listJobs } from "@/server/repo/jobs";
import { wiringChoices } from "@/server/repo/wirings";

export const dynamic = "force-dynamic";

/** So many jobs are drawn at first: more than a workshop has open. Judgement: a page that opens at once. */
const SHOWN_AT_FIRST = 100;

export default async function Page({ searchParams }: { readonly searchParams: Promise<{ readonly all?: string }> }) {
  const { all } = await searchParams;
  const [jobs, wirings] = await Promise.all([listJobs(), wiringChoices()]);
  const newest = all === undefined ? jobs.slice(0, SHOWN_AT_FIRST) : jobs;
  return <Board jobs={newest} older={jobs.length - newest.length} wirings={wirings} />;
}
