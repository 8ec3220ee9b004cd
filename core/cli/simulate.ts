import {
  findFault,
  middleSeverity,
  play,
  Predictor,
  POLICIES,
  type FaultAt,
  type Played,
  type Policy,
  type Wiring,
} from "../src/index.js";
import { shareText } from "../words/index.js";
import { EXIT, loadMachine, printJson, Refusal, type Io } from "./io.js";

interface Options {
  readonly fault?: string | undefined;
  readonly school?: string | undefined;
  readonly seed?: string | undefined;
  readonly presence?: string | undefined;
  readonly mistaken?: string | undefined;
  readonly runs?: string | undefined;
  readonly json?: boolean | undefined;
}

const MOST_RUNS = 10_000;

/**
 * `radicula simulate`: hides faults in a machine, and plays a technician of one school on it to the end; `--runs` plays
 * several machines. A case brings what the customer told.
 */
export function simulateCommand(file: string, options: Options, io: Io): void {
  const { wiring, entries } = loadMachine(file, io);
  const predictor = new Predictor(wiring);
  const before = entries.filter((e) => e.type === "intake");
  const school = (options.school ?? "information") as Policy;
  if (!POLICIES.includes(school))
    throw new Refusal(EXIT.usage, [`--school: there is no "${school}". One of ${POLICIES.join(", ")}.`]);
  const seed = whole("--seed", options.seed ?? "1", 0, 1e9);
  const runs = whole("--runs", options.runs ?? "1", 1, MOST_RUNS);
  const presence = options.presence === undefined ? undefined : Number(options.presence);
  if (presence !== undefined && !(presence > 0 && presence <= 1))
    throw new Refusal(EXIT.usage, [`--presence: "${options.presence}" is not a share between 0 and 1.`]);
  const mistaken = options.mistaken === undefined ? undefined : mistook(options.mistaken, wiring);
  const faults = hidden(predictor, options.fault);
  const all = Array.from({ length: runs }, (_, i) =>
    play(predictor, faults, {
      school,
      seed: seed + i,
      before,
      ...(mistaken ? { mistaken } : {}),
      ...(presence === undefined ? {} : { presence }),
      ...(faults.length > 1 ? { repairs: true } : {}),
    }),
  );
  if (options.json) printJson(io, runs === 1 ? all[0] : all);
  else if (runs === 1) print(all[0]!, io);
  else summary(all, io);
}

function whole(name: string, text: string, least: number, most: number): number {
  const n = Number(text);
  if (!Number.isInteger(n) || n < least || n > most)
    throw new Refusal(EXIT.usage, [`${name}: "${text}" is not a whole number from ${least} to ${most}.`]);
  return n;
}
function mistook(text: string, wiring: Wiring): { from: string; to: string } {
  const [from, to, ...more] = text.split(",");
  for (const id of [from, to])
    if (!wiring.connectors.some((c) => c.id === id))
      throw new Refusal(EXIT.usage, [
        `--mistaken: there is no connector "${id ?? ""}" in this wiring. Two connectors joined by a comma: ` +
          "where the leads should be, and where they are.",
      ]);
  if (more.length || from === to)
    throw new Refusal(EXIT.usage, ["--mistaken takes two different connectors joined by a comma."]);
  return { from: from!, to: to! };
}
function hidden(predictor: Predictor, text: string | undefined): FaultAt[] {
  if (!text)
    throw new Refusal(EXIT.usage, [
      "radicula simulate needs --fault ID, or several joined by commas. See radicula faults WIRING.json.",
    ]);
  return text.split(",").map((id) => {
    const found = findFault(predictor.faults, id.trim());
    if (!found)
      throw new Refusal(EXIT.document, [
        `There is no fault "${id.trim()}" on this machine. See radicula faults WIRING.json.`,
      ]);
    return { fault: found.fault, severity: found.ohm ?? middleSeverity(found.fault) };
  });
}

const ENDINGS: Readonly<Record<Played["ending"], string>> = {
  isolated: "isolated",
  wrong: "the wrong cause was declared",
  gaveUp: "given up: nothing told the rest apart",
  noCode: "no code sets: nothing to go by",
};

function print(p: Played, io: Io): void {
  io.out(`${p.faults.join(", ")}, school ${p.school}, seed ${p.seed}\n`);
  p.steps.forEach((s, i) =>
    io.out(
      `  ${String(i + 1).padStart(2)}. ${s.candidate}: ${s.got.join(", ")}  (${s.minutes.toFixed(1)} min; ` +
        `before it ${s.leader} led with ${shareText(s.share)})\n`,
    ),
  );
  const { verdict } = p;
  const group = verdict && verdict.repairs > 1 ? `, one of ${verdict.repairs} repairs` : "";
  io.out(
    `${ENDINGS[p.ending]}${verdict ? `: ${verdict.suspect} at ${shareText(verdict.share)}${group}` : ""}; ` +
      `${p.steps.length} tests, ${p.minutes.toFixed(1)} min\n`,
  );
}
function summary(all: readonly Played[], io: Io): void {
  const played = all.filter((p) => p.ending !== "noCode");
  const count = (e: Played["ending"]) => all.filter((p) => p.ending === e).length;
  io.out(
    `${all.length} machines: isolated ${count("isolated")}, wrong ${count("wrong")}, given up ${count("gaveUp")}` +
      `, no code ${count("noCode")}\n`,
  );
  const found = played.filter((p) => p.ending === "isolated");
  const alone = found.filter((p) => p.verdict?.alone);
  const groups = found.filter((p) => !p.verdict?.alone).map((p) => p.verdict?.repairs ?? 0);
  const mean = groups.reduce((a, b) => a + b, 0) / groups.length;
  if (found.length)
    io.out(
      `of those isolated, the right repair alone ${alone.length}, in a group ${groups.length}` +
        `${groups.length ? ` (of ${mean.toFixed(1)} on average)` : ""}\n`,
    );
  if (played.length)
    io.out(
      `on average ${(played.reduce((s, p) => s + p.steps.length, 0) / played.length).toFixed(1)} tests, ` +
        `${(played.reduce((s, p) => s + p.minutes, 0) / played.length).toFixed(1)} min\n`,
    );
}
