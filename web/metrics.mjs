// What the server counts of itself, for a monitor to read at /metrics (OpenMetrics text).
import { timingSafeEqual } from "node:crypto";
import { collectDefaultMetrics, Counter, Histogram, Registry } from "prom-client";

const registry = new Registry();
registry.setContentType(Registry.OPENMETRICS_CONTENT_TYPE);
collectDefaultMetrics({ register: registry });
const answers = new Histogram({
  name: "radicula_http_seconds",
  help: "From a request to its answer, seconds",
  labelNames: ["method", "route", "status"],
  buckets: [0.01, 0.03, 0.1, 0.25, 0.5, 1, 3, 10],
  registers: [registry],
});
const refusals = new Counter({
  name: "radicula_refused",
  help: "Requests that the door refused, by status",
  labelNames: ["status"],
  registers: [registry],
});

const ID = /^(?:[0-9a-f]{8}-[0-9a-f-]{27}|[0-9a-f]{64})$/;
/** Words that addresses of ours are made of; anything else would let anybody make up routes without end. */
const WORDS = new Set(
  (
    "api job jobs wiring wirings print photos codes entries events export measure revision revisions scan bench " +
    "recordings record draft people invitation auth health live sign-in sign-out account " +
    "calculators metrics predictions"
  ).split(" "),
);
/** Addresses of one kind count together; what is no address of ours is one kind. */
function routeOf(url) {
  const [path = ""] = url.split("?", 1);
  if (path.startsWith("/_next/")) return "/_next";
  if (path.startsWith("/api/auth/")) return "/api/auth";
  const parts = path.split("/").map((p) => (ID.test(p) ? ":id" : p));
  return parts.length <= 5 && parts.every((p) => p === "" || p === ":id" || WORDS.has(p)) ? parts.join("/") : "other";
}

/**
 * Times one request.
 * @param {import("node:http").IncomingMessage} request
 * @param {import("node:http").ServerResponse} response
 */
export function timeAnswer(request, response) {
  const end = answers.startTimer({ method: request.method, route: routeOf(request.url ?? "") });
  response.once("close", () => end({ status: response.statusCode }));
}
/** @param {number} status */
export const countRefusal = (status) => refusals.inc({ status });

/**
 * Whether a request may read the metrics: it has the token; or there is none, and it comes from this very machine and
 * through no proxy.
 * @param {import("node:http").IncomingMessage} request
 * @param {string | undefined} token
 */
export function mayReadMetrics({ headers, socket }, token) {
  if (!token)
    return /^(?:::1|(?:::ffff:)?127\.)/.test(socket.remoteAddress ?? "") && headers["x-forwarded-for"] === undefined;
  const given = Buffer.from(headers.authorization ?? "");
  const wanted = Buffer.from(`Bearer ${token}`);
  return given.length === wanted.length && timingSafeEqual(given, wanted);
}
/** @param {import("node:http").ServerResponse} response */
export async function sendMetrics(response) {
  const text = await registry.metrics();
  response.writeHead(200, { "Content-Type": registry.contentType, "Cache-Control": "no-store" });
  response.end(text);
}
