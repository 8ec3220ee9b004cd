// The server: node web/server.mjs [-H ADDRESS] [-p PORT]. DATABASE_URL and RADICULA_ROOT are set by who starts it.
import { randomBytes } from "node:crypto";
import { createServer } from "node:http";
import { parseArgs } from "node:util";
import next from "next";
import { contentPolicy, refusalOf } from "./door.mjs";

const { values } = parseArgs({
  options: { hostname: { type: "string", short: "H" }, port: { type: "string", short: "p" } },
});
const hostname = values.hostname ?? "127.0.0.1";
const port = Number(values.port ?? 3210);
const names = (process.env.RADICULA_HOSTS ?? "")
  .toLowerCase()
  .split(/[\s,]+/)
  .filter(Boolean);
/** How long a client may take to send its request, headers and all, ms: a photo over a poor line takes a while. */
const REQUEST_MS = 120_000;
const HEADERS_MS = 20_000;

const app = next({ dir: import.meta.dirname, dev: false, hostname, port });
await app.prepare();
const handle = app.getRequestHandler();
const server = createServer({ requestTimeout: REQUEST_MS, headersTimeout: HEADERS_MS }, (request, response) => {
  const refusal = refusalOf(request, names);
  if (refusal) {
    console.error(`refused, ${refusal.status}: ${request.method} ${request.url?.slice(0, 80)}`);
    response.writeHead(refusal.status, { "Content-Type": "text/plain", "Cache-Control": "no-store" });
    response.end(refusal.text);
    return;
  }
  if (!request.url?.startsWith("/api/")) {
    // the framework reads the nonce for its own scripts from the request
    const policy = contentPolicy(randomBytes(18).toString("base64"));
    request.headers["content-security-policy"] = policy;
    response.setHeader("Content-Security-Policy", policy);
  }
  if (request.headers["x-forwarded-proto"] === "https")
    response.setHeader("Strict-Transport-Security", "max-age=31536000");
  void handle(request, response);
});
server.listen(port, hostname);

/** What is under way is answered; then it ends. */
function end() {
  server.close(() => process.exit(0));
  server.closeIdleConnections();
  setTimeout(() => process.exit(0), 4000).unref();
}
process.on("SIGTERM", end);
process.on("SIGINT", end);
