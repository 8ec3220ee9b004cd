import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

/**
 * Reference program: ngspice (Debian), an independent circuit simulator, given exported netlists with reltol 1e-9
 * and gmin 1e-15, many in one process. @returns volts by node name, one map per netlist; empty where it found no
 * solution
 */
export function spiceMany(netlists: readonly string[]): Map<string, number>[] {
  const folder = mkdtempSync(join(tmpdir(), "netlist-"));
  try {
    netlists.forEach((text, i) => writeFileSync(join(folder, `c${i}.cir`), text));
    const runs = netlists.map(
      (_, i) => `source ${join(folder, `c${i}.cir`)}\nset numdgt=15\nop\necho @@ ${i}\nprint all\ndestroy all\nremcirc`,
    );
    writeFileSync(join(folder, "all.cir"), `* all\n.control\n${runs.join("\n")}\nquit\n.endc\n.end\n`);
    let out = "";
    try {
      out = execFileSync("ngspice", ["-b", join(folder, "all.cir")], {
        encoding: "utf8",
        stdio: ["ignore", "pipe", "pipe"],
        maxBuffer: 1 << 28,
      });
    } catch (error) {
      if (error instanceof Error && "stdout" in error) out = String(error.stdout);
      else throw error;
    }
    const parts = new Map(
      out
        .split("@@ ")
        .slice(1)
        .map((part) => [Number.parseInt(part, 10), part] as const),
    );
    return netlists.map(
      (_, i) =>
        new Map([...(parts.get(i) ?? "").matchAll(/^n(\d+) = ([-+.\deE]+)/gm)].map((m) => [`n${m[1]}`, Number(m[2])])),
    );
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/** One netlist. */
export const spice = (netlist: string): Map<string, number> => spiceMany([netlist])[0]!;

/** Least and most of some nodes over time, by a transient analysis of one netlist. @param seconds how long */
export function spiceOverTime(
  netlist: string,
  nodes: readonly string[],
  seconds: number,
): { readonly least: number; readonly most: number }[] {
  const folder = mkdtempSync(join(tmpdir(), "netlist-"));
  try {
    writeFileSync(join(folder, "c.cir"), netlist);
    const measures = nodes.flatMap((n, i) => [`meas tran lo${i} min v(${n})`, `meas tran hi${i} max v(${n})`]);
    const control = [`source ${join(folder, "c.cir")}`, `tran ${seconds / 500} ${seconds}`, ...measures, "quit"];
    writeFileSync(join(folder, "all.cir"), `* all\n.control\n${control.join("\n")}\n.endc\n.end\n`);
    const out = execFileSync("ngspice", ["-b", join(folder, "all.cir")], {
      encoding: "utf8",
      stdio: ["ignore", "pipe", "pipe"],
    });
    const measured = new Map(
      [...out.matchAll(/^(lo|hi)(\d+)\s*=\s*([-+.\deE]+)/gm)].map((m) => [m[1]! + m[2]!, Number(m[3])]),
    );
    return nodes.map((_, i) => ({ least: measured.get(`lo${i}`) ?? NaN, most: measured.get(`hi${i}`) ?? NaN }));
  } finally {
    rmSync(folder, { recursive: true });
  }
}
