import { fireEvent, render, screen, waitFor } from "@testing-library/react";
import { heldBands, heldByWork, notebookOf, type Entry, type Lesson } from "@radicula/core";
import { WithMessages } from "@/ui/Theme";
import { BeforeSheet } from "@/features/case/before/BeforeSheet";
import { HowOftenHeld } from "@/features/notebook/HowOftenHeld";
import { LessonRow } from "@/features/notebook/LessonRow";
import { openFile } from "@/features/site/openFile";

jest.mock("next/navigation", () => ({ useRouter: () => ({ refresh: jest.fn() }) }));

const lesson: Lesson = {
  id: "demo lesson 4",
  closed: "2025-08-11",
  wiring: "Tug 4 engine sensors",
  machineType: "yard tug",
  machine: "Tug 3",
  title: "Two pressures low",
  codes: ["P0522", "P1A41"],
  shared: ["X5:4"],
  found: "Terminal in X5 cavity 4 corroded or spread",
  suspect: "X5:4",
  repairs: [{ things: ["X5:4"], how: "repaired" }],
  claimed: 0.961,
  notHeld: [],
  held: "stillGood",
  note: "",
  used: true,
};
const learned = {
  type: "learned" as const,
  at: "2026-11-01T08:00:00Z",
  lessons: 10,
  causes: [{ things: ["X5:4"], how: "repaired" as const, count: 3 }],
};
/** Answers every request with this, and remembers what was asked. */
function answering(body: unknown, ok = true) {
  const asked: { path: string; body: unknown }[] = [];
  globalThis.fetch = jest.fn((path: string, how?: RequestInit) => {
    asked.push({ path, body: typeof how?.body === "string" ? (JSON.parse(how.body) as unknown) : undefined });
    return Promise.resolve({ ok, json: () => Promise.resolve(body) } as Response);
  }) as unknown as typeof fetch;
  return asked;
}

describe("a lesson in the notebook", () => {
  test("says cause, what helped, how sure it was and what became of it", () => {
    render(<LessonRow lesson={lesson} jobId={null} />);
    expect(screen.getByText("Terminal in X5 cavity 4 corroded or spread")).toBeInTheDocument();
    expect(screen.getByText(/What helped: repaired X5:4/)).toBeInTheDocument();
    expect(screen.getByText("Proof said 96 % cured, still good when asked")).toBeInTheDocument();
  });
  test("is switched off at once, and on again where the server does not take it", async () => {
    const asked = answering({ issues: [{ code: "server.no-such-lesson", path: [], params: {} }] }, false);
    render(<LessonRow lesson={lesson} jobId={null} />);
    fireEvent.click(screen.getByRole("switch"));
    expect(screen.getByText("Does not count")).toBeInTheDocument();
    await waitFor(() => expect(screen.getByText("Counts in new jobs")).toBeInTheDocument());
    expect(asked).toEqual([{ path: "/api/notebook/demo%20lesson%204", body: { used: false } }]);
    expect(screen.getByRole("alert")).toHaveTextContent("no such lesson");
  });
  test("one that came back counts nothing, and has no switch", () => {
    render(<LessonRow lesson={{ ...lesson, held: "cameBack" }} jobId={null} />);
    expect(screen.queryByRole("switch")).toBeNull();
    expect(screen.getByText("Does not count: it came back")).toBeInTheDocument();
    expect(screen.getByText(/Did not last: repaired X5:4/)).toBeInTheDocument();
  });
  test("a note is added", async () => {
    const asked = answering({});
    render(<LessonRow lesson={lesson} jobId={null} />);
    fireEvent.click(screen.getByRole("button", { name: "Add a note" }));
    fireEvent.change(screen.getByLabelText("Note"), { target: { value: " Tie it up. " } });
    fireEvent.click(screen.getByRole("button", { name: "Save the note" }));
    await waitFor(() => expect(screen.queryByLabelText("Note")).toBeNull());
    expect(asked[0]?.body).toEqual({ note: "Tie it up." });
  });
});

test("how often proofs held, in a table; nobody asked is said", () => {
  const many = Array.from({ length: 10 }, (_, i): Lesson => ({
    ...lesson,
    id: `${i}`,
    held: i === 0 ? "cameBack" : "stillGood",
  }));
  const { container } = render(<HowOftenHeld bands={heldBands(many)} work={heldByWork(many)} />);
  expect(screen.getByText("9 of 10 repairs held when somebody asked later")).toBeInTheDocument();
  const details = container.querySelector("details")!;
  details.open = true;
  fireEvent(details, new Event("toggle"));
  expect(screen.getByRole("row", { name: /95 % to 98 % 10 9 of 10/ })).toBeInTheDocument();
  render(<HowOftenHeld bands={heldBands([{ ...lesson, held: "notAsked" }])} work={[]} />);
  expect(screen.getByText(/Nobody was asked yet/)).toBeInTheDocument();
});

test("a notebook that is opened as a job or a wiring is told where it belongs, and nothing is sent", async () => {
  const asked = answering({});
  const bytes = Uint8Array.from(Buffer.from(JSON.stringify(notebookOf([lesson]))));
  const file = { name: "notebook.json", size: bytes.length, arrayBuffer: () => Promise.resolve(bytes.buffer) };
  for (const as of ["job", "wiring"] as const) {
    const opened = await openFile(file as unknown as File, as, new AbortController().signal);
    expect(opened).toMatchObject({ ok: false, issues: [{ code: "file.other-sort", params: { sort: "notebook" } }] });
  }
  expect(asked).toEqual([]);
});

describe("seen before, on a job", () => {
  function sheet(more: Partial<Parameters<typeof BeforeSheet>[0]> = {}) {
    const logged: Entry[] = [];
    render(
      <WithMessages>
        <BeforeSheet
          open
          jobId="j"
          practice={false}
          learned={undefined}
          isRepaired={false}
          feeds={[]}
          onLog={(e) => logged.push(e)}
          onClose={() => undefined}
          {...more}
        />
      </WithMessages>,
    );
    return logged;
  }
  const alike = [{ lesson, jobId: "8b0a4a3e-0f4b-4f0e-9a5b-0d3f6f9d1e11", alike: 0.5, isSameWiring: true }];

  test("jobs like it are shown, and counted only when asked", async () => {
    answering({ alike, learned });
    const logged = sheet();
    expect(await screen.findByText(/50 % of the codes/)).toBeInTheDocument();
    fireEvent.click(screen.getByRole("switch"));
    expect(logged).toMatchObject([{ type: "learned", lessons: 10 }]);
  });
  test("counted ones are taken back by an undo; what they change is said", async () => {
    answering({ alike: [], learned });
    const feeds = [
      { because: "lessons", at: ["X5:4"], factor: 4.87, on: "all", faults: 2 },
      { because: "lessons", at: [], factor: 0.9, on: "elsewhere", faults: 400 },
    ];
    const logged = sheet({ learned: { number: 1, entry: learned }, feeds });
    expect(await screen.findByText(/X5:4 4.9 times · all else 0.9 times/)).toBeInTheDocument();
    fireEvent.click(screen.getByRole("switch"));
    expect(logged).toMatchObject([{ type: "undo", target: 1 }]);
  });
  test("after a repair nothing is changed; a practice job learns nothing; a server that is away is said", async () => {
    answering({ alike: [], learned });
    sheet({ learned: { number: 1, entry: learned }, isRepaired: true });
    expect(await screen.findByText("No closed job has codes like these.")).toBeInTheDocument();
    expect(screen.getByRole("switch")).toBeDisabled();
    answering({ alike: [], learned: null });
    sheet({ practice: true });
    expect(await screen.findByText(/This is a practice job/)).toBeInTheDocument();
    globalThis.fetch = jest.fn(() => Promise.reject(new Error("away"))) as unknown as typeof fetch;
    sheet();
    expect(await screen.findByText(/The database cannot be reached/)).toBeInTheDocument();
  });
});
