import { cutText } from "@radicula/core";
import { z } from "zod";
import { Made, postAs, type Posted } from "@/ui/send";
import type { GivenRecording } from "./useRecording";

/** Keeps a recording on the server, compressed. @param signal stops it: nothing of it is kept then */
export async function sendRecording(
  jobId: string,
  { file, name, how, isCompressed }: GivenRecording,
  signal: AbortSignal,
): Promise<Posted<{ id: string }>> {
  const packed = isCompressed
    ? file
    : await new Response(file.stream().pipeThrough(new CompressionStream("gzip"), { signal })).blob();
  const query = new URLSearchParams({ name: cutText(name, 120) || "recording", reading: JSON.stringify(how ?? {}) });
  return postAs("application/gzip", `/api/jobs/${jobId}/recordings?${query.toString()}`, packed, Made, signal);
}

const About = z.object({
  name: z.string(),
  reading: z.object({ interval: z.number().exactOptional(), scales: z.array(z.number()).exactOptional() }),
});
/** A recording of the logbook, as it was given. @returns undefined where it cannot be had */
export async function keptRecording(id: string): Promise<GivenRecording | undefined> {
  try {
    const response = await fetch(`/api/recordings/${id}`);
    if (!response.ok) throw new Error(String(response.status));
    const about = About.parse(JSON.parse(decodeURIComponent(response.headers.get("X-Recording") ?? "")));
    return { file: await response.blob(), name: about.name, isCompressed: true, how: about.reading };
  } catch {
    return undefined;
  }
}
