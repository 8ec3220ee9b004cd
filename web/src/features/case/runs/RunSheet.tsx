"use client";
import { RUNS, runPlaces, type RunName, type RunOffer, type Wiring } from "@radicula/core";
import { RUN_WORDS, shareText, type Namer } from "@radicula/core/words";
import { Button, Select } from "antd";
import { useMemo, useState } from "react";
import { Sheet } from "../Sheet";
import styles from "./Runs.module.css";

interface Props {
  readonly open: boolean;
  readonly wiring: Wiring;
  readonly namer: Namer;
  readonly offers: readonly RunOffer[];
  readonly onBegin: (run: RunName, on: string) => void;
  readonly onClose: () => void;
}

/** Guided runs: those worth their time now, and any other at any place it can be done. */
export function RunSheet(p: Props) {
  return (
    <Sheet open={p.open} onClose={p.onClose} title="Guided tests" width={620}>
      <Body {...p} />
    </Sheet>
  );
}

function Body({ wiring, namer, offers, onBegin }: Props) {
  const [run, setRun] = useState<RunName | undefined>(undefined);
  const [on, setOn] = useState<string | undefined>(undefined);
  const where = (x: string) =>
    x
      .split(" ")
      .map((id) =>
        id.includes(":")
          ? namer.point(id)
          : wiring.connectors.some((c) => c.id === id)
            ? namer.connector(id)
            : namer.device(id),
      )
      .join(" and ");
  const places = useMemo(() => (run ? runPlaces(wiring, run) : []), [wiring, run]);
  return (
    <>
      {offers.length ? (
        <ul className={styles.offers} aria-label="Worth their time now">
          {offers.map((o) => (
            <li key={`${o.run} ${o.on}`}>
              <button type="button" onClick={() => onBegin(o.run, o.on)}>
                <b>
                  {RUN_WORDS[o.run].title}: {where(o.on)}
                </b>
                <span>about {Math.max(1, Math.round(o.minutes))} min</span>
                <span className="muted">{RUN_WORDS[o.run].when}</span>
                <span className="muted">settles {shareText(o.shareOfOpen)}</span>
              </button>
            </li>
          ))}
        </ul>
      ) : null}
      <div className={styles.pick}>
        <Select<RunName>
          aria-label="Which run"
          placeholder={offers.length ? "Or any other" : "Which run?"}
          value={run}
          showSearch={{ optionFilterProp: "label" }}
          listHeight={400}
          onChange={(v) => {
            setRun(v);
            setOn(undefined);
          }}
          options={RUNS.filter((r) => runPlaces(wiring, r).length > 0).map((r) => ({
            value: r,
            label: RUN_WORDS[r].title,
          }))}
        />
        {run ? <p className="muted">For when {RUN_WORDS[run].when}.</p> : null}
        {run && RUN_WORDS[run].minds.length ? <p className={styles.minds}>{RUN_WORDS[run].minds.join(" ")}</p> : null}
        {run ? (
          <Select
            aria-label={RUN_WORDS[run].where}
            placeholder={RUN_WORDS[run].where}
            value={on}
            showSearch={{ optionFilterProp: "label" }}
            onChange={(v: string) => setOn(v)}
            options={places.map((x) => ({ value: x, label: where(x) }))}
          />
        ) : null}
        <Button
          type="primary"
          size="large"
          block
          disabled={!run || on === undefined}
          onClick={() => run && on !== undefined && onBegin(run, on)}
        >
          Begin
        </Button>
      </div>
    </>
  );
}
