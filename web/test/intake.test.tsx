import {
  fold,
  Intake,
  withScannedCodes,
  type Entry,
  type Feed,
  type Issue,
  type ScanEntry,
  type SeenEntry,
  type Wiring,
} from "@radicula/core";
import { Namer, sharedText } from "@radicula/core/words";
import { sharedMatrix } from "@radicula/core";
import { act, fireEvent, render, screen, within } from "@testing-library/react";
import { connectorChoices, disturbable, moduleChoices, partChoices, thingChoices } from "@/features/case/choices";
import { IntakeSheet } from "@/features/case/intake/IntakeSheet";
import { logLines } from "@/features/case/logbook/lines";
import { SharedMatrixView } from "@/features/case/matrix/SharedMatrixView";
import { Remarks } from "@/features/case/Remarks";
import { complete, completions, wordBefore } from "@/features/case/scan/complete";
import { NameCodes } from "@/features/case/scan/NameCodes";
import { ScansCompared } from "@/features/case/scan/ScansCompared";
import { ScanSheet } from "@/features/case/scan/ScanSheet";
import { SeenSheet } from "@/features/case/seen/SeenSheet";
import { Chips } from "@/ui/Chips";
import { Instructor } from "@radicula/core/words";
import { demoCase } from "./helpers";

const tug = () => demoCase().wiring;
const at = "2026-11-25T10:00:00Z";
const scan = (more: Partial<ScanEntry> = {}): ScanEntry => ({
  type: "scan",
  at,
  when: "before",
  modules: ["A1"],
  codes: [],
  disturbed: [],
  wiped: false,
  ...more,
});
const code = (id: string, more: Partial<ScanEntry["codes"][number]> = {}) => ({
  module: "A1",
  code: id,
  status: "active" as const,
  ...more,
});

describe("completing a code", () => {
  test("the word before the caret, wherever it stands", () => {
    expect(wordBefore("P0522 active\nP02", 16)).toBe("P02");
    expect(wordBefore("P0522 ", 6)).toBe("");
    expect(wordBefore("", 0)).toBe("");
  });
  test("codes of this wiring first, then generic ones; none for a word that is whole or short", () => {
    const found = completions(tug(), "p052", 4);
    expect(found[0]).toEqual({ code: "P0522", title: "Oil pressure signal low" });
    expect(found.length).toBeLessThanOrEqual(4);
    expect(completions(tug(), "p", 1)).toEqual([]);
    expect(completions(tug(), "P0522", 5)).toEqual([]);
    expect(completions(tug(), "zz9", 3)).toEqual([]);
    expect(completions(tug(), "P056", 4).map((c) => c.code)).toContain("P0562"); // generic, not in the wiring
  });
  test("is put where the word stood, what follows stays", () => {
    expect(complete("p05 active", 3, "P0522")).toEqual({ text: "P0522 active", caret: 5 });
    expect(complete("P1\np0", 5, "P0642")).toEqual({ text: "P1\nP0642", caret: 8 });
  });
});

describe("the scan sheet", () => {
  const props = (more: Partial<Parameters<typeof ScanSheet>[0]> = {}) => ({
    open: true,
    wiring: tug(),
    folded: fold([]),
    workbench: "/wiring/1",
    unkept: 0,
    onLog: jest.fn(),
    onKeep: jest.fn(),
    onClose: jest.fn(),
    ...more,
  });
  const type = (text: string) =>
    fireEvent.change(screen.getByLabelText("Codes, typed or pasted"), { target: { value: text } });
  const logged = (p: ReturnType<typeof props>) =>
    (jest.mocked(p.onLog).mock.calls[0]?.[0] as Entry[] | undefined)?.[0] as ScanEntry | undefined;

  test("what is typed is read as it is typed, and logged as one scan of the module", () => {
    const p = props();
    render(<ScanSheet {...p} />);
    type("P0522 active\nP0237 pending 12:40\nnonsense");
    const rows = within(screen.getAllByRole("table").at(-1)!).getAllByRole("row");
    expect(rows).toHaveLength(3);
    expect(rows[2]).toHaveTextContent("P0237");
    expect(rows[2]).toHaveTextContent("pending");
    expect(screen.getByLabelText("Lines not taken")).toHaveTextContent("line 3:");
    fireEvent.click(screen.getByRole("button", { name: "Log the scan, 2 codes" }));
    expect(logged(p)).toMatchObject({
      type: "scan",
      when: "before",
      modules: ["A1"],
      disturbed: [],
      wiped: false,
      codes: [
        { code: "P0522", status: "active" },
        { code: "P0237", status: "pending", seen: "12:40" },
      ],
    });
  });
  test("a scan without codes is one too; Ctrl Enter logs", () => {
    const p = props();
    render(<ScanSheet {...p} />);
    fireEvent.keyDown(screen.getByLabelText("Codes, typed or pasted"), { key: "Enter", ctrlKey: true });
    expect(logged(p)).toMatchObject({ codes: [], modules: ["A1"] });
  });
  test("a line left out is not logged; the battery was off", () => {
    const p = props();
    render(<ScanSheet {...p} />);
    type("P0522\nP0237");
    fireEvent.click(screen.getByRole("button", { name: "Leave out P0522" }));
    fireEvent.click(screen.getByRole("checkbox"));
    expect(screen.getByText(/those missing here say nothing/)).toBeInTheDocument();
    fireEvent.click(screen.getByRole("button", { name: "Log the scan, 1 code" }));
    expect(logged(p)).toMatchObject({ wiped: true, codes: [{ code: "P0237" }] });
  });
  test("what was unplugged since codes were cleared stands there by itself", () => {
    const folded = fold([scan({ codes: [code("P0522")] }), { type: "unplugged", at, connector: "B9" }]);
    const p = props({ folded });
    render(<ScanSheet {...p} />);
    expect(screen.getByText(/Codes that unplugging B9 would set/)).toBeInTheDocument();
    expect(screen.getByRole("radio", { name: "cleared, key cycled" })).toBeChecked(); // not the first scan any more
    fireEvent.click(screen.getByRole("button", { name: "Codes were cleared just now" }));
    expect(p.onLog).toHaveBeenCalledWith([expect.objectContaining({ type: "cleared" })]);
  });
  test("a part that was read out of a line can be taken out again", async () => {
    const p = props({ wiring: { ...tug(), codes: [] } });
    render(<ScanSheet {...p} />);
    type("K123 nothing\nP1177 B7 signal low");
    expect(screen.getByLabelText("Part P1177 names").closest(".ant-select")).toHaveTextContent("B7");
    await act(async () => {
      const clear = document.querySelector("tbody .ant-select-clear")!;
      fireEvent.mouseDown(clear);
      fireEvent.click(clear);
      await Promise.resolve();
    });
    fireEvent.click(screen.getByRole("button", { name: "Log the scan, 1 code" }));
    expect(logged(p)?.codes.map((c) => [c.code, c.about])).toEqual([["P1177", undefined]]);
  });
  test("Tab completes; a whole word lets Tab go on", () => {
    render(<ScanSheet {...props()} />);
    const box = screen.getByLabelText<HTMLTextAreaElement>("Codes, typed or pasted");
    fireEvent.change(box, { target: { value: "p064", selectionStart: 4 } });
    expect(fireEvent.keyDown(box, { key: "Tab" })).toBe(false); // taken
    expect(box).toHaveValue("P0642");
    expect(fireEvent.keyDown(box, { key: "Tab" })).toBe(true);
  });
  test("without a module there is nothing to scan: the way to the wiring", () => {
    const none: Wiring = { ...tug(), devices: [], connectors: [], wires: [], codes: [] };
    render(<ScanSheet {...props({ wiring: none })} />);
    expect(screen.getByRole("link", { name: "Type the wiring first" })).toHaveAttribute("href", "/wiring/1");
  });
  test("codes that can be kept with the wiring are offered", () => {
    const p = props({ unkept: 2 });
    render(<ScanSheet {...p} />);
    fireEvent.click(screen.getByRole("button", { name: /Keep them with the wiring/ }));
    expect(p.onKeep).toHaveBeenCalled();
  });
});

describe("scans side by side", () => {
  test("came back, stayed away, there every time, not scanned", () => {
    render(
      <ScansCompared
        scans={[
          scan({ codes: [code("P0522"), code("P0237"), code("P0642")] }),
          scan({ when: "afterClear", codes: [code("P0522")] }),
          scan({ when: "afterDrive", codes: [code("P0522"), code("P0237", { status: "pending" })] }),
        ]}
      />,
    );
    const row = (id: string) => screen.getByRole("row", { name: new RegExp(id) });
    expect(row("P0522")).toHaveTextContent("there every time");
    expect(row("P0237")).toHaveTextContent("came back");
    expect(row("P0642")).toHaveTextContent("stayed away");
    expect(screen.getByRole("columnheader", { name: /2\. cleared, key cycled/ })).toBeInTheDocument();
  });
  test("none: nothing", () => {
    expect(render(<ScansCompared scans={[]} />).container).toBeEmptyDOMElement();
  });
});

describe("saying what a code names", () => {
  test("takes the scan back and logs it anew with the part", async () => {
    const entries: Entry[] = [scan({ codes: [code("K-17", { title: "Lift low" }), code("P0522")] })];
    const wiring = withScannedCodes(tug(), entries);
    const onLog = jest.fn();
    render(
      <NameCodes
        open
        wiring={wiring}
        unnamed={[{ module: "A1", code: "K-17", status: "active" }]}
        scans={fold(entries).scans}
        onLog={onLog}
        onClose={jest.fn()}
      />,
    );
    expect(screen.getByRole("button", { name: "Log it" })).toBeDisabled();
    fireEvent.mouseDown(screen.getByLabelText("Part K-17 names"));
    await act(async () => {
      fireEvent.click(await screen.findByTitle("B12 lift pressure sensor"));
    });
    fireEvent.click(screen.getByRole("button", { name: "Log it" }));
    const [undo, again] = onLog.mock.calls[0]![0] as Entry[];
    expect(undo).toMatchObject({ type: "undo", target: 1 });
    expect(again).toMatchObject({
      type: "scan",
      codes: [{ code: "K-17", about: "B12", title: "Lift low" }, { code: "P0522" }],
    });
    // and what stands then is ranked by it
    const after = fold([...entries, undo!, again!]);
    expect(after.codes.map((c) => c.entry.code)).toEqual(["K-17", "P0522"]);
    expect(withScannedCodes(tug(), [...entries, undo!, again!]).codes.at(-1)).toMatchObject({
      id: "K-17",
      about: "B12",
    });
  });
});

test("a code logged alone gets what it names in an entry of its own", async () => {
  const onLog = jest.fn();
  render(
    <NameCodes
      open
      wiring={tug()}
      unnamed={[{ module: "A1", code: "K-9", status: "stored" }]}
      scans={[]}
      onLog={onLog}
      onClose={jest.fn()}
    />,
  );
  fireEvent.mouseDown(screen.getByLabelText("Part K-9 names"));
  await act(async () => {
    fireEvent.click(await screen.findByTitle("B12 lift pressure sensor"));
  });
  fireEvent.click(screen.getByRole("button", { name: "Log it" }));
  expect(onLog.mock.calls[0]![0]).toEqual([
    expect.objectContaining({
      type: "scan",
      when: "other",
      modules: [],
      codes: [{ module: "A1", code: "K-9", status: "stored", about: "B12" }],
    }),
  ]);
});

const feed: Feed = { because: "wet", at: [], factor: 2, on: "corrodingInWet", faults: 23 };
const open = async (intake: Partial<Intake> = {}, feeds: readonly Feed[] = [feed]) => {
  const onLog = jest.fn();
  const feedsOf = jest.fn(() => Promise.resolve(feeds));
  await act(async () => {
    render(
      <IntakeSheet
        open
        wiring={tug()}
        intake={Intake.parse(intake)}
        feedsOf={feedsOf}
        onLog={onLog}
        onClose={jest.fn()}
      />,
    );
    await Promise.resolve();
  });
  return { onLog, feedsOf, logged: () => onLog.mock.calls[0]![0] as Intake };
};

describe("the intake: complaint, circumstances and electrical state", () => {
  test("each press changes what is logged, and what it does to the suspects stands beside it", async () => {
    const { feedsOf, logged } = await open({ complaint: "Lamps on" });
    await act(async () => {
      fireEvent.click(screen.getByRole("button", { name: "wet" }));
      await Promise.resolve();
    });
    await act(async () => {
      fireEvent.click(screen.getByRole("button", { name: "comes and goes" }));
      await Promise.resolve();
    });
    await act(async () => {
      fireEvent.click(screen.getByRole("button", { name: "after a while" }));
      await Promise.resolve();
    });
    await act(async () => {
      fireEvent.change(screen.getByLabelText("after", { exact: false, selector: "input[role=spinbutton]" }), {
        target: { value: "20" },
      });
      await Promise.resolve();
    });
    expect(feedsOf).toHaveBeenLastCalledWith(
      expect.objectContaining({ conditions: expect.arrayContaining(["wet"]) as unknown }),
    );
    expect(
      await screen.findByText(/corrosion and bridged cavities in wet places count 2 times as much, in 23 faults/),
    ).toBeInTheDocument();
    await act(async () => {
      fireEvent.click(screen.getByRole("button", { name: "Log the intake" }));
      await Promise.resolve();
    });
    expect(logged()).toMatchObject({
      complaint: "Lamps on",
      symptoms: ["comesAndGoes"],
      conditions: ["wet", "afterTime"],
      afterMinutes: 20,
    });
  });
});

describe("the intake: tools, dangers, history and the machine", () => {
  test("a battery of another voltage than the wiring's is asked about", async () => {
    await open({ nominalVolt: 24 });
    expect(screen.getByRole("alert")).toHaveTextContent("The wiring is of a 12 V machine");
  });
  test("no meter: said, and logged as tools owned", async () => {
    const { logged } = await open();
    await act(async () => {
      fireEvent.click(screen.getByRole("button", { name: "meter" }));
      await Promise.resolve();
    });
    expect(screen.getByRole("alert")).toHaveTextContent("Without a meter");
    await act(async () => {
      fireEvent.click(screen.getByRole("button", { name: "Log the intake" }));
      await Promise.resolve();
    });
    expect(logged().tools).not.toContain("meter");
    expect(logged().tools).toContain("scope");
  });
  test("dangers are shown as they will stand before every step", async () => {
    await open();
    await act(async () => {
      fireEvent.click(screen.getByRole("button", { name: "airbags, belts" }));
      await Promise.resolve();
    });
    expect(screen.getByText(/no meter ohms, no lamps, no probing/)).toBeInTheDocument();
  });
  test("history and hearsay: lines are added, filled and taken out; empty ones are not logged", async () => {
    const { logged } = await open();
    await act(async () => {
      fireEvent.click(screen.getByRole("button", { name: "+ replaced" }));
      await Promise.resolve();
    });
    await act(async () => {
      fireEvent.click(screen.getByRole("button", { name: "+ pests" }));
      await Promise.resolve();
    });
    await act(async () => {
      fireEvent.click(screen.getByRole("button", { name: "+ something said of machines like this" }));
      await Promise.resolve();
    });
    await act(async () => {
      fireEvent.click(screen.getByRole("button", { name: "+ something said of machines like this" }));
      await Promise.resolve();
    });
    await act(async () => {
      fireEvent.change(screen.getAllByLabelText("What it says")[0]!, { target: { value: "S22 corrodes" } });
      await Promise.resolve();
    });
    await act(async () => {
      fireEvent.click(screen.getByRole("button", { name: "Log the intake" }));
      await Promise.resolve();
    });
    expect(logged().history.map((h) => h.what)).toEqual(["pests"]);
    expect(logged().bulletins).toEqual([{ text: "S22 corrodes", at: [], trust: "hearsay" }]);
    await act(async () => {
      fireEvent.click(screen.getAllByRole("button", { name: "Take this line out" })[1]!);
      await Promise.resolve();
    });
    expect(screen.getAllByRole("button", { name: "Take this line out" })).toHaveLength(3);
  });
  test("machine, serial, hours and distance; a field emptied again is left out", async () => {
    const { logged } = await open({ kind: "yard tug", serial: "SD-4" });
    await act(async () => {
      fireEvent.change(screen.getByLabelText("Serial"), { target: { value: "" } });
      await Promise.resolve();
    });
    await act(async () => {
      fireEvent.change(screen.getByLabelText(/^Hours/), { target: { value: "4210" } });
      await Promise.resolve();
    });
    await act(async () => {
      fireEvent.blur(screen.getByLabelText(/^Hours/));
      await Promise.resolve();
    });
    await act(async () => {
      fireEvent.click(screen.getByRole("button", { name: "Log the intake" }));
      await Promise.resolve();
    });
    expect(logged()).toMatchObject({ kind: "yard tug", hours: 4210 });
    expect("serial" in logged()).toBe(false);
  });
});

describe("seen on the machine", () => {
  const open = (wiring = tug()) => {
    const onLog = jest.fn();
    render(<SeenSheet open wiring={wiring} connector="B7" onLog={onLog} onClose={jest.fn()} />);
    return { onLog, logged: () => onLog.mock.calls[0]![0] as SeenEntry };
  };
  test("as drawn, in whatever notation", () => {
    const { logged } = open();
    expect(screen.getByRole("button", { name: "Log what stands there" })).toBeDisabled();
    fireEvent.change(screen.getByLabelText("Colour seen in cavity 1"), { target: { value: "orange / white" } });
    expect(screen.getByText("As drawn.")).toBeInTheDocument();
    fireEvent.click(screen.getByRole("button", { name: "Log what stands there" }));
    expect(logged()).toMatchObject({
      type: "seen",
      connector: "B7",
      colours: [{ cavity: "1", colour: "orange / white" }],
    });
  });
  test("another colour: said before testing, with the connector it fits better", () => {
    open();
    fireEvent.change(screen.getByLabelText("Colour seen in cavity 3"), { target: { value: "VT" } });
    expect(screen.getByRole("alert")).toHaveTextContent("B12 fits better");
  });
  test("a look-alike is named before anything is typed; a part number and a count are compared", () => {
    const wiring = tug();
    open({
      ...wiring,
      connectors: wiring.connectors.map((c) => (c.id === "B7" ? { ...c, lookAlikes: ["B9"], partNumber: "SK-11" } : c)),
    });
    expect(screen.getByText(/Looks like B9/)).toBeInTheDocument();
    fireEvent.change(screen.getByLabelText("Part number"), { target: { value: "sk 12" } });
    expect(screen.getByRole("alert")).toHaveTextContent("Not as drawn");
    fireEvent.change(screen.getByLabelText("Part number"), { target: { value: "sk 11" } });
    expect(screen.queryByRole("alert")).toBeNull();
    fireEvent.change(screen.getByLabelText("Cavities"), { target: { value: "4" } });
    fireEvent.blur(screen.getByLabelText("Cavities"));
    expect(screen.getByRole("alert")).toHaveTextContent("Not as drawn");
  });
  test("the remark offers to move the readings there, and only where somewhere fits", () => {
    const onEntry = jest.fn();
    const remark = {
      code: "remark.not-as-drawn",
      path: [],
      params: { connector: "B7", cavities: ["3"], seen: ["VT"], drawn: ["GN/YE"], fits: ["B12"], readings: ["4", "5"] },
    };
    const { rerender } = render(<Remarks remarks={[remark]} onEntry={onEntry} />);
    fireEvent.click(screen.getByRole("button", { name: "Move 2 readings to B12" }));
    expect(onEntry).toHaveBeenCalledWith(
      expect.objectContaining({ type: "moved", from: "B7", to: "B12", readings: [4, 5] }),
    );
    // what the readings themselves say of where they were taken moves them too
    const wrong: Issue = {
      code: "remark.wrong-component",
      path: [],
      params: { from: "B9", to: "B7", readings: ["4", "6"] },
    };
    rerender(<Remarks remarks={[wrong]} onEntry={onEntry} />);
    fireEvent.click(screen.getByRole("button", { name: "Move 2 readings to B7" }));
    expect(onEntry).toHaveBeenLastCalledWith(
      expect.objectContaining({ type: "moved", from: "B9", to: "B7", readings: [4, 6] }),
    );
    rerender(<Remarks remarks={[{ ...remark, params: { ...remark.params, readings: [] } }]} onEntry={onEntry} />);
    expect(screen.queryByRole("button")).toBeNull();
    rerender(<Remarks remarks={Array.from({ length: 5 }, () => remark)} onEntry={onEntry} />);
    expect(screen.getAllByRole("status")).toHaveLength(3);
    fireEvent.click(screen.getByRole("button", { name: "2 more remarks" }));
    expect(screen.getAllByRole("status")).toHaveLength(5);
  });
});

describe("what they share", () => {
  const wiring = tug();
  test("one column a coded or healthy circuit, one row a thing; the sentence above it", () => {
    const matrix = sharedMatrix(wiring, ["B7", "B9"]);
    render(<SharedMatrixView matrix={matrix} unnamed={["P2002"]} onName={jest.fn()} namer={new Namer(wiring)} />);
    expect(screen.getByText(sharedText(matrix))).toBeInTheDocument();
    expect(screen.getByText(/P2002: which part it names is not known/)).toBeInTheDocument();
    const heads = screen.getAllByRole("columnheader").map((h) => h.textContent);
    expect(heads.slice(0, 3)).toEqual(["Shared", "B7", "B9"]);
    expect(heads).toContain("B12");
    const first = screen.getAllByRole("row")[1]!;
    expect(within(first).getAllByLabelText("coded, passes")).toHaveLength(2);
  });
  test("nothing coded", () => {
    render(
      <SharedMatrixView matrix={sharedMatrix(wiring, [])} unnamed={[]} onName={jest.fn()} namer={new Namer(wiring)} />,
    );
    expect(screen.getByText("No code names a part of this wiring yet.")).toBeInTheDocument();
    expect(screen.queryByRole("table")).toBeNull();
  });
});

describe("small things", () => {
  test("choices: each thing once, with its name", () => {
    const wiring = tug();
    expect(moduleChoices(wiring)).toEqual([{ value: "A1", label: "A1 engine module" }]);
    expect(partChoices(wiring).find((c) => c.value === "B7")?.label).toBe("B7 boost pressure sensor");
    for (const list of [thingChoices(wiring), connectorChoices(wiring), disturbable(wiring)])
      expect(new Set(list.map((c) => c.value)).size).toBe(list.length);
    expect(disturbable(wiring).map((c) => c.value)).toContain("F12");
    expect(thingChoices(wiring).map((c) => c.value)).toEqual(expect.arrayContaining(["S14", "G3", "B7", "X5"]));
  });
  test("quick picks: pressed and let go", () => {
    const onChange = jest.fn();
    render(
      <Chips
        label="When"
        choices={["cold", "wet"]}
        words={{ cold: "cold", wet: "wet" }}
        value={["wet"]}
        onChange={onChange}
      />,
    );
    expect(screen.getByRole("button", { name: "wet" })).toHaveAttribute("aria-pressed", "true");
    fireEvent.click(screen.getByRole("button", { name: "wet" }));
    expect(onChange).toHaveBeenLastCalledWith([]);
    fireEvent.click(screen.getByRole("button", { name: "cold" }));
    expect(onChange).toHaveBeenLastCalledWith(["wet", "cold"]);
  });
  test("every new entry has its line in the logbook", () => {
    const wiring = tug();
    const entries: Entry[] = [
      scan({ codes: ["P1", "P2", "P3", "P4", "P5", "P6", "P7"].map((c) => code(c)), wiped: true }),
      { type: "cleared", at },
      {
        type: "intake",
        at,
        intake: Intake.parse({
          symptoms: ["noStart"],
          conditions: ["wet"],
          history: [{ what: "replaced", at: ["B7"] }],
        }),
      },
      { type: "seen", at, connector: "B7", colours: [{ cavity: "1", colour: "RD" }], cavities: 4, partNumber: "SK-1" },
      { type: "moved", at, from: "B7", to: "B12", readings: [1] },
      { type: "revision", at, from: "revision 1", to: "revision 2" },
    ];
    const lines = logLines(entries, 6, undefined, new Namer(wiring), new Instructor(wiring))
      .map((l) => `${l.what} | ${l.value} | ${l.remark}`)
      .reverse();
    expect(lines).toEqual([
      "Scan, before anything was touched; battery had been off | 7 codes | P1, P2, P3, P4, P5, P6 …",
      "Cleared all codes |  | ",
      "Intake |  | does not start, wet, replaced B7",
      "Looked at B7 (boost pressure sensor plug) |  | 1 RD, 4 cavities, SK-1",
      "Moved readings from B7 to B12 | 1 | entries 1",
      "Went on with another revision of the wiring |  | revision 1, now revision 2",
    ]);
  });
});
