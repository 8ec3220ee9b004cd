import { useKey } from "@/ui/keys";
import { fireEvent, render, screen } from "@testing-library/react";
import { Namer } from "@radicula/core/words";
import { recordReading } from "@radicula/core";
import { useState } from "react";
import { lineFor, answerScale } from "@/features/case/reading/answers";
import { candidateOf, verdictEntry } from "@/features/case/reading/entries";
import { ValueBox, type TypedValue } from "@/features/case/reading/ValueBox";
import { logLines } from "@/features/case/logbook/lines";
import { waitsFor } from "@/features/board/waitsFor";
import { Instructor } from "@radicula/core/words";
import { analysed, demoCase } from "./helpers";

const job = demoCase();
const AT = "2026-11-24T10:00:00Z";
const namer = new Namer(job.wiring);

test("the scale of answers lies in order, within the meter, and its shares make up what is expected", () => {
  const a = analysed(job);
  const scale = answerScale(a.next[0]!.answers[0]!, "V", a.suspects, namer);
  expect(scale.lines.length).toBeGreaterThan(1);
  for (const l of scale.lines) {
    expect(l.from).toBeGreaterThanOrEqual(0);
    expect(l.to).toBeLessThanOrEqual(1);
    expect(l.to).toBeGreaterThan(l.from);
  }
  for (let i = 1; i < scale.lines.length; i++)
    expect(scale.lines[i]!.from).toBeGreaterThanOrEqual(scale.lines[i - 1]!.from);
  const full = scale.lines.at(-1)!;
  expect(full.near).toBe("5.0 V");
  expect(lineFor(5.02, scale)).toBe(full.key);
  expect(lineFor(5.4, scale)).toBe(full.key); // beyond every line: the nearest
});

test("logging a reading puts on record what had to be unplugged and plugged back", () => {
  const c = {
    kind: "watch" as const,
    at: "B7",
    instrument: "voltmeter" as const,
    points: ["B7:1"],
    state: { key: "on" as const, unplugged: ["B9"] },
    plug: ["B7"],
    unplug: ["B9"],
  };
  expect(recordReading(c, [5.01], AT, { as: "5,01" }).map((e) => e.type)).toEqual(["plugged", "unplugged", "reading"]);
  expect(recordReading({ ...c, instrument: "ohmmeter" }, [Infinity], AT, { as: "OL" }).at(-1)).toMatchObject({
    values: ["OL"],
    as: "OL",
  });
});

test("a reading given back is the same reading, from the state the machine is in now", () => {
  const c = candidateOf(
    { instrument: "voltmeter", points: ["B7:1"], state: { key: "on", unplugged: ["B9"] } },
    { key: "on", unplugged: ["B7"] },
  );
  expect(c).toMatchObject({ kind: "watch", unplug: ["B9"], plug: ["B7"], turnKey: false });
});

test("a verdict freezes the ranking and the engine's version", () => {
  const a = analysed(job);
  expect(verdictEntry(a.suspects[0]!, "B7", a.suspects, a.engine, AT)).toMatchObject({
    type: "verdict",
    engine: a.engine,
    ranking: expect.arrayContaining(a.suspects.slice(0, 5).map((s) => ({ suspect: s.id, share: s.share }))) as unknown,
  });
  expect(a.suspects.some((s) => s.id === "B7")).toBe(true);
});

test("the logbook reads newest first, says what is not saved, and strikes out what was taken back", () => {
  const more = [
    ...recordReading(
      {
        kind: "voltage",
        at: "B7",
        instrument: "voltmeter",
        points: ["B7:1"],
        state: { key: "on", unplugged: [] },
        plug: [],
        unplug: [],
      },
      [0.77],
      AT,
      { as: "0.77" },
    ),
    { type: "undo" as const, at: AT, target: 4 },
  ];
  const entries = [...job.entries, ...more];
  const lines = logLines(entries, 5, analysed(job, more), namer, new Instructor(job.wiring));
  expect(lines.map((l) => l.number)).toEqual([6, 5, 4, 3, 2, 1]);
  expect(lines[0]).toMatchObject({ what: "Took back entry 4", saved: false });
  expect(lines[1]).toMatchObject({ what: "Reference at B7 cavity 1", value: "0.77 V", saved: true });
  expect(lines[1]!.remark).toMatch(/^5\.0\d V if healthy$/);
  expect(lines[2]).toMatchObject({ undone: true, canUndo: false });
});

const NEVER_REPAIRED = { repaired: false, back: false, due: null, temporary: false };
test.each([
  [{ codes: [], readings: 0, verdict: null, closed: false, open: [] }, "Needs codes"],
  [{ codes: ["P1"], readings: 0, verdict: null, closed: false, open: [] }, "First reading"],
  [
    { codes: ["P1"], readings: 3, verdict: "x", closed: false, open: [{ thing: "B7", how: "unplugged" as const }] },
    "Plug back in: B7",
  ],
  [
    { codes: ["P1"], readings: 3, verdict: "x", closed: false, open: [{ thing: "B7:1", how: "pierced" as const }] },
    "Restore: B7:1 pierced, not sealed",
  ],
  [{ codes: ["P1"], readings: 3, verdict: "x", closed: false, open: [] }, "Cause found"],
  [{ codes: ["P1"], readings: 3, verdict: "x", closed: true, open: [] }, "Closed"],
])("the board says what a job waits for", (state, text) =>
  expect(waitsFor({ ...NEVER_REPAIRED, ...state, unreadable: false })).toBe(text),
);
test.each([
  [{ repaired: true }, "Prove the repair"],
  [{ repaired: true, open: [{ thing: "B7", how: "unplugged" as const }] }, "Plug back in: B7"],
  [{ back: true }, "Came back"],
  [{ closed: true, due: "2026-11-28" }, "Ask: did it hold?"],
  [{ closed: true, due: "2026-11-30" }, "Closed"],
  [{ closed: true, temporary: true, due: "2026-11-29" }, "Temporary repair is due"],
])("after a repair the board says what comes next", (state, text) => {
  const found = { codes: ["P1"], readings: 3, verdict: "x", closed: false, open: [], unreadable: false };
  expect(waitsFor({ ...NEVER_REPAIRED, ...found, ...state }, "2026-11-29")).toBe(text);
});
test("the board says of a job whose logbook is damaged that it does not read", () =>
  expect(
    waitsFor({ ...NEVER_REPAIRED, codes: [], readings: 0, verdict: null, closed: true, open: [], unreadable: true }),
  ).toBe("Damaged"));

describe("the value box", () => {
  function Box({
    onLog,
    points = ["B7:1"],
  }: {
    readonly onLog: (values: TypedValue[], typed: string) => void;
    readonly points?: readonly string[];
  }) {
    const [texts, setTexts] = useState<readonly string[]>([]);
    return <ValueBox points={points} unit="V" texts={texts} onTexts={setTexts} onLog={onLog} keypad />;
  }
  test("has the focus, logs with Enter, keeps and explains what cannot be right", () => {
    const onLog = jest.fn();
    render(<Box onLog={onLog} />);
    const input = screen.getByLabelText("Value at B7:1");
    expect(input).toHaveFocus();
    fireEvent.change(input, { target: { value: "12kV" } });
    fireEvent.keyDown(input, { key: "Enter" });
    expect(onLog).not.toHaveBeenCalled();
    expect(screen.getByRole("alert")).toHaveTextContent("more than 60 V");
    expect(input).toHaveValue("12kV");
    fireEvent.change(input, { target: { value: "12,4" } });
    fireEvent.keyDown(input, { key: "Enter" });
    expect(onLog).toHaveBeenCalledWith([12.4], "12,4", {});
  });
  test("a key works while the box is empty, and is a letter once something is typed", () => {
    const pressed = jest.fn();
    function WithKey() {
      useKey("x", pressed);
      return <Box onLog={jest.fn()} />;
    }
    render(<WithKey />);
    const input = screen.getByLabelText("Value at B7:1");
    fireEvent.keyDown(input, { key: "x", code: "KeyX" });
    fireEvent.change(input, { target: { value: "1" } });
    fireEvent.keyDown(input, { key: "x", code: "KeyX" });
    expect(pressed).toHaveBeenCalledTimes(1);
  });
  test("both sides of a fuse are two values; the keypad types into the one in hand", () => {
    const onLog = jest.fn();
    render(<Box onLog={onLog} points={["F12:in", "F12:out"]} />);
    for (const key of ["1", "2", ".", "4"]) fireEvent.click(screen.getByRole("button", { name: key }));
    const second = screen.getByLabelText("Value at F12:out");
    fireEvent.focus(second);
    fireEvent.click(screen.getByRole("button", { name: "0" }));
    fireEvent.keyDown(second, { key: "Enter" });
    expect(onLog).toHaveBeenCalledWith([12.4, 0], "12.4 · 0", {});
  });
  test("a value that flickers is logged with its ends", () => {
    const onLog = jest.fn();
    render(<Box onLog={onLog} />);
    fireEvent.change(screen.getByLabelText("Value at B7:1"), { target: { value: "4.2–4.9" } });
    fireEvent.keyDown(screen.getByLabelText("Value at B7:1"), { key: "Enter" });
    expect(onLog.mock.calls[0]![0][0]).toBeCloseTo(4.55, 9);
    expect(onLog.mock.calls[0]![2]).toEqual({ swing: [4.2, 4.9] });
  });
  test("a lamp has words, by button or typed", () => {
    const onLog = jest.fn();
    render(
      <ValueBox
        points={["F12:out"]}
        unit="V"
        words="lamp"
        texts={["dim"]}
        onTexts={jest.fn()}
        onLog={onLog}

        keypad
      />,
    );
    fireEvent.click(screen.getByRole("button", { name: "Dark" }));
    fireEvent.keyDown(screen.getByLabelText("Value at F12:out"), { key: "Enter" });
    expect(onLog.mock.calls.map((c: unknown[][]) => c[0])).toEqual([["dark"], ["dim"]]);
  });
  test("a scan value is logged in its unit, or as what it looks like; the keys work in its empty box", () => {
    const onLog = jest.fn();
    function Scanned() {
      const [texts, setTexts] = useState<readonly string[]>([""]);
      return (
        <ValueBox
          points={["A1:5"]}
          unit="V"
          words="scan"
          texts={texts}
          onTexts={setTexts}
          onLog={onLog}
          keypad={false}
        />
      );
    }
    const { container } = render(<Scanned />);
    expect(container.querySelector("form")!.dataset["keys"]).toBe("all");
    fireEvent.change(screen.getByRole("textbox"), { target: { value: "101 kPa" } });
    fireEvent.keyDown(screen.getByRole("textbox"), { key: "Enter" });
    expect(onLog).toHaveBeenLastCalledWith([101], "101 kPa", { unit: "kPa" });
    fireEvent.click(screen.getByRole("button", { name: "Frozen" }));
    expect(onLog).toHaveBeenLastCalledWith(["frozen"], "frozen", {});
  });
});
