import type { ScanEntry } from "@radicula/core";
import { post } from "@/ui/send";

/** What the simulated machine's modules give, as a scan tool would list it; undefined where it cannot be asked. */
export async function scanSimulated(jobId: string, when: ScanEntry["when"]): Promise<string | undefined> {
  const made = await post<{ codes: { module: string; code: string; status: string; title?: string }[] }>(
    `/api/jobs/${jobId}/scan`,
    { when },
  );
  return made.ok
    ? made.body.codes.map((c) => [c.module, c.code, c.status, c.title ?? ""].join("\t").trim()).join("\n")
    : undefined;
}
