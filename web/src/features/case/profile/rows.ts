import {
  devicePins,
  findFault,
  generateFaults,
  middleSeverity,
  profileOf,
  type Analysis,
  type FaultAt,
  type Folded,
  type State,
  type Wiring,
} from "@radicula/core";
import type { Namer } from "@radicula/core/words";

/** One point of the way, as the chart and its table show it. */
export interface ProfileRow {
  readonly point: string;
  readonly healthy: number;
  readonly suspected: number | undefined;
  readonly measured: number | undefined;
}

/** The pins of the parts that are coded or measured at, as ways to choose from. */
export function pinChoices(wiring: Wiring, coded: readonly string[], namer: Namer) {
  return wiring.devices
    .filter((d) => coded.includes(d.id))
    .flatMap((d) => devicePins(d).map((p) => ({ value: p.at, label: `${p.at} ${namer.device(d.id)}` })));
}

/** The fault that leads, as it would be in the machine; none where nothing leads that is one fault. */
export function leaderAt(wiring: Wiring, analysis: Analysis | undefined): FaultAt | undefined {
  const member = analysis?.suspects[0]?.members[0];
  if (!member || member.faults.length !== 1) return undefined;
  const found = findFault(generateFaults(wiring), member.fault.id);
  return (
    found && { fault: found.fault, severity: Number.isFinite(member.ohm) ? member.ohm : middleSeverity(found.fault) }
  );
}

const sameState = (a: State, b: State) => JSON.stringify(keyed(a)) === JSON.stringify(keyed(b));
const keyed = ({ key, unplugged, ...rest }: State) => [key, [...unplugged].sort(), rest];
/** Voltages to battery negative, read at one point. */
const plain = (folded: Folded) =>
  folded.readings
    .map((r) => r.entry)
    .filter((e) => e.instrument === "voltmeter" && e.points.length === 1 && e.black === undefined && !e.part);

/**
 * The way to a pin in the state in which it was last measured: readings of other states say nothing there.
 * @param asked the state of the next reading, where nothing was read on the way yet
 */
export function profileRows(
  wiring: Wiring,
  pin: string,
  folded: Folded,
  leader: FaultAt | undefined,
  asked: State,
): { readonly state: State; readonly rows: readonly ProfileRow[] } {
  const points = new Set(profileOf(wiring, pin, asked).map((p) => p.point));
  const readings = plain(folded).filter((e) => points.has(e.points[0]!));
  const state = readings.at(-1)?.state ?? asked;
  const measured = new Map<string, number>();
  for (const e of readings) {
    const [value] = e.values;
    if (typeof value === "number" && sameState(e.state, state)) measured.set(e.points[0]!, value);
  }
  return {
    state,
    rows: profileOf(wiring, pin, state, leader ? [leader] : []).map((p) => ({
      point: p.point,
      healthy: p.healthy,
      suspected: p.faulty,
      measured: measured.get(p.point),
    })),
  };
}
