import { act, fireEvent, render, screen } from "@testing-library/react";
import { CaseContext } from "@/features/case/session/caseContext";
import { StillOpen, Working } from "@/features/case/Working";

const stop = jest.fn();
const goOn = jest.fn();
const within = (computed: object, what: React.ReactNode) => (
  <CaseContext value={{ computed: { stop, goOn, ...computed } } as never}>{what}</CaseContext>
);

test("quick work says nothing; slow work says how far it is, and stops when asked", () => {
  jest.useFakeTimers();
  const { rerender } = render(within({ working: true, progress: 0.4 }, <Working />));
  expect(screen.queryByRole("progressbar")).toBeNull();
  act(() => jest.advanceTimersByTime(1000));
  expect(screen.getByRole("progressbar", { name: "Faults compared" })).toHaveAttribute("value", "0.4");
  fireEvent.click(screen.getByRole("button", { name: "Stop" }));
  expect(stop).toHaveBeenCalled();
  rerender(within({ working: false }, <Working />));
  expect(screen.queryByRole("progressbar")).toBeNull();
  jest.useRealTimers();
});

test("what was stopped says so, and goes on when asked", () => {
  const { rerender } = render(within({ stopped: true }, <StillOpen />));
  expect(screen.getByRole("status")).toHaveTextContent("Nothing in the logbook is lost");
  fireEvent.click(screen.getByRole("button", { name: "Go on" }));
  expect(goOn).toHaveBeenCalled();
  rerender(within({ stopped: false }, <StillOpen />));
  expect(screen.queryByRole("status")).toBeNull();
});
