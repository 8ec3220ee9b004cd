import { desc } from "drizzle-orm";
import { database } from "../db/connection";
import { securityEvents } from "../db/people";

/** What is kept of who came in and who let whom. */
export const SECURITY_EVENTS = [
  "signed-in",
  "signed-in-by-pin",
  "signed-in-by-passkey",
  "signed-in-by-company",
  "signed-in-by-invitation",
  "signed-in-by-recovery-code",
  "sign-in-failed",
  "locked-out",
  "signed-out",
  "password-changed",
  "pin-set",
  "passkey-added",
  "passkey-removed",
  "recovery-codes-made",
  "person-added",
  "person-invited",
  "person-changed",
  "person-disabled",
  "person-enabled",
] as const;
export type SecurityEvent = (typeof SECURITY_EVENTS)[number];

interface Told {
  readonly by?: string | undefined;
  readonly about?: string | undefined;
  readonly address?: string | undefined;
}
/** Notes a security event, in the database and in the server's log: names, never a secret. */
export async function noteEvent(what: SecurityEvent, { by, about, address }: Told): Promise<void> {
  console.error(`security: ${what}${by ? ` by ${by}` : ""}${about ? ` about ${about}` : ""} from ${address ?? "here"}`);
  await database()
    .insert(securityEvents)
    .values({ what, by: by ?? null, about: about ?? null, address: address ?? null });
}
export const latestEvents = (limit = 200) =>
  database().select().from(securityEvents).orderBy(desc(securityEvents.id)).limit(limit);
