import { randomUUID } from "node:crypto";
import { and, asc, count, eq, gt, isNotNull, isNull, or, sql } from "drizzle-orm";
import { z } from "zod";
import { Role } from "@/ui/roles";
import { database, type Db } from "../db/connection";
import { codes, deviceUses, passkeys, people, sessions } from "../db/people";
import { codeHash, INVITATION_DAYS, INVITATION_GROUPS, newCode } from "../../../oneTimeCode.mjs";

export const PersonName = z.string().trim().min(2).max(60);
/** What is typed to sign in. */
export const SignInName = z
  .string()
  .trim()
  .toLowerCase()
  .regex(/^[a-z0-9][a-z0-9._-]{2,29}$/);

export interface PersonRow {
  readonly id: string;
  readonly name: string;
  readonly username: string;
  readonly email: string | null;
  readonly role: Role;
  readonly isDisabled: boolean;
  /** has chosen a password, or signs in with the company */
  readonly hasSignedUp: boolean;
  readonly lastSeen: Date | null;
}
/** No address of anybody's: people are known by their sign-in name. */
const NO_ADDRESS = ".invalid";
const madeUpAddress = (username: string) => `${username}@people${NO_ADDRESS}`;

export async function listPeople(): Promise<PersonRow[]> {
  const rows = await database()
    .select({
      id: people.id,
      name: people.name,
      username: people.username,
      email: people.email,
      role: people.role,
      isDisabled: people.isDisabled,
      // columns inside are named by hand: in a query of one table they would be taken for that table's
      credentials: sql<number>`(select count(*) from credentials c where c.user_id = people.id)::int`,
      lastSeen: sql<string | null>`(select max(s.updated_at) from sessions s where s.user_id = people.id)`,
    })
    .from(people)
    .orderBy(asc(people.name));
  return rows.map(({ credentials: n, email, role, lastSeen, ...row }) => ({
    ...row,
    role: Role.parse(role),
    email: email.endsWith(NO_ADDRESS) ? null : email,
    hasSignedUp: n > 0,
    lastSeen: lastSeen ? new Date(lastSeen) : null,
  }));
}
export async function personById(id: string) {
  const [row] = await database().select().from(people).where(eq(people.id, id));
  return row;
}
export async function personByUsername(username: string) {
  const [row] = await database().select().from(people).where(eq(people.username, username.toLowerCase()));
  return row;
}
export async function anyAdministrator(db: Pick<Db, "select"> = database()): Promise<boolean> {
  const [row] = await db
    .select({ n: count() })
    .from(people)
    .where(and(eq(people.role, "administrator"), eq(people.isDisabled, false)));
  return (row?.n ?? 0) > 0;
}

export interface NewPerson {
  readonly name: string;
  readonly username: string;
  readonly role: Role;
  readonly email?: string | undefined;
}
/** @returns the id, or which of its names another person has */
export async function addPerson({
  name,
  username,
  role,
  email,
}: NewPerson): Promise<
  { readonly ok: true; readonly id: string } | { readonly ok: false; readonly taken: "name" | "username" | "email" }
> {
  const id = randomUUID();
  const address = email ?? madeUpAddress(username);
  const added = await database()
    .insert(people)
    .values({ id, name, username, role, email: address.toLowerCase(), emailVerified: email !== undefined })
    .onConflictDoNothing()
    .returning({ id: people.id });
  if (added.length) return { ok: true, id };
  const [same] = await database()
    .select({ name: people.name, username: people.username })
    .from(people)
    .where(or(eq(people.username, username), eq(sql`lower(${people.name})`, name.toLowerCase())));
  const taken = !same ? "email" : same.username === username ? "username" : "name";
  return { ok: false, taken };
}

/**
 * Changes a person's role, or whether they may sign in at all; who may not is signed out everywhere.
 * @returns false where nobody would be left to administrate
 */
export async function changePerson(
  id: string,
  change: { readonly role?: Role | undefined; readonly isDisabled?: boolean | undefined },
): Promise<boolean> {
  return database()
    .transaction(async (tx) => {
      await tx.select({ id: people.id }).from(people).where(eq(people.role, "administrator")).for("update");
      const set = {
        ...(change.role ? { role: change.role } : {}),
        ...(change.isDisabled === undefined ? {} : { isDisabled: change.isDisabled }),
      };
      await tx
        .update(people)
        .set({ ...set, updatedAt: new Date() })
        .where(eq(people.id, id));
      if (!(await anyAdministrator(tx))) {
        tx.rollback();
        return false;
      }
      if (change.isDisabled) {
        await tx.delete(sessions).where(eq(sessions.userId, id));
        await tx.delete(deviceUses).where(eq(deviceUses.userId, id));
        await tx.delete(codes).where(eq(codes.userId, id));
      }
      return true;
    })
    .catch((error: unknown) => {
      if (error instanceof Error && error.name === "TransactionRollbackError") return false;
      throw error;
    });
}

/** A code to choose a password with, once; earlier ones of the person end. */
export async function invite(id: string): Promise<string> {
  const code = newCode(INVITATION_GROUPS);
  await database().transaction(async (tx) => {
    await tx.delete(codes).where(and(eq(codes.userId, id), eq(codes.kind, "invitation")));
    await tx.insert(codes).values({
      hash: codeHash(code),
      userId: id,
      kind: "invitation",
      expiresAt: new Date(Date.now() + INVITATION_DAYS * 24 * 3600 * 1000),
    });
  });
  return code;
}
export async function personOfInvitation(code: string) {
  const [row] = await database()
    .select({ id: people.id, name: people.name, username: people.username })
    .from(codes)
    .innerJoin(people, eq(people.id, codes.userId))
    .where(and(eq(codes.hash, codeHash(code)), eq(codes.kind, "invitation"), gt(codes.expiresAt, new Date()), enabled));
  return row;
}
const enabled = eq(people.isDisabled, false);

/** Uses a code up. @returns whether it was one of this person's, and still good */
export async function useCode(id: string, kind: "invitation" | "recovery", code: string): Promise<boolean> {
  const used = await database()
    .delete(codes)
    .where(
      and(
        eq(codes.hash, codeHash(code)),
        eq(codes.userId, id),
        eq(codes.kind, kind),
        or(isNull(codes.expiresAt), gt(codes.expiresAt, new Date())),
      ),
    )
    .returning({ hash: codes.hash });
  return used.length > 0;
}

const RECOVERY_CODES = 8;
const RECOVERY_GROUPS = 4;
/** New recovery codes; the earlier ones end. */
export async function newRecoveryCodes(id: string): Promise<string[]> {
  const fresh = Array.from({ length: RECOVERY_CODES }, () => newCode(RECOVERY_GROUPS));
  await database().transaction(async (tx) => {
    await tx.delete(codes).where(and(eq(codes.userId, id), eq(codes.kind, "recovery")));
    await tx.insert(codes).values(fresh.map((c) => ({ hash: codeHash(c), userId: id, kind: "recovery" as const })));
  });
  return fresh;
}
/** What a person can sign in with. */
export async function waysOf(id: string) {
  const [person, keys, left] = await Promise.all([
    personById(id),
    database()
      .select({ id: passkeys.id, name: passkeys.name, at: passkeys.createdAt })
      .from(passkeys)
      .where(eq(passkeys.userId, id)),
    database()
      .select({ n: count() })
      .from(codes)
      .where(and(eq(codes.userId, id), eq(codes.kind, "recovery"))),
  ]);
  return { hasPin: typeof person?.pinHash === "string", passkeys: keys, recoveryCodes: left[0]?.n ?? 0 };
}

/** A PIN is enough where the password was given within so many days. */
const DEVICE_DAYS = 30;
export async function noteDeviceUse(deviceHash: string, userId: string): Promise<void> {
  const at = new Date();
  await database()
    .insert(deviceUses)
    .values({ deviceHash, userId, at })
    .onConflictDoUpdate({ target: [deviceUses.deviceHash, deviceUses.userId], set: { at } });
}
export const forgetDeviceUse = (deviceHash: string, userId: string) =>
  database()
    .delete(deviceUses)
    .where(and(eq(deviceUses.deviceHash, deviceHash), eq(deviceUses.userId, userId)));
/** Who has signed in on a device lately. */
export const peopleOnDevice = (deviceHash: string) =>
  database()
    .select({ id: people.id, name: people.name, hasPin: sql<boolean>`${isNotNull(people.pinHash)}` })
    .from(deviceUses)
    .innerJoin(people, eq(people.id, deviceUses.userId))
    .where(
      and(
        eq(deviceUses.deviceHash, deviceHash),
        gt(deviceUses.at, new Date(Date.now() - DEVICE_DAYS * 24 * 3600 * 1000)),
        enabled,
      ),
    )
    .orderBy(asc(people.name));
export const setPin = (id: string, pinHash: string | null) =>
  database().update(people).set({ pinHash, updatedAt: new Date() }).where(eq(people.id, id));
