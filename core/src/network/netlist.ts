import { DEFAULTS } from "../defaults.js";
import type { Circuit, Element } from "./element.js";
import type { Conditions, Solver } from "./settle.js";

/**
 * Writes a circuit as a SPICE netlist, from the device descriptions alone: the judge that the equations are checked
 * against must not be made from the equations. Device states (limiting, asleep, dropped out) are left to SPICE, as
 * behavioural sources; only a melted fuse is taken from the solution, since SPICE has no melting.
 *
 * @param solution when given, starts SPICE near it (`.nodeset`), so that switching devices are found quickly
 */
export function netlist(title: string, c: Conditions, solution?: Pick<Solver, "x" | "mode" | "hold">): string {
  const { circuit } = c;
  const lines = [`* ${title.replace(/[\r\n]+/g, " ")}`, "* nodes:"];
  circuit.nodes.forEach((name, i) => { if (i) lines.push(`* n${i} = ${name}`); });
  circuit.elements.forEach((e, i) => {
    if (c.open[i]) lines.push(`* ${e.id}: unplugged`);
    else if (e.type === "fuse" && solution?.mode[i] === 1) lines.push(`* ${e.id}: melted`);
    else lines.push(...elementLines(circuit, e, i, c));
  });
  (c.edit.shunts ?? []).forEach((s, i) => {
    if (s.volt === undefined) lines.push(`Rfault${i} n${s.a} n${s.b} ${num(s.ohm)}`);
    else lines.push(`Vfault${i} f${i} n${s.b} ${num(s.volt)}`, `Rfault${i} n${s.a} f${i} ${num(s.ohm)}`);
  });
  const floating = circuit.nodes.flatMap((_, i) => (i && solution && solution.hold[i - 1] === 0 ? [i] : []));
  for (const node of floating) lines.push(`Rtie${node} n${node} n0 1e9`);
  if (solution) lines.push(...circuit.nodes.flatMap((_, i) => (i ? [`.nodeset v(n${i})=${num(solution.x[i - 1]!)}`] : [])));
  lines.push(".options reltol=1e-9 abstol=1e-15 vntol=1e-12 gmin=1e-15 itl1=500", ".op", ".end");
  return lines.join("\n").replace(/\bn0\b/g, "0") + "\n";
}

const num = (value: number) => value.toExponential(15);

function elementLines(circuit: Circuit, e: Element, i: number, c: Conditions): string[] {
  const series = (c.edit.series ?? []).reduce((sum, s) => (s.element === i ? sum + s.ohm : sum), 0);
  const [a, b, low] = [`n${e.a}`, `n${e.b}`, `n${e.low}`];
  const gate = e.gate < 0 ? undefined : circuit.gates[e.gate];
  const never = c.edit.dead?.includes(i) || (gate && ((gate.needsKey && !c.keyOn) || c.edit.asleep?.includes(e.gate))) || (e.hall && !(c.steel ?? e.ratio === 1));
  const back = e.type === "follower" ? low : b;
  const name = `* ${e.id}`;
  const resistor = (ohm: number) => (ohm === Infinity ? [`${name}: open`] : [name, `R${i} ${a} ${back} ${num(ohm)}`]);
  if (never) return resistor(e.offOhm + series);
  const awake = gate ? gate.high.map((h) => `(v(n${h})-v(n${gate.low}) > ${num(gate.aboveVolt)})`).join(" || ") : undefined;
  const gated = (on: string) => {
    const off = `v(${a},${back})/${num(e.offOhm + series)}`;
    return e.offOhm + series === Infinity ? `(${awake}) ? (${on}) : 0` : `(${awake}) ? (${on}) : (${off})`;
  };
  if (e.ohm + series === Infinity) return [`${name}: open`];
  const ohm = num(e.ohm + series);
  switch (e.type) {
    case "resistor":
    case "fuse":
      return awake ? [name, `B${i} ${a} ${b} I=${gated(`v(${a},${b})/${ohm}`)}`] : resistor(e.ohm + series);
    case "source":
      if (awake) return [name, `B${i} ${a} ${b} I=${gated(`(v(${a},${b})-${num(e.volt)})/${ohm}`)}`];
      return [name, `V${i} s${i} ${b} ${num(e.volt)}`, `R${i} ${a} s${i} ${ohm}`];
    case "follower": {
      // its current returns through chassis while awake, and to its own ground while dropped out: two sources
      const target = `v(${low})+${num(e.ratio)}*(v(${b})-v(${low}))`;
      const on = `(v(${a})-(${target}))/${ohm}`;
      if (!awake) return [name, `B${i} ${a} n0 I=${on}`];
      return [name, `B${i} ${a} n0 I=(${awake}) ? (${on}) : 0`, `B${i}off ${a} ${low} I=(${awake}) ? 0 : (v(${a},${low})/${num(e.offOhm + series)})`];
    }
    case "reference": {
      const slope = num(DEFAULTS.module.limitSlopeSiemens);
      const knee = num(e.volt - e.limitAmpere * e.ohm);
      const v = `v(${a},${b})`;
      const out = `${v} > ${num(e.volt)} ? (${num(e.volt)}-${v})/${num(e.offOhm)} : (${v} < ${knee} ? ${num(e.limitAmpere)}+${slope}*(${knee}-${v}) : (${num(e.volt)}-${v})/${ohm})`;
      return [name, `B${i} ${b} ${a} I=${awake ? `(${awake}) ? (${out}) : (0-v(${a},${b})/${num(e.offOhm)})` : out}`];
    }
  }
}
