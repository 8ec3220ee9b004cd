import { useKey } from "@/ui/keys";
import { fireEvent, render, screen } from "@testing-library/react";
import { Instructor, Namer, reasonText, shownText, SCHOOL_WORDS, yesNo } from "@radicula/core/words";
import { POLICIES, type Analysis, type Candidate, type Entry, type Suspect, recordAnswer } from "@radicula/core";
import { yesNoLines, answerName } from "@/features/case/reading/answers";
import { candidateOf } from "@/features/case/reading/entries";
import { YesNo } from "@/features/case/reading/YesNo";
import { logLines } from "@/features/case/logbook/lines";
import { PolicySwitch } from "@/features/case/policy/PolicySwitch";
import { Verdict } from "@/features/case/Verdict";
import { analysed, demoCase } from "./helpers";

const job = demoCase();
const AT = "2026-11-24T10:00:00Z";
const namer = new Namer(job.wiring);
const instructor = new Instructor(job.wiring);
const asked = (kind: Candidate["kind"], points: string[]): Candidate => ({
  id: `${kind} ${points.join(" ")}`,
  kind,
  instrument: "none",
  points,
  at: points[0]!,
  state: { key: "on", unplugged: [] },
  unplug: [],
  plug: [],
  turnKey: false,
  minutes: 1,
});

describe("tests without an instrument", () => {
  test("a look is answered by what was found, and logged so", () => {
    const onAnswer = jest.fn();
    render(
      <YesNo
        candidate={asked("look", ["X5"])}
        lines={[{ yes: true, share: "12 %", meaning: "it is X5" }]}
        shown={undefined}

        onAnswer={onAnswer}
      />,
    );
    fireEvent.click(screen.getByRole("button", { name: "Nothing to see" }));
    fireEvent.click(screen.getByRole("button", { name: "terminal pushed back" }));
    fireEvent.click(screen.getByRole("button", { name: "green" }));
    expect(screen.queryByRole("button", { name: "Nothing to see" })).toBeNull(); // not both
    fireEvent.click(screen.getByRole("button", { name: "Log all 2" }));
    fireEvent.click(screen.getByRole("button", { name: "green" }));
    fireEvent.keyDown(screen.getByRole("button", { name: "terminal pushed back" }), { key: "Enter" });
    expect(onAnswer.mock.calls).toEqual([
      [false, [], undefined],
      [true, ["pushedBack", "green"], undefined],
      [true, ["pushedBack"], undefined],
    ]);
    expect(screen.getByText("it is X5")).toBeInTheDocument();
    expect(recordAnswer(job.wiring, asked("look", ["X5"]), true, AT, ["pushedBack"])).toEqual([
      { type: "look", at: AT, thing: "X5", found: ["pushedBack"] },
    ]);
    expect(recordAnswer(job.wiring, asked("look", ["X5"]), false, AT)).toEqual([
      { type: "look", at: AT, thing: "X5", found: ["nothing"] },
    ]);
  });
  test("what the simulated machine showed has the focus, so that Enter logs it", () => {
    render(
      <YesNo
        candidate={asked("wiggle", ["X5"])}
        lines={[]}
        shown={{ yes: true, found: undefined }}

        onAnswer={jest.fn()}
      />,
    );
    expect(screen.getByRole("button", { name: yesNo("wiggle")[0] })).toHaveFocus();
  });
  test("keys do what they do everywhere", () => {
    const pressed = jest.fn();
    function WithKey() {
      useKey("x", pressed);
      return (
        <YesNo
          candidate={asked("identity", ["B7"])}
          lines={[]}
          shown={undefined}

          onAnswer={jest.fn()}
        />
      );
    }
    render(<WithKey />);
    fireEvent.keyDown(screen.getByRole("button", { name: "It is the right one" }), { key: "x", code: "KeyX" });
    expect(pressed).toHaveBeenCalledTimes(1);
  });
  test("the right number is the drawing's own; another one is not made up", () => {
    const drawn = job.wiring.connectors.find((c) => c.partNumber) ?? {
      id: "B7",
      partNumber: job.wiring.devices.find((d) => d.id === "B7")?.partNumber,
    };
    const number = (yes: boolean) => recordAnswer(job.wiring, asked("partNumber", [drawn.id]), yes, AT)[0];
    expect(number(false)).toMatchObject({ type: "seen", connector: drawn.id, partNumber: drawn.partNumber });
    expect(number(true)).toMatchObject({ partNumber: "?" });
  });
  test("no reading is logged with them, but what had to be plugged back is", () => {
    expect(recordAnswer(job.wiring, { ...asked("wiggle", ["X5"]), plug: ["B9"] }, true, AT).map((e) => e.type)).toEqual(
      ["plugged", "wiggle"],
    );
  });
  test("every kind has a sentence that can be obeyed and two answers", () => {
    for (const kind of ["look", "wiggle", "swap", "partNumber", "identity"] as const) {
      const said = instructor.instruct(asked(kind, ["B7", "B9"]));
      expect(said.title).toMatch(/B7/);
      expect([said.red, said.black]).toEqual([[], ""]);
      expect(new Set(yesNo(kind)).size).toBe(2);
    }
    const scan = instructor.instruct({ ...asked("scan", ["A1:8"]), instrument: "scanTool", at: "" });
    expect(scan.title).toMatch(/boost pressure sensor B7.*scan tool/i);
    expect(scan.red).toEqual([]);
  });
  test("what each answer would mean names the suspects", () => {
    const a = analysed(job);
    const lines = yesNoLines(
      [
        { value: 1, low: 1, high: 1, share: 0.3, suspects: [{ suspect: 0, share: 0.9 }] },
        { value: 0, low: 0, high: 0, share: 0.7, suspects: [{ suspect: 1, share: 0.5 }] },
      ],
      a.suspects,
      namer,
    );
    expect(lines.map((l) => l.yes)).toEqual([true, false]);
    expect(lines[0]!.meaning).toContain(answerName(a.suspects[0]!, namer));
  });
});

test("the logbook says in words what eyes and hands found", () => {
  const entries: Entry[] = [
    { type: "look", at: AT, thing: "X5", found: ["green", "wet"] },
    { type: "wiggle", at: AT, thing: "X5", reacted: true },
    { type: "swap", at: AT, parts: ["B7", "B9"], result: "stayed" },
    { type: "identity", at: AT, connector: "B7", right: false },
    { type: "holds", at: AT, fuse: "F12", held: true, state: { key: "on", unplugged: [] } },
    { type: "school", at: AT, school: "easiest" },
    {
      type: "reading",
      at: AT,
      instrument: "lamp",
      points: ["B7:1"],
      values: ["dim"],
      state: { key: "on", unplugged: [] },
    },
    {
      type: "reading",
      at: AT,
      instrument: "scanTool",
      points: ["A1:8"],
      values: [1.2],
      state: { key: "on", unplugged: [] },
    },
  ];
  const said = logLines(entries, entries.length, undefined, namer, instructor)
    .reverse()
    .map((l) => `${l.what} | ${l.value} | ${l.remark}`);
  expect(said[0]).toBe("Looked at X5 |  | green, wet");
  expect(said[1]).toContain("it reacted");
  expect(said[2]).toContain("it stayed");
  expect(said[3]).toContain("it was another one");
  expect(said[4]).toContain("it held");
  expect(said[5]).toContain("easiest access first");
  expect(said[6]).toContain("dim");
  expect(said[7]).toMatch(/^Scan tool: signal.*1\.20 V/);
});

test("a scan tool's value given back is one of the scan tool again", () => {
  const reading = {
    type: "reading" as const,
    at: AT,
    instrument: "scanTool" as const,
    points: ["A1:8"],
    values: [3.4],
    state: { key: "on" as const, unplugged: [] },
  };
  expect(candidateOf(reading)).toMatchObject({ kind: "scan", at: "" });
});

describe("order of tests", () => {
  const analysis = (more: Partial<Analysis>): Analysis => ({ ...analysed(job), ...more });
  test("says what the way chosen is expected to take, and what the best would", () => {
    const { rerender } = render(
      <PolicySwitch
        analysis={analysis({ school: "easiest", minutesByPolicy: { information: 14, easiest: 22, halve: 30 } })}

        onChange={jest.fn()}
        onChart={jest.fn()}
      />,
    );
    expect(screen.getByText("about 22 min; best: 14 min")).toBeInTheDocument();
    rerender(
      <PolicySwitch
        analysis={analysis({ school: "information", minutesByPolicy: { information: 14, easiest: 22, halve: 30 } })}

        onChange={jest.fn()}
        onChart={jest.fn()}
      />,
    );
    expect(screen.getByText("about 14 min left")).toBeInTheDocument();
    rerender(
      <PolicySwitch
        analysis={analysis({ minutesByPolicy: undefined })}

        onChange={jest.fn()}
        onChart={jest.fn()}
      />,
    );
    expect(screen.queryByText(/about/)).toBeNull();
  });
  test("every school has words", () => {
    for (const s of POLICIES) expect(SCHOOL_WORDS[s].title.length).toBeGreaterThan(5);
  });
});

test("two faults at once: both named, both repairs said", () => {
  const fault = (id: string, place: string, mode: "open" | "contactOpen") => ({
    id,
    mode,
    place: { type: mode === "open" ? ("wire" as const) : ("cavity" as const), id: place },
  });
  const faults = [fault("W31/open", "W31", "open"), fault("B9:1/contactOpen", "B9:1", "contactOpen")];
  const several: Suspect = {
    id: "W31 + B9:1",
    type: "several",
    share: 0.97,
    places: faults.map((f) => f.place),
    members: [{ hypothesis: 900, fault: faults[0]!, faults, share: 0.97, ohm: NaN, intermittent: 0 }],
  };
  const a = analysed(job);
  render(
    <Verdict
      analysis={{
        ...a,
        stage: "proven",
        suspects: [{ ...several, explains: 4, outOf: 4, reasons: [], splitBy: undefined }],
      }}
      namer={namer}
      open={[]}
      closed={false}
      onVerdict={jest.fn()}
      onClose={jest.fn()}
      onRepair={jest.fn()}
      onReopen={jest.fn()}
      onDisturbed={jest.fn()}
      onOther={jest.fn()}
    />,
  );
  expect(screen.getByText(/2 causes, confirmed/)).toBeInTheDocument();
  expect(screen.getByRole("heading")).toHaveTextContent(/and terminal in B9 cavity 1 not making contact/);
  expect(screen.getByText(/join the wire.*Push the terminal home/)).toBeInTheDocument();
  expect(answerName(several, namer)).toMatch(/ and /);
});

describe("words for evidence", () => {
  const base = { number: 3, weight: 1, sigmas: 0, fits: true };
  test("each sort of instrument in its own words", () => {
    expect(shownText("lamp", 0.5)).toBe("dim");
    expect(shownText("continuity", 1)).toBe("beep");
    expect(shownText("clamp", 0.42)).toBe("420 mA");
    expect(reasonText({ ...base, kind: "scanTool", about: "A1:8", got: 0.1, expected: 1.2 })).toBe(
      "0.10 V at A1:8 in the scan tool; expected 1.20 V",
    );
    expect(reasonText({ ...base, kind: "clue", clue: "look", about: "X5", got: 0, expected: 0.5 })).toBe(
      "X5 looked sound; chance of that: 50 %",
    );
    expect(reasonText({ ...base, kind: "code", about: "P0237", got: 1, expected: 0.02 })).toBe(
      "P0237 is set; this alone would not set it",
    );
  });
});
