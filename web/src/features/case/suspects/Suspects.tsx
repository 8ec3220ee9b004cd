"use client";
import type { Candidate, Economics, SuspectView } from "@radicula/core";
import {
  economicsText,
  probabilityWord,
  reasonText,
  shareShort,
  shareText,
  strengthWord,
  type Instructor,
  type Namer,
} from "@radicula/core/words";
import { useState } from "react";
import styles from "./Suspects.module.css";
import { useKey } from "@/ui/keys";
import { capital } from "@/ui/text";
import { t } from "@/messages";

const LISTED = 5;
const LEAST = 0.005;

interface Props {
  readonly suspects: readonly SuspectView[];
  readonly namer: Namer;
  readonly instructor: Instructor;
  readonly ids: ReadonlyMap<number, string>;
  readonly economics: Economics | undefined;
  /** the suspect whose reasons are shown */
  readonly open: string | undefined;
  readonly onOpen: (id: string | undefined) => void;
  /** takes a test that tells two suspects apart as the next one */
  readonly onChoose: (c: Candidate) => void;
  /** how many earlier jobs count here; 0 for none */
  readonly lessons: number;
  readonly onLessons: () => void;
}

/** Who could explain it all, how sure, and why: each row opens into its reasons. */
export function Suspects(p: Props) {
  const { suspects, open, onOpen } = p;
  const [all, setAll] = useState(false);
  const worth = suspects.filter((s) => s.share >= LEAST);
  const shown = all ? worth : worth.slice(0, LISTED);
  const toggle = (id: string | undefined) => onOpen(open === id ? undefined : id);
  useKey("w", () => toggle(shown[0]?.id));
  return (
    <section className={styles.card} aria-label={t("suspects.suspects")}>
      <div className={styles.over}>
        <span>{t("suspects.suspects")}</span>
        <span>{t("suspects.explainsCodes")}</span>
      </div>
      <ol className={styles.list}>
        {shown.map((s, i) => (
          <Row key={s.id} {...p} suspect={s} isLeader={i === 0} isOpen={open === s.id} onToggle={() => toggle(s.id)} />
        ))}
      </ol>
      {worth.length > LISTED ? (
        <button type="button" className="link" onClick={() => setAll(!all)}>
          {all
            ? t("suspects.fewer")
            : t("suspects.moreTogether", {
                worthCount: worth.length - LISTED,
                share: shareText(worth.slice(LISTED).reduce((sum, s) => sum + s.share, 0)),
              })}
        </button>
      ) : null}
      {p.lessons ? (
        <div>
          <button type="button" className="link" onClick={p.onLessons}>
            {t("suspects.earlierJobsCountHere", { lessons: p.lessons })}
          </button>
        </div>
      ) : null}
    </section>
  );
}

function Row({
  suspect: s,
  isLeader,
  isOpen,
  onToggle,
  ...p
}: Props & {
  readonly suspect: SuspectView;
  readonly isLeader: boolean;
  readonly isOpen: boolean;
  readonly onToggle: () => void;
}) {
  const { title, detail } = p.namer.suspect(s);
  const explains = s.type !== "nothing" && s.type !== "notHere" && s.outOf ? `${s.explains}/${s.outOf}` : "";
  return (
    <li>
      <button type="button" className={styles.row} aria-expanded={isOpen} onClick={onToggle}>
        <span className={`mono ${styles.share}`} data-strong={isLeader || s.share >= STRONG}>
          {shareShort(s.share)}
          <span className={styles.bar} style={{ width: `${Math.max(2, 100 * s.share)}%` }} aria-hidden="true" />
        </span>
        <span className={styles.title}>
          {capital(title)}
          {detail ? <small>{detail}</small> : null}
        </span>
        <span className={`mono ${styles.codes}`}>{explains}</span>
      </button>
      {isOpen ? (
        <div className={styles.reasons}>
          <Reasons suspect={s} ids={p.ids} />
          <Splits
            suspect={s}
            other={p.suspects.find((x) => x.id === s.splitBy?.from)}
            namer={p.namer}
            instructor={p.instructor}
            onChoose={p.onChoose}
          />
          {isLeader && p.economics ? <p className="muted">{economicsText(p.economics)}</p> : null}
        </div>
      ) : null}
    </li>
  );
}
/** A share from which on a suspect is set in strong letters. */
const STRONG = 0.2;

function Reasons({ suspect, ids }: { readonly suspect: SuspectView; readonly ids: ReadonlyMap<number, string> }) {
  const logged = suspect.reasons.filter((r) => r.number > 0);
  const away = suspect.reasons.filter((r) => r.number === 0);
  const against = away.filter((r) => r.expected > 0.5);
  return (
    <>
      <p>
        {capital(probabilityWord(suspect.share))}.
        {suspect.type === "notHere" ? t("suspects.growsWhenEveryFaultInThis") : ""}
      </p>
      <ul>
        {logged.map((r, i) => (
          <li key={`${r.number} ${i}`}>
            <span className={styles.strength} data-for={r.weight > 0}>
              {strengthWord(r.weight)}
            </span>
            <span>
              {reasonText(r)} <span className="muted">{ids.get(r.number)}</span>
            </span>
          </li>
        ))}
        {away.length ? (
          <li>
            <span className={styles.strength} data-for={against.length === 0}>
              {against.length ? t("suspects.against") : t("suspects.for")}
            </span>
            <span>
              {against.length
                ? t("suspects.shouldHaveSetToo", { against: against.map((r) => r.about).join(", ") })
                : t("suspects.leavesTheOtherUnsetAsSeen", { count: away.length })}
            </span>
          </li>
        ) : null}
      </ul>
    </>
  );
}

/** Which test would tell it from its rival; or that none does. */
function Splits({
  suspect,
  other,
  namer,
  instructor,
  onChoose,
}: Pick<Props, "namer" | "instructor" | "onChoose"> & {
  readonly suspect: SuspectView;
  readonly other: SuspectView | undefined;
}) {
  const { splitBy, places } = suspect;
  return (
    <>
      {suspect.type === "fault" && places.length > 1 ? (
        <p className="muted">{t("suspects.noTestHereCanSeparateThese", { placesCount: places.length })}</p>
      ) : null}
      {splitBy && other ? (
        <p>
          {t("suspects.toldFrom")} <i>{namer.suspect(other).title}</i> {t("suspects.by")}{" "}
          <button type="button" className="link" onClick={() => onChoose(splitBy.candidate)}>
            {instructor.instruct(splitBy.candidate).title}
          </button>
        </p>
      ) : null}
    </>
  );
}
