import { passkey } from "@better-auth/passkey";
import { betterAuth } from "better-auth";
import { drizzleAdapter } from "better-auth/adapters/drizzle";
import { APIError } from "better-auth/api";
import { genericOAuth, username } from "better-auth/plugins";
import { env } from "@/env";
import { database } from "../db/connection";
import { credentials, passkeys, people, sessions, verifications } from "../db/people";
import { identity } from "../db/schema";
import { desk } from "./desk";
import { SignInName } from "./repo";
import { hashed, isSecret, PASSWORD_LENGTH } from "./secrets";

/** A session ends so long after signing in, used or not: a long shift. OWASP ASVS 4, 3.3.2 (value from memory). */
const SESSION_SECONDS = 12 * 3600;
export const COMPANY = "company";

function build(origin: string, secret: string) {
  const url = new URL(origin);
  const company = env();
  return betterAuth({
    appName: "Radicula",
    baseURL: origin,
    basePath: "/api/auth",
    secret,
    trustedOrigins: [origin],
    telemetry: { enabled: false },
    logger: { level: "error" },
    database: drizzleAdapter(database(), {
      provider: "pg",
      schema: { user: people, session: sessions, account: credentials, verification: verifications, passkey: passkeys },
    }),
    emailAndPassword: {
      enabled: true,
      disableSignUp: true,
      minPasswordLength: PASSWORD_LENGTH.least,
      maxPasswordLength: PASSWORD_LENGTH.most,
      password: { hash: hashed, verify: ({ hash, password }) => isSecret(hash, password) },
    },
    user: {
      additionalFields: {
        role: { type: "string", input: false },
        isDisabled: { type: "boolean", input: false },
      },
    },
    session: {
      expiresIn: SESSION_SECONDS,
      disableSessionRefresh: true,
      additionalFields: { way: { type: "string", input: false, required: false } },
    },
    // who the company knows comes in as the person who was added with that address, where it has verified the address
    account: { accountLinking: { enabled: true, trustedProviders: [] } },
    // counted by the door and by failed tries
    rateLimit: { enabled: false },
    advanced: {
      cookiePrefix: "radicula",
      useSecureCookies: url.protocol === "https:",
      defaultCookieAttributes: { sameSite: "lax", httpOnly: true },
      ipAddress: { ipAddressHeaders: ["radicula-address"] },
    },
    databaseHooks: {
      session: {
        create: {
          before: async (session, ctx) => {
            const person = await ctx?.context.internalAdapter.findUserById(session.userId);
            if (!person || (person as { isDisabled?: boolean }).isDisabled)
              throw new APIError("FORBIDDEN", { code: "sign-in.disabled", message: "sign-in.disabled" });
          },
        },
      },
    },
    plugins: [
      username({ displayUsername: false, usernameValidator: (name) => SignInName.safeParse(name).success }),
      passkey({ rpID: url.hostname, rpName: "Radicula", origin }),
      ...(company.RADICULA_OIDC_ISSUER && company.RADICULA_OIDC_CLIENT_ID
        ? [
            genericOAuth({
              config: [
                {
                  providerId: COMPANY,
                  discoveryUrl: `${company.RADICULA_OIDC_ISSUER.replace(/\/$/, "")}/.well-known/openid-configuration`,
                  clientId: company.RADICULA_OIDC_CLIENT_ID,
                  ...(company.RADICULA_OIDC_CLIENT_SECRET ? { clientSecret: company.RADICULA_OIDC_CLIENT_SECRET } : {}),
                  scopes: ["openid", "profile", "email"],
                  pkce: true,
                  requireIdTokenVerification: true,
                  disableSignUp: true,
                },
              ],
            }),
          ]
        : []),
      desk(),
    ],
  });
}
export type Auth = ReturnType<typeof build>;

/** One for each address the server answers to: cookies and passkeys belong to it. The door lets only such pass. */
const shared = globalThis as typeof globalThis & { radiculaAuth?: Map<string, Promise<Auth>> };
export function authFor(origin: string): Promise<Auth> {
  const known = (shared.radiculaAuth ??= new Map<string, Promise<Auth>>());
  const made = known.get(origin) ?? make(origin);
  known.set(origin, made);
  // a database that was not there may be the next time
  made.catch(() => known.delete(origin));
  return made;
}
async function make(origin: string): Promise<Auth> {
  const [row] = await database().select({ secret: identity.secret }).from(identity);
  if (!row) throw new Error("the database does not say which it is: its table identity is empty");
  return build(origin, row.secret);
}
export const hasCompanySignIn = (): boolean => Boolean(env().RADICULA_OIDC_ISSUER && env().RADICULA_OIDC_CLIENT_ID);
