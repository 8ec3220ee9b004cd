"use client";
import type { Analysis, Candidate, Recommendation, RunView, State, Suspect } from "@radicula/core";
import { useEffect, useState } from "react";
import { candidateOf } from "../reading/entries";
import type { Card } from "./useCard";
import { t } from "@/messages";

/** The one next thing, and where it comes from. */
export interface NextStep {
  readonly candidate: Candidate | undefined;
  /** what its answers would mean, as far as that is known */
  readonly recommendation: Recommendation | undefined;
  readonly planned: boolean;
  readonly label: string;
  /** the suspects that its answers number: those of the analysis, or the repairs that a proven group holds */
  readonly suspects: readonly Suspect[];
}

/** One's own choice, else the open run's next step, else the plan's. @param running the open run, unless it waits */
export function useNextStep(
  analysis: Analysis | undefined,
  now: State,
  running: RunView | undefined,
  card: Card,
  weigh: (c: Candidate) => Promise<Recommendation | undefined>,
  working: boolean,
): NextStep {
  const { other } = card;
  const own = other?.reading ? candidateOf(other.reading, now) : undefined;
  const isChosen = (n: Recommendation) => n.candidate.id === other?.offered;
  const narrowing = own ? undefined : analysis?.narrowing?.next.find(isChosen);
  const offered = own ? undefined : (narrowing ?? analysis?.next.find(isChosen));
  const step = own || offered ? undefined : running?.next;
  const planned = own || step ? undefined : (offered ?? analysis?.next[0]);
  const candidate = own ?? step ?? planned?.candidate;
  const weighed = useWeighed(planned ? undefined : candidate, weigh);
  return {
    candidate,
    recommendation: planned ?? weighed,
    planned: planned !== undefined,
    suspects: (narrowing ? analysis?.narrowing?.suspects : analysis?.suspects) ?? [],
    label:
      (narrowing ? t("session.findOutWhich") : labelOf(analysis, other?.reading, planned !== undefined)) +
      // a first suggestion, until looking ahead and the search for several faults are done
      (working && planned ? t("session.stillComparingTests") : ""),
  };
}

function labelOf(
  analysis: Analysis | undefined,
  own: { readonly corrects?: number | undefined } | undefined,
  planned: boolean,
): string {
  if (own) return own.corrects ? t("session.insteadOfEntry", { corrects: own.corrects }) : t("session.anotherReading");
  if (!planned) return t("session.nextStepOfThisTest");
  if (analysis?.again !== undefined) return t("session.onceMoreEntryDoesNotFit", { again: analysis.again });
  return analysis?.stage === "confirming" ? t("session.confirm") : t("session.nextReading");
}

/** What the answers to a step that is not in the plan would mean; worked out aside, and shown when it is there. */
function useWeighed(
  candidate: Candidate | undefined,
  weigh: (c: Candidate) => Promise<Recommendation | undefined>,
): Recommendation | undefined {
  const [found, setFound] = useState<{ readonly of: string; readonly recommendation: Recommendation | undefined }>({
    of: "",
    recommendation: undefined,
  });
  const id = candidate?.id;
  useEffect(() => {
    if (!candidate || id === undefined) return;
    let on = true;
    void weigh(candidate).then(
      (recommendation) => {
        if (on) setFound({ of: id, recommendation });
      },
      () => undefined,
    );
    return () => {
      on = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- a candidate is the same while its id is
  }, [id, weigh]);
  return found.of === id ? found.recommendation : undefined;
}
