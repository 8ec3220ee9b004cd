import { fireEvent, render, screen } from "@testing-library/react";
import { Instructor, Namer } from "@radicula/core/words";
import { MakerChartSheet } from "@/features/case/policy/MakerChartSheet";
import {
  branchProblems,
  NEXT,
  makerChartSteps,
  toChart,
  type MakerChartRow,
} from "@/features/case/policy/makerChartRows";
import { demoCase } from "./helpers";

const { wiring } = demoCase();
const row = (more: Partial<MakerChartRow>): MakerChartRow => ({
  point: "B9:1",
  how: "volts",
  low: 4.75,
  high: 5.25,
  good: NEXT,
  bad: NEXT,
  ...more,
});

describe("a maker's chart, typed in", () => {
  test("rows become steps: plugs off where the maker says so, branches by step, the end by a word no step has", () => {
    const chart = toChart(
      [
        row({ good: 2, bad: 1 }),
        row({ point: "B9:2", how: "ohms", low: 0, high: 1, good: 3 }),
        row({ point: "A1:17", how: "scan" }),
      ],
      wiring,
    )!;
    expect(chart.map((s) => s.instrument)).toEqual(["voltmeter", "ohmmeter", "scanTool"]);
    expect(chart[1]!.state).toEqual({ key: "off", unplugged: ["B9"] });
    expect([chart[0]!.ifGood, chart[0]!.ifBad, chart[1]!.ifGood, chart[1]!.ifBad]).toEqual([
      "3",
      "2",
      "end",
      undefined,
    ]);
    expect(chart.some((s) => s.id === "end")).toBe(false);
  });
  test("and back again, unchanged", () => {
    const rows = [row({ good: 1, bad: 2 }), row({ point: "B7:1", how: "voltsUnplugged" })];
    expect(makerChartSteps(toChart(rows, wiring))).toEqual(rows);
    expect(makerChartSteps(undefined)).toHaveLength(1);
  });
  test(
    "what is unfinished makes no chart; figures the wrong way round and steps that lead to themselves are " + "said",
    () => {
      expect(toChart([row({ low: null })], wiring)).toBeUndefined();
      expect(toChart([row({ point: undefined })], wiring)).toBeUndefined();
      expect(branchProblems([row({ low: null })])).toEqual([]);
      expect(branchProblems([row({ low: 9, high: 1, bad: 0 })])).toEqual([
        "Step 1: good runs from 9 down to 1; the lower figure comes first.",
        "Step 1 leads to itself.",
      ]);
    },
  );
  test("the sheet opens on the chart that is followed, takes more steps, and logs it", () => {
    const onLog = jest.fn();
    const chart = toChart([row({}), row({ point: "B9:2", low: 0, high: 0.1 })], wiring)!;
    render(
      <MakerChartSheet
        open
        wiring={wiring}
        namer={new Namer(wiring)}
        instructor={new Instructor(wiring)}
        chart={chart}
        onLog={onLog}
        onClose={jest.fn()}
      />,
    );
    fireEvent.click(screen.getByRole("button", { name: "Follow this chart" }));
    expect(onLog.mock.calls[0][0]).toMatchObject({ type: "school", school: "chart", chart });
    fireEvent.click(screen.getByRole("button", { name: "Add a step" }));
    expect(screen.getByRole("button", { name: "Follow this chart" })).toBeDisabled();
    fireEvent.click(screen.getByRole("button", { name: "Take step 3 out" }));
    expect(screen.getByRole("button", { name: "Follow this chart" })).toBeEnabled();
  });
});
