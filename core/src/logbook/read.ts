import { LARGEST_SHOWN } from "../units/quantity.js";
import {
  Case,
  CASE_FORMAT,
  Entry,
  type Case as CaseT,
  type Entry as EntryT,
  type Instrument,
  type State,
} from "../format/case.js";
import { MAX_ISSUES, parseJson, readSchema } from "../format/json.js";
import type { Wiring } from "../format/wiring.js";
import { fail, issue, type Issue, type Result } from "../issues/issue.js";
import { checkWiring } from "../wiring/check.js";
import { CHASSIS, connectorOf, indexWiring, resolvePlace, wireId, type Index } from "../wiring/points.js";

/** Reads a case (wiring plus logbook) from JSON text. @returns the case, or every issue found with its place */
export function parseCase(text: string): Result<CaseT> {
  const json = parseJson(text);
  return json.ok ? readCase(json.value) : json;
}

/** As `parseCase`, for JSON already read. */
export function readCase(value: unknown): Result<CaseT> {
  const shaped = readSchema(value, Case, CASE_FORMAT);
  if (!shaped.ok) return shaped;
  const inWiring = checkWiring(shaped.value.wiring).map((i) => ({ ...i, path: ["wiring", ...i.path] }));
  const issues = inWiring.length
    ? inWiring
    : checkEntries(shaped.value.wiring, shaped.value.entries).map((i) => ({ ...i, path: ["entries", ...i.path] }));
  return issues.length ? fail(issues.slice(0, MAX_ISSUES)) : shaped;
}

/**
 * Sense of logbook entries against the wiring: points and connectors that exist, undo of an earlier entry, OL only in
 * ohms,
 * values a meter can show. A code the wiring does not know is kept: it weighs nothing and is remarked on.
 * @param from how many entries stand before these (an undo may point at them)
 */
export function checkEntries(wiring: Wiring, entries: readonly EntryT[], from = 0): Issue[] {
  const index = indexWiring(wiring);
  const wires = new Set(wiring.wires.map(wireId));
  const issues: Issue[] = [];
  const connector = (id: string, path: Issue["path"]) => {
    if (!index.connectors.has(id)) issues.push(issue("entry.missing-connector", path, { id }));
  };
  entries.forEach((e, i) => {
    if (e.type === "reading") {
      if (e.instrument === "clamp")
        e.points.forEach((p, j) => {
          if (!wires.has(p)) issues.push(issue("entry.missing-thing", [i, "points", j], { id: p }));
        });
      else
        [
          ...e.points.map((p, j) => [p, "points", j] as const),
          ...(e.black === undefined || e.black === CHASSIS ? [] : [[e.black, "black"] as const]),
        ].forEach(([p, ...path]) => {
          const place = resolvePlace(index, p, [i, ...path]);
          if (!place.ok) issues.push(...place.issues);
        });
      e.state.unplugged.forEach((c, j) => connector(c, [i, "state", "unplugged", j]));
      issues.push(...checkState(index, e.state).map((x) => ({ ...x, path: [i, "state", ...x.path] })));
      e.values.forEach((v, j) => {
        const worded = WORDS_OF[e.instrument] ?? NONE;
        if (typeof v === "string" && v !== "OL" ? !worded.has(v) : worded !== NONE && worded !== SCAN) {
          issues.push(
            issue("entry.not-this-instrument", [i, "values", j], { value: String(v), instrument: e.instrument }),
          );
          return;
        }
        if (v === "OL" && e.instrument !== "ohmmeter" && e.instrument !== "continuity")
          issues.push(issue("entry.overload-not-ohms", [i, "values", j]));
        if (typeof v !== "number" || (e.unit ?? "V") !== "V") return;
        if (e.instrument === "ohmmeter" && v < 0)
          issues.push(issue("entry.negative-ohms", [i, "values", j], { value: v }));
        const limit = LARGEST_SHOWN[e.instrument === "ohmmeter" ? "Ω" : e.instrument === "clamp" ? "A" : "V"];
        if (Math.abs(v) > limit) issues.push(issue("entry.absurd", [i, "values", j], { value: v, limit }));
      });
    }
    if (e.type === "trace") {
      e.channels.forEach((c, j) => {
        if (c.by === "clamp") {
          if (!wires.has(c.on)) issues.push(issue("entry.missing-thing", [i, "channels", j, "on"], { id: c.on }));
        } else
          for (const [p, field] of [
            [c.on, "on"],
            ...(c.black === undefined || c.black === CHASSIS ? [] : [[c.black, "black"] as const]),
          ] as const) {
            const place = resolvePlace(index, p, [i, "channels", j, field]);
            if (!place.ok) issues.push(...place.issues);
          }
        if (c.low > c.high)
          issues.push(issue("wiring.range-reversed", [i, "channels", j], { low: c.low, high: c.high }));
      });
      e.state.unplugged.forEach((c, j) => connector(c, [i, "state", "unplugged", j]));
      issues.push(...checkState(index, e.state).map((x) => ({ ...x, path: [i, "state", ...x.path] })));
      (e.moved ?? []).forEach(({ thing }, j) => {
        if (!wires.has(thing) && !index.connectors.has(connectorOf(thing)) && !index.devices.has(connectorOf(thing)))
          issues.push(issue("entry.missing-thing", [i, "moved", j, "thing"], { id: thing }));
      });
    }
    if (e.type === "reading") {
      if (e.swing && e.swing[0] > e.swing[1])
        issues.push(issue("wiring.range-reversed", [i, "swing"], { low: e.swing[0], high: e.swing[1] }));
      if (e.corrects !== undefined && e.corrects > from + i)
        issues.push(issue("entry.undo-of-nothing", [i, "corrects"], { target: e.corrects }));
    }
    if (e.type === "unplugged" || e.type === "plugged") connector(e.connector, [i, "connector"]);
    const known = (id: string, path: Issue["path"]) => {
      if (!index.connectors.has(id) && !index.devices.has(id)) issues.push(issue("entry.missing-thing", path, { id }));
    };
    if (e.type === "look" || e.type === "wiggle") {
      if (!wires.has(e.thing)) known(connectorOf(e.thing), [i, "thing"]);
    }
    if (e.type === "disturbed" || e.type === "restored") {
      if (!wires.has(e.thing))
        e.thing
          .split(" ")
          .filter((t) => t !== CHASSIS)
          .forEach((t) => known(connectorOf(t), [i, "thing"]));
    }
    if (e.type === "run") {
      if (!wires.has(e.on))
        e.on
          .split(" ")
          .filter((t) => t !== CHASSIS)
          .forEach((t) => known(connectorOf(t), [i, "on"]));
    }
    if (e.type === "repaired")
      e.things.forEach((t, j) => {
        if (!wires.has(t)) known(connectorOf(t), [i, "things", j]);
        else if (e.things.indexOf(t) !== j) issues.push(issue("entry.named-twice", [i, "things", j], { id: t }));
      });
    if (e.type === "identity") connector(e.connector, [i, "connector"]);
    if (e.type === "swap") e.parts.forEach((id, j) => known(id, [i, "parts", j]));
    if (e.type === "holds") {
      known(e.fuse, [i, "fuse"]);
      issues.push(...checkState(index, e.state).map((x) => ({ ...x, path: [i, "state", ...x.path] })));
    }
    if (e.type === "seen") connector(e.connector, [i, "connector"]);
    if (e.type === "moved") {
      connector(e.from, [i, "from"]);
      connector(e.to, [i, "to"]);
      e.readings.forEach((n, j) => {
        if (n > from + i) issues.push(issue("entry.undo-of-nothing", [i, "readings", j], { target: n }));
      });
    }
    if (e.type === "scan") e.disturbed.forEach((id, j) => known(id, [i, "disturbed", j]));
    if (e.type === "intake") {
      e.intake.history.forEach((h, j) => h.at.forEach((id, k) => known(id, [i, "intake", "history", j, "at", k])));
      e.intake.bulletins.forEach((b, j) => b.at.forEach((id, k) => known(id, [i, "intake", "bulletins", j, "at", k])));
    }
    if (e.type === "undo" && e.target > from + i)
      issues.push(issue("entry.undo-of-nothing", [i, "target"], { target: e.target }));
  });
  return issues;
}

/** What a state names beyond connectors: points of jumpers and loads, fuses, modules, sensors. */
function checkState(index: Index, state: State): Issue[] {
  const issues: Issue[] = [];
  const point = (p: string, path: Issue["path"]) => {
    const place = p === CHASSIS ? undefined : resolvePlace(index, p, path);
    if (place && !place.ok) issues.push(...place.issues);
  };
  const device = (id: string, kinds: readonly string[] | undefined, path: Issue["path"]) => {
    const d = index.devices.get(id);
    if (!d || (kinds && !kinds.includes(d.kind))) issues.push(issue("wiring.missing-device", path, { id }));
  };
  (state.jumpers ?? []).forEach((x, j) => {
    point(x.from, ["jumpers", j, "from"]);
    point(x.to, ["jumpers", j, "to"]);
  });
  (state.loads ?? []).forEach((x, j) => {
    point(x.from, ["loads", j, "from"]);
    point(x.to, ["loads", j, "to"]);
  });
  for (const field of ["pulled", "breakers"] as const)
    (state[field] ?? []).forEach((id, j) => device(id, ["fuse", "breaker"], [field, j]));
  (state.asleep ?? []).forEach((id, j) => device(id, ["module"], ["asleep", j]));
  for (const id of Object.keys(state.stimulus ?? {})) device(id, undefined, ["stimulus", id]);
  return issues;
}
const LAMP: ReadonlySet<string> = new Set(["bright", "dim", "dark"]);
const BEEPER: ReadonlySet<string> = new Set(["beep", "silent"]);
const SCAN: ReadonlySet<string> = new Set(["plausible", "frozen", "lowEnd", "highEnd"]);
const NONE: ReadonlySet<string> = new Set();
const WORDS_OF: Readonly<Partial<Record<Instrument, ReadonlySet<string>>>> = {
  lamp: LAMP,
  continuity: BEEPER,
  scanTool: SCAN,
};

/** Reads entries that arrive from outside (a request), against the wiring they belong to. */
export function readEntries(wiring: Wiring, value: unknown, from: number): Result<EntryT[]> {
  const parsed = Entry.array().min(1).max(100).safeParse(value);
  if (!parsed.success)
    return fail(
      parsed.error.issues.slice(0, MAX_ISSUES).map((i) =>
        issue(
          "schema.entry",
          i.path.map((p) => (typeof p === "symbol" ? String(p) : p)),
          { message: i.message },
        ),
      ),
    );
  const issues = checkEntries(wiring, parsed.data, from);
  return issues.length ? fail(issues) : { ok: true, value: parsed.data };
}
