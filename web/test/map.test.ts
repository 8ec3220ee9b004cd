/** @jest-environment ./test/environments/node.mjs */
import { layOutMap } from "@/features/case/map/query";
import { generateHarness, type Wiring } from "@radicula/core";
import { buildMap } from "@/features/case/map/graph";
import { PILL, placePills, type PlacedPill } from "@/features/case/map/pills";
import type { PlacedMap } from "@/features/case/map/placed";
import { showsFeeds, suspicionOnMap } from "@/features/case/map/suspicion";
import { spreadTags } from "@/features/case/map/tags";
import { analysed, demoCase } from "./helpers";

const job = demoCase();
const codes = [
  { module: "A1", code: "P0642" },
  { module: "A1", code: "P0237" },
  { module: "A1", code: "P0522" },
  { module: "A1", code: "P1A41" },
];

test("coded sensors, and the healthy one that shares with them; what shares nothing is only counted", () => {
  const graph = buildMap(job.wiring, codes);
  expect(
    graph.nodes
      .filter((n) => n.type === "sensor")
      .map((n) => n.id)
      .sort(),
  ).toEqual(["B12", "B4", "B7", "B9"]);
  expect(graph.hidden).toBe(2);
  expect(graph.nodes.find((n) => n.id === "B7")?.codes.map((c) => c.id)).toEqual(["P0237"]);
  expect(graph.nodes.find((n) => n.type === "code")?.thing).toBe("P0642"); // a code about the reference itself
});

test("everything lies below what leads to it, and in-line cavities on one level", () => {
  const graph = buildMap(job.wiring, codes);
  const rank = new Map(graph.nodes.map((n) => [n.id, n.rank]));
  for (const e of graph.edges)
    if (e.function !== "watch") expect(rank.get(e.from)).toBeLessThanOrEqual(rank.get(e.to)!);
  expect(new Set(graph.nodes.filter((n) => n.type === "inline").map((n) => n.rank)).size).toBe(1);
  expect(rank.get("S14")).toBeLessThan(rank.get("module A1")!);
});

test("the layout gives everything a place, apart from everything else", async () => {
  const map = await layOutMap(buildMap(job.wiring, codes));
  expect(map.width).toBeGreaterThan(400);
  for (const n of map.nodes) expect(n.x >= 0 && n.y >= 0 && n.x + n.width <= map.width + 1).toBe(true);
  for (const a of map.nodes)
    for (const b of map.nodes)
      if (a.id < b.id) {
        const apart = a.x + a.width <= b.x || b.x + b.width <= a.x || a.y + a.height <= b.y || b.y + b.height <= a.y;
        expect([a.id, b.id, apart]).toEqual([a.id, b.id, true]);
      }
  for (const e of map.edges) expect(e.path).toMatch(/^M[-\d. ]+[LC]/);
});

test("suspicion runs down: the trunk carries at least what its branches bring", async () => {
  const map = await layOutMap(buildMap(job.wiring, codes, false));
  const { through } = suspicionOnMap(map, analysed(job));
  const branches = ["W11", "W12", "W13"].map((w) => through.get(w) ?? 0);
  expect(through.get("W14")).toBeGreaterThan(Math.max(...branches));
  expect(through.get("W14")).toBeGreaterThan(0.5);
  expect(through.get("W31") ?? 0).toBeLessThan(0.05); // a signal wire
});

test("feeds are folded away until something points there", async () => {
  const full = await layOutMap(buildMap(job.wiring, codes, true));
  expect(full.feeds).toContain("F12");
  expect(showsFeeds(full, analysed(job), { points: ["B7:1"] })).toBe(false);
  expect(showsFeeds(full, analysed(job), { points: ["F12:in", "F12:out"] })).toBe(true);
  const short = await layOutMap(buildMap(job.wiring, codes, false));
  expect(short.nodes.some((n) => n.type === "part")).toBe(false);
});

test("an empty wiring, a loop of splices and forty sensors draw without harm", async () => {
  const empty: Wiring = {
    format: "radicula/wiring",
    version: 1,
    name: "x",
    nominalVolt: 12,
    connectors: [],
    devices: [],
    wires: [],
    codes: [],
  };
  expect((await layOutMap(buildMap(empty, []))).nodes).toEqual([]);
  const where = { zones: [], reachMinutes: 1, cautions: [] };
  const loop: Wiring = {
    ...empty,
    devices: ["S1", "S2", "S3"].map((id) => ({ kind: "splice" as const, id, ...where })),
    connectors: [{ id: "B1", cavities: ["1", "2"], inline: false, backProbe: true, ...where }],
    wires: [
      ["S1", "S2"],
      ["S2", "S3"],
      ["S3", "S1"],
      ["B1:1", "S1"],
    ].map(([from, to]) => ({ from: from!, to: to!, zones: [] })),
  };
  loop.devices.push({ kind: "thermistor", id: "B1", pins: { signal: "B1:1", ground: "B1:2" }, ...where });
  expect((await layOutMap(buildMap(loop, []))).nodes.length).toBe(4);
  const many: Wiring = { ...empty, devices: [{ kind: "splice", id: "S", ...where }], connectors: [], wires: [] };
  for (let i = 0; i < 40; i++) {
    many.connectors.push({ id: `B${i}`, cavities: ["1", "2"], inline: false, backProbe: true, ...where });
    many.devices.push({ kind: "thermistor", id: `B${i}`, pins: { signal: `B${i}:1`, ground: `B${i}:2` }, ...where });
    many.wires.push({ from: `B${i}:1`, to: "S", zones: [] });
  }
  const graph = buildMap(many, []);
  expect(graph.nodes.filter((n) => n.type === "sensor").length).toBe(14);
  expect(graph.hidden).toBe(26);
});

test("relays, actuators and buses are drawn too: a code about a bus node stands on that node", async () => {
  const wiring = generateHarness({ nodes: 260, seed: 4 });
  const silent = wiring.codes.find(
    (c) =>
      c.monitor?.type === "silent" &&
      wiring.devices.some((d) => d.kind === "smartSensor" && c.monitor?.type === "silent" && d.id === c.monitor.node),
  );
  const low = wiring.codes.find((c) => c.monitor?.type === "below");
  const present = [silent, low].flatMap((c) => (c ? [{ module: c.module, code: c.id }] : []));
  const graph = buildMap(wiring, present);
  if (silent?.monitor?.type === "silent")
    expect(
      graph.nodes
        .find((n) => n.id === (silent.monitor?.type === "silent" ? silent.monitor.node : ""))
        ?.codes.map((c) => c.id),
    ).toEqual([silent.id]);
  expect(graph.nodes.some((n) => n.type === "sensor" && n.codes.length > 0)).toBe(true);
  expect(graph.nodes.find((n) => n.id === "K1")?.type).toBe("part"); // the main relay stands in the way like a fuse
  const map = await layOutMap(graph);
  for (const n of map.nodes) expect(Number.isFinite(n.x) && Number.isFinite(n.y)).toBe(true);
});

test("tags of readings taken side by side stand apart, each near its place", () => {
  const tags = [
    { id: "a", x: 100, y: 50 },
    { id: "b", x: 140, y: 50 },
    { id: "c", x: 150, y: 55 },
    { id: "d", x: 120, y: 200 },
  ];
  const spread = spreadTags(tags);
  const at = (id: string) => spread.find((t) => t.id === id)!.x;
  for (const [a, b] of [
    ["a", "b"],
    ["b", "c"],
  ] as const)
    expect(at(b) - at(a)).toBeGreaterThan(85);
  expect(at("d")).toBe(120); // on another level, nothing in its way
  expect(spreadTags([])).toEqual([]);
});

describe("figures of suspicion on the map", () => {
  const port = (point: string, cx: number) => ({ point, label: point, side: "bottom" as const, cx, cy: 60 });
  const node = {
    id: "A1",
    type: "module" as const,
    thing: "A1",
    title: "module",
    detail: "",
    rank: 1,
    codes: [],
    width: 200,
    height: 60,
    x: 0,
    y: 0,
    ports: [port("A1:1", 40), port("A1:2", 64), port("A1:3", 88)],
  };
  const map = { width: 200, height: 200, nodes: [node], edges: [], hidden: 0, feeds: [] } as unknown as PlacedMap;
  const on = new Map([
    ["A1:1", 0.2],
    ["A1:2", 0.5],
    ["A1:3", 0.03],
  ]);
  test("the strongest comes first, none covers another or a name, and what is hardly suspected gets none", () => {
    const pills = placePills(map, { through: new Map(), on }, new Set());
    expect(pills.map((p) => p.share)).toEqual([0.5, 0.2]);
    const [a, b] = pills as [PlacedPill, PlacedPill];
    expect(Math.abs(a.x - b.x) >= PILL.width || Math.abs(a.y - b.y) >= PILL.height).toBe(true);
    for (const p of pills)
      expect(
        p.y + PILL.height / 2 <= 28 || p.y - PILL.height / 2 >= 46 || Math.abs(p.x - 100) >= 25 + PILL.width / 2,
      ).toBe(true);
  });
  test("one that finds no free place is left out", () => {
    const crowd = new Map(Array.from({ length: 12 }, (_, i) => [`A1:${i}`, 0.5 - i / 100]));
    const full = {
      ...map,
      nodes: [{ ...node, ports: Array.from({ length: 12 }, (_, i) => port(`A1:${i}`, 100 + i)) }],
    } as unknown as PlacedMap;
    expect(placePills(full, { through: new Map(), on: crowd }, new Set()).length).toBeLessThan(6);
  });
});

test("on a large machine the map keeps to what the coded circuits lead to and what feeds it", async () => {
  const wiring = generateHarness({ nodes: 2000, seed: 1 });
  const present = wiring.codes.slice(0, 2).map((c) => ({ module: c.module, code: c.id }));
  const short = buildMap(wiring, present, false);
  const full = buildMap(wiring, present, true);
  expect(full.nodes.length).toBeLessThanOrEqual(120);
  expect(full.nodes.length).toBeGreaterThan(short.nodes.length);
  const ids = new Set(full.nodes.map((n) => n.id));
  for (const n of short.nodes) expect([n.id, ids.has(n.id)]).toEqual([n.id, true]);
  const kinds = new Set(full.nodes.map((n) => wiring.devices.find((d) => d.id === n.thing)?.kind));
  expect(kinds.has("fuse") || kinds.has("ground")).toBe(true);
  const placed = await layOutMap(full);
  expect(placed.nodes.every((n) => Number.isFinite(n.x) && Number.isFinite(n.y))).toBe(true);
});
