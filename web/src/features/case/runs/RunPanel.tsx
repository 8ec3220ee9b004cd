"use client";
import { type RunView, type TakenStep } from "@radicula/core";
import { MARK_WORDS, RUN_WORDS, shownText, type Namer } from "@radicula/core/words";
import { Button } from "antd";
import { useEffect, useRef } from "react";
import { HallBenchDrawing } from "./HallBenchDrawing";
import { say } from "@/messages/issues";
import styles from "./Runs.module.css";
import { t } from "@/messages";

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
    ...run.taken.flatMap((taken) => [...taken.values, ...taken.healthy].filter(Number.isFinite).map(Math.abs)),
  );
  return (
    <section className={styles.panel} aria-label={t("runs.guidedTest")}>
      <div className={styles.over}>
        <span>
          <b>{RUN_WORDS[run.run].title}</b> ·{" "}
          {run.on
            .split(" ")
            .map((x) => (x.includes(":") ? namer.point(x) : x))
            .join(t("runs.andJoin"))}
        </span>
        <span>{run.finding ? t("runs.finished") : t("runs.done", { takenCount: run.taken.length })}</span>
      </div>
      {run.run === "hallBench" && run.next?.state.jumpers ? <HallBenchDrawing step={run.next} /> : null}
      {run.taken.length ? (
        <ol ref={list} className={styles.steps} tabIndex={0} aria-label={t("runs.stepsTaken")}>
          {run.taken.map((taken, i) => (
            <li key={i}>
              <span>{labelOf(taken, i, namer)}</span>
              {taken.step.instrument === "none" || taken.number === undefined || !Number.isFinite(taken.values[0]!) ? (
                <span />
              ) : (
                <span className={styles.bar} data-mark={taken.mark} aria-hidden="true">
                  <i style={{ width: `${Math.min(100, (100 * Math.abs(taken.values[0]!)) / top)}%` }} />
                  {Number.isFinite(taken.healthy[0]!) ? (
                    <b
                      style={{ left: `calc(${Math.min(100, (100 * Math.abs(taken.healthy[0]!)) / top)}% - 1px)` }}
                      title={t("runs.healthy")}
                    />
                  ) : null}
                </span>
              )}
              <span className="mono">
                {taken.number === undefined ? (
                  <span className="muted">{t("runs.skipped")}</span>
                ) : (
                  <>
                    {taken.step.instrument === "none"
                      ? taken.values[0]
                        ? t("runs.yes")
                        : t("runs.no")
                      : shownText(taken.step.instrument, taken.values[0]!)}{" "}
                    {taken.mark ? (
                      <span
                        className={styles.mark}
                        data-mark={taken.mark}
                        title={MARK_WORDS[taken.mark]}
                        aria-label={MARK_WORDS[taken.mark]}
                      >
                        {SIGNS[taken.mark]}
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
            {t("runs.endTheTest")}
          </Button>
        ) : (
          <Button onClick={() => onPause(!paused)}>{paused ? t("runs.goOnWithTheTest") : t("runs.pause")}</Button>
        )}
        {run.finding ? null : (
          <Button type="text" onClick={() => onEnd(false)}>
            {t("runs.stopTheTest")}
          </Button>
        )}
      </div>
    </section>
  );
}

function labelOf({ step }: TakenStep, i: number, namer: Namer): string {
  const { state } = step;
  const where = (p: string) => (p.includes(":") || step.kind === "drop" ? namer.point(p) : p);
  if (step.part) return t("runs.byItself", { part: step.label.split(" ")[0] });
  if (step.kind === "breaker")
    return state.unplugged.length
      ? t("runs.unplugged", {
          unpluggedCount: state.unplugged.length,
          pluggedIn: i > 0 ? t("runs.in", { label: step.label }) : "",
        })
      : t("runs.allPluggedIn");
  if (step.kind === "watch") return t("runs.without", { label: step.label });
  if (step.kind === "drop" && step.black !== undefined)
    return t("runs.to", { where: where(step.black), where2: where(step.points[0]!) });
  if (step.kind === "jumper") return step.label === "low" ? t("runs.signalJumperedLow") : t("runs.signalJumperedHigh");
  if (step.kind === "codeSets") return t("runs.sets", { label: step.label });
  if (step.kind === "wiggle") return t("runs.moved", { label: step.label });
  if (step.kind === "scan") return t("runs.theModulesOwnValue");
  return where(step.points[0]!);
}
