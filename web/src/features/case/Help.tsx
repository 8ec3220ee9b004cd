"use client";
import { Switch } from "antd";
import { useState } from "react";
import { areLettersKeys, setLettersKeys } from "@/ui/keys";
import { Sheet } from "./Sheet";
import styles from "./Case.module.css";

const KEYS: readonly (readonly [string, string])[] = [
  ["Enter", "log the value"],
  ["0.15 · 12,4 · 150m · 10k2 · OL · 4.2–4.9", "how values may be typed"],
  ["Shift X", "can’t reach it: go to the next test"],
  ["T", "log another reading"],
  ["W", "why: show the reasons for the leading suspect"],
  ["R", "guided tests"],
  ["P", "move one place at a time, with a tone"],
  ["D", "restore before closing"],
  ["B", "check the meter"],
  ["K", "calculators"],
  ["S", "simulated meter: put the leads on"],
  ["F", "hands busy: one large line at a time"],
  ["C", "scan: type or paste codes"],
  ["I", "intake: what the customer says, what was done before"],
  ["V", "what stands on the machine: colours, cavities, part number"],
  ["Ctrl Z", "undo the last entry"],
  ["?", "show this list"],
];

export function Help({ open, onClose }: { readonly open: boolean; readonly onClose: () => void }) {
  const [areOn, setOn] = useState(areLettersKeys);
  return (
    <Sheet open={open} onClose={onClose} title="Keys, while the value box is empty" width={560}>
      <dl className={styles.keys}>
        {KEYS.map(([key, what]) => (
          <div key={key}>
            <dt className="mono">{key}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
      <p>
        <Switch
          checked={areOn}
          onChange={(on) => {
            setLettersKeys(on);
            setOn(on);
          }}
          aria-label="Single letters are keys on this device"
        />{" "}
        Single letters are keys on this device
      </p>
      <p className="muted">
        The map runs from the coded sensors down to what they share. The thicker and redder a line, the more suspicion
        passes through it; a figure stands on the thing itself. Tags show readings where they were taken. The dashed
        ring is where the red lead goes next.
      </p>
    </Sheet>
  );
}
