"use client";
import { issueText } from "@radicula/core/words";
import type { Chart, Claim } from "@radicula/core";
import { type Issue } from "@radicula/core";
import { Button } from "antd";
import { memo } from "react";
import styles from "./Workbench.module.css";
import { t } from "@/messages";

/** Notes shown before the rest is only counted. */
const MOST_CLAIMS = 30;
const MOST_ISSUES = 60;

type Column = keyof Chart["rows"][number];
interface Props {
  readonly issues: readonly Issue[];
  readonly claims: readonly Claim[];
  readonly onRow: (row: number, column: Column) => void;
  readonly onTake: (claim: Claim) => void;
  readonly onDrop: (claim: Claim) => void;
}

/** What was not taken, what was guessed, what two sources say differently: each with the way to it. */
export const Notes = memo(function Notes({ issues, claims, onRow, onTake, onDrop }: Props) {
  if (issues.length + claims.length === 0) return null;
  return (
    <div className={styles.notes} aria-label={t("wiring.whatNeedsALook")}>
      {claims.slice(0, MOST_CLAIMS).map((c) => (
        <ClaimNote key={`${c.at} ${c.field} ${c.value}`} claim={c} onTake={onTake} onDrop={onDrop} />
      ))}
      {issues.slice(0, MOST_ISSUES).map((i, n) => (
        <IssueNote key={n} issue={i} onRow={onRow} />
      ))}
      {issues.length > MOST_ISSUES ? (
        <p className="muted">{t("wiring.andMore2", { issuesCount: issues.length - MOST_ISSUES })}</p>
      ) : null}
    </div>
  );
});

function ClaimNote({ claim: c, onTake, onDrop }: { readonly claim: Claim } & Pick<Props, "onTake" | "onDrop">) {
  return (
    <p className={styles.claim}>
      <span>
        <b className="mono">{c.at}</b>{" "}
        {t("wiring.says", { source: c.source, what: c.field === "goesTo" ? t("wiring.itGoesTo") : c.field })}{" "}
        <b>{c.value}</b>
        {t("wiring.eitherTheChartIsOfAnother")}
      </span>
      <span>
        <Button size="small" onClick={() => onTake(c)}>
          {t("wiring.goBy", { source: c.source })}
        </Button>
        <Button size="small" type="text" onClick={() => onDrop(c)}>
          {t("wiring.dropIt")}
        </Button>
      </span>
    </p>
  );
}

function IssueNote({ issue, onRow }: { readonly issue: Issue } & Pick<Props, "onRow">) {
  const [table, row, column] = issue.path;
  const at = table === "rows" && typeof row === "number" ? row : undefined;
  return (
    <p>
      {at === undefined ? null : (
        <button
          type="button"
          className="link"
          onClick={() => onRow(at, (typeof column === "string" ? column : "connector") as Column)}
        >
          {t("wiring.line", { at: at + 1 })}
        </button>
      )}{" "}
      {issueText(issue)}
    </p>
  );
}
