import type { Fault } from "../faults/fault.js";
import { generateFaults } from "../faults/generate.js";
import type { Entry } from "../format/case.js";
import type { Wiring } from "../format/wiring.js";
import { compile } from "../network/compile.js";
import { focusOn } from "../wiring/focus.js";
import { Predictor } from "./predictor.js";

/** A machine of more nodes is looked at in part where a part will do. Judgement: what is solved without waiting. */
const WHOLE_UP_TO_NODES = 400;
/** Predictors of parts kept: the one in use, and the one before, for an entry taken back. */
const KEPT = 2;

/**
 * Predictors for a machine, small or large. A small one has one predictor. Of a large one only the part that the
 * logbook is about is solved, see `focusOn`; the part grows with the logbook.
 */
export class Focus {
  /** whether it is solved in part, where a part will do */
  readonly isLarge: boolean;
  private readonly parts = new Map<string, Predictor>();
  private whole: Predictor | undefined;
  private all: readonly Fault[] | undefined;

  /** @param whole a predictor of all of it, where there is one already */
  constructor(
    readonly wiring: Wiring,
    whole?: Predictor,
  ) {
    this.whole = whole;
    this.isLarge = compile(wiring, "on").nodes.length > WHOLE_UP_TO_NODES;
  }

  /** Every fault of the whole machine. */
  get faults(): readonly Fault[] {
    return (this.all ??= generateFaults(this.wiring));
  }

  /** The predictor for a logbook. Hypotheses are numbered by it: what one has said means nothing to another. */
  predictor(entries: readonly Entry[]): Predictor {
    if (!this.isLarge) return (this.whole ??= new Predictor(this.wiring));
    const part = focusOn(this.wiring, thingsIn(this.wiring, entries));
    if (part.devices.length === this.wiring.devices.length) return (this.whole ??= new Predictor(this.wiring));
    const name = part.devices.map((d) => d.id).join(" ");
    const predictor = this.parts.get(name) ?? new Predictor(part);
    this.parts.delete(name); // and put back as the latest
    this.parts.set(name, predictor);
    if (this.parts.size > KEPT) this.parts.delete(this.parts.keys().next().value!);
    return predictor;
  }
}

/** Everything of the wiring that a logbook names. Of codes only those that are set count. */
function thingsIn(wiring: Wiring, entries: readonly Entry[]): Set<string> {
  const found = new Set<string>();
  for (const e of entries)
    if (e.type === "scan")
      for (const c of e.codes) {
        if (c.status !== "absent" && c.status !== "notRun") addCode(wiring, c.module, c.code, found);
      }
    else if (e.type === "code") {
      if (e.status !== "absent") addCode(wiring, e.module, e.code, found);
    } else if (e.type !== "verdict" && e.type !== "revision") addTexts(e, found);
  return found;
}
function addCode(wiring: Wiring, module: string, id: string, to: Set<string>): void {
  to.add(module);
  const code = wiring.codes.find((c) => c.module === module && c.id === id);
  if (code?.about !== undefined) to.add(code.about);
  if (code?.monitor?.type === "silent") to.add(code.monitor.node);
}
/** Points, connectors, parts, wires: whatever text an entry holds, since only names of the wiring are looked up. */
function addTexts(value: unknown, to: Set<string>): void {
  if (typeof value === "string") {
    to.add(value);
    for (const word of value.split(/[\s~]+/)) to.add(word);
  } else if (Array.isArray(value)) for (const v of value) addTexts(v, to);
  else if (value !== null && typeof value === "object") for (const v of Object.values(value)) addTexts(v, to);
}
