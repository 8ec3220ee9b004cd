import type { Analysis, Outcome, ProvenKind, Repair } from "../src/index.js";
import type { Namer } from "./faults.js";
import { CONDUCTORS } from "./readings.js";
import { t } from "./messages/index.js";
import { worded } from "./language.js";

/** A verdict in words: what is proven, and what is still open. */
export interface OutcomeText {
  readonly proven: string;
  /** how many repairs are open; empty where there is one */
  readonly open: string;
}

const KINDS: Readonly<Record<ProvenKind, (conductor: string) => string>> = {
  open: (c) => t("outcome.openCircuitInThe", { c }),
  resistive: (c) => t("outcome.highResistanceInThe", { c }),
  toChassis: (c) => t("outcome.theIsShortedToGround", { c }),
  toSupply: (c) => t("outcome.theIsShortedToASupply", { c }),
};
const ONLY_KIND: Readonly<Record<ProvenKind, string>> = worded(() => ({
  open: t("outcome.openCircuit"),
  resistive: t("outcome.highResistance"),
  toChassis: t("outcome.shortToGround"),
  toSupply: t("outcome.shortToASupply"),
}));

export function outcomeText(outcome: Outcome, namer: Namer): OutcomeText {
  const [only] = outcome.repairs;
  if (outcome.isOneRepair && only) return { proven: repairName(only, namer), open: "" };
  const { kind, conductor, part, repairs } = outcome;
  const where = conductor && t("outcome.at", { use: CONDUCTORS[conductor.use], point: namer.point(conductor.point) });
  const proven =
    kind && where
      ? KINDS[kind](where)
      : kind
        ? ONLY_KIND[kind]
        : where
          ? t("outcome.aFaultInThe", { where })
          : part
            ? t("outcome.aFaultInTheCircuitOf", { device: namer.device(part) })
            : t("outcome.aFaultAtOneOfThese");
  return { proven, open: t("outcome.oneOfRepairs", { repairsCount: repairs.length }) };
}

/** Whether one of several repairs is meant, and nobody knows which. */
export const isOneOfSeveral = ({ outcome, suspects }: Pick<Analysis, "outcome" | "suspects">): boolean =>
  outcome?.isOneRepair === false && suspects[0]?.type === "fault";

/** What a verdict on the leading suspect says: the repair, or what several repairs have in common. */
export function verdictText(
  analysis: Pick<Analysis, "outcome" | "suspects" | "narrowing">,
  namer: Namer,
): { readonly title: string; readonly detail: string } {
  const { outcome, suspects } = analysis;
  const isOneOf = isOneOfSeveral(analysis);
  const notAll = outcome?.isNotAll ? t("outcome.notTheOnlyFaultTheNext") : "";
  if (notAll && !isOneOf)
    return { title: outcome!.repairs.map((r) => repairName(r, namer)).join(t("faults.andJoin")), detail: notAll };
  if (!outcome || !isOneOf) return namer.suspect(suspects[0]!);
  const { proven, open } = outcomeText(outcome, namer);
  const apart = analysis.narrowing ? open : t("outcome.noSingleTestCanSeparateThem", { open });
  return { title: proven, detail: notAll ? t("outcome.both", { apart, notAll }) : apart };
}

/** One repair in full: every fault that it mends. */
export const repairName = ({ faults }: Repair, namer: Namer): string =>
  faults.map((f) => namer.fault(f)).join(t("faults.andJoin"));
