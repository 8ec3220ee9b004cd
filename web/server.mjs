// The server: node web/server.mjs [-H ADDRESS] [-p PORT]. DATABASE_URL and RADICULA_ROOT are set by who starts it.
import { createServer } from "node:http";
import { parseArgs } from "node:util";
import next from "next";

const { values } = parseArgs({
  options: { hostname: { type: "string", short: "H" }, port: { type: "string", short: "p" } },
});
const hostname = values.hostname ?? "127.0.0.1";
const port = Number(values.port ?? 3210);
/** How long a client may take to send its request, headers and all, ms: a photo over a poor line takes a while. */
const REQUEST_MS = 120_000;
const HEADERS_MS = 20_000;

const app = next({ dir: import.meta.dirname, dev: false, hostname, port });
await app.prepare();
const handle = app.getRequestHandler();
const server = createServer({ requestTimeout: REQUEST_MS, headersTimeout: HEADERS_MS }, (request, response) => {
  // the framework cannot take these two; all other methods are judged where every request comes by (src/proxy.ts)
  if (request.method === "TRACE" || request.method === "CONNECT") response.writeHead(405).end();
  else void handle(request, response);
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
