"use client";
import { meterPoints, parseQuantity, type Candidate, type Entry, type WiggleSample, type Wiring } from "@radicula/core";
import { shareText, unitOf, type Instructor, type Namer } from "@radicula/core/words";
import { Button, Input, Select, Switch } from "antd";
import { useEffect, useMemo, useState, type FormEvent, type KeyboardEvent } from "react";
import { thingChoices } from "../choices";
import { candidateOf } from "../reading/entries";
import { Sheet } from "../Sheet";
import { JUMP_VOLT, useWatch, type Watch } from "./useWatch";
import styles from "./Watch.module.css";
import { t } from "@/messages";

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
  /** a recording is opened in its place */
  readonly onRecord: () => void;
  readonly onLog: (entries: Entry[]) => void;
  readonly onClose: () => void;
}
/** Values of the trace, and places offered at first. */
const SHOWN = 160;
const PLACES = 6;
/** Values at a place before anything is said of it; product judgement, see `wiggleVerdict`. */
const ENOUGH = 8;
/** A chance below this is not given as a number. */
const HARDLY = 0.001;

/**
 * A watch one can hear: a tone follows the value and clicks when it jumps, while one place at a time is moved with the
 * eyes on the harness.
 */
export function WatchSheet(p: Props) {
  return (
    <Sheet open={p.open} onClose={p.onClose} title={t("watch.moveOnePlaceAtATime")} width={640}>
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
                label: t("watch.scanToolAt", { functionOf: instructor.functionOf(x.at), point: namer.point(x.at) }),
              }))
          : [],
      ),
      ...meterPoints(wiring).map((x) => ({
        value: `voltmeter ${x}`,
        label: t("watch.at", { functionOf: instructor.functionOf(x), point: namer.point(x) }),
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
        aria-label={t("watch.valueToWatch")}
        placeholder={t("watch.whichValueIsWatched")}
        value={watched ? `${watched.instrument} ${watched.point}` : undefined}
        showSearch={{ optionFilterProp: "label" }}
        onChange={(v: string) => {
          const [instrument, point] = v.split(" ");
          setWatched({ instrument: instrument as Watched["instrument"], point: point! });
        }}
        options={options}
      />
      {candidate ? <Watching key={candidate.id} {...p} candidate={candidate} /> : null}
      <p>
        <button type="button" className="link" onClick={p.onRecord}>
          {t("watch.itWasRecorded")}
        </button>
      </p>
    </div>
  );
}

function Watching(p: Props & { readonly candidate: Candidate }) {
  const { wiring, namer, practice, candidate, onLog } = p;
  const watch = useWatch(p);
  const [places, setPlaces] = useState<readonly string[]>(p.places.slice(0, PLACES));
  const label = (id: string) => (wiring.connectors.some((c) => c.id === id) ? namer.connector(id) : id);
  const onKey = (e: KeyboardEvent) => {
    const n = Number(e.key);
    if (watch.running && !practice && !/^[0-9]$|Tab|Escape/.test(e.key)) {
      watch.jump();
      e.preventDefault();
    } else if (!(e.target instanceof HTMLInputElement) && n >= 0 && n <= places.length) {
      watch.setMoving(n === 0 ? "" : places[n - 1]!);
      e.preventDefault();
    }
  };
  const told = watch.verdicts.filter((v) => v.of >= ENOUGH);
  const log = () =>
    onLog(
      told.map((v) => ({
        type: "wiggle",
        at: new Date().toISOString(),
        thing: v.place,
        reacted: v.reacted,
        note: t("watch.ofValuesJumped", { jumps: v.jumps, of: v.of }),
      })),
    );
  return (
    <div className={styles.watch} onKeyDown={onKey}>
      <p className="muted">{t("watch.keyOnMoveOnePlaceAfter")}</p>
      <Value watch={watch} practice={practice} candidate={candidate} />
      <Trace samples={watch.samples.slice(-SHOWN)} />
      <Controls watch={watch} practice={practice} candidate={candidate} />
      <Places watch={watch} wiring={wiring} places={places} onPlaces={setPlaces} label={label} />
      {watch.verdicts.length ? <Reactions watch={watch} label={label} /> : null}
      <Button type="primary" size="large" block disabled={told.length === 0} onClick={log}>
        {t("watch.logWhatReactedAndWhatDid")}
      </Button>
    </div>
  );
}

interface PartProps {
  readonly watch: Watch;
  readonly practice: boolean;
  readonly candidate: Candidate;
}

function Value({ watch, practice, candidate }: PartProps) {
  const { samples, running } = watch;
  const last = samples.at(-1)?.value;
  const before = samples.at(-2)?.value;
  const jump = last !== undefined && before !== undefined && Math.abs(last - before) > JUMP_VOLT;
  return (
    <output className={`mono ${styles.value}`} data-jump={jump} aria-label={t("watch.watchedValue")}>
      {running && !practice ? (
        last === 1 ? (
          t("watch.itJumped")
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
  );
}

function Controls({ watch, practice, candidate }: PartProps) {
  const { running, samples, hears, setHears, start, hold, jump } = watch;
  const byKey = samples.length > 0 && samples.every((s) => s.value === 0 || s.value === 1);
  return (
    <div className={styles.row}>
      {practice ? (
        <Button type="primary" onClick={running ? hold : start}>
          {running ? t("watch.hold") : t("watch.watchTheSimulatedMeter")}
        </Button>
      ) : running ? (
        <>
          <Button type="primary" danger size="large" onClick={jump}>
            {t("watch.itJumpedAnyKey")}
          </Button>
          <Button onClick={hold}>{t("watch.hold")}</Button>
        </>
      ) : byKey ? (
        <Button type="primary" onClick={start}>
          {t("watch.goOn")}
        </Button>
      ) : (
        <TypedValues watch={watch} candidate={candidate} />
      )}
      {practice || running || samples.length ? null : (
        <Button onClick={start}>{t("watch.orPressAnyKeyWheneverIt")}</Button>
      )}
      <label className={styles.row}>
        <Switch size="small" checked={hears} onChange={setHears} aria-label={t("watch.tone")} /> {t("watch.tone2")}
      </label>
    </div>
  );
}

function TypedValues({ watch, candidate }: Pick<PartProps, "watch" | "candidate">) {
  const [typed, setTyped] = useState("");
  const take = (e: FormEvent) => {
    e.preventDefault();
    const read = parseQuantity(typed, unitOf(candidate.instrument));
    if (!read.ok || !Number.isFinite(read.value)) return;
    watch.take(read.value);
    setTyped("");
  };
  return (
    <form onSubmit={take}>
      <Input
        className="mono"
        size="large"
        autoFocus
        aria-label={t("watch.valueNow")}
        placeholder={t("watch.typeItAgainAndAgainEnter")}
        value={typed}
        maxLength={40}
        onChange={(e) => setTyped(e.target.value)}
      />
    </form>
  );
}

function Places({
  watch,
  wiring,
  places,
  onPlaces,
  label,
}: Pick<PartProps, "watch"> & {
  readonly wiring: Wiring;
  readonly places: readonly string[];
  readonly onPlaces: (places: readonly string[]) => void;
  readonly label: (id: string) => string;
}) {
  const { moving, setMoving } = watch;
  return (
    <div className={styles.places} role="group" aria-label={t("watch.whatIsBeingMoved")}>
      <Button
        type={moving === "" ? "primary" : "default"}
        ghost={moving === ""}
        aria-pressed={moving === ""}
        onClick={() => setMoving("")}
      >
        <kbd>0</kbd> {t("watch.nothing")}
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
        aria-label={t("watch.anotherPlace")}
        placeholder={t("watch.anotherPlace")}
        value={null}
        showSearch={{ optionFilterProp: "label" }}
        style={{ width: 180 }}
        onChange={(v: string | null) => {
          if (v && !places.includes(v)) onPlaces([...places, v]);
        }}
        options={thingChoices(wiring)}
      />
    </div>
  );
}

function Reactions({ watch, label }: Pick<PartProps, "watch"> & { readonly label: (id: string) => string }) {
  return (
    <ul className={styles.verdicts} aria-label={t("watch.whatReacted")}>
      {watch.verdicts.map((v) => (
        <li key={v.place} data-reacted={v.reacted}>
          <span>
            {label(v.place)}:{" "}
            {v.reacted ? t("watch.itReacted") : v.of < ENOUGH ? t("watch.tooFewValuesYet") : t("watch.noReaction")}
          </span>
          <span>{t("watch.ofJumped", { jumps: v.jumps, of: v.of })}</span>
          <span>
            {v.jumps
              ? t("watch.luckWouldDoThat", { chance: v.chance < HARDLY ? t("watch.below01") : shareText(v.chance) })
              : ""}
          </span>
        </li>
      ))}
    </ul>
  );
}

function Trace({ samples }: { readonly samples: readonly WiggleSample[] }) {
  if (samples.length < 2) return <svg className={styles.line} role="img" aria-label={t("watch.nothingWatchedYet")} />;
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
      aria-label={t("watch.theLastValuesFromTo", {
        samplesCount: samples.length,
        low: low.toFixed(2),
        high: high.toFixed(2),
      })}
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
