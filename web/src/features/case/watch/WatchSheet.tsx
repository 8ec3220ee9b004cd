"use client";
import {
  meterPoints,
  parseQuantity,
  wiggleVerdict,
  type Candidate,
  type Entry,
  type WiggleSample,
  type Wiring,
} from "@radicula/core";
import { shareText, unitOf, type Instructor, type Namer } from "@radicula/core/words";
import { Button, Input, Select, Switch } from "antd";
import { useEffect, useMemo, useRef, useState } from "react";
import { z } from "zod";
import { thingChoices } from "../choices";
import { candidateOf } from "../reading/entries";
import { Sheet } from "../Sheet";
import { makeTone, type Tone } from "./tone";
import styles from "./Watch.module.css";

interface Props {
  readonly open: boolean;
  readonly jobId: string;
  readonly wiring: Wiring;
  readonly namer: Namer;
  readonly instructor: Instructor;
  readonly practice: boolean;
  /** the value asked for, if one was; else the best one; and the places worth moving */
  readonly asked: string | undefined;
  readonly best: () => Promise<Watched | undefined>;
  readonly places: readonly string[];
  readonly onLog: (entries: Entry[]) => void;
  readonly onClose: () => void;
}
const EVERY_MS = 250;
const SHOWN = 160;
const JUMP = 0.15;
const Answer = z.object({ values: z.array(z.unknown()) });

/** A watch one can hear: a tone follows the value and clicks when it jumps, while one place at a time is moved with the eyes on the harness. */
export function WatchSheet(p: Props) {
  return (
    <Sheet open={p.open} onClose={p.onClose} title="Move one place at a time" width={640}>
      <Choose {...p} />
    </Sheet>
  );
}

/** A value that can be watched: a pin, or what the module makes of one. */
interface Watched {
  readonly instrument: "voltmeter" | "scanTool";
  readonly point: string;
}

function Choose(p: Props) {
  const [watched, setWatched] = useState<Watched | undefined>(
    p.asked === undefined ? undefined : { instrument: "voltmeter", point: p.asked },
  );
  const { best, asked, wiring, namer, instructor } = p;
  useEffect(() => {
    if (asked === undefined)
      void best().then(
        (w) => setWatched((now) => now ?? w),
        () => undefined,
      );
  }, [best, asked]);
  const options = useMemo(
    () => [
      ...wiring.devices.flatMap((d) =>
        d.kind === "module"
          ? d.pins
              .filter((x) => x.role === "input")
              .map((x) => ({
                value: `scanTool ${x.at}`,
                label: `Scan tool: ${instructor.functionOf(x.at)} at ${namer.point(x.at)}`,
              }))
          : [],
      ),
      ...meterPoints(wiring).map((x) => ({
        value: `voltmeter ${x}`,
        label: `${instructor.functionOf(x)} at ${namer.point(x)}`,
      })),
    ],
    [wiring, namer, instructor],
  );
  const candidate =
    watched &&
    candidateOf({ instrument: watched.instrument, points: [watched.point], state: { key: "on", unplugged: [] } });
  return (
    <div className={styles.watch}>
      <Select
        aria-label="Value to watch"
        placeholder="Which value is watched?"
        value={watched ? `${watched.instrument} ${watched.point}` : undefined}
        showSearch={{ optionFilterProp: "label" }}
        onChange={(v: string) => {
          const [instrument, point] = v.split(" ");
          setWatched({ instrument: instrument as Watched["instrument"], point: point! });
        }}
        options={options}
      />
      {candidate ? <Body key={candidate.id} {...p} candidate={candidate} /> : null}
    </div>
  );
}

function Body({
  jobId,
  wiring,
  namer,
  practice,
  candidate,
  places: first,
  onLog,
}: Props & { readonly candidate: Candidate }) {
  const [samples, setSamples] = useState<readonly WiggleSample[]>([]);
  const [moving, setMoving] = useState("");
  const [running, setRunning] = useState(false);
  const [hears, setHears] = useState(true);
  const [typed, setTyped] = useState("");
  const [places, setPlaces] = useState<readonly string[]>(first.slice(0, 6));
  const tone = useRef<Tone | undefined>(undefined);
  const tick = useRef(0);
  const now = useRef({ moving: "", hears: true });
  useEffect(() => {
    now.current = { moving, hears };
  });
  useEffect(() => () => tone.current?.stop(), []);
  const take = (value: number) => {
    setSamples((list) => {
      const last = list.at(-1)?.value;
      if (now.current.hears) {
        tone.current?.sound(value);
        if (last !== undefined && Math.abs(value - last) > JUMP) tone.current?.click();
      }
      return [...list, { place: now.current.moving, value }];
    });
  };
  // on a simulated machine the value streams by itself
  useEffect(() => {
    if (!running || !practice) return;
    let on = true;
    const read = async () => {
      try {
        const response = await fetch(`/api/jobs/${jobId}/measure`, {
          method: "POST",
          headers: { "Content-Type": "application/json" },
          body: JSON.stringify({
            points: candidate.points,
            instrument: candidate.instrument,
            kind: candidate.kind,
            state: candidate.state,
            watch: { tick: tick.current++, ...(now.current.moving ? { moving: now.current.moving } : {}) },
          }),
        });
        const value = Answer.parse(await response.json()).values[0];
        if (on && typeof value === "number") take(value);
      } catch {
        /* the next one */
      }
      if (on) timer = setTimeout(() => void read(), EVERY_MS);
    };
    let timer = setTimeout(() => void read(), 0);
    return () => {
      on = false;
      clearTimeout(timer);
    };
  }, [running, practice, jobId, candidate]);
  // on a real machine somebody watches the meter: each second counts as still, unless a key says that it jumped
  const jumped = useRef(false);
  useEffect(() => {
    if (!running || practice) return;
    const timer = setInterval(() => {
      take(jumped.current ? 1 : 0);
      jumped.current = false;
    }, 1000);
    return () => clearInterval(timer);
  }, [running, practice]);
  const start = () => {
    tone.current ??= makeTone([0, wiring.nominalVolt === 24 ? 5.5 : 5.5]);
    setRunning(true);
  };
  const verdicts = useMemo(() => wiggleVerdict(samples), [samples]);
  const last = samples.at(-1)?.value;
  const before = samples.at(-2)?.value;
  const jump = last !== undefined && before !== undefined && Math.abs(last - before) > JUMP;
  const label = (id: string) => (wiring.connectors.some((c) => c.id === id) ? namer.connector(id) : id);
  return (
    <div
      className={styles.watch}
      onKeyDown={(e) => {
        const n = Number(e.key);
        if (running && !practice && !/^[0-9]$|Tab|Escape/.test(e.key)) {
          jumped.current = true;
          tone.current?.click();
          e.preventDefault();
          return;
        }
        if (!(e.target instanceof HTMLInputElement) && n >= 0 && n <= places.length) {
          setMoving(n === 0 ? "" : places[n - 1]!);
          e.preventDefault();
        }
      }}
    >
      <p className="muted">Key on. Move one place after the other; eyes on the harness, ears on the tone.</p>
      <output className={`mono ${styles.value}`} data-jump={jump} aria-label="Watched value">
        {running && !practice ? (
          last === 1 ? (
            "it jumped"
          ) : (
            "still"
          )
        ) : last === undefined ? (
          "– – –"
        ) : (
          <>
            {last.toFixed(2)} <small>{unitOf(candidate.instrument)}</small>
          </>
        )}
      </output>
      <Trace samples={samples.slice(-SHOWN)} />
      <div className={styles.row}>
        {practice ? (
          <Button type="primary" onClick={() => (running ? setRunning(false) : start())}>
            {running ? "Hold" : "Watch the simulated meter"}
          </Button>
        ) : running ? (
          <>
            <Button
              type="primary"
              danger
              size="large"
              onClick={() => {
                jumped.current = true;
                tone.current?.click();
              }}
            >
              It jumped (any key)
            </Button>
            <Button onClick={() => setRunning(false)}>Hold</Button>
          </>
        ) : samples.length && samples.every((s) => s.value === 0 || s.value === 1) ? (
          <Button type="primary" onClick={start}>
            Go on
          </Button>
        ) : (
          <form
            onSubmit={(e) => {
              e.preventDefault();
              const read = parseQuantity(typed, unitOf(candidate.instrument));
              if (read.ok && Number.isFinite(read.value)) {
                tone.current ??= makeTone([0, 5.5]);
                take(read.value);
                setTyped("");
              }
            }}
          >
            <Input
              className="mono"
              size="large"
              autoFocus
              aria-label="Value now"
              placeholder="Type it again and again, Enter each time"
              value={typed}
              maxLength={40}
              onChange={(e) => setTyped(e.target.value)}
            />
          </form>
        )}
        {practice || running || samples.length ? null : (
          <Button onClick={start}>Or press any key whenever it jumps</Button>
        )}
        <label className={styles.row}>
          <Switch size="small" checked={hears} onChange={setHears} aria-label="Tone" /> tone
        </label>
      </div>
      <div className={styles.places} role="group" aria-label="What is being moved">
        <Button
          type={moving === "" ? "primary" : "default"}
          ghost={moving === ""}
          aria-pressed={moving === ""}
          onClick={() => setMoving("")}
        >
          <kbd>0</kbd> Nothing
        </Button>
        {places.map((x, i) => (
          <Button
            key={x}
            type={moving === x ? "primary" : "default"}
            ghost={moving === x}
            aria-pressed={moving === x}
            onClick={() => setMoving(x)}
          >
            <kbd>{i + 1}</kbd> {label(x)}
          </Button>
        ))}
        <Select
          aria-label="Another place"
          placeholder="Another place"
          value={null}
          showSearch={{ optionFilterProp: "label" }}
          style={{ width: 180 }}
          onChange={(v: string | null) => {
            if (v && !places.includes(v)) setPlaces([...places, v]);
          }}
          options={thingChoices(wiring)}
        />
      </div>
      {verdicts.length ? (
        <ul className={styles.verdicts} aria-label="What reacted">
          {verdicts.map((v) => (
            <li key={v.place} data-reacted={v.reacted}>
              <span>
                {label(v.place)}: {v.reacted ? "it reacted" : v.of < 8 ? "too few values yet" : "no reaction"}
              </span>
              <span>
                {v.jumps} of {v.of} jumped
              </span>
              <span>
                {v.jumps ? `luck would do that: ${v.chance < 0.001 ? "below 0.1 %" : shareText(v.chance)}` : ""}
              </span>
            </li>
          ))}
        </ul>
      ) : null}
      <Button
        type="primary"
        size="large"
        block
        disabled={!verdicts.some((v) => v.of >= 8)}
        onClick={() =>
          onLog(
            verdicts
              .filter((v) => v.of >= 8)
              .map((v) => ({
                type: "wiggle",
                at: new Date().toISOString(),
                thing: v.place,
                reacted: v.reacted,
                note: `${v.jumps} of ${v.of} values jumped`,
              })),
          )
        }
      >
        Log what reacted and what did not
      </Button>
    </div>
  );
}

function Trace({ samples }: { readonly samples: readonly WiggleSample[] }) {
  if (samples.length < 2) return <svg className={styles.line} role="img" aria-label="Nothing watched yet" />;
  const values = samples.map((s) => s.value);
  const low = Math.min(...values) - 0.1;
  const high = Math.max(...values) + 0.1;
  const x = (i: number) => (i / (samples.length - 1)) * 600;
  const y = (v: number) => 84 - ((v - low) / (high - low)) * 78;
  return (
    <svg
      className={styles.line}
      viewBox="0 0 600 90"
      preserveAspectRatio="none"
      role="img"
      aria-label={`The last ${samples.length} values, from ${low.toFixed(2)} to ${high.toFixed(2)}`}
    >
      {samples.map((s, i) =>
        s.place === "" ? null : <rect key={i} x={x(i) - 2} y={0} width={5} height={90} fill="var(--accent-tint)" />,
      )}
      <polyline
        fill="none"
        stroke="var(--accent)"
        strokeWidth="2"
        vectorEffect="non-scaling-stroke"
        points={samples.map((s, i) => `${x(i)},${y(s.value)}`).join(" ")}
      />
    </svg>
  );
}
