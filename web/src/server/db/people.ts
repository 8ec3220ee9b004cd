import { sql } from "drizzle-orm";
import {
  bigint,
  boolean,
  index,
  integer,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uniqueIndex,
} from "drizzle-orm/pg-core";

const when = (name: string) => timestamp(name, { withTimezone: true });
const made = () => when("created_at").notNull().defaultNow();
const changed = () => when("updated_at").notNull().defaultNow();

/** Who may sign in. Nobody is ever removed: entries carry the name. */
export const people = pgTable(
  "people",
  {
    id: text("id").primaryKey(),
    /** as it stands on entries; no two people share one */
    name: text("name").notNull(),
    /** made of the sign-in name where a person has no address: the sign-in library wants one */
    email: text("email").notNull().unique(),
    emailVerified: boolean("email_verified").notNull().default(false),
    image: text("image"),
    username: text("username").notNull().unique(),
    role: text("role").notNull().default("technician"),
    isDisabled: boolean("is_disabled").notNull().default(false),
    /** argon2id */
    pinHash: text("pin_hash"),
    createdAt: made(),
    updatedAt: changed(),
  },
  (t) => [uniqueIndex("people_name").on(sql`lower(${t.name})`)],
);
const person = () =>
  text("user_id")
    .notNull()
    .references(() => people.id, { onDelete: "cascade" });

export const sessions = pgTable(
  "sessions",
  {
    id: text("id").primaryKey(),
    userId: person(),
    token: text("token").notNull().unique(),
    expiresAt: when("expires_at").notNull(),
    ipAddress: text("ip_address"),
    userAgent: text("user_agent"),
    /** full or pin: after a PIN nobody changes what they sign in with */
    way: text("way").notNull().default("full"),
    createdAt: made(),
    updatedAt: changed(),
  },
  (t) => [index("sessions_person").on(t.userId)],
);

/** A password (argon2id) or a company's own sign-in, of a person. */
export const credentials = pgTable(
  "credentials",
  {
    id: text("id").primaryKey(),
    userId: person(),
    accountId: text("account_id").notNull(),
    providerId: text("provider_id").notNull(),
    password: text("password"),
    accessToken: text("access_token"),
    refreshToken: text("refresh_token"),
    idToken: text("id_token"),
    accessTokenExpiresAt: when("access_token_expires_at"),
    refreshTokenExpiresAt: when("refresh_token_expires_at"),
    scope: text("scope"),
    createdAt: made(),
    updatedAt: changed(),
  },
  (t) => [index("credentials_person").on(t.userId)],
);

/** Challenges under way: of a passkey, of a company's sign-in. */
export const verifications = pgTable(
  "verifications",
  {
    id: text("id").primaryKey(),
    identifier: text("identifier").notNull(),
    value: text("value").notNull(),
    expiresAt: when("expires_at").notNull(),
    createdAt: made(),
    updatedAt: changed(),
  },
  (t) => [index("verifications_identifier").on(t.identifier)],
);

export const passkeys = pgTable(
  "passkeys",
  {
    id: text("id").primaryKey(),
    name: text("name"),
    publicKey: text("public_key").notNull(),
    userId: person(),
    credentialID: text("credential_id").notNull().unique(),
    counter: integer("counter").notNull(),
    deviceType: text("device_type").notNull(),
    backedUp: boolean("backed_up").notNull(),
    transports: text("transports"),
    aaguid: text("aaguid"),
    createdAt: made(),
  },
  (t) => [index("passkeys_person").on(t.userId)],
);

/** One-time codes, hashed: an invitation to choose a password, or a recovery code. */
export const codes = pgTable(
  "codes",
  {
    hash: text("hash").primaryKey(),
    userId: person(),
    kind: text("kind", { enum: ["invitation", "recovery"] }).notNull(),
    expiresAt: when("expires_at"),
    createdAt: made(),
  },
  (t) => [index("codes_person").on(t.userId)],
);

/** On which device a person has signed in in full, and when last: there a PIN is enough. */
export const deviceUses = pgTable(
  "device_uses",
  {
    deviceHash: text("device_hash").notNull(),
    userId: person(),
    at: when("at").notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.deviceHash, t.userId] })],
);

/** Failed tries, by what they were made at. */
export const failedTries = pgTable("failed_tries", {
  key: text("key").primaryKey(),
  points: integer("points").notNull(),
  expire: timestamp("expire", { withTimezone: true }),
});

/** Who came in and who let whom: append-only, as the logbooks are. */
export const securityEvents = pgTable(
  "security_events",
  {
    id: bigint("id", { mode: "number" }).primaryKey().generatedAlwaysAsIdentity(),
    at: when("at").notNull().defaultNow(),
    what: text("what").notNull(),
    /** who did it; none for a try that nobody is known for */
    by: text("by"),
    /** whom it is about */
    about: text("about"),
    address: text("address"),
  },
  (t) => [index("security_events_at").on(t.at)],
);
