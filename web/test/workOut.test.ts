/** @jest-environment ./test/environments/node.mjs */
import { analyse, ENGINE_VERSION, generateHarness, keptKeys, Predictor, type Entry } from "@radicula/core";
import { takeKept } from "@/workers/keptPredictions";
import { gzipSync } from "node:zlib";
import { predict } from "../workOut.mjs";
import { demoCase } from "./helpers";

const { wiring } = demoCase();
const found = predict({ wiring, kept: {} });

test("a wiring nobody has worked on: its first card takes less than a third of the solving", async () => {
  const keys = keptKeys(new Predictor(wiring), ENGINE_VERSION);
  expect(Object.keys(found).sort()).toEqual([keys.codes, keys.values].sort());
  const entries: Entry[] = [
    { type: "code", at: "2026-11-24T09:00:00Z", module: "A1", code: "P0642", status: "active" },
  ];
  const card = (predictor: Predictor) => {
    const before = predictor.solves;
    const { suspects } = analyse(predictor, entries, { quick: true });
    return { solves: predictor.solves - before, first: suspects[0]!.id };
  };
  const cold = card(new Predictor(wiring));
  const warm = new Predictor(wiring);
  await takeKept(warm, (address) =>
    Promise.resolve(new Response(gzipSync(found[(address as string).split("/").at(-1)!]!))),
  );
  const known = card(warm);
  expect(known.first).toBe(cold.first);
  expect(known.solves).toBeLessThan(cold.solves / 3);
});

test("what is kept already is not kept again, and of a large machine nothing is worked out beforehand", () => {
  expect(predict({ wiring, kept: found })).toEqual({});
  expect(predict({ wiring: generateHarness({ nodes: 500, seed: 1 }), kept: {} })).toEqual({});
});
