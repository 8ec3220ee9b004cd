import {
  analyse,
  Focus,
  runTests,
  withScannedCodes,
  type Analysis,
  type Answer,
  type Recommendation,
  type Suspect,
  type SuspectView,
} from "../src/index.js";
import {
  curedText,
  feedText,
  Instructor,
  issueText,
  isOneOfSeveral,
  Namer,
  reasonText,
  repairName,
  RUN_WORDS,
  rulesOut,
  shareText,
  shownText,
  strengthWord,
  verdictText,
  yesNo,
} from "../words/index.js";
import { EXIT, jsonNumber, loadCase, printJson, Refusal, type Io } from "./io.js";

export function analyseCommand(
  file: string,
  options: { readonly json?: boolean | undefined; readonly top?: string | undefined },
  io: Io,
): void {
  const top = options.top === undefined ? 5 : Number(options.top);
  if (!Number.isInteger(top) || top < 1)
    throw new Refusal(EXIT.usage, [`--top: "${options.top}" is not a number of suspects.`]);
  const job = loadCase(file, io);
  const wiring = withScannedCodes(job.wiring, job.entries);
  const predictor = new Focus(wiring).predictor(job.entries);
  const result = analyse(predictor, job.entries, { runs: (plan) => runTests(predictor, plan) });
  if (options.json) printJson(io, asJson(result));
  else print(job.title, result, new Namer(wiring), new Instructor(wiring), top, io);
}

function nextAsJson(n: Recommendation, suspects: readonly Suspect[]): unknown {
  const answer = (x: Answer) => ({
    value: jsonNumber(x.value),
    low: jsonNumber(x.low),
    high: jsonNumber(x.high),
    share: x.share,
    suspects: x.suspects.map((s) => ({ id: suspects[s.suspect]?.id ?? null, share: s.share })),
  });
  return {
    ...n.candidate,
    bits: n.bits,
    shareOfOpen: n.shareOfOpen,
    answers: n.answers.map((list) => list.map(answer)),
  };
}

/** The stable JSON form of an analysis; documented in docs/command-line.md. */
function asJson(a: Analysis): unknown {
  return {
    engine: a.engine,
    stage: a.stage,
    again: a.again ?? null,
    suspects: a.suspects.map((s) => ({
      id: s.id,
      type: s.type,
      share: s.share,
      explains: s.explains,
      outOf: s.outOf,
      places: s.places,
      faults: s.members.map((m) => ({
        id: m.faults.map((f) => f.id).join(" + "),
        share: m.share,
        ohm: jsonNumber(m.ohm),
        intermittent: m.intermittent,
      })),
      reasons: s.reasons.map((r) => ({
        ...r,
        got: jsonNumber(r.got),
        expected: jsonNumber(r.expected),
        weight: jsonNumber(r.weight),
        sigmas: jsonNumber(r.sigmas),
      })),
    })),
    next: a.next.map((n) => nextAsJson(n, a.suspects)),
    runFirst: a.runFirst ?? null,
    narrowing: a.narrowing
      ? {
          suspects: a.narrowing.suspects.map((s) => ({ id: s.id, share: s.share })),
          next: a.narrowing.next.map((n) => nextAsJson(n, a.narrowing!.suspects)),
        }
      : null,
    readings: a.readings.map((r) => ({
      ...r,
      value: jsonNumber(r.value),
      healthy: jsonNumber(r.healthy),
      leading: jsonNumber(r.leading),
    })),
    explanations: a.explanations,
    economics: a.economics ?? null,
    school: a.school,
    minutesLeft: a.minutesLeft ?? null,
    feeds: a.feeds,
    outcome: a.outcome
      ? {
          ...a.outcome,
          kind: a.outcome.kind ?? null,
          conductor: a.outcome.conductor ?? null,
          part: a.outcome.part ?? null,
          repairs: a.outcome.repairs.map((r) => ({ id: r.id, share: r.share, faults: r.faults.map((f) => f.id) })),
        }
      : null,
    proof: a.proof ? { outcome: a.proof.outcome, minutes: a.proof.minutes } : null,
    remarks: a.remarks.map((r) => ({ code: r.code, path: r.path, params: r.params, text: issueText(r) })),
  };
}

const STAGES: Readonly<Record<Analysis["stage"], string>> = {
  waiting: "no codes or readings yet",
  splitting: "suspects still to be told apart",
  confirming: "one suspect left: confirm it",
  proven: "confirmed",
  proving: "repaired: see radicula prove",
  stuck: "nothing within reach tells the rest apart",
};

function print(title: string, a: Analysis, namer: Namer, instructor: Instructor, top: number, io: Io): void {
  io.out(`${title}: ${STAGES[a.stage]}\n`);
  for (const r of a.remarks) io.out(`! ${issueText(r)}\n`);
  for (const f of a.feeds) io.out(`+ ${feedText(f)}\n`);
  io.out("\nSuspects\n");
  for (const s of a.suspects.slice(0, top).filter((x) => x.share >= 0.001)) printSuspect(s, namer, io);
  if (a.outcome && (a.stage === "proven" || a.stage === "stuck")) printOutcome(a, namer, io);
  if (a.proof) io.out(`\nRepaired: ${curedText(a.proof.outcome).toLowerCase()}, ${shareText(a.proof.outcome.cured)}\n`);
  if (a.narrowing) {
    io.out("\nFind out which\n");
    a.narrowing.next.slice(0, 2).forEach((n, i) => printNext(n, i + 1, a.narrowing!.suspects, namer, instructor, io));
  }
  if (a.runFirst)
    io.out(
      `\nA guided test gets there sooner: ${RUN_WORDS[a.runFirst.run].title}, at ${a.runFirst.on} ` +
        `(about ${Math.max(1, Math.round(a.runFirst.minutes))} min)\n`,
    );
  if (a.next.length)
    io.out(a.again === undefined ? "\nNext reading\n" : `\nOnce more: entry ${a.again} does not fit\n`);
  a.next.slice(0, 3).forEach((n, i) => printNext(n, i + 1, a.suspects, namer, instructor, io));
}

/** What is proven, or no more than likeliest where nothing on offer tells the rest apart. */
function printOutcome(a: Analysis, namer: Namer, io: Io): void {
  const { title, detail } = verdictText(a, namer);
  const isGroup = isOneOfSeveral(a);
  const claim = a.stage === "proven" ? "Proven" : "Likeliest";
  io.out(`\n${claim}: ${title}${isGroup ? `; ${detail}. Look in this order:` : ""}\n`);
  if (isGroup)
    a.outcome?.repairs.forEach((r, i) => io.out(`  ${i + 1}. ${repairName(r, namer)}  ${shareText(r.share)}\n`));
}

function printSuspect(s: SuspectView, namer: Namer, io: Io): void {
  const { title, detail } = namer.suspect(s);
  io.out(
    `  ${shareText(s.share).padStart(9)}  ${title}${s.outOf ? `  (explains ${s.explains} of ${s.outOf} codes)` : ""}\n`,
  );
  if (detail) io.out(`             ${detail}\n`);
  for (const r of s.reasons.filter((x) => x.number > 0))
    io.out(`             ${strengthWord(r.weight).padEnd(16)} ${reasonText(r)}\n`);
}

function printNext(
  n: Recommendation,
  rank: number,
  suspects: readonly Suspect[],
  namer: Namer,
  instructor: Instructor,
  io: Io,
): void {
  const i = instructor.instruct(n.candidate);
  io.out(
    `  ${rank}. ${i.title}  (about ${Math.max(1, Math.round(n.candidate.minutes))} min, settles ` +
      `${rulesOut(n.shareOfOpen).toLowerCase()})\n`,
  );
  for (const c of i.cautions) io.out(`     ! ${c}\n`);
  const red = i.red.map((r) => `${r.text}${r.colour ? ` (${r.colour})` : ""}, ${r.how}`);
  io.out(`     ${i.state}; ${i.meter}` + `${red.length ? `; red on ${red.join(" and ")}; black on ${i.black}` : ""}\n`);
  for (const answer of n.answers.at(-1) ?? []) {
    const meaning = answer.suspects
      .slice(0, 2)
      .map((s) => {
        const v = suspects[s.suspect];
        return v ? `${namer.suspect(v).title} ${shareText(s.share)}` : "something else";
      })
      .join("; ");
    const { instrument, kind } = n.candidate;
    const value =
      instrument === "none" ? yesNo(kind)[answer.value > 0.5 ? 0 : 1] : `near ${shownText(instrument, answer.value)}`;
    io.out(`     ${value.padEnd(13)} (${shareText(answer.share)}): ${meaning}\n`);
  }
}
