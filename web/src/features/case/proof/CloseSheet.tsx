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
import { disturbedText } from "../disturbed/DisturbedList";
import { Sheet } from "../Sheet";
import { ChooseOne } from "./ChooseOne";
import styles from "./Proof.module.css";
import { inDays } from "./RepairSheet";

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
    <Sheet open={p.open} onClose={p.onClose} title="Close the job" width={600} keeps>
      {p.left.length ? (
        <div className={styles.form}>
          <p>First restore what is not as it was found: {p.left.map((d) => disturbedText(d, p.namer)).join("; ")}.</p>
          <Button type="primary" size="large" onClick={p.onRestore}>
            Restore
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
            {notPassed ? `${notPassed} of ${proof.steps.length} steps of the proof are not passed. ` : ""}
            {stillWrong(proof.outcome).length ? `Still possible: ${stillWrong(proof.outcome).join("; ")}.` : ""}
          </>
        ) : (
          "No repair was logged, so nothing is proven. Say why the job ends."
        )}
      </p>
      <ChooseOne
        name="because"
        legend="Why it is closed"
        among={CLOSED_BECAUSE}
        words={REASONS}
        chosen={because}
        onChoose={setBecause}
      />
      {because === "notReproduced" && isDangerous ? (
        <p className={styles.cautions}>
          A fault that comes and goes in a brake, throttle, steering or restraint circuit is not fine because it stays
          away. Do not hand the machine back for use: say in the reason who decided what.
        </p>
      ) : null}
      <label>
        {needsNote ? "Reason" : "Note"}
        <Input.TextArea rows={2} maxLength={2000} value={note} onChange={(e) => setNote(e.target.value)} />
      </label>
      <div className={styles.row}>
        <Checkbox checked={follows} onChange={(e) => setFollows(e.target.checked)}>
          Ask again whether it held
        </Checkbox>
        {follows ? (
          <>
            <label>
              On
              <Input type="date" value={on} onChange={(e) => setOn(e.target.value)} />
            </label>
            <label>
              After so many {units.distance}
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
        Close the job
      </Button>
    </div>
  );
}
