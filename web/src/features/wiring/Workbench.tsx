"use client";
import { type Chart, type Claim, type Issue, connectorOf } from "@radicula/core";
import { takeClaim, writeCsv, type TemplateKind } from "@radicula/core";
import { issueText, KIND_WORDS } from "@radicula/core/words";
import { Button, Dropdown, Input, Segmented, Select, type InputRef } from "antd";
import dynamic from "next/dynamic";
import Link from "next/link";
import { z } from "zod";
import { useRouter } from "next/navigation";
import { memo, useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from "react";
import { say } from "@/messages/issues";
import type { LibraryWiring, PhotoInfo } from "@/server/repo/wirings";
import { Logo } from "@/ui/Logo";
import { post, Done } from "@/ui/send";
import { ThemeToggle } from "@/ui/ThemeToggle";
import { addPart, keepSame, tidyRows } from "./edit";
import { findIn } from "./find";
import type { GridHandle } from "./grid/PinGrid";
import { PasteChart } from "./PasteChart";
import { Panel } from "./Panel";
import { Codes } from "./Codes";
import { Revisions } from "./Revisions";
import { Things } from "./Things";
import { useBuilt } from "./useBuilt";
import { useChart } from "./useChart";
import { dropAside, keptDraft, useDraft, type DraftState } from "./useDraft";
import styles from "./Workbench.module.css";

const PinGrid = dynamic(() => import("./grid/PinGrid").then((m) => m.PinGrid), {
  ssr: false,
  loading: () => (
    <p className="muted" style={{ padding: 24 }}>
      Opening the table…
    </p>
  ),
});
const DrawingView = dynamic(() => import("./drawing/DrawingView").then((m) => m.DrawingView), { ssr: false });

type View = "pins" | "drawing" | "codes" | "revisions";
interface Props {
  readonly wiring: LibraryWiring;
  readonly job: { readonly id: string; readonly title: string; readonly started: boolean } | null;
  readonly view: View;
  readonly kept?: { readonly chart: Chart; readonly current: boolean };
}
const ADD: readonly TemplateKind[] = ["threeWireSensor", "hall", "thermistor", "heater", "busNode", "splice", "inline"];
const ADD_MORE: readonly TemplateKind[] = [
  "potentiometer",
  "pedal",
  "coilSensor",
  "currentLoop",
  "smartSensor",
  "solenoid",
  "lamp",
  "relay",
  "fuse",
  "ground",
  "battery",
];
const SAVE_WORDS: Readonly<Record<DraftState, string>> = {
  saved: "Saved",
  saving: "Saving…",
  waiting: "Not saved yet: kept on this device",
  stale: "Changed in another window",
  refused: "Not saved: the server refuses it",
};

/** The wiring workbench: the pin chart to type, what it adds up to, the drawing, codes, revisions. */
export function Workbench(props: Props) {
  // what this device could not save on an earlier visit comes first
  const [start] = useState(() =>
    typeof window === "undefined" ? undefined : keptDraft(props.wiring.id, props.wiring.draftSeq, window.localStorage),
  );
  return <Bench {...props} {...(start ? { kept: start } : {})} />;
}

function Bench({ wiring: library, job, view: first, kept }: Props) {
  const history = useChart(useMemo(() => withRow(library.draft), [library.draft]));
  const { chart, change, undo, redo, replace } = history;
  // what was put together, and what stands beside the table, may come a moment after the typing
  const built = useDeferredValue(useBuilt(chart).built);
  const slow = useDeferredValue(chart);
  const draft = useDraft(library.id, library.draftSeq, chart);
  const router = useRouter();
  const [view, setView] = useState<View>(first);
  const [thing, setThing] = useState<string | undefined>(undefined);
  const [row, setRow] = useState(0);
  const [more, setMore] = useState(false);
  const [pasting, setPasting] = useState(false);
  const [find, setFind] = useState("");
  const [revisions, setRevisions] = useState(library.revisions);
  const [photos, setPhotos] = useState<readonly PhotoInfo[]>(library.photos);
  const [leftOut, setLeftOut] = useState<readonly Issue[]>([]);
  const [going, setGoing] = useState(false);
  const grid = useRef<GridHandle>(null);
  const finder = useRef<InputRef>(null);
  useEffect(() => {
    if (kept?.current) replace(withRow(kept.chart));
  }, [kept, replace]);
  const [aside, setAside] = useState(kept && !kept.current ? kept.chart : undefined);

  const onRows = useCallback(
    (make: (rows: Chart["rows"]) => readonly Chart["rows"][number][]) =>
      change((c) => {
        const rows = keepSame(make(c.rows), c.rows);
        return rows === c.rows ? c : { ...c, rows: [...rows] };
      }),
    [change],
  );
  const points = built?.points;
  const onActive = useCallback((at: number) => {
    setRow(at);
    setThing(undefined);
  }, []);
  const point = points?.[row] ?? "";
  const chosen = thing ?? (point ? connectorOf(point) : undefined);
  const goToThing = useCallback(
    (id: string) => {
      setThing(id);
      const at = points?.findIndex((p) => p === id || p.startsWith(`${id}:`)) ?? -1;
      if (at >= 0) {
        setRow(at);
        grid.current?.goTo(at);
        setThing(id);
      }
    },
    [points],
  );
  const add = (kind: TemplateKind) => {
    const made = addPart(chart, kind);
    change(() => made.chart);
    setView("pins");
    setThing(undefined);
    setTimeout(
      () => grid.current?.goTo(made.firstRow, kind === "splice" || kind === "ground" ? "goesTo" : "colour"),
      0,
    );
  };
  const freeze = async (note: string): Promise<boolean> => {
    if (!(await draft.flush())) return false;
    const made = await post(`/api/wirings/${library.id}/revisions`, { note }, z.object({ number: z.number() }));
    if (!made.ok) return false;
    const { number } = made.body;
    setRevisions((list) =>
      list.some((r) => r.number === number)
        ? list
        : [{ number, note, at: new Date().toISOString(), draftSeq: 0 }, ...list],
    );
    return true;
  };
  const [refused, setRefused] = useState<readonly Issue[]>([]);
  const toJob = useCallback(async () => {
    if (!job) return;
    setGoing(true);
    if (await draft.flush()) {
      const moved = await post(`/api/jobs/${job.id}/revision`, {}, Done);
      if (moved.ok) {
        router.push(`/job/${job.id}${job.started ? "" : "?sheet=codes"}`);
        return;
      }
      setRefused(moved.issues);
    }
    setGoing(false);
  }, [draft, job, router]);

  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey)) return;
      const editing = e.target instanceof HTMLInputElement || e.target instanceof HTMLTextAreaElement;
      const key = e.key.toLowerCase();
      if (
        key === "z" &&
        !(editing && document.activeElement === e.target && !(e.target as HTMLElement).closest(".dsg-container"))
      ) {
        e.preventDefault();
        if (e.shiftKey) redo();
        else undo();
      } else if (key === "y" && !editing) {
        e.preventDefault();
        redo();
      } else if (key === "k") {
        e.preventDefault();
        finder.current?.focus();
      } else if (key === "enter" && job) {
        e.preventDefault();
        if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
        setTimeout(() => void toJob(), 30);
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [undo, redo, job, toJob]);

  const goToRow = useCallback((at: number, column?: keyof Chart["rows"][number]) => {
    grid.current?.goTo(at, column);
    setRow(at);
  }, []);
  const takeIt = useCallback((claim: Claim) => change((c) => takeClaim(c, claim)), [change]);
  const dropIt = useCallback(
    (claim: Claim) => change((c) => ({ ...c, claims: c.claims.filter((x) => x !== claim) })),
    [change],
  );
  const onCavity = useCallback(
    (cavity: string) => {
      const at = points?.indexOf(`${chosen ?? ""}:${cavity}`) ?? -1;
      if (at >= 0) goToRow(at);
    },
    [points, chosen, goToRow],
  );
  const found = useMemo(() => (built ? findIn(built.wiring, find) : undefined), [built, find]);
  const nextFound = () => {
    if (!found || !points) return;
    const wires = new Set([...found.wires]);
    const hit = (i: number) => {
      const p = points[i];
      return Boolean(
        p &&
        (found.things.has(connectorOf(p)) ||
          [...wires].some((w) => w === p || w.startsWith(`${p}~`) || w.endsWith(`~${p}`) || chart.rows[i]?.wire === w)),
      );
    };
    const at = chart.rows.findIndex((_, i) => i > row && hit(i));
    const again = at >= 0 ? at : chart.rows.findIndex((_, i) => hit(i));
    if (again >= 0) {
      grid.current?.goTo(again);
      setRow(again);
    }
  };
  const title = chart.name || "New wiring";
  const issues = built?.issues ?? NONE;

  return (
    <div className={styles.page}>
      <header className={styles.head}>
        <Link href="/" className={styles.brand} aria-label="All jobs">
          <Logo /> radicula
        </Link>
        <h1>
          <Input
            variant="borderless"
            size="small"
            aria-label="Name of the wiring"
            value={chart.name}
            placeholder="Name of the wiring"
            maxLength={120}
            onChange={(e) => change((c) => ({ ...c, name: e.target.value }))}
            style={{ width: `${Math.min(30, Math.max(12, title.length * 0.95 + 1))}ch`, fontWeight: 700 }}
          />
        </h1>
        <Input
          variant="borderless"
          size="small"
          aria-label="Machine type"
          value={chart.machineType}
          placeholder="machine type"
          maxLength={80}
          onChange={(e) => change((c) => ({ ...c, machineType: e.target.value }))}
          style={{ width: 150 }}
        />
        <Select
          size="small"
          variant="borderless"
          aria-label="Nominal voltage"
          value={chart.nominalVolt}
          onChange={(v: 12 | 24) => change((c) => ({ ...c, nominalVolt: v }))}
          options={[
            { value: 12, label: "12 V" },
            { value: 24, label: "24 V" },
          ]}
        />
        <span className="muted" role="status" data-state={draft.state}>
          {SAVE_WORDS[draft.state]}
        </span>
        <span className={styles.tools}>
          <Input
            ref={finder}
            size="small"
            allowClear
            placeholder="Find name, colour, code"
            aria-label="Find"
            value={find}
            onChange={(e) => setFind(e.target.value)}
            onPressEnter={nextFound}
            style={{ width: 190 }}
          />
          <ThemeToggle />
          {job ? (
            <Button type="primary" loading={going} onClick={() => void toJob()} title="Ctrl Enter">
              {job.started ? "Back to the job" : "To the codes"}
            </Button>
          ) : null}
        </span>
      </header>
      <div className={styles.sub}>
        <Segmented
          value={view}
          onChange={(v) => setView(v as View)}
          options={[
            { value: "pins", label: "Pin chart" },
            { value: "drawing", label: "Drawing" },
            { value: "codes", label: "Codes" },
            { value: "revisions", label: "Revisions" },
          ]}
        />
        <Button type="text" onClick={() => setPasting(true)}>
          Paste a chart
        </Button>
        <Button type="text" disabled={!history.canUndo} onClick={undo}>
          Undo
        </Button>
        <Button type="text" disabled={!history.canRedo} onClick={redo}>
          Redo
        </Button>
        {view === "pins" ? (
          <Button type="text" onClick={() => setMore((m) => !m)} aria-pressed={more}>
            {more ? "Fewer columns" : "More columns"}
          </Button>
        ) : null}
        <Dropdown
          trigger={["click"]}
          menu={{
            items: [
              ["wiring", "Wiring, JSON"],
              ["chart", "Chart, JSON"],
              ["csv", "Pin chart, CSV"],
              ["graphml", "GraphML"],
              ["spice", "SPICE netlist"],
            ].map(([as, label]) => ({
              key: as!,
              label: (
                <a
                  href={`/api/wirings/${library.id}/export?as=${as}`}
                  onClick={() => {
                    void draft.flush();
                    setLeftOut(as === "csv" ? writeCsv(chart).issues : []);
                  }}
                >
                  {label}
                </a>
              ),
            })),
          }}
        >
          <Button type="text">Save as</Button>
        </Dropdown>
        <Link href={`/wiring/${library.id}/print`} className={styles.print} target="_blank">
          Print the chart
        </Link>
      </div>
      {draft.state === "stale" ? (
        <div className={styles.alert} role="alert">
          Somebody changed this wiring in another window. Yours is kept on this device.{" "}
          <Button size="small" onClick={() => window.location.reload()}>
            Show theirs
          </Button>
          <Button size="small" onClick={draft.overwrite}>
            Keep mine
          </Button>
        </div>
      ) : null}
      {aside ? (
        <div className={styles.alert} role="alert">
          On an earlier visit {aside.rows.length === 1 ? "one line" : `${aside.rows.length} lines`} could not be saved,
          and somebody has changed the wiring since.{" "}
          <Button
            size="small"
            onClick={() => {
              replace(withRow(aside));
              dropAside(library.id);
              setAside(undefined);
            }}
          >
            Show those
          </Button>
          <Button
            size="small"
            onClick={() => {
              dropAside(library.id);
              setAside(undefined);
            }}
          >
            Not wanted
          </Button>
        </div>
      ) : null}
      {leftOut.length ? (
        <div className={styles.alert} role="status">
          {leftOut.map((i) => issueText(i)).join(" ")}{" "}
          <Button size="small" onClick={() => setLeftOut([])}>
            Understood
          </Button>
        </div>
      ) : null}
      {refused.length ? (
        <div className={styles.alert} role="alert">
          {refused.map((i) => say(i).text).join(" ")}
        </div>
      ) : null}
      <main className={styles.main} data-view={view}>
        {view === "drawing" ? null : built ? (
          <Things wiring={built.wiring} chosen={chosen} find={find} onChoose={goToThing} />
        ) : (
          <nav className={styles.things} />
        )}
        <div className={styles.middle}>
          {view === "pins" ? (
            <div className={styles.card}>
              <PinGrid ref={grid} rows={chart.rows} built={built} more={more} onRows={onRows} onActive={onActive} />
              <div className={styles.adds} aria-label="Add a part">
                {ADD.map((k) => (
                  <button key={k} type="button" onClick={() => add(k)}>
                    + {KIND_WORDS[k]}
                  </button>
                ))}
                <Dropdown
                  trigger={["click"]}
                  menu={{ items: ADD_MORE.map((k) => ({ key: k, label: KIND_WORDS[k], onClick: () => add(k) })) }}
                >
                  <button type="button">+ more</button>
                </Dropdown>
              </div>
              <Notes issues={issues} claims={slow.claims} onRow={goToRow} onTake={takeIt} onDrop={dropIt} />
            </div>
          ) : null}
          {view === "drawing" && built ? (
            <DrawingView wiring={built.wiring} thing={chosen} find={find} onThing={goToThing} />
          ) : null}
          {view === "codes" && built ? (
            <div className={styles.card}>
              <Codes chart={chart} wiring={built.wiring} onChange={change} />
            </div>
          ) : null}
          {view === "revisions" ? (
            <div className={styles.card}>
              <Revisions
                wiringId={library.id}
                revisions={revisions}
                onFreeze={async (note) => {
                  await freeze(note);
                }}
              />
            </div>
          ) : null}
        </div>
        {built && (view === "pins" || view === "drawing") ? (
          <Panel
            wiringId={library.id}
            chart={slow}
            wiring={built.wiring}
            built={built}
            id={chosen}
            point={connectorOf(point) === chosen ? point : firstPoint(built.points, chosen)}
            photos={photos}
            onChange={change}
            onPhotos={setPhotos}
            onCavity={onCavity}
          />
        ) : null}
      </main>
      <PasteChart
        open={pasting}
        chart={chart}
        onClose={() => setPasting(false)}
        onTake={(c) => {
          change(() => withRow({ ...c, rows: tidyRows(c.rows, chart.rows) }));
          setPasting(false);
        }}
      />
    </div>
  );
}
const NONE: readonly Issue[] = [];
/** A table always has a line to type into. */
const withRow = (chart: Chart): Chart =>
  chart.rows.length
    ? chart
    : {
        ...chart,
        rows: [
          {
            connector: "",
            cavity: "",
            colour: "",
            mm2: "",
            function: "",
            goesTo: "",
            source: "",
            lengthM: "",
            bundle: "",
            zones: "",
            part: "",
            values: "",
            wire: "",
          },
        ],
      };
const firstPoint = (points: readonly string[], id: string | undefined) =>
  points.find((p) => p === id || p.startsWith(`${id}:`)) ?? id ?? "";

/** What was not taken, what was guessed, what two sources say differently: each with the way to it. */
const Notes = memo(function Notes({
  issues,
  claims,
  onRow,
  onTake,
  onDrop,
}: {
  readonly issues: readonly Issue[];
  readonly claims: readonly Claim[];
  readonly onRow: (row: number, column: keyof Chart["rows"][number]) => void;
  readonly onTake: (claim: Claim) => void;
  readonly onDrop: (claim: Claim) => void;
}) {
  if (issues.length + claims.length === 0) return null;
  return (
    <div className={styles.notes} aria-label="What needs a look">
      {claims.slice(0, 30).map((c) => (
        <p key={`${c.at} ${c.field} ${c.value}`} className={styles.claim}>
          <span>
            <b className="mono">{c.at}</b> {c.source} says {c.field === "goesTo" ? "it goes to" : c.field}{" "}
            <b>{c.value}</b>. Either the chart is of another build, or this is another component.
          </span>
          <span>
            <Button size="small" onClick={() => onTake(c)}>
              Go by {c.source}
            </Button>
            <Button size="small" type="text" onClick={() => onDrop(c)}>
              Drop it
            </Button>
          </span>
        </p>
      ))}
      {issues.slice(0, 60).map((i, n) => {
        const at = i.path[0] === "rows" && typeof i.path[1] === "number" ? i.path[1] : undefined;
        return (
          <p key={n}>
            {at === undefined ? null : (
              <button
                type="button"
                className="link"
                onClick={() =>
                  onRow(at, (typeof i.path[2] === "string" ? i.path[2] : "connector") as keyof Chart["rows"][number])
                }
              >
                line {at + 1}
              </button>
            )}{" "}
            {issueText(i)}
          </p>
        );
      })}
      {issues.length > 60 ? <p className="muted">and {issues.length - 60} more</p> : null}
    </div>
  );
});
