"use client";
import { type RunView, type TakenStep } from "@radicula/core";
import { MARK_WORDS, RUN_WORDS, shownText, type Namer } from "@radicula/core/words";
import { Button } from "antd";
import { useEffect, useRef } from "react";
import { HallBenchDrawing } from "./HallBenchDrawing";
import { say } from "@/messages/issues";
import styles from "./Runs.module.css";

interface Props {
  readonly run: RunView;
  readonly namer: Namer;
  readonly paused: boolean;
  readonly onPause: (paused: boolean) => void;
  readonly onEnd: (finished: boolean) => void;
}
const SIGNS = { full: "●", part: "◐", none: "○", good: "✓", bad: "✕" } as const;

/** A guided run as it goes: every step with its value against a healthy machine's, and what it came to. */
export function RunPanel({ run, namer, paused, onPause, onEnd }: Props) {
  const list = useRef<HTMLOListElement>(null);
  useEffect(() => {
    list.current?.scrollTo({ top: 1e6 });
  }, [run.taken.length]);
  const top = Math.max(
    1e-9,
    ...run.taken.flatMap((t) => [...t.values, ...t.healthy].filter(Number.isFinite).map(Math.abs)),
  );
  return (
    <section className={styles.panel} aria-label="Guided test">
      <div className={styles.over}>
        <span>
          <b>{RUN_WORDS[run.run].title}</b> ·{" "}
          {run.on
            .split(" ")
            .map((x) => (x.includes(":") ? namer.point(x) : x))
            .join(" and ")}
        </span>
        <span>{run.finding ? "done" : `${run.taken.length} done`}</span>
      </div>
      {run.run === "hallBench" && run.next?.state.jumpers ? <HallBenchDrawing step={run.next} /> : null}
      {run.taken.length ? (
        <ol ref={list} className={styles.steps} tabIndex={0} aria-label="Steps taken">
          {run.taken.map((t, i) => (
            <li key={i}>
              <span>{labelOf(t, i, namer)}</span>
              {t.step.instrument === "none" || t.number === undefined || !Number.isFinite(t.values[0]!) ? (
                <span />
              ) : (
                <span className={styles.bar} data-mark={t.mark} aria-hidden="true">
                  <i style={{ width: `${Math.min(100, (100 * Math.abs(t.values[0]!)) / top)}%` }} />
                  {Number.isFinite(t.healthy[0]!) ? (
                    <b
                      style={{ left: `calc(${Math.min(100, (100 * Math.abs(t.healthy[0]!)) / top)}% - 1px)` }}
                      title="healthy"
                    />
                  ) : null}
                </span>
              )}
              <span className="mono">
                {t.number === undefined ? (
                  <span className="muted">skipped</span>
                ) : (
                  <>
                    {t.step.instrument === "none"
                      ? t.values[0]
                        ? "yes"
                        : "no"
                      : shownText(t.step.instrument, t.values[0]!)}{" "}
                    {t.mark ? (
                      <span
                        className={styles.mark}
                        data-mark={t.mark}
                        title={MARK_WORDS[t.mark]}
                        aria-label={MARK_WORDS[t.mark]}
                      >
                        {SIGNS[t.mark]}
                      </span>
                    ) : null}
                  </>
                )}
              </span>
            </li>
          ))}
        </ol>
      ) : null}
      {run.finding ? (
        <p className={styles.finding} data-verdict={run.finding.verdict} role="status">
          {say(run.finding.says).text}
        </p>
      ) : null}
      <div className={styles.buttons}>
        {run.finding ? (
          <Button type="primary" onClick={() => onEnd(true)}>
            End the test
          </Button>
        ) : (
          <Button onClick={() => onPause(!paused)}>{paused ? "Go on with the test" : "Pause"}</Button>
        )}
        {run.finding ? null : (
          <Button type="text" onClick={() => onEnd(false)}>
            Stop the test
          </Button>
        )}
      </div>
    </section>
  );
}

function labelOf({ step }: TakenStep, i: number, namer: Namer): string {
  const { state } = step;
  const where = (p: string) => (p.includes(":") || step.kind === "drop" ? namer.point(p) : p);
  if (step.part) return `${step.label.split(" ")[0]} by itself`;
  if (step.kind === "breaker")
    return state.unplugged.length
      ? `${state.unplugged.length} unplugged${i > 0 ? `, ${step.label} in` : ""}`
      : "all plugged in";
  if (step.kind === "watch") return `without ${step.label}`;
  if (step.kind === "drop" && step.black !== undefined) return `${where(step.black)} to ${where(step.points[0]!)}`;
  if (step.kind === "jumper") return step.label === "low" ? "signal jumpered low" : "signal jumpered high";
  if (step.kind === "codeSets") return `${step.label} sets`;
  if (step.kind === "wiggle") return `moved ${step.label}`;
  if (step.kind === "scan") return "the module’s own value";
  return where(step.points[0]!);
}
