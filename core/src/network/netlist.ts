import { DEFAULTS } from "../defaults.js";
import type { Circuit, Edit, Element, Gate } from "./element.js";
import type { Conditions } from "./solver.js";

/**
 * What a settled solution lends to a netlist: where to start, which fuses have melted, which nodes float. By circuit
 * node.
 */
export interface Solution {
  readonly volts: readonly number[];
  readonly blown: ReadonlySet<number>;
}

/**
 * Writes a circuit as a SPICE netlist, from the device descriptions alone: the judge that the equations are checked
 * against must not be made from the equations. Device states (limiting, asleep, dropped out) are left to SPICE, as
 * behavioural sources; only a melted fuse is taken from the solution, since SPICE has no melting.
 *
 * @param solution when given, starts SPICE near it (`.nodeset`), so that switching devices are found quickly
 */
export function netlist(title: string, c: Conditions, edit: Edit, solution?: Solution): string {
  const { circuit } = c;
  const lines = [`* ${title.replace(/[\r\n]+/g, " ")}`, "* nodes:"];
  circuit.nodes.forEach((name, i) => {
    if (i) lines.push(`* n${i} = ${name}`);
  });
  const replaced = new Map((edit.replace ?? []).map((r) => [r.element, r.by]));
  circuit.elements.forEach((e, i) => {
    if (e.a === e.b && e.type !== "follower") lines.push(`* ${e.id}: both ends on one node`);
    else if (c.open[i]) lines.push(`* ${e.id}: unplugged`);
    else if (e.type === "fuse" && solution?.blown.has(i)) lines.push(`* ${e.id}: melted`);
    else lines.push(...elementLines(circuit, { ...e, ...replaced.get(i) }, i, c, edit));
  });
  (edit.shunts ?? []).forEach((s, i) => {
    if (s.volt === undefined) lines.push(`Rfault${i} n${s.a} n${s.b} ${num(s.ohm)}`);
    else lines.push(`Vfault${i} f${i} n${s.b} ${num(s.volt)}`, `Rfault${i} n${s.a} f${i} ${num(s.ohm)}`);
  });
  if (solution) {
    solution.volts.forEach((v, node) => {
      if (node && Number.isNaN(v)) lines.push(`Rtie${node} n${node} n0 1e9`);
    });
    solution.volts.forEach((v, node) => {
      if (node) lines.push(`.nodeset v(n${node})=${num(Number.isNaN(v) ? 0 : v)}`);
    });
  }
  lines.push(".options reltol=1e-9 abstol=1e-15 vntol=1e-12 gmin=1e-15 itl1=500", ".op", ".end");
  return lines.join("\n").replace(/\bn0\b/g, "0") + "\n";
}

const num = (value: number) => value.toExponential(15);

function neverWorks(circuit: Circuit, e: Element, i: number, c: Conditions, edit: Edit): boolean {
  const gate = circuit.gates[e.gate];
  const asleep = gate && ((gate.needsKey && !c.keyOn) || edit.asleep?.includes(e.gate) || c.asleep?.includes(e.gate));
  return (
    Boolean(edit.dead?.includes(i)) ||
    Boolean(asleep && !e.whenAsleep) ||
    (e.steel === "conducts" && !(c.steel ?? e.ratio === 1)) ||
    (e.steel === "held" && e.ratio !== 1) ||
    (e.talks && c.talker !== undefined && c.talker !== e.gate) ||
    (e.duty < 1 && (c.phase ?? 0) >= e.duty)
  );
}

/** when a gate is awake, as a SPICE condition */
function awake(gate: Gate): string {
  const across = (h: number) => (gate.either ? `abs(v(n${h})-v(n${gate.low}))` : `(v(n${h})-v(n${gate.low}))`);
  return gate.high
    .map((group) => `(${group.map((h) => `(${across(h)} > ${num(gate.aboveVolt)})`).join(" || ")})`)
    .join(" && ");
}

function elementLines(circuit: Circuit, e: Element, i: number, c: Conditions, edit: Edit): string[] {
  const series = (edit.series ?? []).reduce((sum, s) => (s.element === i ? sum + s.ohm : sum), 0);
  const [a, b, low] = [`n${e.a}`, `n${e.b}`, `n${e.low}`];
  const gate = circuit.gates[e.gate];
  const back = e.type === "follower" ? low : b;
  const name = `* ${e.id}`;
  const fixed = (ohm: number) => (ohm === Infinity ? [`${name}: open`] : [name, `R${i} ${a} ${back} ${num(ohm)}`]);
  const off = e.offOhm + series;
  if (neverWorks(circuit, e, i, c, edit)) return fixed(off);
  // a gate that can never wake leaves a resting contact closed for good
  const always =
    gate &&
    e.whenAsleep &&
    ((gate.needsKey && !c.keyOn) || edit.asleep?.includes(e.gate) || c.asleep?.includes(e.gate));
  const works = gate && !always ? (e.whenAsleep ? `!(${awake(gate)})` : awake(gate)) : undefined;
  if (e.ohm + series === Infinity)
    return works
      ? [name, `B${i} ${a} ${back} I=(${works}) ? 0 : ${off === Infinity ? "0" : `v(${a},${back})/${num(off)}`}`]
      : [`${name}: open`];
  const ohm = num(e.ohm + series);
  const v = `v(${a},${b})`;
  if (!works && (e.type === "resistor" || e.type === "fuse")) return fixed(e.ohm + series);
  const volt = e.steel === "generates" ? (c.steel === undefined ? 0 : c.steel ? e.volt : -e.volt) : e.volt;
  if (!works && e.type === "source") return [name, `V${i} s${i} ${b} ${num(volt)}`, `R${i} ${a} s${i} ${ohm}`];
  const gated = (on: string) =>
    works ? `(${works}) ? (${on}) : ${off === Infinity ? "0" : `(${v}/${num(off)})`}` : on;
  const slope = num(DEFAULTS.module.limitSlopeSiemens);
  const leak = num(1 / DEFAULTS.diode.offOhm);
  switch (e.type) {
    case "resistor":
    case "fuse":
      return [name, `B${i} ${a} ${b} I=${gated(`${v}/${ohm}`)}`];
    case "source":
      return [name, `B${i} ${a} ${b} I=${gated(`(${v}-${num(volt)})/${ohm}`)}`];
    case "follower": {
      // its current returns through chassis while awake, and to its own ground while dropped out: two sources
      const on = `(v(${a})-(v(${low})+${num(e.ratio)}*(v(${b})-v(${low}))))/${ohm}`;
      if (!works) return [name, `B${i} ${a} n0 I=${on}`];
      return [
        name,
        `B${i} ${a} n0 I=(${works}) ? (${on}) : 0`,
        `B${i}off ${a} ${low} I=(${works}) ? 0 : (v(${a},${low})/${num(off)})`,
      ];
    }
    case "reference": {
      const knee = num(e.volt - e.limitAmpere * (e.ohm + series));
      const fold =
        e.foldAmpere < e.limitAmpere
          ? `${v} < ${num(e.foldVolt)} ? ${num(e.foldAmpere)}+${slope}*(${num(e.foldVolt)}-${v}) : `
          : "";
      const most = `${num(e.limitAmpere)}+${slope}*(${knee}-${v})`;
      const gap = `(${num(e.volt)}-${v})`;
      const below = `${v} < ${knee} ? (${fold}${most}) : ${gap}/${ohm}`;
      const ampere = gated(`0-(${v} > ${num(e.volt)} ? ${gap}/${num(e.offOhm)} : (${below}))`);
      return [name, `B${i} ${a} ${b} I=${ampere}`];
    }
    case "limiter": {
      const knee = num(e.limitAmpere * (e.ohm + series));
      const back2 = e.volt > 0 ? `${v} < 0 ? ${v}*${leak} : ` : "";
      return [
        name,
        `B${i} ${a} ${b} I=` +
          `${gated(`${back2}(${v} > ${knee} ? ${num(e.limitAmpere)}+${slope}*(${v}-${knee}) : ${v}/${ohm})`)}`,
      ];
    }
    case "diode": {
      const conducts = `${num(e.volt)}*${leak}+(${v}-${num(e.volt)})/${ohm}`;
      const knee = num(e.volt + e.limitAmpere * (e.ohm + series));
      const above =
        e.limitAmpere === Infinity
          ? conducts
          : `(${v} > ${knee} ? ${num(e.limitAmpere)}+${num(e.volt)}*${leak}+${slope}*(${v}-${knee}) : ${conducts})`;
      return [name, `B${i} ${a} ${b} I=${gated(`${v} > ${num(e.volt)} ? ${above} : ${v}*${leak}`)}`];
    }
    case "filament": {
      const cold = DEFAULTS.lamp.coldShare;
      const r = num(e.ohm + series);
      const hot = `sgn(${v})*sqrt(abs(${v})*${num(e.volt)})/${r}`;
      const ampere = gated(`abs(${v}) > ${num(e.volt * cold * cold)} ? ${hot} : ${v}/(${r}*${num(cold)})`);
      return [name, `B${i} ${a} ${b} I=${ampere}`];
    }
  }
}
