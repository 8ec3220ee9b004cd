import { issue, type Issue } from "../issues/issue.js";
import type { Device, DeviceOf, Wiring } from "../format/wiring.js";
import { STAR_KINDS } from "./kinds.js";
import { devicePins, indexWiring, resolvePlace, wireId } from "./points.js";

/**
 * Sense of a wiring document beyond its shape: names that exist and are unique, a cavity wired once,
 * a pin used once, ranges the right way round, codes that watch a pin of their own module.
 * @returns every contradiction found, with its place; empty when the document can be solved
 */
export function checkWiring(wiring: Wiring): Issue[] {
  return [
    ...checkNames(wiring),
    ...checkWires(wiring),
    ...checkDevices(wiring),
    ...checkCodes(wiring),
    ...checkResets(wiring),
  ];
}

function checkNames(wiring: Wiring): Issue[] {
  const issues: Issue[] = [];
  const once = (seen: Map<string, string>, id: string, place: string, path: Issue["path"]) => {
    const first = seen.get(id);
    if (first !== undefined) issues.push(issue("wiring.duplicate-id", path, { id, first }));
    else seen.set(id, place);
  };
  const connectors = new Map<string, string>();
  const devices = new Map<string, string>();
  const wires = new Map<string, string>();
  wiring.connectors.forEach((c, i) => {
    once(connectors, c.id, `connectors[${i}]`, ["connectors", i, "id"]);
    const cavities = new Map<string, string>();
    c.cavities.forEach((cavity, j) =>
      once(cavities, cavity, `connectors[${i}].cavities`, ["connectors", i, "cavities", j]),
    );
  });
  wiring.devices.forEach((d, i) => {
    once(devices, d.id, `devices[${i}]`, ["devices", i, "id"]);
    const own = STAR_KINDS.has(d.kind) || !("pins" in d);
    if (own && connectors.has(d.id))
      issues.push(issue("wiring.duplicate-id", ["devices", i, "id"], { id: d.id, first: connectors.get(d.id) ?? "" }));
  });
  wiring.wires.forEach((w, i) => once(wires, wireId(w), `wires[${i}]`, ["wires", i]));
  return issues;
}

function checkWires(wiring: Wiring): Issue[] {
  const issues: Issue[] = [];
  const index = indexWiring(wiring);
  const taken = new Map<string, string>();
  wiring.wires.forEach((wire, i) => {
    for (const end of ["from", "to"] as const) {
      const place = resolvePlace(index, wire[end], ["wires", i, end]);
      if (!place.ok) {
        issues.push(...place.issues);
        continue;
      }
      if (place.value.type !== "cavity") continue;
      const first = taken.get(wire[end]);
      if (first !== undefined)
        issues.push(issue("wiring.cavity-wired-twice", ["wires", i, end], { cavity: wire[end], first }));
      else taken.set(wire[end], `wires[${i}].${end}`);
    }
    if (wire.from === wire.to) issues.push(issue("wiring.wire-to-itself", ["wires", i], { endpoint: wire.from }));
  });
  return issues;
}

function checkDevices(wiring: Wiring): Issue[] {
  const issues: Issue[] = [];
  const index = indexWiring(wiring);
  const taken = new Map<string, { readonly device: Device; readonly role: string }>();
  wiring.devices.forEach((device, i) => {
    for (const pin of devicePins(device)) {
      const path = ["devices", i, ...pin.path];
      const place = resolvePlace(index, pin.at, path);
      if (!place.ok) {
        issues.push(...place.issues);
        continue;
      }
      if (place.value.type === "star" && place.value.device.kind === "ground" && pin.role === "ground") continue;
      if (place.value.type !== "cavity" || place.value.side) {
        issues.push(issue("wiring.pin-needs-device-connector", path, { at: pin.at }));
        continue;
      }
      const first = taken.get(pin.at);
      const isShared = first !== undefined && first.device.kind !== "module" && SHARED_ROLES.has(first.role);
      if (first !== undefined && !(isShared && device.kind !== "module" && SHARED_ROLES.has(pin.role)))
        issues.push(issue("wiring.cavity-used-twice", path, { cavity: pin.at, first: first.device.id }));
      else taken.set(pin.at, { device, role: pin.role });
    }
    if (device.kind === "module") issues.push(...checkBusPins(device, i));
    if (device.kind === "relay" && !device.pins.working && !device.pins.resting)
      issues.push(issue("wiring.relay-without-contact", ["devices", i, "pins"], { relay: device.id }));
    if ("transfer" in device && device.transfer && !isMonotone(device.transfer.points))
      issues.push(issue("wiring.transfer-not-monotone", ["devices", i, "transfer", "points"], { part: device.id }));
    if ("follows" in device && device.follows !== undefined) {
      const other = index.devices.get(device.follows);
      if (!other) issues.push(issue("wiring.missing-device", ["devices", i, "follows"], { id: device.follows }));
      else if (other === device || other.kind !== device.kind)
        issues.push(
          issue("wiring.follows-another-kind", ["devices", i, "follows"], { id: device.follows, part: device.id }),
        );
    }
    for (const key of ["restShare", "restCelsius", "restMilliampere"] as const) {
      const range = (device as Record<string, unknown>)[key] as readonly [number, number] | undefined;
      if (range && range[0] > range[1])
        issues.push(issue("wiring.range-reversed", ["devices", i, key], { low: range[0], high: range[1] }));
    }
  });
  return issues;
}

/** Whether volts and values both only rise, or one rises while the other falls. */
function isMonotone(points: readonly (readonly [number, number])[]): boolean {
  const sorted = [...points].sort((a, b) => a[0] - b[0]);
  const steps = sorted.slice(1).map(([v, x], i) => [v - sorted[i]![0], x - sorted[i]![1]] as const);
  return steps.every(([dv]) => dv > 0) && (steps.every(([, dx]) => dx > 0) || steps.every(([, dx]) => dx < 0));
}

/** Roles that parts in one housing may share a cavity for. */
const SHARED_ROLES: ReadonlySet<string> = new Set(["supply", "supply2", "ground", "ground2", "feed"]);

/** A two-wire bus needs both its pins, once each. */
function checkBusPins(module: DeviceOf<"module">, i: number): Issue[] {
  const buses = new Map<string, string[]>();
  for (const p of module.pins)
    if (p.role === "busHigh" || p.role === "busLow")
      buses.set(p.bus ?? "", [...(buses.get(p.bus ?? "") ?? []), p.role]);
  return [...buses].flatMap(([bus, roles]) =>
    roles.length === 2 && roles[0] !== roles[1]
      ? []
      : [issue("wiring.bus-pair", ["devices", i, "pins"], { module: module.id, bus })],
  );
}

/** A teach-in for a part that is not there would never be asked for. */
function checkResets(wiring: Wiring): Issue[] {
  const things = new Set([...wiring.devices, ...wiring.connectors].map((x) => x.id));
  const first = new Map<string, number>();
  return (wiring.resets ?? []).flatMap((reset, i) => {
    const known = first.get(reset.id);
    if (known === undefined) first.set(reset.id, i);
    return [
      ...(known === undefined
        ? []
        : [issue("wiring.duplicate-id", ["resets", i, "id"], { id: reset.id, first: `resets[${known}]` })]),
      ...reset.on.flatMap((id, j) =>
        things.has(id) ? [] : [issue("entry.missing-thing", ["resets", i, "on", j], { id })],
      ),
    ];
  });
}

function checkCodes(wiring: Wiring): Issue[] {
  const issues: Issue[] = [];
  const devices = new Set(wiring.devices.map((d) => d.id));
  const modules = new Map(wiring.devices.flatMap((d) => (d.kind === "module" ? [[d.id, d] as const] : [])));
  const seen = new Map<string, number>();
  wiring.codes.forEach((code, i) => {
    const module = modules.get(code.module);
    const key = `${code.module} ${code.id}`;
    if (seen.has(key))
      issues.push(
        issue("wiring.duplicate-id", ["codes", i, "id"], { id: code.id, first: `codes[${seen.get(key) ?? 0}]` }),
      );
    seen.set(key, i);
    if (!module) {
      issues.push(
        issue("wiring.missing-module", ["codes", i, "module"], {
          module: code.module,
          known: [...modules.keys()].slice(0, 12),
        }),
      );
      return;
    }
    if (code.about !== undefined && !devices.has(code.about))
      issues.push(issue("wiring.missing-device", ["codes", i, "about"], { id: code.about }));
    const monitor = code.monitor;
    if (!monitor) return;
    if (monitor.type === "silent") {
      if (!devices.has(monitor.node))
        issues.push(issue("wiring.missing-device", ["codes", i, "monitor", "node"], { id: monitor.node }));
      return;
    }
    for (const [field, at] of [
      ["at", monitor.at],
      ...(monitor.type === "disagree" ? [["other", monitor.other] as const] : []),
    ] as const) {
      if (!module.pins.some((p) => p.at === at))
        issues.push(issue("wiring.monitor-not-at-module", ["codes", i, "monitor", field], { at, module: code.module }));
    }
    if (
      monitor.type === "current" &&
      !module.pins.some((p) => p.at === monitor.at && (p.role === "lowSide" || p.role === "highSide"))
    )
      issues.push(issue("wiring.monitor-needs-driver", ["codes", i, "monitor", "at"], { at: monitor.at }));
    if (monitor.supply && monitor.supply[0] > monitor.supply[1])
      issues.push(
        issue("wiring.range-reversed", ["codes", i, "monitor", "supply"], {
          low: monitor.supply[0],
          high: monitor.supply[1],
        }),
      );
    if (monitor.type === "outside" && monitor.low > monitor.high)
      issues.push(issue("wiring.range-reversed", ["codes", i, "monitor"], { low: monitor.low, high: monitor.high }));
  });
  return issues;
}
