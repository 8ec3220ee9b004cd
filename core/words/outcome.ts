import type { Analysis, Outcome, ProvenKind, Repair } from "../src/index.js";
import type { Namer } from "./faults.js";
import { CONDUCTORS } from "./readings.js";

/** A verdict in words: what is proven, and what is still open. */
export interface OutcomeText {
  readonly proven: string;
  /** how many repairs are open; empty where there is one */
  readonly open: string;
}

const KINDS: Readonly<Record<ProvenKind, (conductor: string) => string>> = {
  open: (c) => `Open circuit in the ${c}`,
  resistive: (c) => `High resistance in the ${c}`,
  toChassis: (c) => `The ${c} is shorted to ground`,
  toSupply: (c) => `The ${c} is shorted to a supply`,
};
const ONLY_KIND: Readonly<Record<ProvenKind, string>> = {
  open: "Open circuit",
  resistive: "High resistance",
  toChassis: "Short to ground",
  toSupply: "Short to a supply",
};

export function outcomeText(outcome: Outcome, namer: Namer): OutcomeText {
  const [only] = outcome.repairs;
  if (outcome.isOneRepair && only) return { proven: repairName(only, namer), open: "" };
  const { kind, conductor, part, repairs } = outcome;
  const where = conductor && `${CONDUCTORS[conductor.use]} at ${namer.point(conductor.point)}`;
  const proven =
    kind && where
      ? KINDS[kind](where)
      : kind
        ? ONLY_KIND[kind]
        : where
          ? `A fault in the ${where}`
          : part
            ? `A fault in the circuit of ${namer.device(part)}`
            : "A fault at one of these places";
  return { proven, open: `one of ${repairs.length} repairs` };
}

/** Whether one of several repairs is meant, and nobody knows which. */
export const isOneOfSeveral = ({ outcome, suspects }: Pick<Analysis, "outcome" | "suspects">): boolean =>
  outcome?.isOneRepair === false && !outcome.isNotAll && suspects[0]?.type === "fault";

/** What a verdict on the leading suspect says: the repair, or what several repairs have in common. */
export function verdictText(
  analysis: Pick<Analysis, "outcome" | "suspects" | "narrowing">,
  namer: Namer,
): { readonly title: string; readonly detail: string } {
  const { outcome, suspects } = analysis;
  if (outcome?.isNotAll)
    return {
      title: outcome.repairs.map((r) => repairName(r, namer)).join(", and "),
      detail: "not the only fault: the next scan shows what is left",
    };
  if (!outcome || !isOneOfSeveral(analysis)) return namer.suspect(suspects[0]!);
  const { proven, open } = outcomeText(outcome, namer);
  return { title: proven, detail: analysis.narrowing ? open : `${open}; no single test can separate them` };
}

/** One repair in full: every fault that it mends. */
export const repairName = ({ faults }: Repair, namer: Namer): string =>
  faults.map((f) => namer.fault(f)).join(", and ");
