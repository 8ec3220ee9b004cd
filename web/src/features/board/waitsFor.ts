import { DISTURBED_WORDS } from "@radicula/core/words";
import type { JobSummary } from "@/server/repo/jobs";

/** What a job waits for, in two or three words. Something left other than it was found comes before all else. */
export function waitsFor(
  job: Pick<JobSummary, "codes" | "readings" | "verdict" | "open" | "closed" | "unreadable">,
): string {
  if (job.unreadable) return "Damaged";
  if (job.closed) return "Closed";
  if (job.verdict !== null) {
    if (job.open.length === 0) return "Cause found";
    if (job.open.every((d) => d.how === "unplugged")) return `Plug back in: ${job.open.map((d) => d.thing).join(", ")}`;
    return `Restore: ${job.open.map((d) => `${d.thing} ${DISTURBED_WORDS[d.how].still}`).join(", ")}`;
  }
  if (job.codes.length === 0) return "Needs codes";
  return job.readings === 0 ? "First reading" : "Next reading";
}
