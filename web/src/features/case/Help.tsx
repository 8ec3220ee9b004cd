"use client";
import { Sheet } from "./Sheet";
import styles from "./Case.module.css";

const KEYS: readonly (readonly [string, string])[] = [
  ["Enter", "log the value"],
  ["0.15 · 12,4 · 150m · 10k2 · OL · 4.2–4.9", "how values may be typed"],
  ["X", "can’t do this one: the next comes"],
  ["T", "took another reading"],
  ["W", "why: open the leading suspect’s reasons"],
  ["R", "guided runs"],
  ["P", "move one place at a time, with a tone"],
  ["D", "what is not as it was found"],
  ["B", "is the meter right?"],
  ["K", "work it out: the calculators"],
  ["S", "simulated meter: put the leads on"],
  ["F", "hands busy: one line at a time, legible from two metres"],
  ["C", "scan: type or paste codes"],
  ["I", "intake: what the customer says, what was done before"],
  ["V", "what stands on the machine: colours, cavities, part number"],
  ["Ctrl Z", "undo the last entry"],
  ["?", "this sheet"],
];

export function Help({ open, onClose }: { readonly open: boolean; readonly onClose: () => void }) {
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
      <p className="muted">
        The map runs from the coded sensors down to what they share. The thicker and redder a line, the more suspicion
        passes through it; a figure stands on the thing itself. Tags show readings where they were taken. The dashed
        ring is where the red lead goes next.
      </p>
    </Sheet>
  );
}
