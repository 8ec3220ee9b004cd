import type { Disturbance, State } from "../format/case.js";

/** One thing that is not as it was found, and the entry that says so. */
export interface Disturbed {
  readonly thing: string;
  readonly how: Disturbance;
  readonly number: number;
}

/** What a reading says is fitted; the next reading says it anew. */
type Fitted = Pick<State, "jumpers" | "loads" | "breakers">;

/** Only as long as the reading that says so. */
const TRANSIENT: ReadonlySet<Disturbance> = new Set<Disturbance>(["pulled", "breaker", "jumpered", "loaded"]);

const ends = (x: { readonly from: string; readonly to: string }): string => `${x.from} ${x.to}`;

/** The machine as the logbook leaves it, and all that is other than it was found. */
export class MachineNow {
  private key: State["key"] = "on";
  private pulled: State["pulled"];
  private fitted: Fitted = {};
  private readonly unplugged = new Set<string>();
  private readonly sinceClear = new Set<string>();
  private readonly open = new Map<string, Disturbed>();

  get state(): State {
    const { pulled, fitted } = this;
    return {
      key: this.key,
      unplugged: [...this.unplugged].sort(),
      ...(pulled?.length ? { pulled } : {}),
      ...notEmpty(fitted),
    };
  }
  get disturbed(): readonly Disturbed[] {
    return [...this.open.values()];
  }
  /** connectors unplugged and fuses pulled since codes were last cleared, in the order it was done */
  get disturbedSinceClear(): string[] {
    return [...this.sinceClear];
  }

  /** What a reading or a trial says of the machine at that moment holds until the next one says otherwise. */
  isNow(state: State, number: number): void {
    this.key = state.key;
    this.pulled = state.pulled;
    this.fitted = notEmpty(state);
    this.unplugged.clear();
    for (const c of state.unplugged) this.unplugged.add(c);
    for (const id of [...state.unplugged, ...(state.pulled ?? []), ...(state.breakers ?? [])]) this.sinceClear.add(id);
    this.noteUnplugged(number);
    for (const d of this.disturbed) if (TRANSIENT.has(d.how)) this.restore(d.thing, d.how);
    for (const f of state.pulled ?? []) this.leave(f, "pulled", number);
    for (const f of state.breakers ?? []) this.leave(f, "breaker", number);
    for (const j of state.jumpers ?? []) this.leave(ends(j), "jumpered", number);
    for (const l of state.loads ?? []) this.leave(ends(l), "loaded", number);
  }
  unplug(connector: string, number: number): void {
    this.unplugged.add(connector);
    this.sinceClear.add(connector);
    this.noteUnplugged(number);
  }
  plug(connector: string, number: number): void {
    this.unplugged.delete(connector);
    this.noteUnplugged(number);
  }
  /** Something was taken apart, or found so, without a reading. */
  disturb(thing: string, how: Disturbance, number: number): void {
    this.leave(thing, how, number);
    if (how === "unplugged") this.unplugged.add(thing);
    if (how === "pulled") this.pulled = [...new Set([...(this.pulled ?? []), thing])];
    this.sinceClear.add(thing);
  }
  putRight(thing: string, how: Disturbance): void {
    this.restore(thing, how);
    const { breakers, jumpers, loads } = this.fitted;
    if (how === "unplugged") this.unplugged.delete(thing);
    if (how === "pulled") this.pulled = this.pulled?.filter((f) => f !== thing);
    if (how === "breaker") this.fitted = { ...this.fitted, breakers: breakers?.filter((f) => f !== thing) };
    if (how === "jumpered") this.fitted = { ...this.fitted, jumpers: jumpers?.filter((j) => ends(j) !== thing) };
    if (how === "loaded") this.fitted = { ...this.fitted, loads: loads?.filter((l) => ends(l) !== thing) };
  }
  /** A lead through the insulation leaves a hole to be sealed. */
  pierce(point: string, number: number): void {
    this.leave(point, "pierced", number);
  }
  /** Something was off while codes were read: what it sets is no evidence. */
  disturbForCodes(id: string): void {
    this.sinceClear.add(id);
  }
  codesCleared(): void {
    this.sinceClear.clear();
    for (const c of this.unplugged) this.sinceClear.add(c);
  }

  private noteUnplugged(number: number): void {
    for (const d of this.disturbed)
      if (d.how === "unplugged" && !this.unplugged.has(d.thing)) this.restore(d.thing, "unplugged");
    for (const c of this.unplugged) this.leave(c, "unplugged", number);
  }
  private leave(thing: string, how: Disturbance, number: number): void {
    const name = `${how} ${thing}`;
    if (!this.open.has(name)) this.open.set(name, { thing, how, number });
  }
  private restore(thing: string, how: Disturbance): void {
    this.open.delete(`${how} ${thing}`);
  }
}

const notEmpty = ({ jumpers, loads, breakers }: Fitted): Fitted => ({
  ...(jumpers?.length ? { jumpers } : {}),
  ...(loads?.length ? { loads } : {}),
  ...(breakers?.length ? { breakers } : {}),
});
