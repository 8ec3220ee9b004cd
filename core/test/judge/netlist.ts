import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

/**
 * A circuit for ngspice, written element by element. Nothing here is the product's: it is the judge's own language for
 * what devices are made of.
 */
export class Netlist {
  private readonly lines: string[] = [];
  private readonly numbers = new Map<string, number>([["0", 0]]);

  /** The node of a name, as ngspice is given it. */
  node(name: string): string {
    let n = this.numbers.get(name);
    if (n === undefined) {
      this.numbers.set(name, (n = this.numbers.size));
      // every conductor leaks a little: a node that nothing holds still has a voltage
      this.lines.push(`Rleak${n} ${n} 0 2e9`);
    }
    return String(n);
  }
  has(name: string): boolean {
    return this.numbers.has(name);
  }
  resistor(a: string, b: string, ohm: number): void {
    if (ohm < 1e11) this.add("R", `${this.node(a)} ${this.node(b)} ${Math.max(ohm, 1e-5).toPrecision(8)}`);
  }
  /** Silicon, some 0.6 V at a milliampere. */
  diode(anode: string, cathode: string): void {
    this.add("D", `${this.node(anode)} ${this.node(cathode)} silicon`);
  }
  source(plus: string, minus: string, volt: number): void {
    this.add("V", `${this.node(plus)} ${this.node(minus)} ${volt}`);
  }
  /** A current from a to b through the element, as an expression of voltages; see `volts`. */
  current(a: string, b: string, expression: string): void {
    this.add("B", `${this.node(a)} ${this.node(b)} I=${expression}`);
  }
  voltage(a: string, b: string, expression: string): void {
    this.add("B", `${this.node(a)} ${this.node(b)} V=${expression}`);
  }
  /** The voltage of a above b within an expression. */
  volts(a: string, b = "0"): string {
    return b === "0" ? `V(${this.node(a)})` : `(V(${this.node(a)})-V(${this.node(b)}))`;
  }
  private add(letter: string, text: string): void {
    this.lines.push(`${letter}${this.lines.length} ${text}`);
  }

  /**
   * @param near volts by node name to begin from, where something like them is known
   * @returns volts by node name
   * @throws {Unsolved}
   */
  static solveMany(list: readonly Netlist[], near?: ReadonlyMap<string, number>): ReadonlyMap<string, number>[] {
    const runs = list.map((_, i) => `source deck${i}.cir\nop\necho @@ ${i}\nprint all\ndestroy all\nremcirc`);
    const out = ngspice(
      `* all\n.control\nset numdgt=9\n${runs.join("\n")}\nquit\n.endc\n.end\n`,
      list.map((n) => n.deck(near)),
    );
    const parts = new Map(
      out
        .split("@@ ")
        .slice(1)
        .map((part) => [Number.parseInt(part, 10), part] as const),
    );
    return list.map((n, i) => {
      const printed = (parts.get(i) ?? "").matchAll(/^v\((\d+)\) = ([-+.\deE]+)/gm);
      const byNumber = new Map([...printed].map((m) => [Number(m[1]), Number(m[2])]));
      if (byNumber.size === 0) throw new Unsolved();
      return new Map([...n.numbers].map(([name, k]) => [name, k === 0 ? 0 : (byNumber.get(k) ?? NaN)]));
    });
  }
  private deck(near: ReadonlyMap<string, number> | undefined): string {
    const begin = [...this.numbers].flatMap(([name, n]) => {
      const volt = near?.get(name);
      return n > 0 && volt !== undefined ? [`.nodeset v(${n})=${volt}`] : [];
    });
    const options = ".options reltol=1e-4 abstol=1e-9 vntol=1e-5 gmin=1e-11 itl1=150 itl2=100";
    const model = ".model silicon D(is=1e-12 n=1.15 rs=0.2)";
    return ["* machine", ...this.lines, ...begin, model, options, ".end", ""].join("\n");
  }
}

/** ngspice found no operating point. */
export class Unsolved extends Error {}

/** Runs a control deck with its circuits beside it. @returns what it printed */
function ngspice(control: string, decks: readonly string[]): string {
  const folder = mkdtempSync(join(tmpdir(), "judge-"));
  try {
    decks.forEach((text, i) => writeFileSync(join(folder, `deck${i}.cir`), text));
    writeFileSync(join(folder, "all.cir"), control);
    try {
      return execFileSync("ngspice", ["-b", "all.cir"], {
        cwd: folder,
        encoding: "utf8",
        stdio: ["ignore", "pipe", "pipe"],
        maxBuffer: 1 << 28,
      });
    } catch (error) {
      if (error instanceof Error && "stdout" in error) return String(error.stdout);
      throw error;
    }
  } finally {
    rmSync(folder, { recursive: true });
  }
}
