import { execFile } from "node:child_process";
import { promisify } from "node:util";

const run = promisify(execFile);
/** Calls one function of a file that is plain JavaScript, in a process of its own. */
async function call(file: string, name: string, ...args: unknown[]): Promise<unknown> {
  const script = `
    const of = await import(${JSON.stringify(new URL(`../${file}`, `file://${__filename}`).href)});
    const revive = (_, v) => (v && v.set ? new Set(v.set) : v);
    const keep = (_, v) => (v instanceof Set ? [...v] : v);
    try {
      const value = of[${JSON.stringify(name)}](...JSON.parse(process.argv[1], revive));
      console.log(JSON.stringify({ value }, keep));
    }
    catch (e) { console.log(JSON.stringify({ error: e.message })); }`;
  const { stdout } = await run(process.execPath, ["--input-type=module", "-e", script, JSON.stringify(args)]);
  return JSON.parse(stdout);
}
const settings = (args: string[], env: Record<string, string> = {}) => call("settings.mjs", "settings", args, env);

describe("how the server may be reached", () => {
  test("on this machine only: nobody has to sign in unless it is asked for", async () => {
    expect(await settings([])).toMatchObject({ value: { hostname: "127.0.0.1", needsSignIn: false, isOpen: false } });
    expect(await settings([], { RADICULA_SIGN_IN: "on" })).toMatchObject({ value: { needsSignIn: true } });
  });
  test("for others: people sign in, and that cannot be turned off", async () => {
    const behindProxy = { RADICULA_HOSTS: "radicula.works.example" };
    expect(await settings([], behindProxy)).toMatchObject({ value: { needsSignIn: true, isOpen: true } });
    expect(await settings([], { ...behindProxy, RADICULA_SIGN_IN: "off" })).toMatchObject({
      error: expect.stringContaining("have to sign in") as string,
    });
  });
  test("no passwords over a line that anybody can read", async () => {
    expect(await settings(["-H", "0.0.0.0"])).toMatchObject({
      error: expect.stringContaining("without a certificate") as string,
    });
    expect(await settings(["-H", "0.0.0.0"], { RADICULA_PROXY: "192.0.2.7" })).toMatchObject({
      value: { needsSignIn: true, proxies: ["192.0.2.7"] },
    });
    expect(await settings([], { RADICULA_CERT: "/no/such.pem" })).toMatchObject({
      error: expect.stringContaining("belong together") as string,
    });
    expect(await settings([], { RADICULA_CERT: "/no/such.pem", RADICULA_KEY: "/no/such.key" })).toMatchObject({
      error: expect.stringContaining("does not read") as string,
    });
  });
});

describe("where a request comes from", () => {
  const origin = (remoteAddress: string, headers: Record<string, string>, proxies: string[]) =>
    call(
      "door.mjs",
      "originOf",
      { headers: { host: "Works.example", ...headers }, socket: { remoteAddress } },
      {
        proxies: { set: proxies },
      },
    );
  const forwarded = { "x-forwarded-for": "10.1.1.1, 203.0.113.9", "x-forwarded-proto": "https" };
  test("a proxy of ours is believed about its own last step only", async () => {
    expect(await origin("::ffff:192.0.2.7", forwarded, ["192.0.2.7"])).toEqual({
      value: { address: "203.0.113.9", isSecure: true, origin: "https://works.example" },
    });
  });
  test("anybody else is not", async () => {
    expect(await origin("198.51.100.4", forwarded, ["192.0.2.7"])).toEqual({
      value: { address: "198.51.100.4", isSecure: false, origin: "http://works.example" },
    });
  });
});

describe("who may read the metrics", () => {
  const may = async (remoteAddress: string, headers: Record<string, string>, token?: string) =>
    ((await call("metrics.mjs", "mayReadMetrics", { headers, socket: { remoteAddress } }, token)) as { value: boolean })
      .value;
  test("who has the token; without one, this machine alone and not through a proxy", async () => {
    expect(await may("127.0.0.1", {})).toBe(true);
    expect(await may("127.0.0.1", { "x-forwarded-for": "203.0.113.9" })).toBe(false);
    expect(await may("203.0.113.9", {})).toBe(false);
    expect(await may("127.0.0.1", {}, "secret")).toBe(false);
    expect(await may("203.0.113.9", { authorization: "Bearer secret" }, "secret")).toBe(true);
    expect(await may("203.0.113.9", { authorization: "Bearer secres" }, "secret")).toBe(false);
  });
});

test("every package stands under a licence that lets it be passed on", async () => {
  const { stdout } = await run(process.execPath, ["scripts/licences.mjs"], { cwd: `${__dirname}/../..` });
  expect(stdout).toMatch(/^MIT: \d{3}/m);
});
