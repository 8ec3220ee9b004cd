import type { HeldBand, Lesson, SeenBefore } from "../src/index.js";
import { REPAIR_WORDS } from "./proof.js";
import { shareText } from "./shares.js";
import { t } from "./messages/index.js";
import { midSentence, worded } from "./language.js";

export const HELD_WORDS: Readonly<Record<Lesson["held"], string>> = worded(() => ({
  notAsked: t("notebook.notAskedYet"),
  stillGood: t("notebook.stillGoodWhenAsked"),
  cameBack: t("notebook.cameBack"),
  somethingElse: t("notebook.anotherFaultLater"),
}));

/** What helped, in words: "cleaned S14, replaced B7". */
export const workText = (repairs: Lesson["repairs"]): string =>
  repairs.map((r) => `${midSentence(REPAIR_WORDS[r.how])} ${r.things.join(", ")}`).join("; ");

/** The cause in one line, or what is known in its place. */
export const causeText = (l: Pick<Lesson, "found" | "repairs">): string =>
  l.found ?? (l.repairs.length ? workText(l.repairs) : t("notebook.noCauseWasFound"));

/** How sure it was, and what became of it: "Proof said 97 % cured, still good when asked". */
export function becameText({ claimed, held, because, repairs }: Lesson): string {
  const proof =
    repairs.length === 0
      ? because === "notReproduced"
        ? t("notebook.couldNotBeReproduced")
        : t("notebook.notRepaired")
      : claimed === undefined
        ? t("notebook.repairedWithoutAProof")
        : t("notebook.proofSaidCured", { share: shareText(claimed) });
  return repairs.length ? `${proof}, ${HELD_WORDS[held]}` : proof;
}

/** A lesson in one line. */
export const lessonText = (l: Lesson): string =>
  `${[l.machine ?? l.wiring, l.codes.join(" ")].filter(Boolean).join(" · ")}: ${causeText(l)}. ${becameText(l)}`;

/** A job like this one, in one line: how like, and what helped. */
export function seenBeforeText({ lesson, alike, isSameWiring }: SeenBefore): string {
  const codes = alike === 1 ? t("notebook.theSameCodes") : t("notebook.ofTheCodes", { share: shareText(alike) });
  const where = isSameWiring ? "" : t("notebook.on", { machine: lesson.machine ?? lesson.wiring });
  return `${lesson.closed}${where}, ${codes}: ${causeText(lesson)}. ${becameText(lesson)}`;
}

const percent = (x: number) => `${Math.round(100 * x)} %`;
/** A band of claims: "90 to 95 %". */
export const bandText = ({ from, to }: Pick<HeldBand, "from" | "to">): string =>
  from === 0
    ? t("notebook.below", { percent: percent(to) })
    : to === 1
      ? t("notebook.orMore", { percent: percent(from) })
      : t("notebook.to", { percent: percent(from), percent2: percent(to) });
