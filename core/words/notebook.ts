import type { HeldBand, Lesson, SeenBefore } from "../src/index.js";
import { REPAIR_WORDS } from "./proof.js";
import { shareText } from "./shares.js";

export const HELD_WORDS: Readonly<Record<Lesson["held"], string>> = {
  notAsked: "not asked yet",
  stillGood: "still good when asked",
  cameBack: "came back",
  somethingElse: "another fault later",
};

/** What helped, in words: "cleaned S14, replaced B7". */
export const workText = (repairs: Lesson["repairs"]): string =>
  repairs.map((r) => `${REPAIR_WORDS[r.how].toLowerCase()} ${r.things.join(", ")}`).join("; ");

/** The cause in one line, or what is known in its place. */
export const causeText = (l: Pick<Lesson, "found" | "repairs">): string =>
  l.found ?? (l.repairs.length ? workText(l.repairs) : "no cause was found");

/** How sure it was, and what became of it: "Proof said 97 % cured, still good when asked". */
export function becameText({ claimed, held, because, repairs }: Lesson): string {
  const proof =
    repairs.length === 0
      ? because === "notReproduced"
        ? "Could not be reproduced"
        : "Not repaired"
      : claimed === undefined
        ? "Repaired, without a proof"
        : `Proof said ${shareText(claimed)} cured`;
  return repairs.length ? `${proof}, ${HELD_WORDS[held]}` : proof;
}

/** A lesson in one line. */
export const lessonText = (l: Lesson): string =>
  `${[l.machine ?? l.wiring, l.codes.join(" ")].filter(Boolean).join(" · ")}: ${causeText(l)}. ${becameText(l)}`;

/** A job like this one, in one line: how like, and what helped. */
export function seenBeforeText({ lesson, alike, isSameWiring }: SeenBefore): string {
  const codes = alike === 1 ? "the same codes" : `${shareText(alike)} of the codes`;
  const where = isSameWiring ? "" : `, on ${lesson.machine ?? lesson.wiring}`;
  return `${lesson.closed}${where}, ${codes}: ${causeText(lesson)}. ${becameText(lesson)}`;
}

const percent = (x: number) => `${Math.round(100 * x)} %`;
/** A band of claims: "90 to 95 %". */
export const bandText = ({ from, to }: Pick<HeldBand, "from" | "to">): string =>
  from === 0 ? `below ${percent(to)}` : to === 1 ? `${percent(from)} or more` : `${percent(from)} to ${percent(to)}`;
