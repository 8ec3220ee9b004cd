import type { JobSummary } from "@/server/repo/jobs";

/** What a job waits for, in two or three words. Something left unplugged comes before all else. */
export function waitsFor(job: Pick<JobSummary, "codes" | "readings" | "verdict" | "disturbed">): string {
  if (job.verdict !== null) return job.disturbed.length ? `Plug back in: ${job.disturbed.join(", ")}` : "Cause found";
  if (job.codes.length === 0) return "Waits for codes";
  return job.readings === 0 ? "First reading" : "Next reading";
}
