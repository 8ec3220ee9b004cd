"use client";
import {
  formatQuantity,
  parseShown,
  watchedBy,
  type Candidate,
  type Finding,
  type Recommendation,
  type Suspect,
  type Unit,
  type Wiring,
  connectorOf,
} from "@radicula/core";
import { rulesOut, unitOf, type Danger, type Instructor, type Namer, type Instruction } from "@radicula/core/words";
import { Button } from "antd";
import { useEffect, useMemo, useRef, useState } from "react";
import { MenuButton } from "@/ui/MenuButton";
import { inSheet } from "@/ui/focus";
import { KEYS } from "@/ui/keys";
import { Face } from "@/ui/Face";
import { WireSwatch } from "@/ui/WireSwatch";
import { lineFor, answerScale, yesNoLines } from "./answers";
import styles from "./NextReading.module.css";
import { ScaleView } from "./ScaleView";
import { SimulatedMeter } from "./SimulatedMeter";
import { TakenHow, type How } from "./TakenHow";
import { hasFigures, ValueBox, type TypedMore, type TypedValue, type Words } from "./ValueBox";
import { YesNo } from "./YesNo";
import { t } from "@/messages";

interface Props {
  readonly jobId: string;
  readonly wiring: Wiring;
  readonly candidate: Candidate;
  readonly recommendation: Recommendation | undefined;
  /** where the card comes from: the plan, a guided run, one's own choice */
  readonly from: { readonly label: string; readonly planned: boolean };
  /** dangers of this machine, said before every step */
  readonly dangers: readonly string[];
  /** cautions acknowledged on this job; the others stand before the step until they are */
  readonly acknowledged: ReadonlySet<string>;
  readonly onAcknowledge: (dangers: readonly Danger[]) => void;
  readonly suspects: readonly Suspect[];
  readonly confirming: boolean;
  readonly namer: Namer;
  readonly instructor: Instructor;
  readonly practice: boolean;
  readonly keypad: boolean;
  readonly texts: readonly string[];
  readonly onTexts: (texts: string[]) => void;
  readonly onLog: (values: readonly TypedValue[], typed: string, more: TypedMore, how: How) => void;
  readonly onAnswer: (yes: boolean, found: readonly Finding[], photo: string | undefined) => void;
  readonly onPhoto: ((file: File) => Promise<string | undefined>) | undefined;
  readonly onSetAside: (reason: "cannotReach" | "noTool") => void;
  readonly onSum: () => void;
  readonly onOther: () => void;
  /** a recording is opened instead */
  readonly onRecord?: () => void;
  readonly onWhy: () => void;
  /** only what is asked and the box for it: the rest stands elsewhere */
  readonly bare?: boolean;
}
const SHOWS: Readonly<Partial<Record<Candidate["instrument"], Words>>> = {
  lamp: "lamp",
  continuity: "beeper",
  scanTool: "scan",
};

/**
 * The one next thing: a sentence to obey, cautions before it, the pin as one sees it, the scale of answers, and the box
 * for the value.
 */
export function NextReading(p: Props) {
  const { candidate, recommendation } = p;
  const instruction = useMemo(() => p.instructor.instruct(candidate), [p.instructor, candidate]);
  const [how, setHow] = useState<{ of: string; how: How; open: boolean }>({ of: candidate.id, how: {}, open: false });
  const taken = how.of === candidate.id ? how : { of: candidate.id, how: {}, open: false };
  const ahead = instruction.dangers.filter((d) => !p.acknowledged.has(d));
  const cautions = [...p.dangers, ...instruction.cautions];
  return (
    <section className={styles.card} data-bare={p.bare} data-next-reading aria-label={t("reading.nextReading")}>
      <div className={styles.over}>
        <span>
          {t("reading.aboutMin", { label: p.from.label, minutes: Math.max(1, Math.round(candidate.minutes)) })}
        </span>
        {recommendation && p.from.planned ? (
          <button type="button" className={styles.why} onClick={p.onWhy}>
            {p.confirming ? t("reading.whyThisOne") : rulesOut(recommendation.shareOfOpen)}
          </button>
        ) : null}
      </div>
      <h2 className={styles.sentence}>{instruction.title}</h2>
      {cautions.length ? <p className={styles.cautions}>{cautions.join(" ")}</p> : null}
      {ahead.length ? (
        <Acknowledge key={`ahead ${candidate.id}`} onUnderstood={() => p.onAcknowledge(ahead)} />
      ) : (
        <>
          <Where {...p} instruction={instruction} />
          {watchedBy(candidate.kind) === "recorded" && p.onRecord ? (
            <p className={styles.record}>
              <Button onClick={p.onRecord}>{t("reading.recordedIsOpenedHere")}</Button>{" "}
              <span className="muted">{t("reading.orTypeWhatYouSaw")}</span>
            </p>
          ) : null}
          {candidate.instrument === "scope" && p.onRecord ? (
            <p className={styles.record}>
              {t("reading.orRecordIt")}{" "}
              <button type="button" className="link" onClick={p.onRecord}>
                {t("reading.openTheRecording")}
              </button>
            </p>
          ) : null}
          <Answering {...p} how={taken.how} />
          {taken.open && candidate.instrument !== "none" ? (
            <TakenHow
              how={taken.how}
              volts={candidate.instrument === "voltmeter"}
              onHow={(h) => setHow({ of: candidate.id, how: h, open: true })}
            />
          ) : null}
        </>
      )}
      <Otherwise
        {...p}
        canSayHow={candidate.instrument !== "none" && ahead.length === 0}
        onHow={() => setHow({ ...taken, open: !taken.open })}
      />
    </section>
  );
}

/** Set-up, leads and meter, and the connector as one looks into it. */
function Where({ wiring, candidate, instruction }: Props & { readonly instruction: Instruction }) {
  const face = faceOf(wiring, candidate);
  return (
    <>
      <div className={styles.where2} data-wide={face && face.connector.cavities.length > 8 ? true : undefined}>
        <dl className={styles.how}>
          <dt>{t("reading.setUp")}</dt>
          <dd>{instruction.state}</dd>
          {instruction.red.map((lead, i) => (
            <div key={lead.text} className={styles.row}>
              <dt>{i > 0 ? "then" : candidate.instrument === "clamp" ? t("reading.clamp") : t("reading.red")}</dt>
              <dd>
                <b>{lead.text}</b>, {lead.how} {lead.colour ? <WireSwatch colour={lead.colour} /> : null}
                {lead.place && i === 0 ? <span className={styles.where}>{lead.place}</span> : null}
              </dd>
            </div>
          ))}
        </dl>
        {face ? (
          <div className={styles.face}>
            <Face wiring={wiring} connector={face.connector} chosen={face.cavity} />
          </div>
        ) : null}
      </div>
      <dl className={styles.how}>
        {instruction.black ? (
          <>
            <dt>{t("reading.black")}</dt>
            <dd>
              {t(watchedBy(candidate.kind) ? "reading.blackAndMeter" : "reading.meterOn2", {
                black: instruction.black,
                meter: instruction.meter,
              })}
            </dd>
          </>
        ) : instruction.meter ? (
          <>
            <dt>{t("reading.with")}</dt>
            <dd>{instruction.meter}</dd>
          </>
        ) : null}
      </dl>
    </>
  );
}

/** The scale of answers, the simulated meter of a practice job, and where the answer goes. */
function Answering(p: Props & { readonly how: How }) {
  const { candidate, recommendation, suspects, namer } = p;
  const unit: Unit = unitOf(candidate.instrument);
  const asked = candidate.instrument === "none";
  const words: Words = SHOWS[candidate.instrument] ?? "none";
  const answers = recommendation?.answers.at(-1);
  const scale = useMemo(
    () =>
      answers && !asked && hasFigures(words)
        ? answerScale(answers, unit, suspects, namer, recommendation?.healthy)
        : undefined,
    [answers, unit, asked, words, suspects, namer, recommendation?.healthy],
  );
  const [filled, setFilled] = useState(0);
  const [done, setDone] = useState<{ of: string; yes: boolean; found: Finding | undefined } | undefined>(undefined);
  const typed = parseShown(p.texts[candidate.points.length - 1] ?? "", unit, words);
  const onRead = (values: readonly (number | string)[], found: Finding | undefined) => {
    if (asked) {
      setDone({ of: candidate.id, yes: values[0] === 1, found });
      return;
    }
    p.onTexts(values.map((v) => (typeof v === "string" ? (v === "silent" ? "no beep" : v) : typedForm(v, unit))));
    setFilled((n) => n + 1);
  };
  return (
    <>
      {scale ? (
        <ScaleView
          scale={scale}
          unit={unit}
          chosen={typed.ok && typeof typed.value.value === "number" ? lineFor(typed.value.value, scale) : undefined}
        />
      ) : null}
      {p.practice ? (
        <SimulatedMeter key={`meter ${candidate.id}`} jobId={p.jobId} candidate={candidate} onRead={onRead} />
      ) : null}
      {asked ? (
        <YesNo
          key={`asked ${candidate.id}`}
          candidate={candidate}
          lines={yesNoLines(answers ?? [], p.suspects, p.namer)}
          shown={done?.of === candidate.id ? done : undefined}
          onAnswer={p.onAnswer}
          onPhoto={p.onPhoto}
        />
      ) : (
        <ValueBox
          key={`box ${candidate.id}`}
          points={candidate.points}
          unit={unit}
          words={words}
          texts={p.texts}
          onTexts={p.onTexts}
          onLog={(values, text, more) => p.onLog(values, text, more, p.how)}
          keypad={p.keypad}
          filled={filled}
        />
      )}
    </>
  );
}

/** What to do when this reading will not do. */
function Otherwise(p: Props & { readonly canSayHow: boolean; readonly onHow: () => void }) {
  const { instrument } = p.candidate;
  return (
    <div className={styles.under}>
      <button type="button" className="link" onClick={() => p.onSetAside("cannotReach")}>
        {t("reading.cantReachIt")}
      </button>
      {instrument === "none" || instrument === "voltmeter" ? null : (
        <button type="button" className="link" onClick={() => p.onSetAside("noTool")}>
          {t("reading.iDontHaveThisTool")}
        </button>
      )}
      <button type="button" className="link" onClick={p.onOther}>
        {t("reading.anotherReading")}
      </button>
      {p.canSayHow ? (
        <MenuButton
          items={[
            { key: "how", label: t("reading.measuredDifferently"), onClick: p.onHow },
            { key: "sum", label: t("reading.workItOut"), onClick: p.onSum },
          ]}
          button={(onClick) => (
            <button
              type="button"
              className="link"
              aria-label={t("reading.moreAboutThisReading")}
              aria-haspopup="menu"
              onClick={onClick}
            >
              {t("reading.more")}
            </button>
          )}
        />
      ) : null}
    </div>
  );
}

/** Cautions are read once a job, before the step that first needs them. */
function Acknowledge({ onUnderstood }: { readonly onUnderstood: () => void }) {
  const button = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!inSheet()) button.current?.querySelector("button")?.focus({ preventScroll: true });
  }, []);
  return (
    <div ref={button} className={styles.choices} {...KEYS}>
      <Button type="primary" size="large" onClick={onUnderstood}>
        {t("reading.readAndUnderstood")}
      </Button>
    </div>
  );
}

/** The connector of the red lead, drawn, where it is a plug with cavities. */
function faceOf(wiring: Wiring, c: Candidate) {
  if (c.instrument === "none" || c.instrument === "scanTool" || c.instrument === "clamp") return undefined;
  const point = c.points.at(-1)!;
  const connector = wiring.connectors.find((x) => x.id === connectorOf(point));
  return connector && connector.cavities.length <= 24
    ? { connector, cavity: point.slice(point.indexOf(":") + 1).replace(/\.[ab]$/, "") }
    : undefined;
}

/** a value as one would type it: no unit, the meter's digits */
function typedForm(value: number, unit: Unit): string {
  return formatQuantity(value, unit)
    .replace(/\s*V$/, "")
    .replace(/\s*A$/, "")
    .replace(/\s*Ω$/, "")
    .replace(/\s*([kM])Ω$/, "$1");
}
