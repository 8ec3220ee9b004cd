import type { ScannedCode } from "@radicula/core";
import { worded } from "@radicula/core/words";
import { t } from "@/messages";

/** How a code stands, in a word or two. */
export const STATUS_WORDS: Readonly<Record<ScannedCode["status"], string>> = worded(() => ({
  active: t("scan.active"),
  pending: t("scan.pending"),
  stored: t("scan.stored"),
  intermittent: t("scan.intermittent"),
  absent: t("scan.notSet"),
  notRun: t("scan.notRun"),
}));
