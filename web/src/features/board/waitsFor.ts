import { DISTURBED_WORDS } from "@radicula/core/words";
import type { JobSummary } from "@/server/repo/jobs";

/** What a job waits for, in two or three words. Something left other than it was found comes before all else. */
export function waitsFor(
  job: Pick<
    JobSummary,
    "codes" | "readings" | "verdict" | "open" | "closed" | "unreadable" | "repaired" | "back" | "due" | "temporary"
  >,
  today = new Date().toISOString().slice(0, 10),
): string {
  if (job.unreadable) return "Damaged";
  if (isDue(job, today)) return job.temporary ? "Temporary repair is due" : "Ask: did it hold?";
  if (job.closed) return "Closed";
  if (job.back) return "Came back";
  if (job.repaired && job.open.length === 0) return "Prove the repair";
  if (job.verdict !== null) {
    if (job.open.length === 0) return "Cause found";
    if (job.open.every((d) => d.how === "unplugged")) return `Plug back in: ${job.open.map((d) => d.thing).join(", ")}`;
    return `Restore: ${job.open.map((d) => `${d.thing} ${DISTURBED_WORDS[d.how].still}`).join(", ")}`;
  }
  if (job.codes.length === 0) return "Needs codes";
  return job.readings === 0 ? "First reading" : "Next reading";
}

/** Whether the day has come on which somebody is to be asked, or a temporary repair is to be made good. */
export const isDue = ({ due }: Pick<JobSummary, "due">, today: string): boolean => due !== null && due <= today;
