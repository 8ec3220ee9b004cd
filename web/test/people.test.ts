import { signedEntries, signedIn, mayManage, personHeader } from "@/server/people/signedIn";
import { hashed, isEasyPin, isSecret, passwordFault } from "@/server/people/secrets";
import { codeHash, newCode } from "../oneTimeCode.mjs";

const AT = "2026-11-24T10:00:00Z";

describe("the name on an entry", () => {
  test("is that of who is signed in, also where none was written", () => {
    expect(signedEntries([{ type: "closed", at: AT }], "Ada")).toEqual({
      ok: true,
      entries: [{ type: "closed", at: AT, by: "Ada" }],
    });
  });
  test("is never somebody else's", () => {
    expect(signedEntries([{ type: "closed", at: AT, by: "Tom" }], "Ada")).toEqual({ ok: false, by: "Tom" });
    expect(signedEntries([{ by: 7 }], "Ada")).toEqual({ ok: false, by: "7" });
  });
  test("stays as typed where nobody signs in; what is no list is left for others to refuse", () => {
    expect(signedEntries([{ by: "Tom" }], undefined)).toEqual({ ok: true, entries: [{ by: "Tom" }] });
    expect(signedEntries("nonsense", "Ada")).toEqual({ ok: true, entries: "nonsense" });
    expect(signedEntries([null, 3], "Ada")).toEqual({ ok: true, entries: [null, 3] });
  });
  test("goes from the door to the handlers whatever letters it has", () => {
    const person = { id: "1", name: "Zoë “Z” 渡辺", role: "lead" } as const;
    expect(signedIn(new Headers({ "radicula-person": personHeader(person) }))).toEqual(person);
    expect(signedIn(new Headers())).toBeUndefined();
  });
});

test("a lead manages those below, an administrator everybody, the others nobody", () => {
  expect(mayManage("lead", "technician")).toBe(true);
  expect(mayManage("lead", "lead")).toBe(false);
  expect(mayManage("lead", "administrator")).toBe(false);
  expect(mayManage("administrator", "administrator")).toBe(true);
  expect(mayManage("technician", "reader")).toBe(false);
});

describe("secrets", () => {
  test("a password is kept as argon2id with 19 MiB and two passes, and found again", async () => {
    const kept = await hashed("copper kettle under rain");
    // the form of RFC 9106's reference implementation; the cost of OWASP's cheat sheet (value from memory)
    expect(kept).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
    expect(await isSecret(kept, "copper kettle under rain")).toBe(true);
    expect(await isSecret(kept, "copper kettle under rair")).toBe(false);
    expect(await isSecret("no hash", "anything")).toBe(false);
  });
  test("the same letters in another Unicode form are the same password", async () => {
    expect(await isSecret(await hashed("caf\u00e9 in the rain"), "cafe\u0301 in the rain")).toBe(true);
  });
  test.each(["123456789012", "qwertyuiopas", "passwordpassword", "adaadminadaadmin", "radicularadicula"])(
    "%s is guessed at once",
    (password) => expect(passwordFault(password, ["Ada Admin", "ada"])).toBe("sign-in.password-easy"),
  );
  test("several words that do not belong together will do", () => {
    expect(passwordFault("copper kettle under rain", ["Ada Admin"])).toBeUndefined();
  });
  test.each(["1234", "9876", "0000", "1987", "2024", "55555"])("PIN %s is easy", (pin) =>
    expect(isEasyPin(pin)).toBe(true),
  );
  test.each(["4071", "8092", "135790"])("PIN %s is not", (pin) => expect(isEasyPin(pin)).toBe(false));
  test("a code is found again as people write it down, and no two are alike", () => {
    const codes = Array.from({ length: 200 }, () => newCode(6));
    expect(new Set(codes).size).toBe(200);
    expect(codes[0]).toMatch(/^(?:[2-9A-HJ-NP-Z]{4}-){5}[2-9A-HJ-NP-Z]{4}$/);
    expect(codeHash(codes[0]!.toLowerCase().replaceAll("-", " "))).toBe(codeHash(codes[0]!));
    expect(codeHash(codes[0]!)).not.toBe(codeHash(codes[1]!));
  });
});
