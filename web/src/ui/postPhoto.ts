import { z } from "zod";
import { postAs, type Posted } from "./send";

const Kept = z.object({ id: z.string().min(1), width: z.number(), height: z.number() });

/** Keeps a photo of where a connector is, or of what was found there. */
export function postPhoto(wiringId: string, connector: string, file: File): Promise<Posted<z.infer<typeof Kept>>> {
  const type = /^image\//.test(file.type) ? file.type : "image/unknown";
  return postAs(type, `/api/wirings/${wiringId}/photos?connector=${encodeURIComponent(connector)}`, file, Kept);
}
