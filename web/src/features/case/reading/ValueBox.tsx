"use client";
import { parseShown, type ReadingEntry, type ShownText, type ShownWords, type Unit, terminalOf } from "@radicula/core";
import { Button } from "antd";
import { useEffect, useRef, useState, type KeyboardEvent } from "react";
import { say } from "@/messages/issues";
import { inSheet } from "@/ui/focus";
import { KEYS, KEYS_BESIDE_WORDS } from "@/ui/keys";
import { Keypad } from "./Keypad";
import styles from "./NextReading.module.css";

export type TypedValue = ReadingEntry["values"][number] | number;
export type Words = ShownWords;
/** least and most of a value that would not stand still, and the unit of a scan value that is not in volts */
export type TypedMore = Pick<ShownText, "swing" | "unit">;
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
const CHOICES: Readonly<Record<Exclude<Words, "none">, readonly (readonly [TypedValue, string])[]>> = {
  lamp: [
    ["bright", "Bright"],
    ["dim", "Dim"],
    ["dark", "Dark"],
  ],
  beeper: [
    ["beep", "Beep"],
    ["silent", "No beep"],
  ],
  scan: [
    ["plausible", "Plausible"],
    ["frozen", "Frozen"],
    ["lowEnd", "Low end"],
    ["highEnd", "High end"],
  ],
};
const UNITS: Readonly<Record<Unit, string>> = { V: "volts", A: "amperes", Ω: "ohms" };

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
      if (i === 0) {
        const { swing, unit: typedUnit } = read.value;
        more = { ...(swing ? { swing } : {}), ...(typedUnit ? { unit: typedUnit } : {}) };
      }
    }
    setWrong(undefined);
    onLog(values, texts.join(" · "), more);
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
          <label key={point} className={styles.box} data-wrong={wrong?.box === i}>
            {points.length > 1 ? (
              <span className={styles.which}>{terminalOf(point) ?? point}</span>
            ) : (
              <span className="visually-hidden">Value read at {point}</span>
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
              aria-label={`Value at ${point}`}
              onFocus={() => setCurrent(i)}
              onKeyDown={onKey}
              onChange={(e) => put(i, e.target.value)}
            />
            <span className={styles.unit}>
              {words === "scan" ? "volts, or 85 °C" : words === "none" ? UNITS[unit] : words}
            </span>
          </label>
        ))}
        <Button type="primary" htmlType="submit" size="large" className={styles.log}>
          Log <span aria-hidden="true">⏎</span>
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
