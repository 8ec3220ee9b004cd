// The server: node web/server.mjs [-H ADDRESS] [-p PORT] [--wait]. DATABASE_URL and RADICULA_ROOT are set by who starts
// it. With --wait it loads everything and listens once the process that started it sends "listen"; it ends with that.
import { randomBytes } from "node:crypto";
import { once } from "node:events";
import { createServer } from "node:http";
import { createServer as createTlsServer } from "node:https";
import next from "next";
import { RateLimiterMemory } from "rate-limiter-flexible";
import { contentPolicy, originOf, readerPolicy, refusalOf, withOurHeaders } from "./door.mjs";
import { inLanguageOf } from "./language.mjs";
import { countRefusal, mayReadMetrics, sendMetrics, timeAnswer } from "./metrics.mjs";
import { BadSetting, settings } from "./settings.mjs";

const set = readSettings();
// what runs inside asks for people only where the door does
process.env.RADICULA_SIGN_IN = set.needsSignIn ? "on" : "off";
/** How long a client may take to send its request, headers and all, ms: a photo over a poor line takes a while. */
const REQUEST_MS = 120_000;
const HEADERS_MS = 20_000;
const YEAR_S = 31_536_000;

let server;
if (set.isToWait) {
  const told = once(process, "message");
  // one that nobody will tell any more ends; one that is in use goes on
  process.once("disconnect", () => server?.listening || process.exit(0));
  // what is done once for all servers waits for it too
  globalThis.radiculaListens = told;
}

// a log that cannot be written, as on a full disk, holds up nobody
for (const log of [process.stdout, process.stderr]) log.on("error", () => undefined);

const app = next({ dir: import.meta.dirname, dev: false, hostname: set.hostname, port: set.port });
await app.prepare();
const handle = app.getRequestHandler();
const perAddress = new RateLimiterMemory({ points: set.rate, duration: 60 });

const limits = { requestTimeout: REQUEST_MS, headersTimeout: HEADERS_MS };
await globalThis.radiculaListens;
server = set.tls ? createTlsServer({ ...limits, ...set.tls }, take) : createServer(limits, take);
server.listen(set.port, set.hostname, () => process.send?.("listening"));

/** @type {import("node:http").RequestListener} */
function take(request, response) {
  timeAnswer(request, response);
  letIn(request, response).catch((error) => {
    console.error(error);
    if (!response.headersSent) refuse(request, response, { status: 503, text: "The server cannot answer just now." });
  });
}
/** @type {(...of: Parameters<import("node:http").RequestListener>) => Promise<void>} */
async function letIn(request, response) {
  const origin = originOf(request, set);
  const refusal = refusalOf(request, set.names) ?? needsTls(request, origin);
  if (refusal) return refuse(request, response, refusal);
  if (origin.isSecure) response.setHeader("Strict-Transport-Security", `max-age=${YEAR_S}`);
  withOurHeaders(request, origin);
  const wait = await tooMany(origin.address);
  if (wait) {
    response.setHeader("Retry-After", String(wait));
    return refuse(request, response, { status: 429, text: "Too many requests from this address. Wait a minute." });
  }
  if (request.url === "/metrics") {
    if (mayReadMetrics(request, set.metricsToken)) return sendMetrics(response);
    return refuse(request, response, { status: 403, text: "Metrics are read with the token RADICULA_METRICS_TOKEN." });
  }
  if (set.needsSignIn && !(await mayPass(request, response))) return;
  if (request.url?.startsWith("/ocr/")) response.setHeader("Content-Security-Policy", readerPolicy);
  else if (!request.url?.startsWith("/api/")) {
    // the framework reads the nonce for its own scripts from the request
    const policy = contentPolicy(randomBytes(18).toString("base64"));
    request.headers["content-security-policy"] = policy;
    response.setHeader("Content-Security-Policy", policy);
  }
  await inLanguageOf(request, () => handle(request, response));
}

/** Asks what runs inside who this is, and tells the handlers. @returns false where it was answered here */
async function mayPass(request, response) {
  const answer = await globalThis.radiculaGuard?.(request.method, request.url, request.headers);
  if (answer?.do === "let") {
    if (answer.person) request.headers["radicula-person"] = answer.person;
    return true;
  }
  const isApi = request.url.startsWith("/api/");
  if (answer?.do === "ask" && !isApi) {
    response.writeHead(303, {
      Location: `/sign-in?to=${encodeURIComponent(request.url)}`,
      "Cache-Control": "no-store",
    });
    response.end();
    return false;
  }
  const { status, code } =
    answer?.do === "ask"
      ? { status: 401, code: "sign-in.needed" }
      : (answer ?? { status: 503, code: "server.starting" });
  if (status === 403) console.error(`security: refused ${code}: ${request.method} ${pathOf(request)}`);
  countRefusal(status);
  const issues = JSON.stringify({ issues: [{ code, path: [], params: {} }] });
  response.writeHead(status, {
    "Content-Type": isApi ? "application/json" : "text/plain",
    "Cache-Control": "no-store",
  });
  response.end(
    isApi ? issues : status === 503 ? "The server is starting. Reload in a moment." : "Your role does not allow this.",
  );
  return false;
}
async function tooMany(address) {
  try {
    await perAddress.consume(address);
    return 0;
  } catch (left) {
    return Math.ceil((left.msBeforeNext ?? 60_000) / 1000);
  }
}
/** Others than this machine are answered over TLS only. */
function needsTls({ headers }, origin) {
  if (!set.isOpen || origin.isSecure || !set.names.includes(headers.host?.toLowerCase() ?? "")) return undefined;
  return { status: 403, text: "This server is reached by https only." };
}
function refuse(request, response, { status, text }) {
  countRefusal(status);
  console.error(`refused, ${status}: ${request.method} ${pathOf(request)}`);
  response.writeHead(status, { "Content-Type": "text/plain", "Cache-Control": "no-store" });
  response.end(text);
}
/** For the log: an invitation's code stands behind the question mark. */
const pathOf = ({ url = "" }) => url.split("?", 1)[0]?.slice(0, 80);
function readSettings() {
  try {
    return settings(process.argv.slice(2), process.env);
  } catch (error) {
    if (!(error instanceof BadSetting)) throw error;
    console.error(`radicula: ${error.message}`);
    process.exit(1);
  }
}

/** What is under way is answered; then it ends. */
function end() {
  server.close(() => process.exit(0));
  server.closeIdleConnections();
  setTimeout(() => process.exit(0), 4000).unref();
}
process.on("SIGTERM", end);
process.on("SIGINT", end);
