/** @jest-environment ./test/environments/node.mjs */
import { gzipSync } from "node:zlib";
import { analyse, ENGINE_VERSION, keptKeys, packCodes, packValues, Predictor, type Entry } from "@radicula/core";
import { takeKept } from "@/workers/keptPredictions";
import { demoCase } from "./helpers";

const { wiring } = demoCase();
const codes: readonly Entry[] = ["P0642", "P0237"].map((code) => ({
  type: "code",
  at: "2026-11-24T09:00:00Z",
  module: "A1",
  code,
  status: "active",
}));
const suspects = (predictor: Predictor) =>
  analyse(predictor, codes, { quick: true }).suspects.map((s) => [s.id, Number(s.share.toFixed(9))]);

const worked = new Predictor(wiring);
const told = suspects(worked);
const keys = keptKeys(worked, ENGINE_VERSION);
const kept = new Map([
  [`/api/predictions/${keys.codes}`, gzipSync(packCodes(worked))],
  [`/api/predictions/${keys.values}`, gzipSync(packValues(worked))],
]);

/** A server that answers so, and how often it was asked. */
function server(answer: (address: string) => Response) {
  const asked: string[] = [];
  const load: typeof fetch = (input) => {
    const address = input as string;
    asked.push(address);
    return Promise.resolve(answer(address));
  };
  return { asked, load };
}

test("what the server keeps is asked for once and taken over: the card is the same, for hardly a solve", async () => {
  const { asked, load } = server((address) => new Response(new Uint8Array(kept.get(address)!)));
  const predictor = new Predictor(wiring);
  await takeKept(predictor, load);
  await takeKept(predictor, load);
  expect(asked.sort()).toEqual([...kept.keys()].sort());
  expect(suspects(predictor)).toEqual(told);
  expect(predictor.solves).toBeLessThan(worked.solves / 10);
});

test.each([
  ["nothing is kept", () => new Response(null, { status: 204 })],
  ["the server fails", () => new Response("no", { status: 500 })],
  ["the bytes are no predictions", () => new Response(new Uint8Array(gzipSync("no predictions")))],
  ["the bytes are not compressed", () => new Response("no predictions")],
])("where %s all is worked out here, and the card is the same", async (_, answer) => {
  const predictor = new Predictor(wiring);
  await takeKept(predictor, server(answer).load);
  expect(suspects(predictor)).toEqual(told);
});
