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
  const count = (e) => runs.filter((r) => r.ending === e).length;
  const spread = (list, digits) => `${mean(list).toFixed(1)}, ${quantile(list, 0.9).toFixed(digits)}`;
  const cells = [
    name,
    n,
    interval(count("isolated"), n),
    interval(count("wrong"), n),
    percent(count("gaveUp") / n),
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
const HEAD =
  "| | jobs | isolated (95 % interval) | wrongly condemned | given up | tests: mean, 90 % | minutes: mean, 90 % " +
  "|\n|---|---|---|---|---|---|---|";

export function report(results, { every, minutes }) {
  const set = (name) => results.filter((r) => r.set === name);
  const out = [];
  const single = set("single");
  out.push(
    `${results.length} jobs in ${minutes.toFixed(0)} min${every > 1 ? `, every ${every}th fault` : ""}`,
    "",
    HEAD,
  );
  machines.forEach((m, i) =>
    out.push(
      row(
        m.name,
        single.filter((r) => r.machine === i),
      ),
    ),
  );
  out.push(
    row("**all single faults**", single),
    row("two faults at once", set("double")),
    row("three faults at once", set("triple")),
    row("fuse with a shorted device or wire", set("fuse")),
    row("comes and goes", set("intermittent")),
    row("leads at the wrong component", set("wrong component")),
    "",
  );
  const schools = set("school");
  const key = (r) => `${r.machine} ${r.faults.join()} ${r.seed}`;
  const there = new Set(schools.map(key));
  out.push(
    "Schools, on the same jobs:",
    "",
    HEAD,
    row(
      "information per minute, looking ahead",
      single.filter((r) => there.has(key(r))),
    ),
  );
  for (const s of ["easiest", "halve", "powerGroundSignal", "chart", "random"])
    out.push(
      row(
        s,
        schools.filter((r) => r.school === s),
      ),
    );
  for (const s of ["no look-ahead", "one severity", "no intermittents, no look-alikes"])
    out.push(row(`ablation: ${s}`, set(s)));
  const minutesOf = (list) => mean(list.filter((r) => r.ending !== "noCode").map((r) => r.minutes));
  const own = minutesOf(single.filter((r) => there.has(key(r))));
  if (schools.length)
    out.push(
      "",
      `minutes against halving ${(own / minutesOf(schools.filter((r) => r.school === "halve"))).toFixed(2)}, ` +
        `against the fixed chart ${(own / minutesOf(schools.filter((r) => r.school === "chart"))).toFixed(2)}`,
    );
  out.push("", ...calibration(single.filter((r) => r.ending === "isolated" || r.ending === "wrong")));
  const declared = single.filter((r) => r.verdict && r.ending !== "gaveUp");
  const sizes = declared.map((r) => r.verdict.repairs);
  const alone = declared.filter((r) => r.verdict.alone);
  out.push(
    "",
    `right repair alone ${interval(alone.length, declared.length)}; repairs left open at the end: ` +
      `mean ${mean(sizes).toFixed(2)}, largest ${Math.max(...sizes)}`,
  );
  const bold = (list) => `${list.filter((r) => r.overbold).length} of ${list.length}`;
  out.push(
    `a single cause, and a wrong one, declared where there are three: ${bold(set("triple"))}; where there are ` +
      `two: ${bold(set("double"))}`,
  );
  const wrong = set("wrong component").filter((r) => r.ending !== "noCode");
  const doubted = wrong.filter((r) => r.doubtedAfter !== undefined && r.doubtedAfter < 4);
  const spared = wrong.filter((r) => r.doubtedAfter === undefined && r.atWrong < 4 && r.ending === "isolated");
  out.push(
    `wrong component: doubted before the fourth test there in ${interval(doubted.length, wrong.length)}; in ` +
      `${spared.length} more the cause was found with fewer than four tests there`,
  );
  const missed = results.filter((r) => (r.ending === "wrong" || r.ending === "gaveUp") && r.set !== "school");
  out.push(
    "",
    "not isolated:",
    ...missed
      .slice(0, 120)
      .map(
        (r) =>
          `  ${r.set}, ${machines[r.machine].name}: ${r.faults.join()} (seed ${r.seed}) ${r.ending}, ` +
          `${r.verdict?.suspect} at ${r.verdict?.share.toFixed(3)}, truth ${r.course.truth.toFixed(3)}`,
      ),
  );
  return out.filter((line) => line !== undefined).join("\n");
}

/** Claimed against delivered at the stop, and along the way (Brier 1950: mean squared error of the leader's share). */
function calibration(ended) {
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
