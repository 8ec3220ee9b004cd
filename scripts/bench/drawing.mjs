// npm run bench:drawing [-- --jobs N] [--seeds A,B,…]
// Half a drawing: of machines that nothing was tuned on, part of the wires of their sensors is hidden. A job is played
// on the whole drawing; then the same codes and readings are weighed with the half-known drawing, asking for one
// fact after the other as the program proposes. Prints how often the cause is the same as with the whole drawing, and
// how many of the hidden facts were asked for. Run `npm start` or `npm ci` once before.
import {
  analyse,
  buildChart,
  chartOf,
  completeChart,
  factsWorth,
  generateHarness,
  play,
  Predictor,
  uniform,
} from "@radicula/core";

const arg = (name, otherwise) => {
  const i = process.argv.indexOf(`--${name}`);
  return i < 0 ? otherwise : process.argv[i + 1];
};
const jobs = Number(arg("jobs", "100"));
const seeds = arg("seeds", "81,82,83").split(",").map(Number);
/** Of the wires at pins of sensors and actuators, this share is hidden. */
const HIDDEN = 0.3;
/** A fact that tells less is not asked for, bits. */
const WORTH = Number(arg("worth", "0.005"));

/** With a cause this likely nothing more is looked up. */
const SURE = 0.8;

const causeOf = (predictor, entries) => {
  const s = analyse(predictor, entries, { quick: true }).suspects[0];
  const { mode, place, at } = s.members[0]?.fault ?? {};
  return { id: s.id, share: s.share, places: s.places, touching: mode === "shortToWire" ? [place.id, at] : undefined };
};
/** The same wire has another name where it was assumed. */
const byEnds = (wiring, id) => {
  const w = wiring.wires.find((x) => (x.id ?? `${x.from}~${x.to}`) === id);
  return w ? `wire ${[w.from, w.to].sort().join("~")}` : id;
};
/** The place named first is the same one, or both name the same two wires that touch, whichever of the two first. */
const isSame = (built, cause, wiring, whole) => {
  const wires = (of, { touching }) =>
    touching
      ?.map((id) => byEnds(of, id))
      .sort()
      .join(" and ");
  const pair = wires(wiring, whole);
  return byEnds(built, cause.id) === byEnds(wiring, whole.id) || (pair !== undefined && pair === wires(built, cause));
};
/** The place named first is one of those that the verdict on the whole drawing leaves. */
const isAmong = (built, cause, wiring, whole) =>
  whole.places.some((p) => byEnds(wiring, p.id) === byEnds(built, cause.id));
const named = (of, { id, touching, share }) =>
  `${byEnds(of, id)} ${touching?.map((wire) => byEnds(of, wire)).join(" and ") ?? ""} ${share.toFixed(2)}`;

const results = [];
const began = Date.now();
for (let j = 0; results.length < jobs && j < 6 * jobs; j++) {
  const seed = seeds[j % seeds.length];
  // as a chart has it, whole or in part: wires of a bundle lie in the order in which they are written down
  const { wiring } = buildChart(chartOf(generateHarness({ nodes: 60, seed })));
  const predictor = new Predictor(wiring);
  const random = uniform(9000 + j);
  const faults = predictor.faults;
  const fault = faults[Math.floor(random() * faults.length)];
  const severity = fault.severities[Math.floor(random() * fault.severities.length)];
  const played = play(predictor, [{ fault, severity }], { seed: 70000 + j, school: "information" });
  if (played.ending === "noCode") continue;
  const { entries } = played;
  const whole = causeOf(predictor, entries);
  if (whole.share < 0.5) continue; // no cause to compare with
  // hide
  const chart = chartOf(wiring);
  const points = buildChart(chart).points;
  const pins = new Set(
    wiring.devices
      .filter((d) => d.kind !== "module" && d.kind !== "relay" && "pins" in d)
      .flatMap((d) => Object.values(d.pins)),
  );
  const truth = new Map();
  const rows = chart.rows.map((r, i) => {
    const ends = [points.get(i), r.goesTo].filter((p) => pins.has(p) && p.includes(":"));
    if (ends.length === 0 || !r.goesTo || random() > HIDDEN) return r;
    truth.set(ends[0], i);
    return { ...r, goesTo: "", colour: "", mm2: "", wire: "", lengthM: "" };
  });
  if (truth.size === 0) continue;
  const answers = new Set();
  const half = { ...chart, rows };
  let asked = 0;
  for (;;) {
    const withAnswers = { ...half, rows: rows.map((r, i) => (answers.has(i) ? chart.rows[i] : r)) };
    const worth = factsWorth(withAnswers, entries).filter((w) => truth.has(w.fact.point));
    const best = worth[0];
    const tells = best !== undefined && best.bits >= WORTH;
    const built = tells ? undefined : buildChart(completeChart(withAnswers).chart).wiring;
    const cause = built && causeOf(new Predictor(built), entries);
    // whoever is not sure of the cause yet goes on down the list
    if (cause && (!best || cause.share >= SURE)) {
      results.push({
        same: isSame(built, cause, wiring, whole),
        among: isSame(built, cause, wiring, whole) || isAmong(built, cause, wiring, whole),
        hidden: truth.size,
        asked,
        whole: whole.id,
        got: cause.id,
        ended: process.argv.includes("--each")
          ? `${named(built, cause)} | ${worth.map((w) => `${w.fact.point} ${w.bits.toFixed(3)}`).join("; ")}`
          : "",
      });
      break;
    }
    answers.add(truth.get(best.fact.point));
    asked++;
  }
  const r = results.at(-1);
  process.stderr.write(`\r${results.length} of ${jobs} jobs, ${Math.round((Date.now() - began) / 1000)} s `);
  if (process.argv.includes("--each"))
    console.log(seed, fault.id, r.same, r.among, r.asked, r.hidden, byEnds(wiring, r.whole), r.ended);
}
process.stderr.write("\n");
const same = results.filter((r) => r.same).length;
const asked = results.reduce((n, r) => n + r.asked, 0);
const hidden = results.reduce((n, r) => n + r.hidden, 0);
console.log(
  `${results.length} jobs: the same cause as with the whole drawing in ${((100 * same) / results.length).toFixed(1)} %`,
);
const among = results.filter((r) => r.among).length;
const percent = ((100 * among) / results.length).toFixed(1);
console.log(`or one of the places that the verdict on the whole drawing leaves in ${percent} %`);
console.log(`${hidden} facts hidden, ${asked} asked for (${((100 * asked) / hidden).toFixed(1)} %)`);
