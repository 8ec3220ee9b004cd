"use client";
import { fittingUnit, type ChannelPlace, type Doing, type KeyState, type State, type TraceEntry } from "@radicula/core";
import { DANGER_WORDS, keyText } from "@radicula/core/words";
import { Button, InputNumber, Select, Switch } from "antd";
import { useEffect, useMemo, useRef, useState } from "react";
import { LongWork } from "@/ui/LongWork";
import { RefusedFile } from "@/ui/RefusedFile";
import { useMessages } from "@/ui/Theme";
import { say } from "@/messages/issues";
import { Sheet } from "../Sheet";
import { now } from "../session/useCaseSession";
import { Channels } from "./Channels";
import { Events } from "./Events";
import { sendRecording, keptRecording } from "./keep";
import { Bus } from "./Bus";
import { Moved } from "./Moved";
import { PatternSearch } from "./PatternSearch";
import type { MovedPlace, MovedWhen } from "./movedWhen";
import { DOINGS, KEY_WHILE, type RecordingProps } from "./props";
import { guessedPlace, placeChoices } from "./places";
import { RecordSimulated } from "./RecordSimulated";
import styles from "./Recording.module.css";
import { wholeOf, type Seen } from "./seen";
import { TracePlot } from "./TracePlot";
import { useExpected } from "./useExpected";
import { useRecording, type GivenRecording, type OpenRecording } from "./useRecording";
import { t } from "@/messages";

const KEYS: readonly KeyState[] = ["on", "off", "cranking", "running"];
/** What an instrument recorded: opened, looked at, put where it was taken, and logged. */
export function RecordingSheet(p: RecordingProps) {
  return (
    <Sheet open={p.open} onClose={p.onClose} title={t("recording.title")} width={1100} keeps>
      <Inside {...p} />
    </Sheet>
  );
}

function Inside(p: RecordingProps) {
  const { given } = p;
  const { state, open, close, refuse } = useRecording();
  const [places, setPlaces] = useState<readonly (ChannelPlace | undefined)[] | undefined>(undefined);
  const take = (next: GivenRecording, known?: readonly (ChannelPlace | undefined)[]) => {
    setPlaces(known);
    void open(next);
  };
  const logged = typeof given === "string" ? p.traces.find((x) => x.entry.recording === given)?.entry : undefined;
  // what was given is opened once, not on every drawing
  const taken = useRef<RecordingProps["given"]>(undefined);
  useEffect(() => {
    const last = taken.current;
    if (given === last) return;
    taken.current = given;
    if (given === undefined) {
      if (typeof last === "string") close(); // one of the logbook is not there to be logged again
      return;
    }
    void (async () => {
      const next = typeof given === "string" ? await keptRecording(given) : given;
      if (next) await open(next);
      else refuse(String(given), [{ code: "server.no-such-recording", path: [], params: {} }]);
    })();
  }, [given, open, close, refuse]);
  return (
    <div className={styles.sheet}>
      {state.is === "none" ? <Choose {...p} onTake={take} /> : null}
      {state.is === "opening" ? (
        <>
          <p role="status">{t("recording.reading", { name: state.name })}</p>
          <LongWork says={t("recording.reading", { name: state.name })} isQuiet value={state.share} onStop={close} />
        </>
      ) : null}
      {state.is === "refused" ? (
        <>
          <RefusedFile file={state.name} issues={state.issues} />
          <Choose {...p} onTake={take} />
        </>
      ) : null}
      {state.is === "open" ? (
        <Opened
          key={state.recording.given.name}
          {...p}
          recording={state.recording}
          places={places}
          logged={logged}
          onTake={take}
          onAnother={close}
        />
      ) : null}
    </div>
  );
}

function Choose({
  onTake,
  ...p
}: RecordingProps & { readonly onTake: (g: GivenRecording, places?: readonly ChannelPlace[]) => void }) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <p>{t("recording.whatItTakes")}</p>
      <div>
        <Button type="primary" onClick={() => input.current?.click()} data-first>
          {t("recording.openAFile")}
        </Button>
        <input
          ref={input}
          type="file"
          hidden
          aria-label={t("recording.openAFile")}
          onChange={(e) => {
            const file = e.target.files?.[0];
            if (file) onTake({ file, name: file.name });
            e.target.value = "";
          }}
        />
      </div>
      {p.practice ? <RecordSimulated {...p} onTake={onTake} /> : null}
    </>
  );
}

interface OpenedProps extends RecordingProps {
  readonly recording: OpenRecording;
  /** where the channels were, where that is known */
  readonly places: readonly (ChannelPlace | undefined)[] | undefined;
  /** the entry that this recording belongs to already */
  readonly logged: TraceEntry | undefined;
  readonly onTake: (g: GivenRecording, places?: readonly (ChannelPlace | undefined)[]) => void;
  readonly onAnother: () => void;
}

function Opened(p: OpenedProps) {
  const { recording, wiring, namer, instructor, logged } = p;
  const { channels } = recording;
  const [seen, setSeen] = useState<Seen>(() => wholeOf(recording));
  const [isOver, setOver] = useState(false);
  const [places, setPlaces] = useState<readonly (ChannelPlace | undefined)[]>(
    () =>
      p.places ??
      channels.map((c, i) => {
        const own = logged?.channels.find((x) => x.name === c.name);
        return own ? { on: own.on, by: own.by } : (guessedPlace(wiring, c.name, c.unit) ?? p.asked?.places[i]);
      }),
  );
  const [doing, setDoing] = useState<Doing>(logged?.doing ?? recording.given.doing ?? p.asked?.doing ?? "nothing");
  const [moved, setMoved] = useState<readonly (MovedWhen & Partial<MovedPlace>)[]>(
    logged?.moved ?? recording.given.moved ?? [],
  );
  const [key, setKey] = useState<KeyState>(logged?.state.key ?? KEY_WHILE[doing] ?? p.now.key);
  const state = useMemo<State>(() => logged?.state ?? { ...p.now, key }, [logged, p.now, key]);
  const choices = useMemo(() => placeChoices(wiring, namer, instructor), [wiring, namer, instructor]);
  const expected = useExpected(recording, wiring, state, places, p.leader);
  const shown = useMemo(() => channels.map((_, i) => i), [channels]);
  const cautions = [
    ...(key === "cranking" || key === "running" ? [DANGER_WORDS.turning] : []),
    ...instructor.cautionsAt(places.flatMap((x) => (x && x.by === "scope" ? [x.on] : []))),
  ];
  return (
    <>
      <p className={styles.head}>
        <b>{recording.given.name}</b>
        {logged ? null : (
          <button type="button" className="link" onClick={p.onAnother}>
            {t("recording.another")}
          </button>
        )}
      </p>
      {recording.issues.length ? (
        <ul className={styles.issues}>
          {recording.issues.map((i, k) => (
            <li key={k}>{say(i).text}</li>
          ))}
        </ul>
      ) : null}
      <HowRead recording={recording} onTake={(g) => p.onTake(g, places)} />
      <Channels
        recording={recording}
        choices={choices}
        places={places}
        isFixed={logged !== undefined}
        expected={expected}
        onPlace={(i, place) => setPlaces(places.map((x, k) => (k === i ? place : x)))}
      />
      {logged ? null : (
        <div className={styles.row}>
          <label htmlFor="recording-doing">{t("recording.meanwhile")}</label>
          <Select
            id="recording-doing"
            value={doing}
            options={[...DOINGS]}
            onChange={(d) => {
              setDoing(d);
              setKey(KEY_WHILE[d] ?? (key === "cranking" || key === "running" ? "on" : key));
            }}
            style={{ minWidth: 200 }}
          />
          <label htmlFor="recording-key">{t("recording.key")}</label>
          <Select
            id="recording-key"
            value={key}
            options={KEYS.map((k) => ({ value: k, label: keyText(k) }))}
            onChange={setKey}
            style={{ minWidth: 180 }}
          />
        </div>
      )}
      {cautions.map((c) => (
        <p key={c} className={styles.caution}>
          {c}
        </p>
      ))}
      <div className={styles.row}>
        {channels.length > 1 ? (
          <label className={styles.switch}>
            <Switch checked={isOver} onChange={setOver} /> {t("recording.laidOver")}
          </label>
        ) : null}
        <Legend
          hasSound={expected?.sound.some(Boolean) ?? false}
          hasSuspect={expected?.suspect.some(Boolean) ?? false}
        />
      </div>
      <TracePlot
        recording={recording}
        shown={shown}
        isOver={isOver && channels.length > 1}
        seen={seen}
        onSee={setSeen}
        expected={expected}
      />
      {doing === "move" ? (
        <Moved moved={moved} seen={seen} wiring={wiring} namer={namer} onMoved={logged ? undefined : setMoved} />
      ) : null}
      <Bus recording={recording} wiring={wiring} places={places} state={state} />
      {logged ? null : (
        <LogIt {...p} places={places} state={state} doing={doing} moved={doing === "move" ? moved : []} />
      )}
      <Events recording={recording} onSee={setSeen} />
      <PatternSearch recording={recording} />
    </>
  );
}

function Legend({ hasSound, hasSuspect }: { readonly hasSound: boolean; readonly hasSuspect: boolean }) {
  if (!hasSound) return null;
  return (
    <ul className={styles.legend}>
      <li data-of="sound">{t("recording.soundMachine")}</li>
      {hasSuspect ? <li data-of="suspect">{t("recording.leadingSuspect")}</li> : null}
    </ul>
  );
}

/** What the file does not tell: how often it was sampled, and how many volts a sound card's full scale is. */
function HowRead({
  recording,
  onTake,
}: {
  readonly recording: OpenRecording;
  readonly onTake: (g: GivenRecording) => void;
}) {
  const { given, issues, channels } = recording;
  const needsRate = issues.some((i) => i.code === "trace.no-time") || given.how?.interval !== undefined;
  const needsScale = issues.some((i) => i.code === "trace.scale-unknown") || given.how?.scales !== undefined;
  if (!needsRate && !needsScale) return null;
  const again = (how: GivenRecording["how"]) => onTake({ ...given, how: { ...given.how, ...how } });
  return (
    <div className={styles.row}>
      {needsRate ? (
        <Asked
          label={t("recording.samplesASecond")}
          value={given.how?.interval ? 1 / given.how.interval : undefined}
          onGive={(rate) => again({ interval: 1 / rate })}
        />
      ) : null}
      {needsScale ? (
        <Asked
          label={t("recording.voltsOfFullScale")}
          value={given.how?.scales?.[0]}
          onGive={(volts) => again({ scales: channels.map(() => volts) })}
        />
      ) : null}
    </div>
  );
}

/** A number that the file does not tell: taken with Enter, or when the field is left. */
function Asked({
  label,
  value,
  onGive,
}: {
  readonly label: string;
  readonly value: number | undefined;
  readonly onGive: (value: number) => void;
}) {
  const [typed, setTyped] = useState<number | undefined>(value);
  const give = () => {
    if (typed !== undefined && typed > 0 && typed !== value) onGive(typed);
  };
  return (
    <label>
      {label}{" "}
      <InputNumber
        min={1e-6}
        max={1e9}
        {...(value === undefined ? {} : { defaultValue: value })}
        onChange={(v) => setTyped(v ?? undefined)}
        onPressEnter={give}
        onBlur={give}
      />
    </label>
  );
}

function LogIt({
  recording,
  places,
  state,
  doing,
  moved,
  jobId,
  onLog,
}: OpenedProps & {
  readonly moved: readonly MovedWhen[];
  readonly places: readonly (ChannelPlace | undefined)[];
  readonly state: State;
  readonly doing: Doing;
}) {
  const message = useMessages();
  const [busy, setBusy] = useState<AbortController | undefined>(undefined);
  const has = places.some(
    (x, i) => x !== undefined && fittingUnit(recording.channels[i]?.unit ?? "", x.by) !== undefined,
  );
  const log = async () => {
    const control = new AbortController();
    setBusy(control);
    try {
      const when = moved.map(({ thing, from, to }) => ({ thing, from, to }));
      const entry = await recording.worker.entry({
        at: now(),
        state,
        doing,
        places,
        ...(when.length ? { moved: when } : {}),
      });
      if (!entry) {
        void message.warning(t("recording.nothingToLog"));
        return;
      }
      const kept = await sendRecording(jobId, recording.given, control.signal);
      if (!kept.ok) void message.warning(t("recording.notKept", { why: say(kept.issues[0]!).text }));
      onLog(kept.ok ? { ...entry, recording: kept.body.id } : entry);
    } catch {
      void message.warning(t("recording.notLogged"));
    } finally {
      setBusy(undefined);
    }
  };
  return (
    <div className={styles.row}>
      <Button
        type="primary"
        disabled={!has || !recording.measured}
        loading={busy !== undefined}
        onClick={() => void log()}
      >
        {t("recording.log")}
      </Button>
      {has ? null : <span className="muted">{t("recording.sayWhere")}</span>}
      {busy ? <LongWork says={t("recording.keeping")} onStop={() => busy.abort()} /> : null}
    </div>
  );
}
