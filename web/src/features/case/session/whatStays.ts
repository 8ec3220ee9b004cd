import type { Analysis, Recommendation } from "@radicula/core";

/** A first suggestion as it stood on the card, and for how long. */
export interface Shown {
  readonly analysis: Analysis;
  /** ms it was to be seen */
  readonly forMs: number;
  /** a key was pressed or something touched meanwhile: somebody is at that step */
  readonly acted: boolean;
}

/** A first suggestion seen for so long stays on the card: by then somebody may be on the way to that pin. */
export const STAYS_AFTER_MS = 700;

/**
 * The whole answer, with the test first that is on the card already: a card does not change under somebody's hands.
 * One that was acted on stays whatever the whole answer thinks of it; one that was only seen stays where it is still
 * among those worth their time. Neither holds up a verdict.
 */
export function whatStays(full: Analysis, shown: Shown | undefined): Analysis {
  const before = shown?.analysis.next[0];
  if (!shown || !before || full.stage === "proven" || full.stage === "waiting") return full;
  const again = full.next.find((n) => n.candidate.id === before.candidate.id);
  const kept = shown.acted
    ? (again ?? renumbered(before, shown.analysis, full))
    : shown.forMs > STAYS_AFTER_MS && full.stage === shown.analysis.stage
      ? again
      : undefined;
  if (!kept) return full;
  if (kept === full.next[0]) return full;
  return { ...full, again: undefined, next: [kept, ...full.next.filter((n) => n !== kept)] };
}

/** What answers to a step of the first suggestion mean, in the suspects of the whole answer. */
function renumbered(step: Recommendation, first: Analysis, full: Analysis): Recommendation {
  const place = first.suspects.map((s) => full.suspects.findIndex((f) => f.id === s.id));
  return {
    ...step,
    answers: step.answers.map((list) =>
      list.map((a) => ({ ...a, suspects: a.suspects.map((s) => ({ ...s, suspect: place[s.suspect] ?? -1 })) })),
    ),
  };
}

/** Watches what stands on the card until the whole answer comes, and whether somebody acts on it. */
export function watchCard() {
  let shown: { readonly analysis: Analysis; readonly at: number } | undefined;
  let acted = false;
  const act = () => (acted = true);
  const leave = () => ACTS.forEach((name) => window.removeEventListener(name, act, true));
  return {
    /** this is on the card from now on */
    shows(analysis: Analysis) {
      shown = { analysis, at: performance.now() };
      ACTS.forEach((name) => window.addEventListener(name, act, true));
    },
    /** The whole answer as it is to be shown. */
    settles(full: Analysis): Analysis {
      leave();
      return whatStays(full, shown && { analysis: shown.analysis, forMs: performance.now() - shown.at, acted });
    },
    leave,
  };
}
const ACTS = ["pointerdown", "keydown"] as const;
