"use client";
import type { Analysis, Disturbed, Outcome, RunOffer } from "@radicula/core";
import {
  isOneOfSeveral,
  repairName,
  repairText,
  RUN_WORDS,
  shareShort,
  shareText,
  verdictText,
  type Namer,
  midSentence,
} from "@radicula/core/words";
import { Button } from "antd";
import type { ReactNode } from "react";
import { disturbedText } from "./disturbed/disturbedText";
import styles from "./reading/NextReading.module.css";
import { capital } from "@/ui/text";
import { t } from "@/messages";

interface Props {
  readonly analysis: Analysis;
  readonly namer: Namer;
  /** what is not as it was found: the job closes when this is empty or explained */
  readonly open: readonly Disturbed[];
  readonly closed: boolean;
  readonly onVerdict: () => void;
  readonly onClose: () => void;
  readonly onRepair: () => void;
  /** takes the closing back */
  readonly onReopen: () => void;
  readonly onDisturbed: () => void;
  readonly onOther: () => void;
  /** the test that best tells the repairs of the group apart */
  readonly narrower?: { readonly text: string; readonly minutes: number } | undefined;
  readonly onNarrower?: () => void;
  /** what it hangs on that is only assumed */
  readonly hangsOn?: ReactNode;
  /** a guided run that may split what is still open */
  readonly run?: RunOffer | undefined;
  readonly onRuns?: () => void;
}

/** Where splitting suspects ends: one cause confirmed, or nothing within reach that could tell the rest apart. */
export function Verdict({
  analysis,
  namer,
  open,
  closed: isClosed,
  onVerdict,
  onClose,
  onRepair,
  onReopen,
  onDisturbed,
  onOther,
  narrower,
  onNarrower,
  run,
  onRuns,
  hangsOn,
}: Props) {
  const leader = analysis.suspects[0];
  const { verdict } = analysis.folded;
  if (!leader) return null;
  const { outcome } = analysis;
  const isGroup = isOneOfSeveral(analysis);
  const { title, detail, over, next } = wordsOf(analysis, namer, isClosed);
  return (
    <section className={styles.card} aria-label={t("job.verdict")}>
      <div className={styles.over}>
        <span>{over}</span>
        {isClosed && !verdict ? null : (
          <span className="mono">{shareText(outcome?.isNotAll ? shareOfAll(outcome.repairs) : leader.share)}</span>
        )}
      </div>
      <h2 className={styles.sentence}>
        {verdict ? verdict.entry.text : isClosed ? t("job.closedWithoutACause") : capital(title)}
      </h2>
      {detail && !verdict && !isClosed ? <p>{capital(detail)}.</p> : null}
      {isGroup && outcome && !isClosed ? <RepairsOpen outcome={outcome} namer={namer} /> : null}
      {isClosed ? null : hangsOn}
      {open.length ? (
        <div className={styles.cautions} role="status" style={{ marginTop: 10 }}>
          {t("job.restoreBeforeClosing4")}{" "}
          <b>
            {open
              .slice(0, 4)
              .map((d) => disturbedText(d, namer))
              .join("; ")}
            {open.length > 4 ? t("job.andMore", { openCount: open.length - 4 }) : ""}
          </b>
          .
          {verdict ? null : (
            <>
              {" "}
              <button type="button" className="link" onClick={onDisturbed}>
                {t("job.restored")}
              </button>
            </>
          )}
        </div>
      ) : null}
      <p className="muted" style={{ margin: "8px 0 12px" }}>
        {next}
      </p>
      {isGroup && narrower && !isClosed ? (
        <button type="button" className={styles.narrower} onClick={onNarrower}>
          <b>{t("job.findOutWhich")}</b>
          <span>{t("job.aboutMin", { text: narrower.text, minutes: Math.max(1, Math.round(narrower.minutes)) })}</span>
        </button>
      ) : null}
      {isClosed ? null : !verdict ? (
        <Button type="primary" size="large" block onClick={onVerdict}>
          {!isGroup
            ? outcome?.isNotAll
              ? t("job.logThisAsOneCause")
              : t("job.logThisAsTheCause")
            : analysis.stage === "proven"
              ? t("job.logWhatIsProven")
              : t("job.logTheLikeliest")}
        </Button>
      ) : (
        <Button type="primary" size="large" block onClick={onRepair}>
          {t("job.logTheRepair")}
        </Button>
      )}
      {isClosed || !verdict ? null : (
        <p style={{ margin: "10px 0 0", textAlign: "center" }}>
          <button type="button" className="link" onClick={open.length ? onDisturbed : onClose}>
            {open.length ? t("job.restoreItThenCloseWithoutA") : t("job.closeWithoutARepair")}
          </button>
        </p>
      )}
      <div className={styles.under}>
        {isClosed ? (
          <button type="button" className="link" onClick={onReopen}>
            {t("job.openItAgain")}
          </button>
        ) : isGroup && run && onRuns ? (
          <button type="button" className="link" onClick={onRuns}>
            {t("job.splitThem", { title: RUN_WORDS[run.run].title })}
          </button>
        ) : (
          <span />
        )}
        <button type="button" className="link" onClick={onOther}>
          {t("job.takeAnotherReading")}
        </button>
      </div>
    </section>
  );
}

/** A group of repairs longer than this is cut short. */
const MOST_REPAIRS = 6;

/** The repairs that are still open, in the order to look. */
function RepairsOpen({ outcome, namer }: { readonly outcome: Outcome; readonly namer: Namer }) {
  const more = outcome.repairs.length - MOST_REPAIRS;
  return (
    <ol className={styles.repairs} aria-label={t("job.repairsStillOpenInTheOrder")}>
      {outcome.repairs.slice(0, MOST_REPAIRS).map((r) => (
        <li key={r.id}>
          <span>{capital(repairName(r, namer))}</span>
          <span className="mono">{shareShort(r.share)}</span>
        </li>
      ))}
      {more > 0 ? (
        <li>
          <span className="muted">{t("job.andMore2", { more })}</span>
        </li>
      ) : null}
    </ol>
  );
}

/** What the card says: a title and a detail, the line over them, and what to do next. */
function wordsOf(analysis: Analysis, namer: Namer, isClosed: boolean) {
  const leader = analysis.suspects[0]!;
  const { stage, folded } = analysis;
  const isProven = stage === "proven";
  const isGroup = isOneOfSeveral(analysis);
  const { title, detail } = verdictText(analysis, namer);
  const isNotAll = analysis.outcome?.isNotAll ?? false;
  const found = isNotAll ? analysis.outcome!.repairs[0]!.faults : (leader.members[0]?.faults ?? []);
  const repair = [...new Set(found.map(repairText))].join(" ");
  const what = isNotAll
    ? t("job.oneCauseOfSeveralConfirmed")
    : leader.type === "several"
      ? t("job.causesConfirmed", { placesCount: leader.places.length })
      : isGroup
        ? t("job.provenAsFarAsItGoes")
        : t("job.oneRepairConfirmed");
  const over = isClosed
    ? t("job.jobClosed")
    : folded.verdict
      ? t("job.verdictLogged")
      : isProven
        ? isNotAll
          ? what
          : t("job.explainsOfCodes", { what, explains: leader.explains, outOf: leader.outOf })
        : t("job.nothingWithinReachTellsTheRest");
  return {
    title,
    detail,
    over,
    next: nextText(isClosed, folded.verdict !== undefined, isProven, isGroup, isNotAll, repair),
  };
}
const shareOfAll = (repairs: readonly { readonly share: number }[]) => repairs.reduce((sum, r) => sum + r.share, 0);
function nextText(
  isClosed: boolean,
  isLogged: boolean,
  isProven: boolean,
  isGroup: boolean,
  isNotAll: boolean,
  repair: string,
): string {
  if (isClosed) return t("job.everythingIsAsItWasFound");
  const what = isGroup ? t("job.mendTheOneThatIsBad") : repair;
  if (isLogged) return t("job.asTheMakersManualSaysThen", { what });
  if (isNotAll) return t("job.thenClearTheCodesCycleThe", { repair: what });
  if (isGroup) return t("job.lookAtThemInThisOrder");
  if (!isProven) return t("job.lookAtEachOfThePlaces");
  return t("job.twoReadingsOrMoreAgreeWith", { repair: midSentence(repair) });
}
