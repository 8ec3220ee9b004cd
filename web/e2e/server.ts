import AxeBuilder from "@axe-core/playwright";
import { expect, test, type APIRequestContext, type Page } from "@playwright/test";
import { spawn, type ChildProcess } from "node:child_process";
import { createServer, connect, type AddressInfo, type Server, type Socket } from "node:net";
import { basename, join } from "node:path";
import postgres from "postgres";

export const ROOT = process.env["RADICULA_ROOT"] ?? process.cwd();

/** One copy of the built application, which a test may kill and start again at the same address. */
export class Application {
  private child: ChildProcess | undefined;
  constructor(
    public port = 0,
    private readonly databaseUrls?: () => DatabaseUrls,
    /** further settings of the server */
    readonly settings: Record<string, string> = {},
  ) {}
  get address() {
    return `http://127.0.0.1:${this.port}`;
  }

  async start(): Promise<void> {
    this.port ||= await freePort();
    this.child = spawn(process.execPath, [join(ROOT, "web/server.mjs"), "-p", String(this.port)], {
      cwd: join(ROOT, "web"),
      env: {
        ...process.env,
        ...(this.databaseUrls ?? testDatabases)(),
        RADICULA_ROOT: ROOT,
        NODE_ENV: "production",
        ...this.settings,
      },
      stdio: "ignore",
    });
    for (let i = 0; i < 240; i++) {
      const up = await fetch(`${this.address}/api/health`).then(
        (r) => r.ok,
        () => false,
      );
      if (up) return;
      await new Promise((resolve) => setTimeout(resolve, 250));
    }
    throw new Error("the application did not come up");
  }
  /** the hard way, as when the power goes */
  async kill(): Promise<void> {
    const { child } = this;
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const gone = new Promise((resolve) => child.once("exit", resolve));
    child.kill("SIGKILL");
    await gone;
  }
}

export async function freePort(): Promise<number> {
  const server = createServer();
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  const { port } = server.address() as AddressInfo;
  await new Promise((resolve) => server.close(resolve));
  return port;
}

let own: string | undefined;
type DatabaseUrls = Readonly<Record<"DATABASE_URL" | "DATABASE_OWNER_URL", string>>;
/** The database of this file's tests, as its owner or as the role the server works as. */
export function testDatabase(name: keyof DatabaseUrls = "DATABASE_OWNER_URL"): URL {
  const given = process.env[name];
  if (!given) throw new Error("run the browser tests through npm test, which makes their database");
  const url = new URL(given);
  if (own) url.pathname = `/${own}`;
  return url;
}
const testDatabases = (): DatabaseUrls => ({
  DATABASE_URL: testDatabase("DATABASE_URL").href,
  DATABASE_OWNER_URL: testDatabase().href,
});

/** Changes rows as somebody would who goes round what the database refuses. */
export async function byHand<T>(change: (sql: postgres.TransactionSql) => Promise<T>): Promise<T> {
  const sql = postgres(testDatabase().href, { max: 1, onnotice: () => undefined });
  let found: T;
  await sql.begin(async (tx) => {
    await tx`set local session_replication_role = replica`; // no triggers
    found = await change(tx);
  });
  await sql.end();
  return found!;
}
/** The database that those of the files are copies of; see `prepare.ts`. */
export const DEMO_DATABASE = "radicula_test_demo";
/** A database new for the tests of one file: what another file did to the demos is not in it. */
async function freshDatabase(file: string): Promise<void> {
  const sql = postgres(testDatabase().href, { max: 1, onnotice: () => undefined });
  const name = `radicula_test_${basename(file).replace(/\W.*$/, "")}`;
  await sql.unsafe(`drop database if exists ${name} with (force)`);
  await sql.unsafe(`create database ${name} template ${DEMO_DATABASE}`);
  await sql.end();
  own = name;
  // a database of its own, as far as devices can tell
  await byHand((tx) => tx`update identity set id = gen_random_uuid(), secret = gen_random_uuid()::text`);
}
/** The addresses of a database on the server of the tests. */
export function urlsOf(database: string): DatabaseUrls {
  const of = (name: keyof DatabaseUrls) => {
    const url = testDatabase(name);
    url.pathname = `/${database}`;
    return url.href;
  };
  return { DATABASE_URL: of("DATABASE_URL"), DATABASE_OWNER_URL: of("DATABASE_OWNER_URL") };
}

/** Stands between the application and its database, so that a test can make the database vanish and come back. */
export class DatabaseGate {
  private server: Server | undefined;
  private readonly open = new Set<Socket>();
  port = 0;
  async let(): Promise<void> {
    const behind = testDatabase();
    this.server = createServer((client) => {
      const onward = connect(Number(behind.port), behind.hostname);
      for (const socket of [client, onward]) {
        this.open.add(socket);
        socket.on("close", () => this.open.delete(socket));
        socket.on("error", () => {
          client.destroy();
          onward.destroy();
        });
      }
      client.pipe(onward).pipe(client);
    });
    await new Promise<void>((resolve) => this.server?.listen(this.port, "127.0.0.1", resolve));
    this.port = (this.server.address() as AddressInfo).port;
  }
  async shut(): Promise<void> {
    for (const socket of this.open) socket.destroy();
    await new Promise((resolve) => this.server?.close(resolve));
  }
  urls(): DatabaseUrls {
    const through = (name: keyof DatabaseUrls) => {
      const url = testDatabase(name);
      url.port = String(this.port);
      return url.href;
    };
    return { DATABASE_URL: through("DATABASE_URL"), DATABASE_OWNER_URL: through("DATABASE_OWNER_URL") };
  }
}

/** A copy of the application for the tests of one file. */
export function applicationForTests(settings: Record<string, string> = {}): Application {
  const app = new Application(0, undefined, settings);
  test.beforeAll(async () => {
    own = undefined;
    await freshDatabase(test.info().file);
    await app.start();
  });
  test.afterAll(() => app.kill());
  return app;
}
export const JSON_TYPE = { "Content-Type": "application/json" };

/** Puts a wiring in the library. @returns its id */
export async function makeWiring(address: string, request: APIRequestContext, body: unknown): Promise<string> {
  const response = await request.post(`${address}/api/wirings`, { headers: JSON_TYPE, data: JSON.stringify(body) });
  expect(response.status()).toBe(201);
  return ((await response.json()) as { id: string }).id;
}

/** Waits until nothing on the page moves any more. */
export const still = (page: Page): Promise<unknown> =>
  page.evaluate(() => Promise.allSettled(document.getAnimations().map((a) => a.finished)));

/** Whatever an accessibility checker finds on the page as it stands, of any weight, in light and in dark. */
export async function axeFindings(page: Page): Promise<string[]> {
  const found: string[] = [];
  for (const colorScheme of ["light", "dark"] as const) {
    await page.emulateMedia({ colorScheme });
    await page.locator(`html[data-theme="${colorScheme}"]`).waitFor();
    await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
    await still(page);
    const { violations } = await new AxeBuilder({ page }).analyze();
    for (const v of violations)
      found.push(
        `${colorScheme} ${v.id}: ${v.nodes
          .slice(0, 3)
          .map((n) => n.target.join(" "))
          .join(", ")}`,
      );
  }
  return found;
}
