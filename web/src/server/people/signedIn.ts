import { z } from "zod";
import { PERSON_ROLES, Role, type Role as RoleT } from "@/ui/roles";

/** Who a request comes from, as the guard at the door has found: nobody else can write this header. */
export const PERSON_HEADER = "radicula-person";
export const ADDRESS_HEADER = "radicula-address";
export const ORIGIN_HEADER = "radicula-origin";

const Person = z.object({ id: z.string(), name: z.string(), role: Role });
export interface SignedIn {
  readonly id: string;
  readonly name: string;
  readonly role: RoleT;
}
export const personHeader = (person: SignedIn): string => encodeURIComponent(JSON.stringify(person));

/** Who is signed in; nobody where sign-in is off. */
export function signedIn(headers: Pick<Headers, "get">): SignedIn | undefined {
  const said = headers.get(PERSON_HEADER);
  return said ? Person.parse(JSON.parse(decodeURIComponent(said))) : undefined;
}

const rank = (role: RoleT) => PERSON_ROLES.indexOf(role);
export const isAtLeast = (role: RoleT, least: RoleT): boolean => rank(role) >= rank(least);
/** Administrators manage everybody; a lead those below. */
export const mayManage = (by: RoleT, role: RoleT): boolean =>
  by === "administrator" || (by === "lead" && rank(role) < rank("lead"));

/**
 * Entries with the name of who is signed in; what somebody else wrote on the same device is not taken in their name.
 * @param name none where sign-in is off: then people write their names themselves
 */
export function signedEntries(
  value: unknown,
  name: string | undefined,
): { readonly ok: true; readonly entries: unknown } | { readonly ok: false; readonly by: string } {
  if (name === undefined || !Array.isArray(value)) return { ok: true, entries: value };
  const entries: unknown[] = [];
  for (const entry of value as unknown[]) {
    if (typeof entry !== "object" || entry === null) entries.push(entry);
    else {
      const { by } = entry as { by?: unknown };
      if (by !== undefined && by !== name) return { ok: false, by: String(by).slice(0, 60) };
      entries.push({ ...entry, by: name });
    }
  }
  return { ok: true, entries };
}
