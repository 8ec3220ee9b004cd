import {
  beforeAfter,
  connectorOf,
  findFault,
  fold,
  middleSeverity,
  playRun,
  playWiggle,
  Predictor,
  runPlaces,
  RUNS,
  SimulatedMachine,
  type FaultAt,
  type WiggleVerdict,
} from "../src/index.js";
import {
  DISTURBED_WORDS,
  Instructor,
  issueText,
  logbookCsv,
  MARK_WORDS,
  Namer,
  RUN_WORDS,
  shownText,
  stateText,
} from "../words/index.js";
import { EXIT, jsonNumber, loadCase, loadMachine, printJson, Refusal, type Io } from "./io.js";

interface RunOptions {
  readonly run?: string | undefined;
  readonly on?: string | undefined;
  readonly fault?: string | undefined;
  readonly seed?: string | undefined;
  readonly json?: boolean | undefined;
}

/**
 * `radicula run`: a guided run played to its end on a machine with hidden faults; without a place, the places it can be
 * begun at.
 */
export function runCommand(file: string, options: RunOptions, io: Io): void {
  const { wiring } = loadMachine(file, io);
  const run = RUNS.find((r) => r === options.run);
  if (!run) throw new Refusal(EXIT.usage, [`--run: there is no "${options.run ?? ""}". One of ${RUNS.join(", ")}.`]);
  const places = runPlaces(wiring, run);
  if (options.on === undefined) {
    if (options.json) printJson(io, places);
    else if (places.length === 0) io.out(`${RUN_WORDS[run].title}: there is no place for it on this machine.\n`);
    else
      io.out(
        `${RUN_WORDS[run].title}, for when ${RUN_WORDS[run].when.replace(/\?$/, "")}. ` +
          `Give --on one of:\n  ${places.join("\n  ")}\n`,
      );
    return;
  }
  if (!places.includes(options.on))
    throw new Refusal(EXIT.usage, [
      `--on: this run cannot be begun at "${options.on}". radicula run without --on lists where it can.`,
    ]);
  const seed = Number(options.seed ?? "1");
  if (!Number.isInteger(seed) || seed < 0 || seed > 1e9)
    throw new Refusal(EXIT.usage, [`--seed: "${options.seed}" is not a whole number from 0 to 1000000000.`]);
  const predictor = new Predictor(wiring);
  const faults = (options.fault ?? "")
    .split(",")
    .filter(Boolean)
    .map((id): FaultAt => {
      const found = findFault(predictor.faults, id.trim());
      if (!found)
        throw new Refusal(EXIT.document, [
          `There is no fault "${id.trim()}" on this machine. See radicula faults WIRING.json.`,
        ]);
      return { fault: found.fault, severity: found.ohm ?? middleSeverity(found.fault) };
    });
  if (run === "wiggle") {
    printWiggle(options.on, playWiggle(wiring, faults, options.on, seed), options.json ?? false, io);
    return;
  }
  const { view } = playRun(predictor, new SimulatedMachine(wiring, faults, seed), run, options.on);
  if (options.json) {
    printJson(io, {
      run,
      on: options.on,
      steps: view.taken.map((t) => ({
        kind: t.step.kind,
        instrument: t.step.instrument,
        points: t.step.points,
        ...(t.step.black === undefined ? {} : { black: t.step.black }),
        state: t.step.state,
        values: t.values.map(jsonNumber),
        healthy: t.healthy.map(jsonNumber),
        mark: t.mark ?? null,
      })),
      finding: view.finding
        ? {
            verdict: view.finding.verdict,
            code: view.finding.says.code,
            things: view.finding.things,
            params: view.finding.says.params,
          }
        : null,
    });
    return;
  }
  const instructor = new Instructor(wiring);
  io.out(`${RUN_WORDS[run].title}: ${options.on}\n`);
  for (const mind of RUN_WORDS[run].minds) io.out(`  mind: ${mind}\n`);
  view.taken.forEach((t, i) => {
    const shown =
      t.number === undefined
        ? "not taken"
        : t.step.instrument === "none"
          ? t.values[0]
            ? "yes"
            : "no"
          : t.values.map((v) => shownText(t.step.instrument as "voltmeter", v)).join(" · ");
    const title = instructor.instruct({
      id: "",
      ...t.step,
      at: connectorOf(t.step.points[0] ?? ""),
      unplug: [],
      plug: [],
      turnKey: false,
      minutes: 0,
    }).title;
    const healthy = shownText(t.step.instrument as "voltmeter", t.healthy[0]!);
    io.out(
      `  ${String(i + 1).padStart(2)}. ${title}` +
        `${t.step.state.unplugged.length ? ` (unplugged: ${t.step.state.unplugged.join(", ")})` : ""}` +
        Object.entries(t.step.state.stimulus ?? {})
          .map(([id, v]) => ` (${instructor.stimulus(id, v)})`)
          .join("") +
        `: ${shown}` +
        `${Number.isFinite(t.healthy[0]!) ? `, ${healthy} if healthy` : ""}` +
        `${t.mark ? `; ${MARK_WORDS[t.mark]}` : ""}\n`,
    );
  });
  if (view.finding) io.out(`${issueText(view.finding.says)}\n`);
}

function printWiggle(on: string, verdicts: readonly WiggleVerdict[], json: boolean, io: Io): void {
  if (json) {
    printJson(io, { run: "wiggle", on, places: verdicts.map((v) => ({ ...v, chance: jsonNumber(v.chance) })) });
    return;
  }
  io.out(`${RUN_WORDS.wiggle.title}: ${on}\n`);
  for (const { place, jumps, of, reacted } of verdicts)
    io.out(`  ${place.padEnd(14)} ${jumps} of ${of} values jumped: ${reacted ? "reacts" : "does not react"}\n`);
}

/** `radicula logbook`: what a case's logbook adds up to, or the whole of it as CSV. */
export function logbookCommand(
  file: string,
  options: { readonly csv?: boolean | undefined; readonly json?: boolean | undefined },
  io: Io,
): void {
  const { wiring, entries } = loadCase(file, io);
  if (options.csv) {
    io.out(logbookCsv(entries));
    return;
  }
  const folded = fold(entries);
  const twice = beforeAfter(entries);
  const namer = new Namer(wiring);
  if (options.json) {
    printJson(io, {
      entries: entries.length,
      takenBack: [...folded.undone],
      state: folded.state,
      disturbed: folded.open,
      run: folded.run ?? null,
      closed: folded.closed ?? null,
      acknowledged: [...folded.acknowledged],
      beforeAfter: twice,
    });
    return;
  }
  io.out(`${entries.length} entries, ${folded.undone.size} taken back; ${folded.readings.length} readings stand\n`);
  const open = folded.open.map((d) => `  ${d.thing}: ${DISTURBED_WORDS[d.how].still}, since entry ${d.number}\n`);
  io.out(folded.open.length ? `not as it was found:\n${open.join("")}` : "everything is as it was found\n");
  if (folded.closed !== undefined) io.out(`the job was closed by entry ${folded.closed}\n`);
  if (folded.run)
    io.out(
      `a guided run is open since entry ${folded.run.number}: ${RUN_WORDS[folded.run.entry.run].title}, ` +
        `${folded.run.entry.on}\n`,
    );
  for (const t of twice)
    io.out(
      `${namer.point(t.point)}, ${stateText(t.state)}: ${t.before.value} (entry ${t.before.number}), then ` +
        `${t.after.value} (entry ${t.after.number})\n`,
    );
}
