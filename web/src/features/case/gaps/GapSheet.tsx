"use client";
import { NOWHERE, type DrawingGap } from "@radicula/core";
import { Button, Input, Radio } from "antd";
import Link from "next/link";
import { useState } from "react";
import { t } from "@/messages";
import { say } from "@/messages/issues";
import { Done, post } from "@/ui/send";
import { useCase } from "../session/caseContext";
import { Sheet } from "../Sheet";
import styles from "./Gaps.module.css";

/** Ways that are offered by themselves; any other place can be typed. */
const MOST_WAYS = 4;
const ELSEWHERE = "elsewhere";

/** Every wire that is only assumed, and where it goes once somebody has looked. */
export function GapSheet({ isOpen }: { readonly isOpen: boolean }) {
  const { gaps, sheets, job } = useCase();
  return (
    <Sheet open={isOpen} title={t("gaps.notOnTheDrawing")} width={620} onClose={sheets.dismiss}>
      <p className="muted">
        {t("gaps.assumedUntilLookedUp")}{" "}
        {job.library ? <Link href={`/wiring/${job.library.id}?job=${job.id}`}>{t("gaps.drawThemAll")}</Link> : null}
      </p>
      {gaps.list.length === 0 ? <p role="status">{t("gaps.workingThemOut")}</p> : null}
      <ol className={styles.gaps}>
        {gaps.list.map((g) => (
          <Gap key={g.fact.point} gap={g} />
        ))}
      </ol>
    </Sheet>
  );
}

function Gap({ gap }: { readonly gap: DrawingGap }) {
  const { job, namer, gaps, sheets, view } = useCase();
  const { fact, where, bits, chances } = gap;
  const [way, setWay] = useState<string | undefined>(undefined);
  const [typed, setTyped] = useState("");
  const [refused, setRefused] = useState<string | undefined>(undefined);
  const [isSaving, setSaving] = useState(false);
  const goesTo = way === ELSEWHERE ? typed.trim() : way;
  const save = async () => {
    if (!goesTo) return;
    setSaving(true);
    const done = await post(`/api/jobs/${job.id}/drawing`, { at: fact.point, goesTo }, Done);
    if (done.ok) window.location.replace(`/job/${job.id}`);
    else {
      setRefused(done.issues.map((i) => say(i).text).join(" "));
      setSaving(false);
    }
  };
  // those beyond the ways that were weighed are as likely as the drawing makes them
  const chanceOf = (i: number) => chances[i] ?? fact.options[i]!.chance;
  const ROLE = { supply: t("gaps.supply"), ground: t("gaps.ground"), signal: t("gaps.signal") };
  return (
    <li>
      <p className={styles.about}>
        <b>{t("gaps.whereDoesItGo", { point: namer.point(fact.point) })}</b>{" "}
        <span className="muted">{ROLE[fact.role]}</span>
        {gaps.weighed && bits >= LEAST_BITS ? (
          <span className={`mono ${styles.worth}`}>{t("gaps.bits", { bits: bits.toFixed(2) })}</span>
        ) : null}
      </p>
      {where ? (
        <p className="muted">
          {t("gaps.lookOn", { sheet: where.name, near: where.near })}{" "}
          <button
            type="button"
            className="link"
            onClick={() => {
              view.show("page");
              sheets.dismiss();
            }}
          >
            {t("gaps.showThePage")}
          </button>
        </p>
      ) : null}
      <Radio.Group
        className={styles.ways}
        aria-label={t("gaps.whereDoesItGo", { point: namer.point(fact.point) })}
        value={way}
        onChange={(e) => setWay(e.target.value as string)}
        options={[
          ...fact.options.slice(0, MOST_WAYS).map((o, i) => ({
            value: o.to,
            label: (
              <>
                {namer.point(o.to)} <span className="muted">{Math.round(100 * chanceOf(i))} %</span>
                {i === 0 ? <span className="muted"> {t("gaps.assumedNow")}</span> : null}
              </>
            ),
          })),
          { value: ELSEWHERE, label: t("gaps.elsewhere") },
          { value: NOWHERE, label: t("gaps.noWire") },
        ]}
      />
      {way === ELSEWHERE ? (
        <Input
          value={typed}
          maxLength={90}
          autoFocus
          aria-label={t("gaps.whereItGoes")}
          placeholder={t("gaps.forExample")}
          onChange={(e) => setTyped(e.target.value)}
          onPressEnter={() => void save()}
        />
      ) : null}
      {refused ? (
        <p className={styles.refused} role="alert">
          {refused}
        </p>
      ) : null}
      {way ? (
        <Button type="primary" loading={isSaving} disabled={!goesTo} onClick={() => void save()}>
          {t("gaps.putItDown")}
        </Button>
      ) : null}
    </li>
  );
}
/** Less is not worth a number, bits. */
const LEAST_BITS = 0.005;
