import { DISTURBED_WORDS } from "@radicula/core/words";
import type { JobSummary } from "@/server/repo/jobs";
import { t } from "@/messages";

/** What a job waits for, in two or three words. Something left other than it was found comes before all else. */
export function waitsFor(
  job: Pick<
    JobSummary,
    "codes" | "readings" | "verdict" | "open" | "closed" | "unreadable" | "repaired" | "back" | "due" | "temporary"
  >,
  today = new Date().toISOString().slice(0, 10),
): string {
  if (job.unreadable) return t("board.damaged");
  if (isDue(job, today)) return job.temporary ? t("board.temporaryRepairIsDue") : t("board.askDidItHold");
  if (job.closed) return t("board.closed");
  if (job.back) return t("board.cameBack");
  if (job.repaired && job.open.length === 0) return t("board.proveTheRepair");
  if (job.verdict !== null) {
    if (job.open.length === 0) return t("board.causeFound");
    if (job.open.every((d) => d.how === "unplugged"))
      return t("board.plugBackIn", { open: job.open.map((d) => d.thing).join(", ") });
    return t("board.restore", { open: job.open.map((d) => `${d.thing} ${DISTURBED_WORDS[d.how].still}`).join(", ") });
  }
  if (job.codes.length === 0 && job.readings === 0) return t("board.needsCodes");
  return job.readings === 0 ? t("board.firstReading") : t("board.nextReading");
}

/** Whether the day has come on which somebody is to be asked, or a temporary repair is to be made good. */
export const isDue = ({ due }: Pick<JobSummary, "due">, today: string): boolean => due !== null && due <= today;
