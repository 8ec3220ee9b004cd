// npm run people: who may sign in. Further people are best added on the page /people.
import { randomUUID } from "node:crypto";
import postgres from "postgres";
import { codeHash, INVITATION_DAYS, INVITATION_GROUPS, newCode } from "../../web/oneTimeCode.mjs";
import { say, Stop } from "./folder.mjs";

const ROLES = ["reader", "technician", "lead", "administrator"];
const USAGE = `npm run people                                        who may sign in
  npm run people -- add "FULL NAME" SIGN-IN-NAME ROLE   adds a person; roles: ${ROLES.join(", ")};
                                                        an e-mail address after it is for the company sign-in
  npm run people -- invite SIGN-IN-NAME                 a new invitation, for a password that is lost`;

/**
 * @param {string} url the database, as its owner or as the server's role
 * @param {readonly string[]} args
 */
export async function people(url, [command = "list", ...args]) {
  const sql = postgres(url, { max: 1, onnotice: () => undefined });
  try {
    const [table] = await sql`select to_regclass('people') as there`;
    if (!table.there) throw new Stop("the database knows no people yet: npm start brings it up to date");
    if (command === "list") return await list(sql);
    if (command === "add" && (args.length === 3 || args.length === 4)) return await add(sql, args);
    if (command === "invite" && args.length === 1) return await invite(sql, args[0]);
    throw new Stop(`this is not understood.\n  ${USAGE}`);
  } finally {
    await sql.end({ timeout: 2 });
  }
}
async function list(sql) {
  const all = await sql`select name, username, role, is_disabled from people order by lower(name)`;
  if (all.length === 0) say(`nobody may sign in yet.\n  ${USAGE}`);
  for (const p of all) say(`${p.username}: ${p.name}, ${p.role}${p.is_disabled ? ", may not sign in" : ""}`);
}
async function add(sql, [fullName, typed, role, email]) {
  const name = fullName.trim();
  const username = typed.trim().toLowerCase();
  if (name.length < 2 || name.length > 60) throw new Stop("a name has 2 to 60 letters");
  if (!/^[a-z0-9][a-z0-9._-]{2,29}$/.test(username))
    throw new Stop("a sign-in name has 3 to 30 small letters, digits, dots, dashes or underscores");
  if (!ROLES.includes(role)) throw new Stop(`there is no role ${role}: ${ROLES.join(", ")}`);
  if (email !== undefined && !/^[^\s@]+@[^\s@]+\.[^\s@]+$/.test(email)) throw new Stop(`${email} is no e-mail address`);
  const address = (email ?? `${username}@people.invalid`).toLowerCase();
  const [made] = await sql`
    insert into people (id, name, username, email, email_verified, role)
    values (${randomUUID()}, ${name}, ${username}, ${address}, ${email !== undefined}, ${role})
    on conflict do nothing returning id`;
  if (!made) throw new Stop("somebody has that name or sign-in name already");
  await sql`insert into security_events (what, by, about) values ('person-added', 'npm run people', ${name})`;
  await invite(sql, username);
}
async function invite(sql, typed) {
  const [person] = await sql`
    select id, name, is_disabled from people where username = ${typed.trim().toLowerCase()}`;
  if (!person) throw new Stop(`nobody has the sign-in name ${typed}`);
  if (person.is_disabled) throw new Stop(`${person.name} may not sign in; an administrator can change that at /people`);
  const code = newCode(INVITATION_GROUPS);
  await sql.begin(async (tx) => {
    await tx`delete from codes where user_id = ${person.id} and kind = 'invitation'`;
    await tx`
      insert into codes (hash, user_id, kind, expires_at)
      values (${codeHash(code)}, ${person.id}, 'invitation', now() + ${`${INVITATION_DAYS} days`}::interval)`;
    await tx`insert into security_events (what, by, about) values ('person-invited', 'npm run people', ${person.name})`;
  });
  say(`${person.name} opens /invitation?code=${code} at the server's address within ${INVITATION_DAYS} days, once`);
}
