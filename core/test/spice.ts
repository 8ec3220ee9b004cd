import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

/**
 * Reference program: ngspice (Debian), an independent circuit simulator, given an exported netlist with reltol 1e-9
 * and gmin 1e-15. @returns volts by node name
 */
export function spice(netlist: string): Map<string, number> {
  const folder = mkdtempSync(join(tmpdir(), "netlist-"));
  try {
    const file = join(folder, "circuit.cir");
    writeFileSync(file, netlist.replace(".op\n", ".op\n.control\nrun\nset numdgt=15\nprint all\n.endc\n"));
    const out = execFileSync("ngspice", ["-b", file], { encoding: "utf8", stdio: ["ignore", "pipe", "pipe"] });
    return new Map([...out.matchAll(/^n(\d+) = ([-+.\deE]+)/gm)].map((m) => [`n${m[1]}`, Number(m[2])]));
  } finally {
    rmSync(folder, { recursive: true });
  }
}
