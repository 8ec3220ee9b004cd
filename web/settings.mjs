// How the server may be reached, from its arguments and the environment; what does not fit together is refused.
import { readFileSync } from "node:fs";
import { parseArgs } from "node:util";

const LOOPBACK = new Set(["localhost", "127.0.0.1", "::1"]);
/** Requests a minute from one address; a shared tablet at work makes a tenth of them. */
const RATE = 12_000;

export class BadSetting extends Error {}

const listOf = (text = "") =>
  text
    .toLowerCase()
    .split(/[\s,]+/)
    .filter(Boolean);

/**
 * @param {readonly string[]} args
 * @param {NodeJS.ProcessEnv} env
 * @throws {BadSetting} where it would let people in unasked, or send passwords that anybody can read
 */
export function settings(args, env) {
  const { values } = parseArgs({
    args: [...args],
    options: {
      hostname: { type: "string", short: "H" },
      port: { type: "string", short: "p" },
      wait: { type: "boolean" },
    },
  });
  const hostname = values.hostname ?? "127.0.0.1";
  const names = listOf(env.RADICULA_HOSTS);
  const listensHereOnly = LOOPBACK.has(hostname);
  const isOpen = !listensHereOnly || names.length > 0;
  if (isOpen && env.RADICULA_SIGN_IN === "off")
    throw new BadSetting(
      "others than this machine can come in, so people have to sign in: RADICULA_SIGN_IN=off is refused",
    );
  const tls = certificate(env);
  const proxies = listOf(env.RADICULA_PROXY);
  if (!listensHereOnly && !tls && proxies.length === 0)
    throw new BadSetting(
      `listening at ${hostname} without a certificate would send passwords that anybody on the way can read. Set ` +
        "RADICULA_CERT and RADICULA_KEY, or RADICULA_PROXY to the address of the proxy that has the certificate",
    );
  return {
    hostname,
    port: Number(values.port ?? 3210),
    /** whether it listens only once it is told to */
    isToWait: values.wait === true && process.send !== undefined,
    names,
    tls,
    /** whose X-Forwarded headers are believed: a proxy on this machine needs not be named */
    proxies: new Set(isOpen && listensHereOnly ? [...LOOPBACK, ...proxies] : proxies),
    isOpen,
    needsSignIn: isOpen || env.RADICULA_SIGN_IN === "on",
    rate: Number(env.RADICULA_RATE ?? RATE),
    metricsToken: env.RADICULA_METRICS_TOKEN || undefined,
  };
}
/** @param {NodeJS.ProcessEnv} env */
function certificate({ RADICULA_CERT: cert, RADICULA_KEY: key }) {
  if (!cert && !key) return undefined;
  if (!cert || !key) throw new BadSetting("RADICULA_CERT and RADICULA_KEY belong together: both name a PEM file");
  try {
    return { cert: readFileSync(cert), key: readFileSync(key) };
  } catch (error) {
    throw new BadSetting(`the certificate does not read: ${error instanceof Error ? error.message : String(error)}`);
  }
}
