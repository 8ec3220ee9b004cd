import { Board } from "@/features/board/Board";
import { countJobs, listJobs } from "@/server/repo/jobs";
import { wiringChoices } from "@/server/repo/wirings";

export const dynamic = "force-dynamic";

/** So many jobs are drawn at first: more than a workshop has open. Judgement: a page that opens at once. */
const SHOWN_AT_FIRST = 100;

export default async function Page({ searchParams }: { readonly searchParams: Promise<{ readonly all?: string }> }) {
  const { all } = await searchParams;
  const [jobs, count, wirings] = await Promise.all([
    listJobs(all === undefined ? SHOWN_AT_FIRST : undefined),
    countJobs(),
    wiringChoices(),
  ]);
  return <Board jobs={jobs} older={Math.max(0, count - jobs.length)} wirings={wirings} />;
}
