// What the diagnosis bench prints.
import { machines } from "./diagnosisCases.mjs";

const mean = (list) => list.reduce((a, b) => a + b, 0) / list.length;
const quantile = (list, q) => [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(q * list.length))];
/** Wilson's interval for a share, 95 % */
function interval(k, n) {
  if (n === 0) return "no runs";
  const z = 1.96;
  const p = k / n;
  const d = 1 + (z * z) / n;
  const middle = (p + (z * z) / (2 * n)) / d;
  const half = (z * Math.sqrt((p * (1 - p)) / n + (z * z) / (4 * n * n))) / d;
  return `${percent(p)} (${percent(Math.max(0, middle - half))}–${percent(Math.min(1, middle + half))})`;
}
const percent = (x) => `${(100 * x).toFixed(1)} %`;

function row(name, list) {
  const runs = list.filter((r) => r.ending !== "noCode");
  const n = runs.length;
  if (n === 0) return undefined;
  const right = runs.filter((r) => r.ending === "isolated");
  const spread = (values, digits) => `${mean(values).toFixed(1)}, ${quantile(values, 0.9).toFixed(digits)}`;
  const cells = [
    name,
    n,
    interval(right.length, n),
    percent(right.filter((r) => r.verdict?.alone).length / n),
    right.length ? mean(right.map((r) => r.verdict?.repairs ?? 1)).toFixed(2) : "–",
    interval(runs.filter((r) => r.ending === "wrong").length, n),
    percent(runs.filter((r) => isBoldlyWrong(r)).length / n),
    percent(runs.filter((r) => r.ending === "gaveUp").length / n),
    spread(
      runs.map((r) => r.tests),
      0,
    ),
    spread(
      runs.map((r) => r.minutes),
      1,
    ),
  ];
  return `| ${cells.join(" | ")} |`;
}
const BOLD = 0.95;
const isBoldlyWrong = (r) => r.ending === "wrong" && r.verdict.share >= BOLD;
const HEAD =
  "| | jobs | right, alone or in a group (95 % interval) | right alone | repairs left open | wrong | wrong at 95 % " +
  "or more | given up | tests: mean, 90 % | minutes: mean, 90 % |\n|---|---|---|---|---|---|---|---|---|---|";

export function report(results, { minutes }) {
  const set = (name) => results.filter((r) => r.set === name);
  const single = set("single");
  const out = [
    `${results.length} jobs in ${minutes.toFixed(0)} min`,
    "",
    HEAD,
    ...machines.map((m, i) =>
      row(
        m.name,
        single.filter((r) => r.machine === i),
      ),
    ),
    row("**all single faults**", single),
    row("drawn as often as the engine holds them for likely", set("drawn")),
    row("two wires touching", set("wire to wire")),
    row("two faults at once", set("double")),
    row("three faults at once", set("triple")),
    row("fuse with a shorted device or wire", set("fuse")),
    row("comes and goes", set("intermittent")),
    row("leads at the wrong component", set("wrong component")),
    "",
    ...separable(single),
    "",
    ...schoolRows(single, set),
    "",
    "Faults drawn as often as the engine holds them for likely; only then may its shares be expected to come true:",
    "",
    ...calibration(set("drawn")),
    "",
    "Each single fault once, so that rare ones are as many as common ones:",
    "",
    ...calibration(single),
    "",
    ...asides(set),
    "",
    "not right:",
    ...missed(results),
  ];
  return out.filter((line) => line !== undefined).join("\n");
}

/** Of the right verdicts: how many left a repair open that some reading would have told apart. */
function separable(single) {
  const right = single.filter((r) => r.ending === "isolated");
  if (right.length === 0) return [];
  const done = right.filter((r) => r.couldTell === 0);
  const left = right.map((r) => 1 + r.couldTell);
  return [
    `of ${right.length} right verdicts on single faults, ${interval(done.length, right.length)} name the repair ` +
      "alone or leave open only repairs that no reading of volts or ohms, plugged or with a plug off, tells apart; " +
      `repairs left open that one would tell apart, with the right one: mean ${mean(left).toFixed(2)}`,
  ];
}

function schoolRows(single, set) {
  const schools = set("school");
  if (schools.length === 0) return [];
  const key = (r) => `${r.machine} ${r.faults.join()} ${r.seed}`;
  const there = new Set(schools.map(key));
  const own = single.filter((r) => there.has(key(r)));
  const minutesOf = (list) => mean(list.filter((r) => r.ending !== "noCode").map((r) => r.minutes));
  const of = (s) => schools.filter((r) => r.school === s);
  return [
    "Schools, on the same jobs:",
    "",
    HEAD,
    row("information per minute, looking ahead", own),
    ...["easiest", "halve", "powerGroundSignal", "chart", "random"].map((s) => row(s, of(s))),
    ...["no look-ahead", "one severity", "no intermittents, no look-alikes"].map((s) => row(`ablation: ${s}`, set(s))),
    "",
    `minutes against halving ${(minutesOf(own) / minutesOf(of("halve"))).toFixed(2)}, against the fixed chart ` +
      (minutesOf(own) / minutesOf(of("chart"))).toFixed(2),
  ];
}

function asides(set) {
  const bold = (list) => `${list.filter((r) => r.overbold).length} of ${list.length}`;
  const wrong = set("wrong component").filter((r) => r.ending !== "noCode");
  const doubted = wrong.filter((r) => r.doubtedAfter !== undefined && r.doubtedAfter < 4);
  const spared = wrong.filter((r) => r.doubtedAfter === undefined && r.atWrong < 4 && r.ending === "isolated");
  return [
    `a single cause, and a wrong one, declared where there are three: ${bold(set("triple"))}; where there are ` +
      `two: ${bold(set("double"))}`,
    `wrong component: doubted before the fourth test there in ${interval(doubted.length, wrong.length)}; in ` +
      `${spared.length} more the cause was found with fewer than four tests there`,
  ];
}

function missed(results) {
  return results
    .filter((r) => (r.ending === "wrong" || r.ending === "gaveUp") && r.set !== "school")
    .slice(0, 120)
    .map(
      (r) =>
        `  ${r.set}, ${machines[r.machine].name}: ${r.faults.join()} (seed ${r.seed}) ${r.ending}, ` +
        `${r.verdict?.suspect} at ${r.verdict?.share.toFixed(3)}, truth ${r.course?.truth.toFixed(3)}`,
    );
}

/** Claimed against delivered at the stop, and along the way (Brier 1950: mean squared error of the leader's share). */
function calibration(list) {
  const ended = list.filter((r) => r.ending === "isolated" || r.ending === "wrong");
  if (ended.length === 0) return [];
  const all = ended.flatMap((r) => r.all.map((c) => ({ claim: c.leader, truth: c.truth, hit: c.right ? 1 : 0 })));
  const claimed = mean(ended.map((r) => r.verdict.share));
  const delivered = mean(ended.map((r) => (r.verdict.right ? 1 : 0)));
  const brier = mean(all.map((c) => (c.claim - c.hit) ** 2));
  const bands = [
    [0, 0.3],
    [0.3, 0.5],
    [0.5, 0.7],
    [0.7, 0.85],
    [0.85, 0.95],
    [0.95, 1.01],
  ];
  return [
    `at the stop: claimed ${percent(claimed)}, delivered ${percent(delivered)}, apart ` +
      `${percent(Math.abs(claimed - delivered))}; Brier score of the leader at every step ${brier.toFixed(4)}`,
    "",
    "| leader's share | steps | mean claim | came true |",
    "|---|---|---|---|",
    ...bands.map(([a, b]) => {
      const l = all.filter((c) => c.claim >= a && c.claim < b);
      return l.length
        ? `| ${percent(a)}–${percent(Math.min(1, b))} | ${l.length} | ${percent(mean(l.map((c) => c.claim)))} | ` +
            `${percent(mean(l.map((c) => c.hit)))} |`
        : `| ${percent(a)}–${percent(Math.min(1, b))} | 0 | | |`;
    }),
  ];
}
