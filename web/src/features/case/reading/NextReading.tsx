"use client";
import { formatQuantity, parseQuantity, type Candidate, type Finding, type Recommendation, type SuspectView, type Unit } from "@radicula/core";
import type { Instructor, Namer } from "@radicula/core/words";
import { shareText, unitOf } from "@radicula/core/words";
import { useMemo, useState } from "react";
import { WireSwatch } from "@/ui/WireSwatch";
import { lineFor, scaleOf, yesNoLines } from "./answers";
import styles from "./NextReading.module.css";
import { ScaleView } from "./ScaleView";
import { SimulatedMeter } from "./SimulatedMeter";
import { ValueBox } from "./ValueBox";
import { YesNo } from "./YesNo";

interface Props {
  readonly jobId: string;
  readonly candidate: Candidate;
  readonly recommendation: Recommendation | undefined;
  /** dangers of this machine, said before every step */
  readonly dangers: readonly string[];
  readonly confirming: boolean;
  readonly suspects: readonly SuspectView[];
  readonly namer: Namer;
  readonly instructor: Instructor;
  readonly practice: boolean;
  readonly busy: boolean;
  readonly keypad: boolean;
  readonly texts: readonly string[];
  readonly onTexts: (texts: string[]) => void;
  readonly onLog: (values: number[], typed: string) => void;
  readonly onAnswer: (yes: boolean, found: Finding | undefined) => void;
  readonly onSetAside: () => void;
  readonly onOther: () => void;
  readonly onWhy: () => void;
  readonly onShortcut: (key: string) => boolean;
}

/** The one next thing: a sentence to obey, cautions before it, the scale of answers, and the box for the value. */
export function NextReading(p: Props) {
  const { candidate, recommendation } = p;
  const unit: Unit = unitOf(candidate.instrument), asked = candidate.instrument === "none";
  const instruction = useMemo(() => p.instructor.instruct(candidate), [p.instructor, candidate]);
  const answers = recommendation?.answers.at(-1);
  const scale = useMemo(() => (answers && candidate.instrument !== "none" ? scaleOf(answers, unit, p.suspects, p.namer) : undefined), [answers, unit, candidate.instrument, p.suspects, p.namer]);
  const [filled, setFilled] = useState(0);
  const [done, setDone] = useState<{ of: string; yes: boolean; found: Finding | undefined } | undefined>(undefined);
  const typed = parseQuantity(p.texts[candidate.points.length - 1] ?? "", unit);
  const minutes = Math.max(1, Math.round(candidate.minutes));
  return (
    <section className={styles.card} aria-label="Next reading">
      <div className={styles.over}>
        <span>{recommendation ? (p.confirming ? "Confirm" : "Next reading") : "Another reading"} · about {minutes} min</span>
        {recommendation ? <button type="button" className={styles.why} onClick={p.onWhy}>{p.confirming ? "why this one" : `settles ${shareText(recommendation.shareOfOpen)} of what is open`}</button> : null}
      </div>
      <h2 className={styles.sentence}>{instruction.title}</h2>
      {instruction.cautions.length + p.dangers.length ? <p className={styles.cautions}>{[...p.dangers, ...instruction.cautions].join(" ")}</p> : null}
      <dl className={styles.how}>
        <dt>State</dt><dd>{instruction.state}</dd>
        {instruction.red.map((lead, i) => (
          <div key={lead.text} className={styles.row}>
            <dt>{i === 0 ? "Red" : "then"}</dt>
            <dd><b>{lead.text}</b>, {lead.how} {lead.colour ? <WireSwatch colour={lead.colour} /> : null}{lead.place && i === 0 ? <span className={styles.where}>{lead.place}</span> : null}</dd>
          </div>
        ))}
        {instruction.black ? <><dt>Black</dt><dd>{instruction.black} · meter on {instruction.meter}</dd></> : instruction.meter ? <><dt>With</dt><dd>{instruction.meter}</dd></> : null}
      </dl>
      {scale ? <ScaleView scale={scale} chosen={typed.ok ? lineFor(typed.value, scale) : undefined} /> : null}
      {p.practice ? <SimulatedMeter key={`meter ${candidate.id}`} jobId={p.jobId} candidate={candidate} onRead={(values, found) => { if (asked) { setDone({ of: candidate.id, yes: values[0] === 1, found: found as Finding | undefined }); return; } p.onTexts(values.map((v) => (v === "OL" ? "OL" : typedForm(v, unit)))); setFilled((n) => n + 1); }} /> : null}
      {asked ? <YesNo key={`asked ${candidate.id}`} candidate={candidate} lines={yesNoLines(answers ?? [], p.suspects, p.namer)} shown={done?.of === candidate.id ? done : undefined} disabled={p.busy} onAnswer={p.onAnswer} onShortcut={p.onShortcut} /> : <ValueBox key={`box ${candidate.id}`} points={candidate.points} unit={unit} texts={p.texts} onTexts={p.onTexts} onLog={p.onLog} onShortcut={p.onShortcut} disabled={p.busy} keypad={p.keypad} filled={filled} />}
      <div className={styles.under}>
        <button type="button" className="link" onClick={p.onSetAside}>Can’t do this one</button>
        <button type="button" className="link" onClick={p.onOther}>Took another reading</button>
      </div>
    </section>
  );
}

/** a value as one would type it: no unit, the meter's digits */
function typedForm(value: number, unit: Unit): string {
  return formatQuantity(value, unit).replace(/\s*V$/, "").replace(/\s*Ω$/, "").replace(/\s*([kM])Ω$/, "$1");
}
