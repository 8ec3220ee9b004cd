"use client";
import type { Analysis, Disturbed } from "@radicula/core";
import { repairText, shareText, type Namer } from "@radicula/core/words";
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
  /** takes the closing back */
  readonly onReopen: () => void;
  readonly onDisturbed: () => void;
  readonly onOther: () => void;
}

/** Where splitting suspects ends: one cause confirmed, or nothing within reach that could tell the rest apart. */
export function Verdict({
  analysis,
  namer,
  open,
  closed: isClosed,
  onVerdict,
  onClose,
  onReopen,
  onDisturbed,
  onOther,
}: Props) {
  const leader = analysis.suspects[0];
  const { verdict } = analysis.folded;
  if (!leader) return null;
  const { title, detail } = namer.suspect(leader);
  const proven = analysis.stage === "proven";
  const repair = [...new Set((leader.members[0]?.faults ?? []).map(repairText))].join(" ");
  const over = isClosed
    ? "Job closed"
    : verdict
      ? "Verdict logged"
      : proven
        ? `${leader.type === "several" ? `${leader.places.length} causes` : "One cause"}, confirmed · explains ` +
          `${leader.explains} of ${leader.outOf} codes`
        : "Nothing within reach tells the rest apart";
  const next = isClosed
    ? "Everything is as it was found, or it is said why not. Whatever is logged from here on opens the job again."
    : verdict
      ? `${repair} As the maker’s manual says; then clear the codes, cycle the key and scan again before the ` +
        "job closes."
      : proven
        ? "Two readings or more agree with it and speak against the others. Look at the place before buying " +
          `anything. Then: ${repair.charAt(0).toLowerCase()}${repair.slice(1)}`
        : "Look at each of the places named, and compare the cost of the part with the cost of another test.";
  return (
    <section className={styles.card} aria-label="Verdict">
      <div className={styles.over}>
        <span>{over}</span>
        {isClosed && !verdict ? null : <span className="mono">{shareText(leader.share)}</span>}
      </div>
      <h2 className={styles.sentence}>
        {verdict ? verdict.entry.text : isClosed ? "Closed without a cause" : capital(title)}
      </h2>
      {detail && !verdict && !isClosed ? <p>{capital(detail)}.</p> : null}
      {open.length ? (
        <div className={styles.cautions} role="status" style={{ marginTop: 10 }}>
          Not as it was found:{" "}
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
                Put it right
              </button>
            </>
          )}
        </div>
      ) : null}
      <p className="muted" style={{ margin: "8px 0 12px" }}>
        {next}
      </p>
      {isClosed ? null : !verdict ? (
        <Button type="primary" size="large" block onClick={onVerdict}>
          Log this as the cause
        </Button>
      ) : open.length ? (
        <Button size="large" block onClick={onDisturbed}>
          Put it right, then close
        </Button>
      ) : (
        <Button size="large" block onClick={onClose}>
          Close the job
        </Button>
      )}
      <div className={styles.under}>
        {isClosed ? (
          <button type="button" className="link" onClick={onReopen}>
            Open it again
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
