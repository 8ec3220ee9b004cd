import { XMLParser, XMLValidator } from "fast-xml-parser";
import {
  buildChart,
  chartOf,
  compareWirings,
  generateHarness,
  graphml,
  meterPoints,
  readWiring,
  type Wiring,
} from "../../src/index.js";
import { tug } from "../helpers.js";

describe("revisions and other programs", () => {
  test("what changed between two revisions", () => {
    const before = tug();
    const after: Wiring = {
      ...before,
      wires: before.wires.map((x, i) => (i === 0 ? { ...x, colour: "GN" } : x)).slice(0, -1),
      devices: before.devices.map((d) => (d.id === "F12" ? { ...d, rating: 15 } : d) as Wiring["devices"][number]),
    };
    const changes = compareWirings(before, after);
    expect(changes.map((c) => [c.what, c.change])).toEqual([
      ["part", "changed"],
      ["wire", "removed"],
      ["wire", "changed"],
    ]);
    expect(changes[0]!.fields).toEqual([{ field: "rating", before: "10", after: "15" }]);
    expect(compareWirings(before, structuredClone(before))).toEqual([]);
  });
  test(
    "GraphML: well-formed, every point a node, every wire an edge between nodes that are there; hostile " +
      "names stay text",
    () => {
      const w = tug();
      const hostile: Wiring = {
        ...w,
        devices: w.devices.map((d) => (d.id === "B7" ? { ...d, name: "<script>\"&'" } : d)),
      };
      const text = graphml(hostile);
      expect(XMLValidator.validate(text)).toBe(true); // the parser of another program's library judges
      const { graphml: doc } = new XMLParser({
        ignoreAttributes: false,
        attributeNamePrefix: "",
        isArray: (name) => name === "data",
      }).parse(text) as {
        graphml: {
          graph: {
            node: { id: string; data: { key: string; "#text": string }[] }[];
            edge: { source: string; target: string }[];
          };
        };
      };
      const nodes = new Set(doc.graph.node.map((n) => n.id));
      for (const p of meterPoints(w)) expect(nodes.has(p)).toBe(true);
      for (const e of doc.graph.edge) {
        expect(nodes.has(e.source)).toBe(true);
        expect(nodes.has(e.target)).toBe(true);
      }
      expect(doc.graph.edge.length).toBeGreaterThanOrEqual(w.wires.length);
      expect(doc.graph.node.find((n) => n.id === "part B7")!.data.find((d) => d.key === "name")!["#text"]).toBe(
        "<script>\"&'",
      );
    },
  );
  test("a chart of five thousand rows is built in bounded work", () => {
    const made = readWiring(JSON.parse(JSON.stringify(generateHarness({ nodes: 5000, seed: 3 }))));
    if (!made.ok) throw new Error("unreadable");
    const big = chartOf(made.value);
    const built = buildChart(big);
    expect(built.issues).toEqual([]);
    expect(built.wiring.wires).toHaveLength(made.value.wires.length);
  });
});
