"use client";
import type { Candidate, Wiring } from "@radicula/core";
import { Calculators } from "@/features/calculators/Calculators";
import { Sheet } from "../Sheet";
import { sumFor } from "./sums";
import { t } from "@/messages";

/** The calculators over the case, the one this step needs first and filled in. */
export function SumSheet({
  open,
  wiring,
  candidate,
  onClose,
}: {
  readonly open: boolean;
  readonly wiring: Wiring;
  readonly candidate: Candidate | undefined;
  readonly onClose: () => void;
}) {
  return (
    <Sheet open={open} onClose={onClose} title={t("reading.workItOut")} width={780}>
      <Calculators first={candidate ? sumFor(wiring, candidate) : undefined} />
    </Sheet>
  );
}
