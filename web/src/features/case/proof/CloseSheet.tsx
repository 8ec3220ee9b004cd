"use client";
import {
  CLOSED_BECAUSE,
  ENGINE_VERSION,
  fromPreferred,
  type ClosedEntry,
  type Disturbed,
  type Proof,
} from "@radicula/core";
import { useUnits } from "@/ui/Units";
import {
  CLOSED_WORDS,
  curedText,
  frozenProof,
  shareText,
  stillWrong,
  type Instructor,
  type Namer,
} from "@radicula/core/words";
import { Button, Checkbox, Input, InputNumber } from "antd";
import { useState } from "react";
import { capital } from "@/ui/text";
import { disturbedText } from "../disturbed/disturbedText";
import { Sheet } from "../Sheet";
import { ChooseOne } from "./ChooseOne";
import styles from "./Proof.module.css";
import { inDays } from "./RepairSheet";
import { t } from "@/messages";

interface Props {
  readonly open: boolean;
  readonly namer: Namer;
  readonly instructor: Instructor;
  readonly proof: Proof | undefined;
  /** by when a temporary repair comes back */
  readonly temporary: string | undefined;
  /** the fault comes and goes, and the circuit is one that must not fail */
  readonly isDangerous: boolean;
  /** what is not as it was found */
  readonly left: readonly Disturbed[];
  readonly onLog: (entry: ClosedEntry) => void;
  readonly onRestore: () => void;
  readonly onClose: () => void;
}
type Because = NonNullable<ClosedEntry["because"]>;
const REASONS = Object.fromEntries(CLOSED_BECAUSE.map((b) => [b, capital(CLOSED_WORDS[b])])) as Record<Because, string>;
/** From here on a repair may be called proven, once every step of its proof is passed. */
const PROVEN_FROM = 0.9;
const DAYS_TO_FOLLOW_UP = 28;

/** Closing a job: with the proof, or with a reason. */
export function CloseSheet(p: Props) {
  return (
    <Sheet open={p.open} onClose={p.onClose} title={t("proof.closeTheJob")} width={600} keeps>
      {p.left.length ? (
        <div className={styles.form}>
          <p>{t("proof.firstRestoreWhatIsNotAs", { left: p.left.map((d) => disturbedText(d, p.namer)).join("; ") })}</p>
          <Button type="primary" size="large" onClick={p.onRestore}>
            {t("proof.restore")}
          </Button>
        </div>
      ) : (
        <CloseForm {...p} />
      )}
    </Sheet>
  );
}

function CloseForm({ namer, instructor, proof, temporary, isDangerous, onLog }: Props) {
  const notPassed = proof?.steps.filter((s) => s.status !== "passed").length ?? 0;
  const isProven =
    proof !== undefined && proof.outcome.cured >= PROVEN_FROM && notPassed === 0 && temporary === undefined;
  const [chosen, setBecause] = useState<Because | undefined>(undefined);
  const because = chosen ?? (temporary === undefined ? (isProven ? "proven" : undefined) : "temporary");
  const [note, setNote] = useState("");
  const [follows, setFollows] = useState(true);
  const [on, setOn] = useState(temporary ?? inDays(DAYS_TO_FOLLOW_UP));
  const units = useUnits();
  const [km, setKm] = useState<number | null>(null);
  const needsNote =
    because === "other" ||
    (because === "proven" && !isProven) ||
    (because !== undefined && isDangerous && because === "notReproduced");
  const ready = because !== undefined && (!needsNote || note.trim() !== "") && (!follows || on !== "");
  return (
    <div className={styles.form}>
      <p>
        {proof ? (
          <>
            <b>{curedText(proof.outcome)}</b>, {shareText(proof.outcome.cured)}.{" "}
            {notPassed ? t("proof.ofStepsOfTheProofAre", { notPassed, stepsCount: proof.steps.length }) : ""}
            {stillWrong(proof.outcome).length
              ? t("proof.stillPossible", { stillWrong: stillWrong(proof.outcome).join("; ") })
              : ""}
          </>
        ) : (
          t("proof.noRepairWasLoggedSoNothing")
        )}
      </p>
      <ChooseOne
        name="because"
        legend={t("proof.whyItIsClosed")}
        among={CLOSED_BECAUSE}
        words={REASONS}
        chosen={because}
        onChoose={setBecause}
      />
      {because === "notReproduced" && isDangerous ? (
        <p className={styles.cautions}>{t("proof.aFaultThatComesAndGoes")}</p>
      ) : null}
      <label>
        {needsNote ? t("proof.reason") : t("proof.note")}
        <Input.TextArea rows={2} maxLength={2000} value={note} onChange={(e) => setNote(e.target.value)} />
      </label>
      <div className={styles.row}>
        <Checkbox checked={follows} onChange={(e) => setFollows(e.target.checked)}>
          {t("proof.askAgainWhetherItHeld")}
        </Checkbox>
        {follows ? (
          <>
            <label>
              {t("proof.on")}
              <Input type="date" value={on} onChange={(e) => setOn(e.target.value)} />
            </label>
            <label>
              {t("proof.afterSoMany", { distance: units.distance })}
              <InputNumber min={1} max={1e6} value={km} onChange={setKm} />
            </label>
          </>
        ) : null}
      </div>
      <Button
        type="primary"
        size="large"
        block
        disabled={!ready}
        onClick={() =>
          onLog({
            type: "closed",
            at: new Date().toISOString(),
            because: because!,
            engine: ENGINE_VERSION,
            ...(proof ? { proof: frozenProof(proof, namer, instructor) } : {}),
            ...(note.trim() ? { note: note.trim() } : {}),
            ...(follows && on
              ? { followUp: { on, ...(km ? { km: fromPreferred(String(km), "km", units)! } : {}) } }
              : {}),
          })
        }
      >
        {t("proof.closeTheJob")}
      </Button>
    </div>
  );
}
