import { createHash } from "node:crypto";
import { APIError, createAuthEndpoint, createAuthMiddleware, sessionMiddleware } from "better-auth/api";
import { setSessionCookie } from "better-auth/cookies";
import type { BetterAuthPlugin, GenericEndpointContext } from "better-auth";
import { z } from "zod";
import { noteEvent, type SecurityEvent } from "./events";
import {
  newRecoveryCodes,
  noteDeviceUse,
  peopleOnDevice,
  personById,
  personByUsername,
  personOfInvitation,
  setPin,
  useCode,
  waysOf,
} from "./repo";
import { hashed, isEasyPin, isSecret, newDevice, passwordFault, SIGN_IN_PIN } from "./secrets";
import { ADDRESS_HEADER } from "./signedIn";
import { forgiveTry, takeTry, type Tried } from "./tries";

const DEVICE_COOKIE = "device";
const DEVICE_SECONDS = 400 * 24 * 3600;
/** Long enough for any name, code or password, short enough to hash. */
const Short = z.string().max(200);

type Ctx = GenericEndpointContext;
const addressOf = (ctx: Ctx) => ctx.headers?.get(ADDRESS_HEADER) ?? undefined;
const deviceHash = (device: string) => createHash("sha256").update(device).digest("hex");
const deviceOf = async (ctx: Ctx): Promise<string | undefined> => {
  const cookie = ctx.context.createAuthCookie(DEVICE_COOKIE);
  const device = await ctx.getSignedCookie(cookie.name, ctx.context.secret);
  return device ? deviceHash(device) : undefined;
};
/** The device is known again by a cookie of its own. */
async function markDevice(ctx: Ctx): Promise<string> {
  const known = await deviceOf(ctx);
  if (known) return known;
  const device = newDevice();
  const cookie = ctx.context.createAuthCookie(DEVICE_COOKIE, { maxAge: DEVICE_SECONDS });
  await ctx.setSignedCookie(cookie.name, device, ctx.context.secret, cookie.attributes);
  return deviceHash(device);
}

const refusal = (status: "BAD_REQUEST" | "UNAUTHORIZED" | "FORBIDDEN" | "TOO_MANY_REQUESTS", code: string, more = {}) =>
  new APIError(status, { code, message: code, ...more });

async function signIn(ctx: Ctx, userId: string, way: "full" | "pin") {
  const user = await ctx.context.internalAdapter.findUserById(userId);
  const session = user && (await ctx.context.internalAdapter.createSession(userId, false, { way }));
  if (!session) throw refusal("UNAUTHORIZED", "sign-in.wrong");
  await setSessionCookie(ctx, { session, user });
  return ctx.json({ id: user.id, name: user.name });
}
async function choosePassword(ctx: Ctx, userId: string, password: string): Promise<void> {
  const hash = await hashed(password);
  const known = await ctx.context.internalAdapter.findCredentialAccount(userId);
  if (known) await ctx.context.internalAdapter.updatePassword(userId, hash);
  else
    await ctx.context.internalAdapter.linkAccount({
      userId,
      providerId: "credential",
      accountId: userId,
      password: hash,
    });
  // whoever knew the old one is signed out
  await ctx.context.internalAdapter.deleteUserSessions(userId);
}
function checkPassword(password: string, ofPerson: readonly string[]): void {
  const fault = passwordFault(password, ofPerson);
  if (fault) throw refusal("BAD_REQUEST", fault);
}
interface Session {
  readonly user: { readonly id: string; readonly name: string };
  readonly session: { readonly way?: unknown };
}
const sessionOf = (ctx: { context: { session: unknown } }) => ctx.context.session as Session;
/** What a person can sign in with is changed only by one who has signed in in full. */
function needFull({ session }: Session): void {
  if (session.way === "pin") throw refusal("FORBIDDEN", "sign-in.needs-password");
}

const endpoints = {
  acceptInvitation: createAuthEndpoint(
    "/invitation/accept",
    { method: "POST", body: z.object({ code: Short, password: Short }) },
    async (ctx) => {
      const person = await personOfInvitation(ctx.body.code);
      if (!person) throw refusal("UNAUTHORIZED", "sign-in.code-wrong");
      checkPassword(ctx.body.password, [person.name, person.username]);
      if (!(await useCode(person.id, "invitation", ctx.body.code))) throw refusal("UNAUTHORIZED", "sign-in.code-wrong");
      await choosePassword(ctx, person.id, ctx.body.password);
      return signIn(ctx, person.id, "full");
    },
  ),
  recover: createAuthEndpoint(
    "/recover",
    { method: "POST", body: z.object({ username: Short, code: Short, password: Short }) },
    async (ctx) => {
      const { username, code, password } = ctx.body;
      checkPassword(password, [username]);
      const person = await personByUsername(username);
      const isGood = person && !person.isDisabled && (await useCode(person.id, "recovery", code));
      if (!isGood) throw refusal("UNAUTHORIZED", "sign-in.code-wrong");
      await choosePassword(ctx, person.id, password);
      return signIn(ctx, person.id, "full");
    },
  ),
  devicePeople: createAuthEndpoint("/device/people", { method: "GET" }, async (ctx) => {
    const device = await deviceOf(ctx);
    return ctx.json({ people: device ? await peopleOnDevice(device) : [] });
  }),
  switchByPin: createAuthEndpoint(
    "/pin/switch",
    { method: "POST", body: z.object({ id: Short, pin: Short }) },
    async (ctx) => {
      const device = await deviceOf(ctx);
      const isKnown = device && (await peopleOnDevice(device)).some((p) => p.id === ctx.body.id);
      const person = isKnown ? await personById(ctx.body.id) : undefined;
      if (!person?.pinHash || !(await isSecret(person.pinHash, ctx.body.pin)))
        throw refusal("UNAUTHORIZED", "sign-in.pin-wrong");
      return signIn(ctx, person.id, "pin");
    },
  ),
  choosePin: createAuthEndpoint(
    "/pin/set",
    { method: "POST", body: z.object({ pin: Short.nullable() }), use: [sessionMiddleware] },
    async (ctx) => {
      const session = sessionOf(ctx);
      needFull(session);
      const { pin } = ctx.body;
      if (pin !== null && (!SIGN_IN_PIN.test(pin) || isEasyPin(pin))) throw refusal("BAD_REQUEST", "sign-in.pin-easy");
      await setPin(session.user.id, pin === null ? null : await hashed(pin));
      return ctx.json({ done: true });
    },
  ),
  makeRecoveryCodes: createAuthEndpoint(
    "/recovery-codes/new",
    { method: "POST", use: [sessionMiddleware] },
    async (ctx) => {
      const session = sessionOf(ctx);
      needFull(session);
      return ctx.json({ codes: await newRecoveryCodes(session.user.id) });
    },
  ),
  ways: createAuthEndpoint("/ways", { method: "GET", use: [sessionMiddleware] }, async (ctx) => {
    const { user, session } = sessionOf(ctx);
    return ctx.json({ ...(await waysOf(user.id)), isFull: session.way !== "pin" });
  }),
};

/** What is noted when a path was done. */
const NOTED: Readonly<Record<string, SecurityEvent>> = {
  "/sign-in/username": "signed-in",
  "/pin/switch": "signed-in-by-pin",
  "/passkey/verify-authentication": "signed-in-by-passkey",
  "/callback/:id": "signed-in-by-company",
  "/invitation/accept": "signed-in-by-invitation",
  "/recover": "signed-in-by-recovery-code",
  "/sign-out": "signed-out",
  "/change-password": "password-changed",
  "/pin/set": "pin-set",
  "/passkey/verify-registration": "passkey-added",
  "/passkey/delete-passkey": "passkey-removed",
  "/recovery-codes/new": "recovery-codes-made",
};
const GUESSED = new Set(["/sign-in/username", "/pin/switch", "/invitation/accept", "/recover", "/change-password"]);
const OF_FULL_SESSION = new Set([
  "/passkey/generate-register-options",
  "/passkey/verify-registration",
  "/passkey/delete-passkey",
  "/change-password",
]);

/** What a request tries to get past; the same before and after it. */
async function triedBy(ctx: Ctx): Promise<Tried> {
  const body = (ctx.body ?? {}) as { username?: unknown; id?: unknown };
  const address = ["address", addressOf(ctx) ?? "here"] as const;
  switch (ctx.path) {
    case "/pin/switch":
      return [["pin", `${(await deviceOf(ctx)) ?? "unknown"} ${String(body.id)}`], address];
    case "/sign-in/username":
    case "/recover":
      return [["name", String(body.username)], address];
    default:
      return [address];
  }
}
async function nameIn(ctx: Ctx): Promise<string | undefined> {
  const body = (ctx.body ?? {}) as { username?: unknown; id?: unknown };
  if (typeof body.username === "string") return body.username.slice(0, 60);
  return typeof body.id === "string" ? (await personById(body.id))?.name : undefined;
}

const before = createAuthMiddleware(async (ctx) => {
  if (OF_FULL_SESSION.has(ctx.path)) {
    const session = await ctx.context.internalAdapter.findSession(
      (await ctx.getSignedCookie(ctx.context.authCookies.sessionToken.name, ctx.context.secret)) || "",
    );
    if (session) needFull(session as unknown as Session);
  }
  if (ctx.path === "/change-password") {
    const { newPassword } = (ctx.body ?? {}) as { newPassword?: unknown };
    if (typeof newPassword === "string") checkPassword(newPassword, []);
  }
  if (!GUESSED.has(ctx.path)) return;
  const tried = await triedBy(ctx);
  const { lockedSeconds, isLast } = await takeTry(tried);
  if (lockedSeconds > 0) throw refusal("TOO_MANY_REQUESTS", "sign-in.locked", { seconds: lockedSeconds });
  if (!isLast) return;
  await noteEvent("locked-out", { about: await nameIn(ctx), address: addressOf(ctx) });
  // this try still counts; should it fail, the PIN waits for the password
});

const after = createAuthMiddleware(async (ctx) => {
  const { returned, newSession } = ctx.context;
  const address = addressOf(ctx);
  const isWrong = returned instanceof APIError && ctx.path !== "/callback/:id";
  if (isWrong) {
    if (GUESSED.has(ctx.path) && returned.statusCode === 401)
      await noteEvent("sign-in-failed", { about: await nameIn(ctx), address });
    return;
  }
  if (GUESSED.has(ctx.path)) await forgiveTry(await triedBy(ctx));
  const what = NOTED[ctx.path];
  const who = newSession?.user ?? (ctx.context.session as Session | null)?.user;
  if (what && (who || ctx.path === "/sign-out") && (ctx.path !== "/callback/:id" || newSession))
    await noteEvent(what, { by: who?.name, address });
  if (newSession && ctx.path !== "/pin/switch") {
    const device = await markDevice(ctx);
    await noteDeviceUse(device, newSession.user.id);
    await forgiveTry([["pin", `${device} ${newSession.user.id}`]]);
  }
});

/**
 * Sign-in as a workshop needs it: invitations, recovery codes, and a PIN that switches the person at a shared tablet.
 */
export const desk = () =>
  ({
    id: "desk",
    endpoints,
    hooks: { before: [{ matcher: () => true, handler: before }], after: [{ matcher: () => true, handler: after }] },
  }) satisfies BetterAuthPlugin;
