import { REPORT_LENGTHS } from "@radicula/core/words";
import { jwtVerify, SignJWT } from "jose";
import { z } from "zod";
import { database } from "./db/connection";
import { identity } from "./db/schema";

/** A report shown to who has its address, for some days. */
export const Shared = z.object({ job: z.uuid(), length: z.enum(REPORT_LENGTHS) });
export type Shared = z.infer<typeof Shared>;
/** Names what the signature is for: a cookie signed with the same secret is no address of a report. */
const AUDIENCE = "radicula shared report";

async function key(): Promise<Uint8Array> {
  const [row] = await database().select({ secret: identity.secret }).from(identity);
  if (!row) throw new Error("the database does not say which it is: its table identity is empty");
  return new TextEncoder().encode(`${AUDIENCE} ${row.secret}`);
}

/** Signs the address of a report. @param days until it ends */
export async function signShared(shared: Shared, days: number): Promise<string> {
  return new SignJWT(shared)
    .setProtectedHeader({ alg: "HS256" })
    .setAudience(AUDIENCE)
    .setIssuedAt()
    .setExpirationTime(`${days} days`)
    .sign(await key());
}
/** What an address leads to; nothing where it was altered, guessed, or has ended. */
export async function readShared(token: string): Promise<Shared | undefined> {
  const secret = await key();
  try {
    const { payload } = await jwtVerify(token, secret, { audience: AUDIENCE, algorithms: ["HS256"] });
    return Shared.safeParse(payload).data;
  } catch {
    return undefined; // whatever is wrong with it, no more is said
  }
}
