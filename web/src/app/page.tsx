import { cutText } from "@radicula/core";
import { z } from "zod";
import { Board } from "@/features/board/Board";
import { countJobs, JOB_SORTS, JOB_STATES, listJobs } from "@/server/repo/jobs";
import { wiringChoices } from "@/server/repo/wirings";
import { isSaveable } from "@/server/saveable";

export const dynamic = "force-dynamic";

/** So many jobs are drawn at first: more than a workshop has open. Judgement: a page that opens at once. */
const SHOWN_AT_FIRST = 100;
const LONGEST_FIND = 120;
const words = z
  .string()
  .refine(isSaveable)
  .transform((t) => cutText(t, LONGEST_FIND))
  .optional()
  .catch(undefined);
/** What the address asks for; what it cannot mean is left out. */
const Query = z.object({
  all: z.string().optional().catch(undefined),
  find: words,
  machine: words,
  state: z.enum(JOB_STATES).optional().catch(undefined),
  sort: z.enum(JOB_SORTS).optional().catch(undefined),
});

export default async function Page({ searchParams }: { readonly searchParams: Promise<unknown> }) {
  const { all, find = "", state, machine, sort = "touched" } = Query.parse(await searchParams);
  const wanted = { find, state, machine, sort };
  const [jobs, count, wirings] = await Promise.all([
    listJobs(all === undefined ? SHOWN_AT_FIRST : undefined, wanted),
    countJobs(wanted),
    wiringChoices(),
  ]);
  return <Board {...wanted} jobs={jobs} older={Math.max(0, count - jobs.length)} wirings={wirings} />;
}
