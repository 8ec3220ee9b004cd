import { emptyChart } from "@radicula/core";
import { act, fireEvent, render, screen } from "@testing-library/react";
import { WithMessages } from "@/ui/Theme";
import { Board } from "@/features/board/Board";
import { NewJob } from "@/features/board/NewJob";
import { Library } from "@/features/library/Library";
import { CopyButton, NewWiring } from "@/features/library/NewWiring";
import { OpenFile } from "@/features/site/OpenFile";
import { PutAwayMenu } from "@/features/site/PutAwayMenu";
import { Face } from "@/ui/Face";
import { FollowPath } from "@/features/wiring/FollowPath";
import { Photos } from "@/features/wiring/Photos";
import { groupThings, Things } from "@/features/wiring/Things";
import { searchChart } from "@/server/repo/wirings";
import { WireSwatch } from "@/ui/WireSwatch";
import { demoCase } from "./helpers";

const push = jest.fn();
const refresh = jest.fn();
jest.mock("next/navigation", () => ({ useRouter: () => ({ push, refresh }) }));
jest.mock("@/server/db/connection", () => ({
  database: () => {
    throw new Error("no database here");
  },
}));

const answers: { status: number; body: unknown }[] = [];
const asked = jest.fn<Promise<unknown>, [string, RequestInit?]>(() => {
  const next = answers.shift();
  return next
    ? Promise.resolve({ ok: next.status < 400, status: next.status, json: () => Promise.resolve(next.body) })
    : Promise.reject(new TypeError("failed to fetch"));
});
beforeEach(() => {
  Object.assign(globalThis, { fetch: asked });
  push.mockClear();
  refresh.mockClear();
  asked.mockClear();
  answers.length = 0;
});
const settle = () =>
  act(async () => {
    for (let i = 0; i < 6; i++) await Promise.resolve();
  });
const sent = (n = 0) => JSON.parse(String(asked.mock.calls[n]?.[1]?.body)) as Record<string, unknown>;
/** Text that stands for bytes, one a character. */
const BYTES = "application/octet-stream";
const file = (name: string, text: string, type = "application/json") =>
  Object.assign(new File([text], name, { type }), {
    text: () => Promise.resolve(text),
    arrayBuffer: () => Promise.resolve(Uint8Array.from(Buffer.from(text, type === BYTES ? "latin1" : "utf8")).buffer),
  });

describe("a new job", () => {
  const open = () => {
    render(<NewJob wirings={[{ id: "w1", name: "Tug 4 engine sensors", machineType: "yard tug" }]} />);
    fireEvent.click(screen.getByRole("button", { name: "New job" }));
  };
  test("with a wiring still to be typed: three answers, then the workbench", async () => {
    open();
    fireEvent.change(screen.getByLabelText("Machine"), { target: { value: "Tug 9 " } });
    fireEvent.change(screen.getByLabelText("What the customer says"), {
      target: { value: "Lamps on. Comes and goes." },
    });
    answers.push({ status: 201, body: { id: "j1", wiringId: "w9" } });
    fireEvent.click(screen.getByRole("button", { name: "Start, and type the wiring" }));
    await settle();
    expect(sent()).toEqual({
      title: "Lamps on",
      machine: "Tug 9",
      complaint: "Lamps on. Comes and goes.",
      wiring: { machineType: "", nominalVolt: 12 },
    });
    expect(push).toHaveBeenCalledWith("/wiring/w9?job=j1");
  });
  test("refused, or no answer: said, and nothing typed is gone", async () => {
    open();
    fireEvent.change(screen.getByLabelText("Machine"), { target: { value: "Tug 9" } });
    fireEvent.click(screen.getByRole("button", { name: "Start, and type the wiring" }));
    await settle();
    expect(screen.getByRole("alert")).toHaveTextContent(/database/i);
    expect(screen.getByLabelText("Machine")).toHaveValue("Tug 9");
    expect(push).not.toHaveBeenCalled();
  });
});

describe("opening files", () => {
  const give = async (f: File) => {
    fireEvent.change(screen.getByTestId("import"), { target: { files: [f] } });
    await settle();
  };
  test("a case goes as JSON, a zip as it is", async () => {
    render(<OpenFile as="job" testId="import" />);
    answers.push({ status: 201, body: { id: "j1" } }, { status: 201, body: { id: "j2" } });
    await give(file("case.json", '{"format":"radicula/case"}'));
    await give(file("case.zip", "PK\u0003\u0004", "application/zip"));
    expect(asked.mock.calls.map((c) => (c[1]?.headers as Record<string, string>)["Content-Type"])).toEqual([
      "application/json",
      "application/zip",
    ]);
    expect(push.mock.calls.map((c) => c[0] as string)).toEqual(["/job/j1", "/job/j2"]);
  });
  test("a file that does not read: its name and every reason, with the place", async () => {
    render(<OpenFile as="job" testId="import" />);
    answers.push({
      status: 422,
      body: { issues: [{ code: "file.cut-short", path: [], params: { line: 3, column: 1 } }] },
    });
    await give(file("half.json", "{"));
    expect(screen.getByRole("alert")).toHaveTextContent("half.json was not taken; nothing was saved");
    expect(screen.getByRole("alert")).toHaveTextContent("stops in the middle");
  });
  test("a file too large is not even sent", async () => {
    render(<OpenFile as="job" testId="import" />);
    await give(Object.defineProperty(file("huge.json", "x"), "size", { value: 90_000_000 }));
    expect(asked).not.toHaveBeenCalled();
    expect(screen.getByRole("alert")).toHaveTextContent("huge.json was not taken");
  });
  test("a file of another sort is told what it is, and where it belongs, before anything is sent", async () => {
    render(<OpenFile as="job" testId="import" />);
    const tried = [
      ["w.graphml", '<?xml version="1.0"?><graphml xmlns="x"></graphml>', /graph/],
      ["w.cir", "* Tug 4\nV1 1 0 12\n.op\n.end\n", /netlist/],
      ["b7.jpg", "\u00ff\u00d8\u00ff\u00e0", /picture/],
      ["manual.pdf", "%PDF-1.7", /PDF/],
      ["scan.txt", "P0522 active\nP0237 active", /Open the job it belongs to/],
      ["trace.csv", "time,channel 1\n0.001,4.98", /a table/],
      ["pins.xlsx", "PK\u0003\u0004", /Save it as CSV/],
    ] as const;
    for (const [name, text, says] of tried) {
      await give(file(name, text, BYTES));
      expect(screen.getByRole("alert")).toHaveTextContent(says);
    }
    expect(asked).not.toHaveBeenCalled();
  });
  test("a pin chart is taken wherever it is dropped; a wiring becomes what the page is for", async () => {
    render(<OpenFile as="job" testId="import" />);
    answers.push(...["a", "b", "c"].map((id) => ({ status: 201, body: { id } })));
    await give(file("pins.csv", "connector,cavity\nB1,1\n"));
    await give(file("pins.chart.json", '{"format":"radicula/chart"}'));
    const dropped = Object.assign(new Event("drop", { cancelable: true }), {
      dataTransfer: { types: ["Files"], files: [file("w.json", '{"format":"radicula/wiring"}')] },
    });
    fireEvent(window, dropped);
    await settle();
    expect(push.mock.calls.map((c) => c[0] as string)).toEqual(["/wiring/a", "/wiring/b", "/job/c"]);
  });
  test("archived, and undone at once", async () => {
    render(
      <WithMessages>
        <PutAwayMenu kind="jobs" id="j1" name="Tug 4" where={null} />
      </WithMessages>,
    );
    answers.push({ status: 200, body: {} }, { status: 200, body: {} });
    fireEvent.click(screen.getByRole("button", { name: "More for Tug 4" }));
    fireEvent.click(await screen.findByText("Archive"));
    await settle();
    expect([asked.mock.calls[0]?.[0], sent()]).toEqual(["/api/jobs/j1/away", { where: "archived" }]);
    fireEvent.click(await screen.findByRole("button", { name: "Undo" }));
    await settle();
    expect(sent(1)).toEqual({ where: null });
    expect(refresh).toHaveBeenCalledTimes(2);
  });
  test("a table opens as a new wiring, JSON as it is", async () => {
    render(<NewWiring />);
    const wiringFile = async (f: File) => {
      fireEvent.change(screen.getByTestId("wiring-file"), { target: { files: [f] } });
      await settle();
    };
    answers.push(
      { status: 201, body: { id: "w1" } },
      { status: 201, body: { id: "w2" } },
      { status: 422, body: { issues: [{ code: "file.empty", path: [], params: {} }] } },
    );
    await wiringFile(file("pins.csv", "connector,cavity\nB1,1\n", "text/csv"));
    expect(sent()).toEqual({ csv: "connector,cavity\nB1,1\n", name: "pins" });
    await wiringFile(file("w.json", '{"format":"radicula/wiring"}'));
    expect(sent(1)).toEqual({ format: "radicula/wiring" });
    await wiringFile(file("none.csv", ""));
    expect(screen.getByRole("alert")).toHaveTextContent("none.csv was not taken");
    expect(push.mock.calls.map((c) => c[0] as string)).toEqual(["/wiring/w1", "/wiring/w2"]);
  });
  test("a copy goes to its own page", async () => {
    render(<CopyButton id="w1" />);
    answers.push({ status: 201, body: { id: "w7" } });
    fireEvent.click(screen.getByRole("button", { name: "Copy" }));
    await settle();
    expect([sent(), push.mock.calls[0]?.[0]]).toEqual([{ copyOf: "w1" }, "/wiring/w7"]);
  });
});

describe("lists", () => {
  test("the board without jobs starts the work", () => {
    render(<Board jobs={[]} older={0} wirings={[]} find="" state={undefined} sort="touched" machine={undefined} />);
    expect(screen.getByText(/No jobs yet/)).toBeVisible();
    expect(screen.getByRole("link", { name: "Wirings" })).toHaveAttribute("href", "/wirings");
  });
  test("the library: what was found, how many jobs, and an empty answer that says so", () => {
    const one = {
      id: "w1",
      name: "Tug 4",
      machineType: "",
      revision: 2,
      jobs: 1,
      rows: 1,
      changedAt: "2026-11-25T10:00:00Z",
      putAway: null,
      found: ["S14 · 5 V reference"],
    };
    const { rerender } = render(<Library wirings={[one]} words="s14" away={undefined} />);
    expect(screen.getByText("1 line · revision 2 · 1 job")).toBeVisible();
    expect(screen.getByText("machine type not named")).toBeVisible();
    expect(screen.getByText("S14 · 5 V reference")).toBeVisible();
    rerender(<Library wirings={[]} words="nothing" away={undefined} />);
    expect(screen.getByText(/Nothing here holds "nothing"/)).toBeVisible();
  });
  test("a search finds lines, parts and codes; all words have to stand somewhere", () => {
    const chart = {
      ...emptyChart("Tug 4"),
      machineType: "yard tug",
      parts: [
        {
          id: "B7",
          name: "boost sensor",
          partNumber: "SK-2210",
          place: "intake",
          side: "",
          comesOff: "",
          lookAlikes: "",
          alsoNumbers: "",
          zones: "",
          cautions: "",
          minutes: "",
          kind: "",
          values: "",
        },
      ],
      codes: [{ id: "P0237", module: "A1", title: "Boost low" }],
    };
    expect(searchChart(chart, [])).toEqual([]);
    expect(searchChart(chart, ["sk-2210"])).toEqual(["B7 · boost sensor · SK-2210 · intake"]);
    expect(searchChart(chart, ["boost", "p0237"])?.[0]).toBe("P0237 · Boost low");
    expect(searchChart(chart, ["boost", "carrier"])).toBeUndefined();
  });
});

describe("beside the table", () => {
  const wiring = demoCase().wiring;
  test("things by where they stand; found by name; long lists say how many more", () => {
    expect(groupThings(wiring).map((g) => [g.title, g.things.length])).toEqual([
      ["Sensors and actuators", 6],
      ["On the way", 4],
      ["Modules and feeds", 5],
    ]);
    const choose = jest.fn();
    const { rerender } = render(<Things wiring={wiring} chosen="B7" find="" onChoose={choose} />);
    fireEvent.click(screen.getByRole("button", { name: /B9/ }));
    expect(choose).toHaveBeenCalledWith("B9");
    expect(screen.getByRole("button", { name: /B7/ })).toHaveAttribute("aria-current", "true");
    rerender(<Things wiring={wiring} chosen={undefined} find="pedal" onChoose={choose} />);
    expect(screen.getAllByRole("button")).toHaveLength(1);
    const many = {
      ...wiring,
      devices: [
        ...wiring.devices,
        ...Array.from({ length: 100 }, (_, i) => ({
          kind: "splice" as const,
          id: `Z${i}`,
          zones: [],
          reachMinutes: 1,
          cautions: [],
        })),
      ],
    };
    rerender(<Things wiring={many} chosen={undefined} find="" onChoose={choose} />);
    expect(screen.getByText(/and 24 more: find them by name/)).toBeVisible();
  });
  test("a face shows every cavity, the chosen one marked, and is pressed", () => {
    const choose = jest.fn();
    const connector = wiring.connectors.find((c) => c.id === "B7")!;
    const { container } = render(<Face wiring={wiring} connector={connector} chosen="2" onChoose={choose} />);
    for (const cavity of connector.cavities) expect(container).toHaveTextContent(cavity);
    expect(screen.getAllByRole("button", { pressed: true })).toHaveLength(1);
    fireEvent.click(screen.getByRole("button", { name: "Cavity 1, OG/WH" }));
    fireEvent.keyDown(screen.getByRole("button", { name: /Cavity 3/ }), { key: "Enter" });
    expect(choose.mock.calls).toEqual([["1"], ["3"]]);
  });
  test("a cavity followed to its end; one without a wire says so", () => {
    const { rerender } = render(<FollowPath wiring={wiring} point="B7:1" />);
    expect(screen.getAllByRole("listitem").at(-1)).toHaveTextContent("A1 cavity 17");
    expect(screen.getByText(/Also on it: .*B9/)).toBeVisible();
    rerender(<FollowPath wiring={wiring} point="B7:9" />);
    expect(screen.getByText("No wire leaves this cavity yet.")).toBeVisible();
  });
  test("photos: added, refused with the reason, removed", async () => {
    const onPhotos = jest.fn();
    const photo = { id: "p1", connector: "B7", width: 40, height: 30 };
    const { rerender } = render(<Photos wiringId="w1" connector="B7" photos={[]} onPhotos={onPhotos} />);
    answers.push({ status: 201, body: { id: "p1", width: 40, height: 30 } });
    fireEvent.change(screen.getByTestId("photo"), { target: { files: [file("a.jpg", "x", "image/jpeg")] } });
    await settle();
    expect(onPhotos).toHaveBeenCalledWith([photo]);
    answers.push({ status: 422, body: { issues: [{ code: "photo.not-a-photo", path: [], params: {} }] } });
    fireEvent.change(screen.getByTestId("photo"), { target: { files: [file("a.svg", "<svg/>", "image/svg+xml")] } });
    await settle();
    expect(screen.getByRole("alert")).toHaveTextContent(/photo|picture/i);
    rerender(
      <Photos
        wiringId="w1"
        connector="B7"
        photos={[photo, { ...photo, id: "p2", connector: "B9" }]}
        onPhotos={onPhotos}
      />,
    );
    expect(screen.getAllByRole("img")).toHaveLength(1);
    answers.push({ status: 200, body: {} });
    fireEvent.click(screen.getByRole("button", { name: "Remove" }));
    await settle();
    expect(onPhotos).toHaveBeenLastCalledWith([{ ...photo, id: "p2", connector: "B9" }]);
  });
  test("a colour that is none is written and not drawn", () => {
    const { container, rerender } = render(<WireSwatch colour="OG/WH" />);
    expect(container).toHaveTextContent("OG/WH");
    expect(container.querySelectorAll("svg")).toHaveLength(1);
    rerender(<WireSwatch colour="tartan" />);
    expect(container).toHaveTextContent("tartan");
    expect(container.querySelectorAll("svg")).toHaveLength(0);
  });
});
