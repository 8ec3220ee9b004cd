import { fireEvent, render, screen } from "@testing-library/react";
import { parseCase, type ClosedEntry, type Proof, type RepairedEntry } from "@radicula/core";
import { Instructor, Namer } from "@radicula/core/words";
import { WithMessages } from "@/ui/Theme";
import { readFileSync } from "node:fs";
import type { ReactElement } from "react";
import { CloseSheet } from "@/features/case/proof/CloseSheet";
import { FollowUpSheet } from "@/features/case/proof/FollowUpSheet";
import { RepairSheet } from "@/features/case/proof/RepairSheet";

const read = parseCase(readFileSync("demo/tug-4-ground.case.json", "utf8"));
if (!read.ok) throw new Error("demo");
const { wiring } = read.value;
const namer = new Namer(wiring);
const instructor = new Instructor(wiring);
const show = (element: ReactElement) => render(<WithMessages>{element}</WithMessages>);
const button = (name: string) => screen.getByRole("button", { name });

describe("logging a repair", () => {
  const repairOf = (
    place: { type: "device" | "splice"; id: string },
    mode: "dead" | "spliceHighResistance",
    onPhoto?: (file: File, thing: string) => Promise<string | undefined>,
  ) => {
    const logged: RepairedEntry[] = [];
    show(
      <RepairSheet
        open
        wiring={wiring}
        namer={namer}
        faults={[{ id: `${place.id}/${mode}`, mode, place }]}
        cautions={["Throttle circuit: chock the machine."]}
        onPhoto={onPhoto}
        onLog={(e) => logged.push(e)}
        onClose={() => undefined}
      />,
    );
    return logged;
  };
  test("the verdict is filled in; a new part, its number, and what went in with it are kept", () => {
    const logged = repairOf({ type: "device", id: "B7" }, "dead");
    expect(screen.getByText("Throttle circuit: chock the machine.")).toBeInTheDocument();
    expect(screen.getByLabelText("Replaced")).toBeChecked();
    fireEvent.change(screen.getByLabelText("Part number"), { target: { value: "SK-2210" } });
    fireEvent.click(screen.getByLabelText("Measured before it went in"));
    fireEvent.click(screen.getByLabelText("With connector or pigtail"));
    fireEvent.click(button("Log the repair"));
    expect(logged[0]).toMatchObject({
      type: "repaired",
      things: ["B7"],
      how: "replaced",
      part: { number: "SK-2210", condition: "new", measured: true, with: ["connector"] },
    });
  });
  test("a photo of the work is kept at what was worked on; one that could not be kept is said", async () => {
    const id = "8b0a4a3e-0f4b-4f0e-9a5b-0d3f6f9d1e11";
    const kept: (string | undefined)[] = [undefined, id];
    const asked: string[] = [];
    const logged = repairOf({ type: "splice", id: "S22" }, "spliceHighResistance", (_file, thing) => {
      asked.push(thing);
      return Promise.resolve(kept.shift());
    });
    const take = () =>
      fireEvent.change(screen.getByLabelText(/photo/i), { target: { files: [new File(["x"], "splice.jpg")] } });
    take();
    expect(await screen.findByText(/could not be kept; nothing else is lost/)).toBeInTheDocument();
    take();
    expect(await screen.findByText(/Photo kept/)).toBeInTheDocument();
    fireEvent.click(button("Log the repair"));
    expect(asked).toEqual(["S22", "S22"]);
    expect(logged[0]).toMatchObject({ things: ["S22"], photo: id });
  });
  test("a temporary repair has a day to come back; work given out says what was asked", () => {
    const logged = repairOf({ type: "splice", id: "S22" }, "spliceHighResistance");
    fireEvent.click(screen.getByLabelText("Temporary repair"));
    fireEvent.change(screen.getByLabelText("Comes back by"), { target: { value: "2026-12-24" } });
    fireEvent.click(screen.getByLabelText("Done by somebody else"));
    expect(button("Log the repair")).toBeDisabled();
    fireEvent.change(screen.getByLabelText("What was asked for"), { target: { value: "new splice" } });
    fireEvent.click(button("Log the repair"));
    expect(logged[0]).toMatchObject({
      things: ["S22"],
      how: "repaired",
      temporary: "2026-12-24",
      givenOut: { asked: "new splice", checked: false },
    });
    expect(logged[0]).not.toHaveProperty("part");
  });
});

describe("closing", () => {
  const step = { id: "clear", action: { kind: "clear" }, number: 7, again: [], minutes: 2 } as const;
  const proofOf = (cured: number, status: "open" | "passed"): Proof => ({
    outcome: { cured, notWell: 1 - cured, anotherLeft: 0, wentAway: 0 },
    steps: [{ ...step, status }],
    minutes: 2,
  });
  const close = (proof: Proof | undefined, more: { isDangerous?: boolean; temporary?: string } = {}) => {
    const logged: ClosedEntry[] = [];
    show(
      <CloseSheet
        open
        namer={namer}
        instructor={instructor}
        proof={proof}
        temporary={more.temporary}
        isDangerous={more.isDangerous ?? false}
        left={[]}
        onLog={(e) => logged.push(e)}
        onRestore={() => undefined}
        onClose={() => undefined}
      />,
    );
    return logged;
  };
  test("a proof that is done closes with one press, and is kept as it stood, with a day to ask again", () => {
    const logged = close(proofOf(0.96, "passed"));
    fireEvent.click(button("Close the job"));
    expect(logged[0]).toMatchObject({
      because: "proven",
      proof: {
        outcome: { cured: 0.96 },
        steps: [{ title: "Clear the codes of all modules", status: "passed", entry: 7 }],
      },
    });
    expect(logged[0]!.followUp!.on > new Date().toISOString().slice(0, 10)).toBe(true);
  });
  test("without a proof, or with steps open, it asks why", () => {
    const logged = close(proofOf(0.96, "open"));
    expect(button("Close the job")).toBeDisabled();
    fireEvent.click(screen.getByLabelText("Repair proven"));
    expect(button("Close the job")).toBeDisabled();
    fireEvent.change(screen.getByRole("textbox", { name: "Reason" }), { target: { value: "Driven by the customer" } });
    fireEvent.click(button("Close the job"));
    expect(logged[0]).toMatchObject({ because: "proven", note: "Driven by the customer" });
  });
  test("a step that failed, or was left out, is no proof, however likely the cure", () => {
    const proof = proofOf(0.96, "passed");
    close({ ...proof, steps: [...proof.steps, { ...step, id: "reset idle", status: "failed" }] });
    expect(screen.getByText(/1 of 2 steps of the proof are not passed/)).toBeInTheDocument();
    expect(button("Close the job")).toBeDisabled();
  });
  test("what comes and goes in a brake circuit is never handed back as fine", () => {
    close(undefined, { isDangerous: true });
    fireEvent.click(screen.getByLabelText("Could not be reproduced"));
    expect(screen.getByText(/Do not hand the machine back for use/)).toBeInTheDocument();
    expect(button("Close the job")).toBeDisabled();
  });
  test("a temporary repair is closed as one, until the day it comes back", () => {
    const logged = close(proofOf(0.96, "passed"), { temporary: "2026-12-24" });
    expect(screen.getByLabelText("Temporary repair, comes back")).toBeChecked();
    fireEvent.click(button("Close the job"));
    expect(logged[0]).toMatchObject({ because: "temporary", followUp: { on: "2026-12-24" } });
  });
});

test("weeks later: one tap", () => {
  const logged: object[] = [];
  show(<FollowUpSheet open onLog={(e) => logged.push(e)} onClose={() => undefined} />);
  fireEvent.click(button("Still good"));
  expect(logged[0]).toMatchObject({ type: "followedUp", result: "stillGood" });
});
