"use client";
import { parseQuantity, type Unit } from "@radicula/core";
import { Button } from "antd";
import { useEffect, useRef, useState, type KeyboardEvent } from "react";
import { say } from "@/messages/issues";
import { inSheet } from "@/ui/focus";
import { Keypad } from "./Keypad";
import styles from "./NextReading.module.css";

interface Props {
  readonly points: readonly string[];
  readonly unit: Unit;
  /** values put here from outside: the simulated meter, or a reading given back */
  readonly texts: readonly string[];
  readonly onTexts: (texts: string[]) => void;
  readonly onLog: (values: number[], typed: string) => void;
  readonly onShortcut: (key: string) => boolean;
  readonly disabled: boolean;
  readonly keypad: boolean;
  /** counts readings put here by the simulated meter: each brings the focus back, so that Enter logs it */
  readonly filled?: number;
}

/** Takes what a meter shows, the way people type it. Enter logs; what cannot be right is asked again and stays typed. */
export function ValueBox({ points, unit, texts, onTexts, onLog, onShortcut, disabled, keypad, filled = 0 }: Props) {
  const boxes = useRef<(HTMLInputElement | null)[]>([]);
  const [wrong, setWrong] = useState<{ box: number; text: string } | undefined>(undefined);
  const [current, setCurrent] = useState(0);
  // a new reading is a new box (its key changes), and the box has the focus
  useEffect(() => { if (!inSheet()) boxes.current[filled ? boxes.current.length - 1 : 0]?.focus({ preventScroll: true }); }, [filled]);

  const log = () => {
    const values: number[] = [];
    for (let i = 0; i < points.length; i++) {
      const read = parseQuantity(texts[i] ?? "", unit);
      if (!read.ok) {
        const first = read.issues[0];
        if ((texts[i] ?? "").trim() === "" && i > 0 && i > current) { boxes.current[i]?.focus(); return; }
        setWrong({ box: i, text: first ? say(first).text : "" });
        boxes.current[i]?.focus();
        return;
      }
      values.push(read.value);
    }
    setWrong(undefined);
    onLog(values, texts.join(" · "));
  };
  const onKey = (e: KeyboardEvent<HTMLInputElement>) => {
    if (e.key === "Enter") { e.preventDefault(); log(); return; }
    if (!e.ctrlKey && !e.metaKey && !e.altKey && e.currentTarget.value === "" && onShortcut(e.key)) e.preventDefault();
  };
  const put = (i: number, text: string) => { setWrong(undefined); onTexts(points.map((_, j) => (j === i ? text : texts[j] ?? ""))); };

  return (
    <form className={styles.entry} onSubmit={(e) => { e.preventDefault(); log(); }}>
      <div className={styles.boxes}>
        {points.map((point, i) => (
          <label key={point} className={styles.box} data-wrong={wrong?.box === i}>
            {points.length > 1 ? <span className={styles.which}>{point.split(":")[1] ?? point}</span> : <span className="visually-hidden">Value read at {point}</span>}
            <input
              ref={(el) => { boxes.current[i] = el; }} className="mono" value={texts[i] ?? ""} inputMode="decimal" autoComplete="off" spellCheck={false} maxLength={40} enterKeyHint="done"
              aria-invalid={wrong?.box === i} aria-describedby="value-wrong" aria-label={`Value at ${point}`} onFocus={() => setCurrent(i)} onKeyDown={onKey} onChange={(e) => put(i, e.target.value)}
            />
            <span className={styles.unit}>{unit === "V" ? "volts" : unit === "A" ? "amperes" : "ohms"}</span>
          </label>
        ))}
        <Button type="primary" htmlType="submit" size="large" className={styles.log} disabled={disabled}>Log <span aria-hidden="true">⏎</span></Button>
      </div>
      <p id="value-wrong" role="alert" className={styles.wrong}>{wrong?.text ?? ""}</p>
      {keypad ? <Keypad onKey={(k) => put(current, k === "OL" ? "OL" : `${texts[current] ?? ""}${k}`)} onErase={() => put(current, (texts[current] ?? "").slice(0, -1))} /> : null}
    </form>
  );
}
