import { analyse, Focus, withScannedCodes, type Proof, type ProofStep } from "../src/index.js";
import {
  curedText,
  Instructor,
  issueText,
  Namer,
  proofProgress,
  proofStepText,
  repairDetail,
  repairedText,
  shareText,
  stillWrong,
} from "../words/index.js";
import { loadCase, printJson, type Io } from "./io.js";

const MARKS: Readonly<Record<ProofStep["status"], string>> = {
  open: "[ ]",
  passed: "[x]",
  failed: "[!]",
  leftOut: "[-]",
};

/** The proof of the repairs of a case: how sure it is, and what is still to be done. */
export function proveCommand(file: string, options: { readonly json?: boolean | undefined }, io: Io): void {
  const job = loadCase(file, io);
  const wiring = withScannedCodes(job.wiring, job.entries);
  const { proof, folded, remarks } = analyse(new Focus(wiring).predictor(job.entries), job.entries, { quick: true });
  const namer = new Namer(wiring);
  const instructor = new Instructor(wiring);
  if (options.json) {
    printJson(io, {
      repairs: folded.repairs.map(({ number, entry }) => ({ number, ...entry })),
      proof: proof ? asJson(proof, namer, instructor) : null,
    });
    return;
  }
  if (!proof) {
    io.out(
      folded.repairs.some((r) => r.number === folded.since)
        ? "No code and no reading stands before the repair: there is nothing to prove it by.\n"
        : folded.repairs.length
          ? "The fault came back after the last repair: look for the cause with radicula analyse.\n"
          : "Nothing was repaired yet: a repair is an entry of its own (type repaired).\n",
    );
    return;
  }
  io.out(`${job.title}: ${curedText(proof.outcome).toLowerCase()}, ${shareText(proof.outcome.cured)}\n`);
  for (const r of remarks) io.out(`! ${issueText(r)}\n`);
  io.out("\nRepairs\n");
  for (const { number, entry } of folded.repairs) {
    const detail = repairDetail(entry);
    io.out(`  entry ${number}  ${repairedText(entry, namer)}${detail ? ` (${detail})` : ""}\n`);
  }
  const wrong = stillWrong(proof.outcome);
  if (wrong.length) io.out(`\nWhat could still be wrong\n${wrong.map((w) => `  ${w}\n`).join("")}`);
  io.out(`\nProof: ${proofProgress(proof)}\n`);
  for (const step of proof.steps) printStep(step, namer, instructor, io);
}
function printStep(step: ProofStep, namer: Namer, instructor: Instructor, io: Io): void {
  const { title, proves, disproves, caution } = proofStepText(step, namer, instructor);
  if (caution && step.status === "open") io.out(`      ! ${caution}\n`);
  io.out(`  ${MARKS[step.status]} ${title}${step.number === undefined ? "" : `  (entry ${step.number})`}\n`);
  if (step.again.length) io.out(`      set again: ${step.again.join(", ")}\n`);
  if (step.status !== "open") return;
  if (proves) io.out(`      good: ${proves}\n`);
  if (disproves) io.out(`      bad:  ${disproves}\n`);
}
function asJson(proof: Proof, namer: Namer, instructor: Instructor): unknown {
  return {
    outcome: proof.outcome,
    says: curedText(proof.outcome),
    minutes: proof.minutes,
    steps: proof.steps.map((s) => ({
      ...s,
      number: s.number ?? null,
      text: proofStepText(s, namer, instructor),
    })),
  };
}
