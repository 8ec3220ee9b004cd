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
} from "@radicula/core/words";
import { Button } from "antd";
import { disturbedText } from "./disturbed/DisturbedList";
import styles from "./reading/NextReading.module.css";
import { capital } from "@/ui/text";

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
}: Props) {
  const leader = analysis.suspects[0];
  const { verdict } = analysis.folded;
  if (!leader) return null;
  const { outcome } = analysis;
  const isGroup = isOneOfSeveral(analysis);
  const { title, detail, over, next } = wordsOf(analysis, namer, isClosed);
  return (
    <section className={styles.card} aria-label="Verdict">
      <div className={styles.over}>
        <span>{over}</span>
        {isClosed && !verdict ? null : (
          <span className="mono">{shareText(outcome?.isNotAll ? outcome.repairs[0]!.share : leader.share)}</span>
        )}
      </div>
      <h2 className={styles.sentence}>
        {verdict ? verdict.entry.text : isClosed ? "Closed without a cause" : capital(title)}
      </h2>
      {detail && !verdict && !isClosed ? <p>{capital(detail)}.</p> : null}
      {isGroup && outcome && !isClosed ? <RepairsOpen outcome={outcome} namer={namer} /> : null}
      {open.length ? (
        <div className={styles.cautions} role="status" style={{ marginTop: 10 }}>
          Restore before closing:{" "}
          <b>
            {open
              .slice(0, 4)
              .map((d) => disturbedText(d, namer))
              .join("; ")}
            {open.length > 4 ? `; and ${open.length - 4} more` : ""}
          </b>
          .
          {verdict ? null : (
            <>
              {" "}
              <button type="button" className="link" onClick={onDisturbed}>
                Restored
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
          <b>Find out which</b>
          <span>
            {narrower.text} · about {Math.max(1, Math.round(narrower.minutes))} min
          </span>
        </button>
      ) : null}
      {isClosed ? null : !verdict ? (
        <Button type="primary" size="large" block onClick={onVerdict}>
          {!isGroup
            ? outcome?.isNotAll
              ? "Log this as one cause"
              : "Log this as the cause"
            : analysis.stage === "proven"
              ? "Log what is proven"
              : "Log the likeliest"}
        </Button>
      ) : (
        <Button type="primary" size="large" block onClick={onRepair}>
          Log the repair
        </Button>
      )}
      {isClosed || !verdict ? null : (
        <p style={{ margin: "10px 0 0", textAlign: "center" }}>
          <button type="button" className="link" onClick={open.length ? onDisturbed : onClose}>
            {open.length ? "Restore it, then close without a repair" : "Close without a repair"}
          </button>
        </p>
      )}
      <div className={styles.under}>
        {isClosed ? (
          <button type="button" className="link" onClick={onReopen}>
            Open it again
          </button>
        ) : isGroup && run && onRuns ? (
          <button type="button" className="link" onClick={onRuns}>
            Split them: {RUN_WORDS[run.run].title}
          </button>
        ) : (
          <span />
        )}
        <button type="button" className="link" onClick={onOther}>
          Take another reading
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
    <ol className={styles.repairs} aria-label="Repairs still open, in the order to look">
      {outcome.repairs.slice(0, MOST_REPAIRS).map((r) => (
        <li key={r.id}>
          <span>{capital(repairName(r, namer))}</span>
          <span className="mono">{shareShort(r.share)}</span>
        </li>
      ))}
      {more > 0 ? (
        <li>
          <span className="muted">and {more} more</span>
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
    ? "One cause of several, confirmed"
    : leader.type === "several"
      ? `${leader.places.length} causes, confirmed`
      : isGroup
        ? "Proven, as far as it goes"
        : "One repair, confirmed";
  const over = isClosed
    ? "Job closed"
    : folded.verdict
      ? "Verdict logged"
      : isProven
        ? isNotAll
          ? what
          : `${what} · explains ${leader.explains} of ${leader.outOf} codes`
        : "Nothing within reach tells the rest apart";
  return {
    title,
    detail,
    over,
    next: nextText(isClosed, folded.verdict !== undefined, isProven, isGroup, isNotAll, repair),
  };
}
function nextText(
  isClosed: boolean,
  isLogged: boolean,
  isProven: boolean,
  isGroup: boolean,
  isNotAll: boolean,
  repair: string,
): string {
  if (isClosed)
    return "Everything is as it was found, or it is said why not. Whatever is logged from here on opens the job again.";
  const what = isGroup ? "Mend the one that is bad." : repair;
  if (isLogged)
    return (
      `${what} As the maker’s manual says; then clear the codes, cycle the key and scan again before the ` +
      "job closes."
    );
  if (isNotAll)
    return `${repair} Then clear the codes, cycle the key and scan again: what is left shows what else is wrong.`;
  if (isGroup) return "Look at them in this order and mend the one that is bad. Do not replace them all.";
  if (!isProven) return "Look at each of the places named, and compare the cost of the part with that of another test.";
  return (
    "Two readings or more agree with it and speak against the others. Look at the place before buying " +
    `anything. Then: ${repair.charAt(0).toLowerCase()}${repair.slice(1)}`
  );
}
