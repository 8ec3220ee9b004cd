import type { ScanEntry } from "@radicula/core";
import { post } from "@/ui/send";
import { z } from "zod";

const Scanned = z.object({
  codes: z.array(z.object({ module: z.string(), code: z.string(), status: z.string(), title: z.string().optional() })),
});

/** What the simulated machine's modules give, as a scan tool would list it; undefined where it cannot be asked. */
export async function scanSimulated(jobId: string, when: ScanEntry["when"]): Promise<string | undefined> {
  const made = await post(`/api/jobs/${jobId}/scan`, { when }, Scanned);
  return made.ok
    ? made.body.codes.map((c) => [c.module, c.code, c.status, c.title ?? ""].join("\t").trim()).join("\n")
    : undefined;
}
