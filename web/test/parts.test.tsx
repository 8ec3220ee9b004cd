import { useState, type ComponentProps } from "react";
import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { fold } from "@radicula/core";
import { Instructor, Namer } from "@radicula/core/words";
import { Logbook } from "@/features/case/logbook/Logbook";
import { RootMap } from "@/features/case/map/RootMap";
import type { PlacedMap } from "@/features/case/map/placed";
import { ScaleView } from "@/features/case/reading/ScaleView";
import { SavedWord, SaveNote } from "@/features/case/SaveNote";
import { Steps } from "@/features/case/Steps";
import { Suspects } from "@/features/case/suspects/Suspects";
import { Verdict } from "@/features/case/Verdict";
import { say } from "@/messages/issues";
import { WireSwatch } from "@/ui/WireSwatch";
import { analysed, demoCase } from "./helpers";

const job = demoCase();
const closedJob = demoCase("tug-4-inline-proven.case.json");
const namer = new Namer(job.wiring);
const AT = "2026-11-24T10:00:00Z";
const reading = (point: string, value: number, unplugged: string[] = []) => ({
  type: "reading" as const,
  at: AT,
  instrument: "voltmeter" as const,
  points: [point],
  values: [value],
  state: { key: "on" as const, unplugged },
});

describe("suspects", () => {
  const onChoose = jest.fn();
  const onLessons = jest.fn();
  const shared = { namer, instructor: new Instructor(job.wiring), economics: undefined, onChoose };
  /** the list as the case shows it: one row open at a time */
  function List(props: Omit<ComponentProps<typeof Suspects>, "open" | "onOpen" | "lessons" | "onLessons">) {
    const [open, setOpen] = useState<string | undefined>(undefined);
    return <Suspects {...props} open={open} onOpen={setOpen} lessons={10} onLessons={onLessons} />;
  }
  test("the test that tells the leader from the next is named, is on offer, and can be taken at once", () => {
    const a = analysed(job);
    const split = a.suspects[0]!.splitBy!;
    expect(split.apart).toBeGreaterThanOrEqual(0.5);
    expect(a.next.map((n) => n.candidate.id)).toContain(split.candidate.id);
    render(<List {...shared} suspects={a.suspects} ids={new Map()} />);
    fireEvent.click(screen.getAllByRole("button", { expanded: false })[0]!);
    fireEvent.click(screen.getByRole("button", { name: shared.instructor.instruct(split.candidate).title }));
    expect(onChoose).toHaveBeenCalledWith(split.candidate);
  });
  test("that earlier jobs count here stands below them", () => {
    render(<List {...shared} suspects={analysed(job).suspects} ids={new Map()} />);
    fireEvent.click(screen.getByRole("button", { name: "10 earlier jobs count here" }));
    expect(onLessons).toHaveBeenCalled();
  });
  test("buying the part is weighed against one more test, in money", () => {
    const a = analysed(job);
    const economics = {
      part: "B9",
      share: 0.8,
      price: 80,
      buyNow: 20,
      testFirst: 7.5,
      cheaper: "test" as const,
      priced: false,
    };
    render(<List {...shared} suspects={a.suspects} economics={economics} ids={new Map()} />);
    fireEvent.click(screen.getAllByRole("button", { expanded: false })[0]!);
    expect(
      screen.getByText(
        "Buying B9 now would waste about 20 on average; one more test first costs about 7.5 (by common prices: " +
          "none given).",
      ),
    ).toBeInTheDocument();
  });
  test("strongest first, with a share and how many codes each explains; a row opens into its reasons", () => {
    const a = analysed(job, [reading("B7:1", 0.8, ["B7"])]);
    render(<List {...shared} suspects={a.suspects} economics={a.economics} ids={new Map([[1, "(entry 1)"]])} />);
    const rows = screen.getAllByRole("button", { expanded: false });
    expect(rows[0]).toHaveTextContent("4/4");
    expect(rows[0]!.textContent).toMatch(/^\d+ %/);
    fireEvent.click(rows[0]!);
    const region = screen.getByRole("region", { name: "Suspects" });
    expect(within(region).getByText(/P0642 set, as it would/)).toBeInTheDocument();
    expect(within(region).getByText(/0\.80 V at B7:1; expected/)).toBeInTheDocument();
    fireEvent.click(screen.getByRole("button", { expanded: true }));
    expect(within(region).queryByText(/P0642 set/)).toBeNull();
  });
  test("what is hardly suspected is folded into one line", () => {
    const a = analysed(job);
    render(<List {...shared} suspects={a.suspects} ids={new Map()} />);
    expect(screen.getAllByRole("listitem")).toHaveLength(5);
    fireEvent.click(screen.getByRole("button", { name: /more, together/ }));
    expect(screen.getAllByRole("listitem").length).toBeGreaterThan(5);
  });
});

describe("the logbook", () => {
  const lines = [5, 4, 3, 2, 1].map((number) => ({
    number,
    time: "10:00",
    what: `thing ${number}`,
    value: "",
    remark: "",
    undone: number === 3,
    saved: number !== 5,
    canUndo: number !== 3,
    by: number === 2 ? "Ana" : "",
    note: "",
    type: number === 2 ? ("reading" as const) : ("look" as const),
  }));
  test("shows the latest, all on demand, and offers to take back what stands", () => {
    const onUndo = jest.fn();
    const onCorrect = jest.fn();
    render(
      <Logbook
        lines={lines}
        entries={[]}
        namer={namer}
        onUndo={onUndo}
        onCorrect={onCorrect}
        csv="/csv"
        person=""
        onPerson={jest.fn()}
      />,
    );
    expect(screen.getAllByRole("listitem")).toHaveLength(4);
    expect(screen.getByText("not saved yet")).toBeInTheDocument();
    fireEvent.click(screen.getByRole("button", { name: "Undo entry 5" }));
    fireEvent.click(screen.getByRole("button", { name: "Whole logbook" }));
    expect(screen.getAllByRole("listitem")).toHaveLength(5);
    fireEvent.click(screen.getByRole("button", { name: "Take back entry 2" }));
    fireEvent.change(screen.getByLabelText("Why entry 2 is taken back"), { target: { value: "wrong pin" } });
    fireEvent.click(screen.getByRole("button", { name: "Take it back" }));
    expect(onUndo.mock.calls).toEqual([[5], [2, "wrong pin"]]);
    fireEvent.click(screen.getByRole("button", { name: "Correct entry 2" }));
    expect(onCorrect).toHaveBeenCalledWith(2);
    expect(screen.getByRole("link", { name: "Save as CSV" })).toHaveAttribute("href", "/csv");
    fireEvent.change(screen.getByLabelText("Find in the logbook"), { target: { value: "ana" } });
    expect(screen.getAllByRole("listitem")).toHaveLength(1);
    fireEvent.change(screen.getByLabelText("Find in the logbook"), { target: { value: "" } });
    expect(screen.queryByRole("button", { name: "Take back entry 3" })).toBeNull();
  });
});

describe("how saving stands", () => {
  test.each([
    ["saved", "Saved"],
    ["saving", "Saving…"],
  ] as const)("%s is one quiet word", (status, word) => {
    render(
      <>
        <SavedWord state={{ status }} />
        <SaveNote state={{ status }} onDismiss={() => undefined} />
      </>,
    );
    expect(screen.getByRole("status")).toHaveTextContent(word);
    expect(screen.queryByRole("alert")).toBeNull();
  });
  test("waiting says what was kept and when it will be saved", () => {
    render(
      <SaveNote state={{ status: "waiting", count: 3, why: "no-answer", isKept: true }} onDismiss={() => undefined} />,
    );
    expect(screen.getByRole("alert")).toHaveTextContent(
      /The 3 entries you logged are kept on this device and saved in order/,
    );
  });
  test("where another window wrote meanwhile, both stand, and it is said", () => {
    const onDismiss = jest.fn();
    render(<SaveNote state={{ status: "joined", others: 2, ours: [reading("B7:1", 0.81)] }} onDismiss={onDismiss} />);
    expect(screen.getByRole("alert")).toHaveTextContent(
      "Another window logged 2 entries meanwhile. Your reading 0.81 V stands after them",
    );
    fireEvent.click(screen.getByRole("button", { name: "Understood" }));
    expect(onDismiss).toHaveBeenCalled();
  });
  test("a device without room says so, and where the entries are meanwhile", () => {
    const state = { status: "waiting", count: 1, why: "no-answer", isKept: false } as const;
    render(<SaveNote state={state} onDismiss={() => undefined} />);
    expect(screen.getByRole("alert")).toHaveTextContent(/keeps nothing now: what you logged is in this window only/);
  });
  test("an answer of another database is not taken for an answer", () => {
    const state = { status: "waiting", count: 1, why: "another-database", isKept: true } as const;
    render(<SaveNote state={state} onDismiss={() => undefined} />);
    expect(screen.getByRole("alert")).toHaveTextContent(/another database answers here.*Nothing is lost/);
  });
});

const proven = analysed(job, [
  reading("B7:1", 0.84, ["B7"]),
  { type: "plugged", at: AT, connector: "B7" },
  { type: "unplugged", at: AT, connector: "B9" },
  reading("B7:1", 4.97, ["B9"]),
  reading("B9:1", 4.98, ["B9"]),
  reading("B7:3", 1.2, ["B9"]),
]);
describe("the end of a job", () => {
  const props = {
    namer,
    open: proven.folded.open,
    closed: false,
    onVerdict: jest.fn(),
    onClose: jest.fn(),
    onRepair: jest.fn(),
    onReopen: jest.fn(),
    onDisturbed: jest.fn(),
    onOther: jest.fn(),
  };
  test("a verdict logged, then the job closed, then opened again; closed without a cause where none was logged", () => {
    const logged = {
      ...proven,
      folded: {
        ...proven.folded,
        verdict: {
          number: 9,
          entry: {
            type: "verdict" as const,
            at: AT,
            suspect: "B9",
            text: "B9 it is",
            share: 0.99,
            engine: "1",
            ranking: [],
          },
        },
      },
    };
    const { rerender } = render(<Verdict analysis={logged} {...props} />);
    fireEvent.click(screen.getByRole("button", { name: "Log the repair" }));
    expect(props.onRepair).toHaveBeenCalled();
    expect(screen.queryByRole("button", { name: "Close without a repair" })).toBeNull(); // B9 still hangs loose
    fireEvent.click(screen.getByRole("button", { name: "Restore it, then close without a repair" }));
    expect(props.onDisturbed).toHaveBeenCalled();
    rerender(<Verdict analysis={logged} {...props} open={[]} />);
    fireEvent.click(screen.getByRole("button", { name: "Close without a repair" }));
    expect(props.onClose).toHaveBeenCalled();
    rerender(<Verdict analysis={logged} {...props} open={[]} closed />);
    expect(screen.getByText("Job closed")).toBeVisible();
    fireEvent.click(screen.getByRole("button", { name: "Open it again" }));
    expect(props.onReopen).toHaveBeenCalled();
    rerender(<Verdict analysis={proven} {...props} open={[]} closed />);
    expect(screen.getByRole("heading")).toHaveTextContent("Closed without a cause");
  });
  test("one of several repairs: what is proven, each repair in the order to look, and what may split them", () => {
    const first = proven.suspects[0]!;
    const member = (id: string, share: number) => ({ id, faults: first.members[0]!.faults, share });
    const group = {
      ...proven,
      outcome: {
        isOneRepair: false,
        isNotAll: false,
        kind: "open" as const,
        conductor: { use: "signal" as const, point: "A1:9" },
        part: "B9",
        repairs: [member("wire a", 0.6), member("wire b", 0.38)],
      },
    };
    const onRuns = jest.fn();
    const run = { run: "halveRun" as const, on: "B9:3", minutes: 4, bits: 0.9, shareOfOpen: 0.9 };
    render(<Verdict analysis={group} {...props} run={run} onRuns={onRuns} />);
    expect(screen.getByRole("heading")).toHaveTextContent("Open circuit in the signal at A1 cavity 9");
    expect(screen.getByText(/One of 2 repairs; no single test can separate them/)).toBeVisible();
    const items = within(screen.getByRole("list", { name: /in the order to look/ })).getAllByRole("listitem");
    expect(items.map((i) => /\d+ %/.exec(i.textContent)?.[0])).toEqual(["60 %", "38 %"]);
    expect(screen.getByText(/Do not replace them all/)).toBeVisible();
    fireEvent.click(screen.getByRole("button", { name: /^Split them/ }));
    expect(onRuns).toHaveBeenCalled();
    expect(screen.queryByRole("button", { name: /Find out which/ })).toBeNull(); // nothing on offer does
    fireEvent.click(screen.getByRole("button", { name: "Log what is proven" }));
    expect(props.onVerdict).toHaveBeenCalled();
    cleanup();
    const onNarrower = jest.fn();
    const narrowing = { suspects: [], next: [] };
    const narrower = { text: "Look along the wire", minutes: 1.2 };
    render(<Verdict analysis={{ ...group, narrowing }} {...props} narrower={narrower} onNarrower={onNarrower} />);
    expect(screen.queryByText(/no single test/)).toBeNull();
    fireEvent.click(screen.getByRole("button", { name: /Find out which.*Look along the wire · about 1 min/ }));
    expect(onNarrower).toHaveBeenCalled();
    cleanup();
    render(<Verdict analysis={{ ...group, stage: "stuck" }} {...props} />);
    expect(screen.queryByText(/Proven/)).toBeNull(); // nothing is, where nothing on offer tells the rest apart
    expect(screen.getByRole("button", { name: "Log the likeliest" })).toBeVisible();
  });
  test("one cause, confirmed; what is still unplugged must go back", () => {
    expect(proven.stage).toBe("proven");
    render(<Verdict analysis={proven} {...props} />);
    expect(screen.getByRole("heading")).toHaveTextContent("Oil pressure sensor B9 shorted inside, supply to ground");
    expect(screen.getByText(/Then: replace the part, by its number\./)).toBeVisible(); // what repairing it means
    expect(screen.getByText("B9: unplugged")).toBeVisible();
    fireEvent.click(screen.getByRole("button", { name: "Restored" }));
    expect(props.onDisturbed).toHaveBeenCalled();
    fireEvent.click(screen.getByRole("button", { name: "Log this as the cause" }));
    expect(props.onVerdict).toHaveBeenCalled();
  });
});

test("the thin line of steps says where the job stands", () => {
  const onScan = jest.fn();
  const { rerender } = render(
    <Steps stage={undefined} folded={fold([])} onIntake={jest.fn()} onScan={onScan} onRepair={jest.fn()} />,
  );
  const now = () =>
    screen.getAllByRole("listitem").find((li) => li.getAttribute("aria-current") === "step")?.textContent;
  expect(now()).toBe("Scan");
  fireEvent.click(screen.getByRole("button", { name: "Scan" }));
  expect(onScan).toHaveBeenCalled();
  const at = (stage: typeof proven.stage | undefined, folded: typeof proven.folded) =>
    rerender(<Steps stage={stage} folded={folded} onIntake={jest.fn()} onScan={onScan} onRepair={jest.fn()} />);
  at(proven.stage, proven.folded);
  expect(now()).toBe("Readings");
  // a closed job says so before anything is worked out
  at(undefined, fold(closedJob.entries));
  expect(now()).toBe("Proof");
});

describe("the map as drawn", () => {
  const box = { codes: [], width: 28, height: 26, ports: [] };
  const port = (point: string, side: "top" | "bottom", cx: number, cy: number) => ({
    point,
    label: point.split(":")[1] ?? "",
    side,
    cx,
    cy,
  });
  const map: PlacedMap = {
    width: 400,
    height: 300,
    hidden: 1,
    feeds: ["F12"],
    nodes: [
      {
        ...box,
        id: "B9",
        type: "sensor",
        thing: "B9",
        title: "Oil pressure",
        detail: "B9",
        codes: [{ id: "P0522", title: "Oil pressure signal low" }],
        width: 158,
        height: 130,
        rank: 0,
        x: 0,
        y: 0,
        ports: [port("B9:1", "bottom", 26, 113), port("B9:2", "bottom", 58, 113)],
      },
      {
        ...box,
        id: "B4",
        type: "sensor",
        thing: "B4",
        title: "Coolant temperature",
        detail: "B4",
        width: 158,
        height: 130,
        rank: 0,
        x: 180,
        y: 0,
        ports: [port("B4:2", "bottom", 206, 113)],
      },
      {
        ...box,
        id: "S14",
        type: "splice",
        thing: "S14",
        title: "Splice S14",
        detail: "5 V reference",
        rank: 1,
        x: 20,
        y: 190,
        width: 150,
        height: 16,
      },
    ],
    edges: [
      {
        id: "W12",
        function: "reference",
        from: "B9",
        to: "S14",
        fromPoint: "B9:1",
        toPoint: "S14",
        path: "M26 130L32 190",
        middle: [30, 160],
      },
    ],
  };
  test("says in words what it shows, tells figures, pins readings, counts what is not drawn", () => {
    const a = analysed(job, [reading("B9:1", 0.8)]);
    render(<RootMap map={map} analysis={a} next={["B9:2"]} unplugged={["B4"]} />);
    const drawing = screen.getByRole("img", { name: /Root map of 2 sensors/ });
    expect(drawing.textContent).toContain("0.80 V");
    expect(drawing.textContent).toMatch(/5\.\d\d V healthy/);
    expect(drawing.textContent).toContain("unplugged now");
    expect(drawing.textContent).toMatch(/\d+ %/);
    expect(screen.getByText(/One other circuit shares no wire/)).toHaveTextContent("Hidden (not suspected): F12");
  });
  test("a value keeps its own unit: volts of the scan tool, words of a lamp", () => {
    const scanned = analysed(job, [reading("B9:1", 3.4)]);
    const { rerender } = render(
      <RootMap
        map={map}
        analysis={{
          ...scanned,
          readings: scanned.readings.map((r) => ({ ...r, instrument: "lamp" as const, value: 0.5 })),
        }}
        next={[]}
        unplugged={[]}
      />,
    );
    expect(screen.getByText("dim")).toBeInTheDocument();
    rerender(
      <RootMap
        map={map}
        analysis={{ ...scanned, readings: scanned.readings.map((r) => ({ ...r, instrument: "scanTool" as const })) }}
        next={[]}
        unplugged={[]}
      />,
    );
    expect(screen.getByText("3.40 V")).toBeInTheDocument();
  });
  test("before any code it draws without figures", () => {
    render(<RootMap map={map} analysis={undefined} next={[]} unplugged={[]} />);
    expect(screen.getByRole("img").textContent).not.toMatch(/\d %/);
  });
});

test("the scale marks the answer that is typed", () => {
  const line = {
    key: "a",
    near: "5.0 V",
    share: "25 %",
    meaning: "it is B7",
    from: 0.9,
    to: 1,
    decides: true,
    low: 4.9,
    high: 5.1,
  };
  const lines = [line, { ...line, key: "b", near: "0.0 V", from: 0, to: 0.1 }];
  const scale = { lines, ticks: [{ at: 0, text: "0" }], healthy: { at: 0.9, text: "5.00 V" } };
  render(<ScaleView scale={scale} unit="V" chosen="a" />);
  expect(screen.getByText("A healthy machine shows 5.00 V")).toBeInTheDocument();
  const items = screen.getAllByRole("listitem");
  expect(items.map((i) => i.getAttribute("data-chosen"))).toEqual(["true", "false"]);
});

test("wire colours are drawn and always written, unknown ones only written", () => {
  const { container, rerender } = render(<WireSwatch colour="OG/WH" />);
  expect(container.querySelectorAll("rect")).toHaveLength(2);
  expect(container).toHaveTextContent("OG/WH");
  rerender(<WireSwatch colour="mauve" />);
  expect(container.querySelector("rect")).toBeNull();
  expect(container).toHaveTextContent("mauve");
});

test("what only the web can meet is worded too", () => {
  expect(say({ code: "server.database-gone", path: [], params: {} }).text).toContain("cannot be reached");
  expect(say({ code: "wiring.missing-connector", path: ["wires", 3, "to"], params: { id: "Q9" } })).toEqual({
    text: expect.stringContaining('"Q9" is not a connector'),
    place: "wires[3].to",
  });
});
