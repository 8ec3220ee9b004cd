"use client";
import { parseShown, type ReadingEntry, type ShownText, type ShownWords, type Unit, terminalOf } from "@radicula/core";
import { Button } from "antd";
import { useEffect, useRef, useState, type KeyboardEvent } from "react";
import { say } from "@/messages/issues";
import { inSheet } from "@/ui/focus";
import { KEYS, KEYS_BESIDE_WORDS } from "@/ui/keys";
import { Keypad } from "./Keypad";
import styles from "./NextReading.module.css";
import { t } from "@/messages";
import { worded } from "@radicula/core/words";

export type TypedValue = ReadingEntry["values"][number] | number;
export type Words = ShownWords;
/** least and most of a value that would not stand still, and the unit of a scan value that is not in volts */
export interface TypedMore extends Pick<ShownText, "swing" | "unit"> {
  /** of every point, where there are several */
  readonly swings?: readonly ShownText["swing"][];
}
export const hasFigures = (words: Words) => words === "none" || words === "scan";
interface Props {
  readonly points: readonly string[];
  readonly unit: Unit;
  /** what a lamp or a beeper shows is a word: one button each, or typed */
  readonly words?: Words;
  /** values put here from outside: the simulated meter, or a reading given back */
  readonly texts: readonly string[];
  readonly onTexts: (texts: string[]) => void;
  readonly onLog: (values: TypedValue[], typed: string, more: TypedMore) => void;
  readonly keypad: boolean;
  /** counts readings put here by the simulated meter: each brings the focus back, so that Enter logs it */
  readonly filled?: number;
}
const CHOICES: Readonly<Record<Exclude<Words, "none">, readonly (readonly [TypedValue, string])[]>> = worded(() => ({
  lamp: [
    ["bright", t("reading.bright")],
    ["dim", t("reading.dim")],
    ["dark", t("reading.dark")],
  ],
  beeper: [
    ["beep", t("reading.beep")],
    ["silent", t("reading.noBeep2")],
  ],
  scan: [
    ["plausible", t("reading.plausible")],
    ["frozen", t("reading.frozen")],
    ["lowEnd", t("reading.lowEnd")],
    ["highEnd", t("reading.highEnd")],
  ],
}));
const unitWord = (unit: Unit, words: Words): string =>
  words === "scan" ? t("reading.voltsOr85C") : words === "none" ? UNITS[unit] : SHOWN_ON[words];
/** Characters that stand in one of two boxes beside its unit. */
const SHORT = 5;
const UNITS: Readonly<Record<Unit, string>> = worded(() => ({
  V: t("reading.volts"),
  A: t("reading.amperes"),
  Ω: t("reading.ohms2"),
}));
const SHOWN_ON: Readonly<Record<Exclude<Words, "none" | "scan">, string>> = worded(() => ({
  lamp: t("reading.lamp2"),
  beeper: t("reading.beeper2"),
}));

/**
 * Takes what a meter shows, the way people type it. Enter logs; what cannot be right is asked again and stays typed.
 */
export function ValueBox({ points, unit, words = "none", texts, onTexts, onLog, keypad, filled = 0 }: Props) {
  const boxes = useRef<(HTMLInputElement | null)[]>([]);
  const [wrong, setWrong] = useState<{ box: number; text: string } | undefined>(undefined);
  const [current, setCurrent] = useState(0);
  // a new reading is a new box (its key changes), and the box has the focus
  useEffect(() => {
    if (!inSheet()) boxes.current[filled ? boxes.current.length - 1 : 0]?.focus({ preventScroll: true });
  }, [filled]);

  const log = () => {
    const values: TypedValue[] = [];
    const swings: ShownText["swing"][] = [];
    let more: TypedMore = {};
    for (let i = 0; i < points.length; i++) {
      const read = parseShown(texts[i] ?? "", unit, words);
      if (!read.ok) {
        const first = read.issues[0];
        if ((texts[i] ?? "").trim() === "" && i > 0 && i > current) {
          boxes.current[i]?.focus();
          return;
        }
        setWrong({ box: i, text: first ? say(first).text : "" });
        boxes.current[i]?.focus();
        return;
      }
      values.push(read.value.value);
      swings.push(read.value.swing);
      if (i === 0) {
        const { swing, unit: typedUnit } = read.value;
        more = { ...(swing ? { swing } : {}), ...(typedUnit ? { unit: typedUnit } : {}) };
      }
    }
    setWrong(undefined);
    onLog(values, texts.join(" · "), { ...more, ...(points.length > 1 && swings.some(Boolean) ? { swings } : {}) });
  };
  const onKey = (e: KeyboardEvent<HTMLInputElement>) => {
    if (e.key !== "Enter") return;
    e.preventDefault();
    log();
  };
  const put = (i: number, text: string) => {
    setWrong(undefined);
    onTexts(points.map((_, j) => (j === i ? text : (texts[j] ?? ""))));
  };

  const choices =
    words === "none" ? null : (
      <div className={words === "scan" ? styles.words : styles.choices}>
        {CHOICES[words].map(([value, label]) => (
          <Button
            key={label}
            size={words === "scan" ? "middle" : "large"}
            onClick={() => onLog([value], label.toLowerCase(), {})}
          >
            {label}
          </Button>
        ))}
      </div>
    );
  return (
    <form
      className={styles.entry}
      {...(hasFigures(words) ? KEYS : KEYS_BESIDE_WORDS)}
      onSubmit={(e) => {
        e.preventDefault();
        log();
      }}
    >
      {hasFigures(words) ? null : choices}
      <div className={styles.boxes}>
        {points.map((point, i) => (
          <label
            key={point}
            className={styles.box}
            data-wrong={wrong?.box === i}
            data-long={points.length > 1 && (texts[i] ?? "").length > SHORT ? true : undefined}
          >
            {points.length > 1 ? (
              <span className={styles.which}>{terminalOf(point) ?? point}</span>
            ) : (
              <span className="visually-hidden">{t("reading.valueReadAt", { point })}</span>
            )}
            <input
              ref={(el) => {
                boxes.current[i] = el;
              }}
              className="mono"
              value={texts[i] ?? ""}
              inputMode={words === "none" ? "decimal" : "text"}
              autoComplete="off"
              spellCheck={false}
              maxLength={40}
              enterKeyHint="done"
              aria-invalid={wrong?.box === i}
              aria-describedby="value-wrong"
              aria-label={t("reading.valueAt2", { point })}
              onFocus={() => setCurrent(i)}
              onKeyDown={onKey}
              onChange={(e) => put(i, e.target.value)}
            />
            <span className={styles.unit}>{unitWord(unit, words)}</span>
          </label>
        ))}
        <Button type="primary" htmlType="submit" size="large" className={styles.log}>
          {t("reading.log")} <span aria-hidden="true">⏎</span>
        </Button>
      </div>
      {words === "scan" ? choices : null}
      <p id="value-wrong" role="alert" className={styles.wrong}>
        {wrong?.text ?? ""}
      </p>
      {keypad && hasFigures(words) ? (
        <Keypad
          onKey={(k) => put(current, k === "OL" ? "OL" : `${texts[current] ?? ""}${k}`)}
          onErase={() => put(current, (texts[current] ?? "").slice(0, -1))}
        />
      ) : null}
    </form>
  );
}
