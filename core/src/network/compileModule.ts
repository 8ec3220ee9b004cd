import { DEFAULTS } from "../defaults.js";
import type { DeviceOf, ModulePin, ModulePinOf } from "../format/wiring.js";
import { CHASSIS, pinBehind } from "../wiring/points.js";
import type { Builder } from "./builder.js";
import { sensorsAtPins } from "./partners.js";

/** The ground inside a module that a pin counts from. A module whose pins name no domain has one. */
export const innerGround = (module: string, domain: string | undefined) =>
  `${module} inner ground${domain ? ` ${domain}` : ""}`;

/**
 * What a module is awake on: its switched and its permanent supplies, each live at one pin or more; battery plus where
 * it names none.
 */
export function addModule(b: Builder, device: DeviceOf<"module">): void {
  const m = DEFAULTS.module;
  const nominal = b.wiring.nominalVolt;
  const of = <R extends ModulePin["role"]>(role: R) => device.pins.filter((p): p is ModulePinOf<R> => p.role === role);
  const grounds = of("ground");
  const supplies = of("supply");
  for (const domain of new Set(device.pins.map((p) => p.domain ?? ""))) {
    const inner = innerGround(device.id, domain);
    const own = grounds.filter((p) => (p.domain ?? "") === domain);
    for (const p of own) b.resistor(`inside ${p.at}`, pinBehind(p.at), inner, m.sensorGroundOhm);
    for (const p of own) if (!b.isWired(p.at)) b.resistor(`assumed ${p.at}`, p.at, CHASSIS, DEFAULTS.groundOhm);
    if (own.length === 0) b.resistor(`assumed ground ${device.id} ${domain}`, inner, CHASSIS, DEFAULTS.groundOhm);
  }
  for (const p of supplies)
    if (!b.isWired(p.at)) b.resistor(`assumed ${p.at}`, b.batteryPoint(), p.at, DEFAULTS.switchOhm);
  const live = (some: readonly ModulePinOf<"supply">[]) => some.map((p) => pinBehind(p.at));
  const groups = [
    live(supplies.filter((p) => p.feed === "switched")),
    live(supplies.filter((p) => p.feed === "permanent")),
    live(supplies.filter((p) => p.feed === undefined)),
  ].filter((g) => g.length);
  const feed = groups[0]?.[0] ?? b.batteryPoint();
  const gate = b.gate(
    device.id,
    groups.length ? groups : [[feed]],
    innerGround(device.id, (grounds[0] ?? supplies[0] ?? device.pins[0])?.domain),
    nominal * m.wakesAtShare,
    { needsKey: true },
  );
  for (const p of supplies) {
    const usual = m.supplyAmpere / supplies.length;
    const ampere = b.known(device.id, `supplyAmpere ${p.at}`, p.supplyAmpere, undefined, usual);
    const ohm = b.asleepOhm(p.at) ?? nominal / ampere;
    b.resistor(`load ${p.at}`, pinBehind(p.at), innerGround(device.id, p.domain), ohm);
  }
  for (const pin of device.pins) addPin(b, device, pin, gate, feed);
}

function addPin(b: Builder, device: DeviceOf<"module">, pin: ModulePin, gate: number, feed: string): void {
  const m = DEFAULTS.module;
  const at = pinBehind(pin.at);
  const inner = innerGround(device.id, pin.domain);
  const own = device.id;
  switch (pin.role) {
    case "supply":
    case "ground":
      return;
    case "sensorGround":
      b.resistor(`inside ${pin.at}`, at, inner, b.known(own, `ohm ${pin.at}`, pin.ohm, undefined, m.sensorGroundOhm));
      return;
    case "reference":
      b.add({
        id: `reference ${pin.at}`,
        type: "reference",
        a: b.node(at),
        b: b.node(inner),
        gate,
        offOhm: b.wide(own, `off ${pin.at}`, undefined, m.referenceOffOhm),
        volt: b.value(own, `volt ${pin.at}`, pin.volt ?? m.referenceVolt, "reference"),
        ohm: pin.ohm ?? m.referenceOhm,
        foldVolt: m.foldVolt,
        limitAmpere: b.known(own, `limit ${pin.at}`, pin.limitAmpere, undefined, m.referenceLimitAmpere),
        ...(pin.foldAmpere === undefined ? {} : { foldAmpere: b.known(own, `fold ${pin.at}`, pin.foldAmpere) }),
      });
      return;
    case "input": {
      const isOther = pin.pull === "down" && b.isGuess(pin.at) && otherPullChance(b, own, pin.at) < m.otherPull;
      const pull = isOther ? "up" : pin.pull;
      const usual = m.pullOhm[pin.pull];
      const ohm = b.wide(own, `pull ${pin.at}`, pin.pullOhm, [usual / m.pullSpread, usual * m.pullSpread]);
      const volt = pull === "up" ? (pin.pullVolt ?? b.about(own, `pullVolt ${pin.at}`, m.pullVolt, m.pullsTo)) : 0;
      b.add({ id: `pull ${pin.at}`, type: "source", a: b.node(at), b: b.node(inner), volt, ohm, gate, offOhm: ohm });
      return;
    }
    case "lowSide":
    case "highSide": {
      const on = (pin.activeIn ?? ["running"]).includes(b.key);
      const low = pin.role === "lowSide";
      b.add({
        id: `driver ${pin.at}`,
        type: "limiter",
        a: b.node(low ? at : feed),
        b: b.node(low ? inner : at),
        gate,
        volt: low ? 0 : 1,
        offOhm: low ? m.driverOffOhm : b.wide(own, `leak ${pin.at}`, undefined, m.highSideLeakOhm),
        ohm: b.known(own, `ohm ${pin.at}`, pin.ohm, undefined, m.driverOhm),
        limitAmpere: b.known(
          own,
          `limit ${pin.at}`,
          pin.limitAmpere,
          undefined,
          low ? m.lowSideAmpere : m.highSideAmpere,
        ),
        duty: on ? (pin.duty ?? 1) : 0,
      });
      if (low) addWatch(b, own, pin.at, inner, gate);
      else b.resistor(`off ${pin.at}`, at, inner, b.wide(own, `off ${pin.at}`, undefined, m.highSideOffOhm));
      return;
    }
    case "busHigh": {
      const other = device.pins.find(
        (p): p is ModulePinOf<"busLow"> => p.role === "busLow" && (p.bus ?? "") === (pin.bus ?? ""),
      );
      if (other)
        b.twoWireBus(`${own} ${pin.at}`, at, pinBehind(other.at), inner, gate, pin.terminated || other.terminated);
      return;
    }
    case "busLow":
      return; // comes with its busHigh
    case "busLine":
      b.singleWireBus(`${own} ${pin.at}`, at, feed, inner, gate, pin.commander);
  }
}

/**
 * Of few draws none may hold both of two kinds: those whose pull is the other way are not those whose sensor falls when
 * its ground is lost, which would show the same there.
 */
function otherPullChance(b: Builder, own: string, cavity: string): number {
  const sensor = sensorsAtPins(b.wiring).get(cavity);
  return sensor === undefined ? b.variant(own, `other pull ${cavity}`) : 1 - b.variant(sensor, "groundDiode");
}

/** By a weak bias some low-side drivers look whether their load is there while they are off. */
function addWatch(b: Builder, own: string, cavity: string, inner: string, gate: number): void {
  const m = DEFAULTS.module;
  const ohm = b.wide(own, `watch ${cavity}`, undefined, m.watchOhm);
  const [least, most] = m.watchVolt;
  const kind = b.variant(own, "watches");
  const without = kind < m.noneWatch || (kind < 1 - m.allWatch && b.variant(own, `watches ${cavity}`) < m.withoutWatch);
  b.add({
    id: `watch ${cavity}`,
    type: "source",
    a: b.node(pinBehind(cavity)),
    b: b.node(inner),
    volt: without ? 0 : least + (most - least) * b.variant(own, `watch volt ${cavity}`),
    ohm: without ? m.driverOffOhm : ohm,
    gate,
    offOhm: m.driverOffOhm,
  });
}
