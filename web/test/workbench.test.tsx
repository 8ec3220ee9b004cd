import {
  buildChart,
  chartRow,
  emptyChart,
  generateHarness,
  mergeCharts,
  parseWiring,
  type Chart,
  type Wiring,
} from "@radicula/core";
import { act, fireEvent, render, renderHook, screen, within } from "@testing-library/react";
import { firstWords } from "@/features/board/NewJob";
import {
  addPart,
  fillDown,
  keepSame,
  markRead,
  properName,
  setConnector,
  setFunctions,
  setPart,
  tidyRow,
  tidyRows,
} from "@/features/wiring/edit";
import { Codes } from "@/features/wiring/codes/Codes";
import { conditionText } from "@/features/wiring/codes/conditionText";
import { drawnGraph, neighbourhood } from "@/features/wiring/drawing/graph";
import { elkGraph, placed } from "@/features/wiring/drawing/layout";
import { findIn } from "@/features/wiring/find";
import { Revisions } from "@/features/wiring/Revisions";
import { useChart } from "@/features/wiring/useChart";
import { dropAside, keptDraft } from "@/features/wiring/useDraft";
import { WhichIsWhich } from "@/features/wiring/WhichIsWhich";
import { demoCase } from "./helpers";

const tug = () => demoCase().wiring;

describe("a line as it is typed", () => {
  test("what was typed is tidied: a pin in one cell, capitals for names and colours; words are left alone", () => {
    expect(tidyRow(chartRow({ cavity: "b1.3", colour: "og/wh", goesTo: "s14" }))).toMatchObject({
      connector: "B1",
      cavity: "3",
      colour: "OG/WH",
      goesTo: "S14",
    });
    expect(tidyRow(chartRow({ connector: "p1.1", colour: "og" }), chartRow())).toMatchObject({
      connector: "P1",
      cavity: "1",
      colour: "OG",
    });
    // a cavity that stands there already is not overwritten
    expect(tidyRow(chartRow({ connector: "p1.2", cavity: "7" }), chartRow({ cavity: "7" })).cavity).toBe("7");
    expect(tidyRow(chartRow({ cavity: "x5:4.a" }))).toMatchObject({ connector: "X5", cavity: "4.a" });
    expect(
      tidyRow(chartRow({ connector: "engine module", colour: "orange", goesTo: "splice under the step" })),
    ).toMatchObject({ connector: "engine module", colour: "orange", goesTo: "splice under the step" });
    expect(properName("a1:4, s2")).toBe("A1:4, S2");
    expect(properName("bat")).toBe("BAT");
  });
});
describe("typing into the chart", () => {
  test("a splice named in the cavity's column is that splice only where other lines go to it", () => {
    const rows = [
      chartRow({ connector: "B1", cavity: "1", goesTo: "S1" }),
      chartRow({ cavity: "s1", goesTo: "a1.1" }),
      chartRow({ cavity: "h2", goesTo: "a1.2" }),
    ];
    const tidy = tidyRows(
      rows,
      rows.map(() => chartRow()),
    );
    expect(tidy[1]).toMatchObject({ connector: "S1", cavity: "" });
    expect(tidy[2]).toMatchObject({ connector: "", cavity: "h2" });
  });
  test("a row as it was is left exactly as it was", () => {
    const row = chartRow({ connector: "b1", cavity: "1" });
    expect(tidyRow(row, row)).toBe(row);
    const rows = [row, chartRow({ cavity: "2" })];
    expect(
      keepSame(
        rows.map((r) => ({ ...r })),
        rows,
      ),
    ).toBe(rows);
    const changed = keepSame([{ ...row }, chartRow({ cavity: "3" })], rows);
    expect(changed[0]).toBe(row);
    expect(changed[1]).toMatchObject({ cavity: "3" });
  });
  test("fill down copies cells and counts cavities on", () => {
    const rows = [
      chartRow({ connector: "B1", cavity: "4", colour: "OG" }),
      chartRow(),
      chartRow(),
      chartRow({ colour: "VT" }),
    ];
    expect(fillDown(rows, ["cavity", "colour"], 0, 2).map((r) => [r.cavity, r.colour])).toEqual([
      ["4", "OG"],
      ["5", "OG"],
      ["6", "OG"],
      ["", "VT"],
    ]);
    expect(fillDown([], ["cavity"], 0, 2)).toEqual([]);
  });
  test("parts and connectors are found by name in any case, and made where there are none", () => {
    let chart: Chart = setPart(emptyChart("x"), "B1", { kind: "Hall sensor" });
    chart = setPart(chart, "b1", { name: "speed" });
    expect(chart.parts).toHaveLength(1);
    expect(chart.parts[0]).toMatchObject({ id: "B1", kind: "Hall sensor", name: "speed" });
    expect(setConnector(chart, "B1", { place: "hinge" }).connectors[0]).toMatchObject({ id: "B1", place: "hinge" });
  });
  test("a part from the list brings its lines, without a blank line before them", () => {
    const made = addPart({ ...emptyChart("x"), rows: [chartRow()] }, "threeWireSensor");
    expect(made.firstRow).toBe(0);
    expect(made.chart.rows).toHaveLength(3);
    const built = buildChart(made.chart);
    expect(built.wiring.devices.find((d) => d.id === made.id)).toMatchObject({ kind: "threeWireSensor" });
  });
  test("functions told by voltage are written down and no longer guesses", () => {
    const chart: Chart = { ...emptyChart("x"), rows: [chartRow({ connector: "B1", cavity: "1", goesTo: "A1:1" })] };
    const told = setFunctions(chart, [{ row: 0, point: "B1:1", function: "5 V reference" }]);
    expect(told.rows[0]!.function).toBe("5 V reference");
    expect(told.read).toEqual(["B1:1"]);
    expect(markRead(told, ["B1:1", "B2:1"]).read).toEqual(["B1:1", "B2:1"]);
  });
  test("undo and redo walk through the changes; a change that changes nothing is none", () => {
    const { result } = renderHook(() => useChart(emptyChart("a")));
    act(() => result.current.change((c) => ({ ...c, name: "b" })));
    act(() => result.current.change((c) => c));
    expect(result.current.chart.name).toBe("b");
    act(() => result.current.undo());
    expect([result.current.chart.name, result.current.canUndo, result.current.canRedo]).toEqual(["a", false, true]);
    act(() => result.current.redo());
    expect(result.current.chart.name).toBe("b");
    act(() => result.current.undo());
    act(() => result.current.change((c) => ({ ...c, name: "c" })));
    expect([result.current.chart.name, result.current.canRedo]).toEqual(["c", false]);
  });
  test(
    "a draft kept on the device comes back where nobody has saved since; else it is put aside until somebody " +
      "decides",
    () => {
      const chart = { ...emptyChart("kept"), rows: [chartRow({ connector: "B1" })] };
      const keep = (value: string) => {
        localStorage.clear();
        localStorage.setItem("radicula.draft.w", value);
        return keptDraft("w", 4, localStorage);
      };
      expect(keep(JSON.stringify({ seq: 4, chart }))).toEqual({ chart, current: true });
      expect(keep(JSON.stringify({ seq: 3, chart }))).toEqual({ chart, current: false });
      expect(localStorage.getItem("radicula.draft.w")).toBeNull(); // out of the way of the next save
      expect(keptDraft("w", 9, localStorage)).toEqual({ chart, current: false }); // and there on the next visit
      dropAside("w");
      expect(keptDraft("w", 9, localStorage)).toBeUndefined();
      expect(keep(JSON.stringify({ seq: 4, chart }).slice(0, 60))).toBeUndefined();
      expect(keep(JSON.stringify({ seq: 4, chart: { format: "radicula/chart" } }))).toBeUndefined();
    },
  );
  test("a title from a complaint: its first sentence, cut between words", () => {
    expect(firstWords("Lamps on. Comes when wet.")).toBe("Lamps on");
    expect(firstWords("  ")).toBe("");
    expect(firstWords("word ".repeat(40))).toMatch(/^(word ){10,16}…$/);
  });
});

describe("finding", () => {
  test("by name, place, colour in any notation, and the part a code is about", () => {
    const wiring = tug();
    expect([...findIn(wiring, "oil filter")!.things]).toEqual(["B9"]);
    expect([...findIn(wiring, "S14")!.things]).toEqual(["S14"]);
    const orange = findIn(wiring, "OG/WH")!.wires;
    const words = findIn(wiring, "orange/white")!.wires;
    expect(orange.size).toBeGreaterThan(3);
    expect(words).toEqual(orange);
    expect([...findIn(wiring, "P0522")!.things]).toContain("B9");
    expect(findIn(wiring, "  ")).toBeUndefined();
    expect(findIn(wiring, "no such thing")!.things.size).toBe(0);
  });
});

describe("the drawing", () => {
  test("every connector and part once, every wire once, each end at its own port", () => {
    const wiring = tug();
    const graph = drawnGraph(wiring);
    expect(graph.edges.map((e) => e.id).sort()).toEqual(wiring.wires.map((w) => w.id ?? `${w.from}~${w.to}`).sort());
    expect(new Set(graph.nodes.map((n) => n.id)).size).toBe(graph.nodes.length);
    for (const c of wiring.connectors) expect(graph.nodes.map((n) => n.id)).toContain(c.id);
    const ports = new Set(graph.nodes.flatMap((n) => n.ports.map((p) => p.point)));
    for (const e of graph.edges)
      for (const p of [e.fromPort, e.toPort]) if (p.includes(":")) expect(ports).toContain(p);
    const elk = elkGraph(graph);
    expect(elk.children).toHaveLength(graph.nodes.length);
    expect(placed(graph, { id: "root", children: [], edges: [] })).toMatchObject({ nodes: [], edges: [] });
  });
  test("a part of the wiring is what lies within so many wires, and nothing else", () => {
    const wiring = tug();
    const near = neighbourhood(wiring, "S14", 1);
    const touching = wiring.wires
      .filter((w) => w.from === "S14" || w.to === "S14")
      .flatMap((w) => [w.from, w.to])
      .map((e) => e.split(":")[0]!);
    expect([...near].sort()).toEqual([...new Set(touching)].sort());
    const graph = drawnGraph(wiring, near);
    expect(graph.nodes.every((n) => near.has(n.id))).toBe(true);
    expect(graph.edges.every((e) => near.has(e.from) && near.has(e.to))).toBe(true);
  });
  test("a large machine lays out without anything on top of anything else", async () => {
    const { default: ELK } = (await import("elkjs/lib/elk.bundled.js")) as unknown as {
      default: new () => { layout: (g: unknown) => Promise<Parameters<typeof placed>[1]> };
    };
    const graph = drawnGraph(generateHarness({ nodes: 260, seed: 2 }));
    // the layout library knows arrays of this side of the sandbox only
    const own = JSON.parse(JSON.stringify(elkGraph(graph))) as ReturnType<typeof elkGraph>;
    const drawing = placed(graph, await new ELK().layout(own));
    expect(drawing.nodes).toHaveLength(graph.nodes.length);
    expect(drawing.edges).toHaveLength(graph.edges.length);
    const over = drawing.nodes.flatMap((a, i) =>
      drawing.nodes
        .slice(i + 1)
        .filter((b) => a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height)
        .map((b) => `${a.id} on ${b.id}`),
    );
    expect(over).toEqual([]);
    for (const n of drawing.nodes) for (const { y } of n.at.values()) expect(y).toBeGreaterThan(n.y);
  });
});

describe("codes of a machine", () => {
  const wiring: Wiring = tug();
  const chart: Chart = { ...emptyChart("x"), codes: wiring.codes.slice(0, 3) };
  test("a set condition in a line", () => {
    expect(conditionText({ monitor: { type: "below", at: "A1:7", volt: 0.2, seconds: 2, when: ["running"] } })).toBe(
      "A1:7 under 0.2 V for 2 s, engine running",
    );
    expect(conditionText({ monitor: { type: "disagree", at: "A1:7", other: "A1:8", ratio: 1, volt: 0.3 } })).toBe(
      "A1:7 and A1:8 differ by over 0.3 V",
    );
    expect(conditionText({ monitor: { type: "current", at: "A1:7", low: 0.1 } })).toBe("A1:7 carries under 0.1 A");
    expect(conditionText({ family: "low", about: "B7" })).toBe("low, a broad condition");
    expect(conditionText({})).toBe("not known: weighs nothing");
  });
  test("is entered in plain controls: signal under so many volts for so many seconds", () => {
    let now = chart;
    const { rerender } = render(
      <Codes
        chart={now}
        wiring={wiring}
        onChange={(change) => {
          now = change(now);
        }}
      />,
    );
    fireEvent.click(screen.getAllByRole("button", { name: "Expand row" })[2]!);
    fireEvent.change(screen.getByLabelText("volt"), { target: { value: "0.35" } });
    fireEvent.blur(screen.getByLabelText("volt"));
    rerender(
      <Codes
        chart={now}
        wiring={wiring}
        onChange={(change) => {
          now = change(now);
        }}
      />,
    );
    fireEvent.change(screen.getByLabelText("seconds"), { target: { value: "2" } });
    fireEvent.blur(screen.getByLabelText("seconds"));
    expect(now.codes[2]!.monitor).toMatchObject({ type: "below", volt: 0.35, seconds: 2 });
    fireEvent.click(screen.getByRole("button", { name: "Remove" }));
    expect(now.codes).toHaveLength(2);
  });
  test("the wiring with that condition reads back, and a code of no module is offered none", () => {
    expect(
      parseWiring(
        JSON.stringify({
          ...wiring,
          codes: [{ ...wiring.codes[0]!, monitor: { ...wiring.codes[0]!.monitor!, seconds: 2 } }],
        }),
      ).ok,
    ).toBe(true);
    render(<Codes chart={emptyChart("x")} wiring={buildChart(emptyChart("x")).wiring} onChange={() => undefined} />);
    expect(screen.getByRole("button", { name: "Add a code" })).toBeDisabled();
  });
});

describe("telling cavities apart", () => {
  test("battery, reference and ground by voltage, written into their lines", () => {
    const chart: Chart = {
      ...emptyChart("x"),
      rows: ["1", "2", "3"].map((cavity, i) => chartRow({ connector: "B1", cavity, goesTo: `A1:${i + 1}` })),
    };
    const built = buildChart(chart);
    let now = chart;
    const points = chart.rows.map((_, i) => built.points.get(i) ?? "");
    const shown = { wiring: built.wiring, issues: [], points, otherEnd: [], guessed: [], inherited: [] };
    render(
      <WhichIsWhich
        connector={built.wiring.connectors.find((c) => c.id === "B1")!}
        built={shown}
        onChange={(change) => {
          now = change(now);
        }}
      />,
    );
    fireEvent.click(screen.getByRole("button"));
    const volts = (cavity: string, to: "negative" | "positive", text: string) =>
      fireEvent.change(screen.getByLabelText(`Cavity ${cavity} against battery ${to}`), { target: { value: text } });
    volts("1", "negative", "5.0");
    volts("2", "negative", "0");
    volts("2", "positive", "12,5");
    volts("3", "negative", "0");
    volts("3", "positive", "0");
    fireEvent.click(screen.getAllByRole("button").at(-1)!);
    expect(now.rows.map((r) => r.function)).toEqual(["5 V reference", "ground", ""]);
    expect(now.read).toEqual(["B1:1", "B1:2"]);
  });
});

describe("revisions", () => {
  test("listed newest first; what changed is asked for and shown", async () => {
    const fetched = jest.fn(() =>
      Promise.resolve({
        ok: true,
        json: () =>
          Promise.resolve({
            changes: [
              {
                what: "wire",
                id: "B1:1~S1",
                change: "changed",
                fields: [{ field: "colour", before: "OG", after: "RD" }],
              },
            ],
          }),
      }),
    );
    Object.assign(globalThis, { fetch: fetched });
    const freeze = jest.fn(() => Promise.resolve());
    render(
      <Revisions
        wiringId="w"
        revisions={[
          { number: 2, note: "new colour", at: "2026-11-25T10:00:00Z", draftSeq: 3 },
          { number: 1, note: "", at: "2026-11-24T10:00:00Z", draftSeq: 1 },
        ]}
        onFreeze={freeze}
      />,
    );
    const first = within(screen.getAllByRole("listitem")[0]!);
    await act(async () => {
      fireEvent.click(first.getByRole("button", { name: "What changed" }));
      await Promise.resolve();
    });
    expect(fetched).toHaveBeenCalledWith("/api/wirings/w/revisions?before=1&after=2");
    expect(screen.getByText(/colour OG → RD/)).toBeVisible();
    fireEvent.change(screen.getByRole("textbox"), { target: { value: "checked on the machine" } });
    await act(async () => {
      fireEvent.click(screen.getByRole("button", { name: "Save a revision" }));
      await Promise.resolve();
    });
    expect(freeze).toHaveBeenCalledWith("checked on the machine");
  });
  test("a second chart laid over the first overwrites nothing", () => {
    const first = { ...emptyChart("a"), rows: [chartRow({ connector: "B1", cavity: "1", colour: "OG" })] };
    const second = { ...emptyChart("b"), rows: [chartRow({ connector: "b1", cavity: "1", colour: "RD", mm2: "0,5" })] };
    const merged = mergeCharts(first, second, "b");
    expect(merged.chart.rows[0]).toMatchObject({ colour: "OG", mm2: "0,5" });
    expect(merged.chart.claims).toHaveLength(1);
  });
});
