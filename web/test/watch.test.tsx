import { Instructor, Namer } from "@radicula/core/words";
import { act, fireEvent, render, screen } from "@testing-library/react";
import { StrictMode, type ComponentProps } from "react";
import { frequencyOf, toneRange } from "@/features/case/watch/tone";
import { WatchSheet } from "@/features/case/watch/WatchSheet";
import { HandsBusy } from "@/features/case/reading/HandsBusy";
import { DisturbedSheet } from "@/features/case/disturbed/DisturbedList";
import { MeterSheet } from "@/features/case/meter/MeterSheet";
import { Calculators } from "@/features/calculators/Calculators";
import { sumFor } from "@/features/case/reading/sums";
import { analysed, demoCase } from "./helpers";

const job = demoCase();
const namer = new Namer(job.wiring);
const instructor = new Instructor(job.wiring);
const candidate = analysed(job).next[0]!.candidate;

test("a value sounds an octave higher at the middle of its range, and never beyond its ends", () => {
  expect(frequencyOf(0, 0, 5)).toBeCloseTo(220, 9);
  expect(frequencyOf(2.5, 0, 5)).toBeCloseTo(440, 9); // an octave is a doubling
  expect(frequencyOf(9, 0, 5)).toBeCloseTo(880, 9);
  expect(frequencyOf(1, 1, 1)).toBeCloseTo(440, 9);
});

test("the tone spans a little above the battery on a feed, and a module's own volts on anything else", () => {
  expect(toneRange(job.wiring, { points: ["BAT:+"] })).toEqual([0, 1.2 * job.wiring.nominalVolt]);
  expect(toneRange(job.wiring, { points: ["B7:1"] })).toEqual([0, 5.5]); // a 5 V reference
});

/** Stands in for the browser's sound; tells which values were sounded, by their frequencies. */
function fakeSound(): jest.Mock {
  const sounded = jest.fn();
  const node = { connect: () => node, start: jest.fn(), stop: jest.fn(), gain: { value: 0 } };
  const context = {
    currentTime: 0,
    destination: {},
    createOscillator: () => ({ ...node, type: "", frequency: { setTargetAtTime: sounded } }),
    createGain: () => node,
    close: () => Promise.resolve(),
  };
  Object.assign(window, { AudioContext: jest.fn(() => context) });
  return sounded;
}

/** The sheet on a real machine, watching the reference at B7. */
const watchSheet = (onLog: ComponentProps<typeof WatchSheet>["onLog"]) => (
  <WatchSheet
    open
    jobId="j"
    onRecord={() => undefined}
    wiring={job.wiring}
    namer={namer}
    instructor={instructor}
    practice={false}
    asked="B7:1"
    best={async () => undefined}
    places={["X5", "B9"]}
    onLog={onLog}
    onClose={jest.fn()}
  />
);

test("each value sounds once, also where the page draws everything twice to find mistakes", () => {
  jest.useFakeTimers();
  const sounded = fakeSound();
  render(<StrictMode>{watchSheet(jest.fn())}</StrictMode>);
  fireEvent.click(screen.getByRole("button", { name: "Or press any key whenever it jumps" }));
  for (let i = 0; i < 5; i++)
    act(() => {
      jest.advanceTimersByTime(1000);
    });
  expect(sounded).toHaveBeenCalledTimes(5);
  jest.useRealTimers();
  Reflect.deleteProperty(window, "AudioContext");
});

describe("a watch on a real machine", () => {
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());
  test("any key says that it jumped; which place did is told, with the chance that it is luck", async () => {
    const onLog = jest.fn();
    render(watchSheet(onLog));
    fireEvent.click(screen.getByRole("button", { name: "Or press any key whenever it jumps" }));
    const seconds = (n: number, jump = false) => {
      for (let i = 0; i < n; i++) {
        if (jump && i % 2) fireEvent.keyDown(screen.getByLabelText("Watched value"), { key: "Shift" });
        act(() => {
          jest.advanceTimersByTime(1000);
        });
      }
    };
    seconds(12);
    fireEvent.click(screen.getByRole("button", { name: /X5/ }));
    seconds(14, true);
    fireEvent.click(screen.getByRole("button", { name: /B9/ }));
    seconds(12);
    expect(screen.getByText(/X5.*it reacted/)).toBeInTheDocument();
    expect(screen.getByText(/B9.*no reaction/)).toBeInTheDocument();
    fireEvent.click(screen.getByRole("button", { name: "Log what reacted and what did not" }));
    expect(onLog.mock.calls[0]![0]).toMatchObject([
      { type: "wiggle", thing: "X5", reacted: true },
      { type: "wiggle", thing: "B9", reacted: false },
    ]);
  });
});

test("hands busy: one line at a time by one key, the answer at the end, out with Escape", () => {
  const onClose = jest.fn();
  render(
    <HandsBusy candidate={candidate} instructor={instructor} dangers={["Chock the machine."]} onClose={onClose}>
      <form>
        <input aria-label="answer" />
      </form>
    </HandsBusy>,
  );
  const dialog = screen.getByRole("dialog", { name: "Hands busy" });
  const here = () => dialog.querySelector("[aria-current='step']")!.textContent;
  expect(here()).toContain("Chock the machine.");
  expect(screen.queryByLabelText("answer")).toBeNull();
  for (let i = 0; i < 12; i++) fireEvent.keyDown(dialog, { key: " " });
  expect(here()).toContain(instructor.instruct(candidate).title);
  expect(screen.getByLabelText("answer")).toHaveFocus();
  fireEvent.keyDown(dialog, { key: "ArrowLeft" });
  expect(screen.queryByLabelText("answer")).toBeNull();
  fireEvent.click(dialog);
  expect(screen.getByLabelText("answer")).toBeInTheDocument();
  fireEvent.keyDown(dialog, { key: "Escape" });
  expect(onClose).toHaveBeenCalled();
});

test("the list of what was disturbed: put right, or explained, or added to by hand", () => {
  const onLog = jest.fn();
  const onCloseJob = jest.fn();
  const { rerender } = render(
    <DisturbedSheet
      open
      wiring={job.wiring}
      namer={namer}
      closed={false}
      list={[
        { thing: "B9", how: "unplugged", number: 5 },
        { thing: "B7:1", how: "pierced", number: 6 },
      ]}
      onLog={onLog}
      onCloseJob={onCloseJob}
      onClose={jest.fn()}
    />,
  );
  fireEvent.click(screen.getByRole("button", { name: "Plugged back in and locked" }));
  expect(onLog.mock.calls[0]![0]).toMatchObject([{ type: "plugged", connector: "B9" }]);
  fireEvent.click(screen.getAllByRole("button", { name: "Leave as is" })[1]!);
  expect(screen.getByRole("button", { name: "Keep it so, with this reason" })).toBeDisabled();
  fireEvent.change(screen.getByLabelText(/Why does B7:1 stay/), { target: { value: "harness is renewed on Friday" } });
  fireEvent.click(screen.getByRole("button", { name: "Keep it so, with this reason" }));
  expect(onLog.mock.calls[1]![0]).toMatchObject([
    { type: "restored", thing: "B7:1", how: "pierced", note: "harness is renewed on Friday" },
  ]);
  fireEvent.click(screen.getByRole("button", { name: "All is as it was found" }));
  expect(onLog.mock.calls[2]![0]).toHaveLength(2);
  expect(screen.queryByRole("button", { name: "Close the job" })).toBeNull(); // not while something is otherwise
  rerender(
    <DisturbedSheet
      open
      wiring={job.wiring}
      namer={namer}
      closed={false}
      list={[]}
      onLog={onLog}
      onCloseJob={onCloseJob}
      onClose={jest.fn()}
    />,
  );
  fireEvent.click(screen.getByRole("button", { name: "Close the job" }));
  expect(onCloseJob).toHaveBeenCalled();
  expect(onLog).toHaveBeenCalledTimes(3); // closing asks for the proof, or a reason
});

test("the meter's own check takes what is typed, asks again what cannot be, and may be left half empty", () => {
  const onLog = jest.fn();
  render(<MeterSheet open onLog={onLog} onClose={jest.fn()} />);
  const log = screen.getByRole("button", { name: "Log the check" });
  expect(log).toBeDisabled();
  fireEvent.change(screen.getByLabelText(/leads touched together/), { target: { value: "OL" } });
  fireEvent.change(screen.getByLabelText(/across the battery/), { target: { value: "12,5kV" } });
  expect(screen.getByRole("alert")).toHaveTextContent(/more than 60 V/);
  expect(log).toBeDisabled();
  fireEvent.change(screen.getByLabelText(/across the battery/), { target: { value: "12,5" } });
  fireEvent.click(log);
  expect(onLog.mock.calls[0]![0]).toMatchObject({ type: "meterCheck", leads: "OL", battery: 12.5 });
});

test("calculators: the one a step needs is first and filled in; what cannot be is said, not computed", () => {
  const fuse = job.wiring.devices.find((d) => d.kind === "fuse")!;
  const first = sumFor(job.wiring, {
    ...candidate,
    kind: "fuse",
    points: [`${fuse.id}:in`, `${fuse.id}:out`],
    at: fuse.id,
  });
  expect(first).toMatchObject({ id: "fuse", values: { rating: (fuse as { rating: number }).rating } });
  render(<Calculators first={first} />);
  expect(screen.getAllByRole("region")[0]).toHaveAccessibleName("Fuse current from millivolts");
  const drop = screen.getByLabelText(/Drop over the fuse/);
  fireEvent.change(drop, { target: { value: "a lot" } });
  expect(drop).toHaveAttribute("aria-invalid", "true");
  fireEvent.change(drop, { target: { value: "75" } });
  // 75 mV at its rating (common practice, no source)
  expect(screen.getAllByRole("region")[0]).toHaveTextContent("100 %");
});
