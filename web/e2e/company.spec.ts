import { expect, test } from "@playwright/test";
import { execFileSync } from "node:child_process";
import { createServer, type Server } from "node:http";
import { Provider } from "oidc-provider";
import { applicationForTests, freePort, testDatabase } from "./server";

/** A company's own sign-in, played by a provider that follows OpenID Connect Core 1.0 and is certified for it. */
const settings: Record<string, string> = { RADICULA_SIGN_IN: "on", RADICULA_OIDC_CLIENT_ID: "radicula" };
const app = applicationForTests(settings);
let company: Server;

test.beforeAll(async () => {
  const port = await freePort();
  const issuer = `http://127.0.0.1:${port}`;
  app.port = await freePort();
  Object.assign(settings, { RADICULA_OIDC_ISSUER: issuer, RADICULA_OIDC_CLIENT_SECRET: "a secret of the two" });
  const provider = new Provider(issuer, {
    clients: [
      {
        client_id: "radicula",
        client_secret: "a secret of the two",
        redirect_uris: [`${app.address}/api/auth/callback/company`],
      },
    ],
    claims: { openid: ["sub"], profile: ["name"], email: ["email", "email_verified"] },
    // whoever types a name is that person: it stands in for a company's own check
    findAccount: (_, id) => ({
      accountId: id,
      claims: () => ({ sub: id, name: id, email: `${id}@works.example`, email_verified: true }),
    }),
    cookies: { keys: ["any"] },
    conformIdTokenClaims: false,
  });
  company = createServer(provider.callback());
  await new Promise<void>((resolve) => company.listen(port, "127.0.0.1", resolve));
  await app.kill();
  await app.start();
});
test.afterAll(() => new Promise((resolve) => company.close(resolve)));

test("who the company knows comes in as the person who was added with that address, and nobody else", async ({
  page,
}) => {
  const env = { ...process.env, DATABASE_URL: testDatabase().href };
  const people = (...args: string[]) =>
    execFileSync(process.execPath, ["scripts/data/cli.mjs", "people", ...args], { env, encoding: "utf8" });
  people("add", "Cora Company", "cora", "technician", "cora@works.example");

  const comeAs = async (name: string) => {
    await page.context().clearCookies();
    await page.goto(`${app.address}/wirings`);
    await page.getByRole("button", { name: "Use the company sign-in" }).click();
    await page.waitForURL(/\/interaction\//);
    await page.locator("input[name=login]").fill(name);
    await page.locator("input[name=password]").fill("anything");
    await page.getByRole("button").click();
    await page.getByRole("button", { name: "Continue" }).click();
  };
  await comeAs("cora");
  await page.waitForURL((url) => url.pathname === "/wirings");
  await expect(page.getByRole("button", { name: "Cora Company" })).toBeVisible();

  await comeAs("stranger");
  await expect(page.getByText("The company sign-in did not let you in")).toBeVisible();
  expect((await page.request.get(`${app.address}/api/wirings`)).status()).toBe(401);
});
