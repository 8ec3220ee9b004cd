"use client";
import { RUNS, runPlaces, type RunName, type RunOffer, type Wiring } from "@radicula/core";
import { RUN_WORDS, shareText, type Namer } from "@radicula/core/words";
import { Button, Select } from "antd";
import { useMemo, useState } from "react";
import { Sheet } from "../Sheet";
import styles from "./Runs.module.css";
import { t } from "@/messages";

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
    <Sheet open={p.open} onClose={p.onClose} title={t("runs.guidedTests")} width={620}>
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
      .join(t("runs.andJoin"));
  const places = useMemo(() => (run ? runPlaces(wiring, run) : []), [wiring, run]);
  return (
    <>
      {offers.length ? (
        <ul className={styles.offers} aria-label={t("runs.worthTheirTimeNow")}>
          {offers.map((o) => (
            <li key={`${o.run} ${o.on}`}>
              <button type="button" onClick={() => onBegin(o.run, o.on)}>
                <b>
                  {RUN_WORDS[o.run].title}: {where(o.on)}
                </b>
                <span>{t("runs.aboutMin", { minutes: Math.max(1, Math.round(o.minutes)) })}</span>
                <span className="muted">{RUN_WORDS[o.run].when}</span>
                <span className="muted">{t("runs.settles", { share: shareText(o.shareOfOpen) })}</span>
              </button>
            </li>
          ))}
        </ul>
      ) : null}
      <div className={styles.pick}>
        <Select<RunName>
          aria-label={t("runs.whichRun")}
          placeholder={offers.length ? t("runs.orAnyOther") : t("runs.whichRun2")}
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
        {run ? <p className="muted">{t("runs.forWhen", { when: RUN_WORDS[run].when })}</p> : null}
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
          {t("runs.begin")}
        </Button>
      </div>
    </>
  );
}
