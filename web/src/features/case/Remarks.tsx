"use client";
import type { Entry, Issue } from "@radicula/core";
import { issueText } from "@radicula/core/words";
import { Button } from "antd";
import { useState } from "react";
import styles from "./Case.module.css";
import { t } from "@/messages";

const MOST = 3;
const MOVES: ReadonlySet<string> = new Set(["remark.not-as-drawn", "remark.wrong-component"]);

/**
 * What speaks against the readings or the drawing, first of all; readings taken at the wrong place can be moved from
 * here.
 */
export function Remarks({
  remarks,
  onEntry,
  onName,
}: {
  readonly remarks: readonly Issue[];
  readonly onEntry: (entry: Entry) => void;
  readonly onName?: () => void;
}) {
  const [all, setAll] = useState(false);
  return (
    <>
      {(all ? remarks : remarks.slice(0, MOST)).map((r, i) => {
        // where they were logged, and where they may have been taken: by what was seen there, or by what they say
        const { connector, from: logged, fits: seen, to, readings } = r.params;
        const from = connector ?? logged;
        const fits = Array.isArray(seen) ? seen : typeof to === "string" ? [to] : [];
        const numbers = Array.isArray(readings) ? readings.map(Number) : [];
        const canMove = MOVES.has(r.code) && typeof from === "string" && numbers.length > 0;
        return (
          <div key={i} className={styles.alert} role="status">
            <span>{issueText(r)}</span>
            {r.code === "remark.code-without-condition" && onName ? (
              <button type="button" className="link" onClick={onName}>
                {t("job.sayWhichPartItNames")}
              </button>
            ) : null}
            {canMove ? (
              <span className={styles.moves}>
                {fits.map((to) => (
                  <Button
                    key={to}
                    size="small"
                    onClick={() =>
                      onEntry({ type: "moved", at: new Date().toISOString(), from, to, readings: numbers })
                    }
                  >
                    {t("job.moveTo", { count: numbers.length, number: numbers[0], to })}
                  </Button>
                ))}
              </span>
            ) : null}
          </div>
        );
      })}
      {remarks.length > MOST ? (
        <button type="button" className="link" onClick={() => setAll(!all)}>
          {all ? t("job.fewerRemarks") : t("job.moreRemarks", { remarksCount: remarks.length - MOST })}
        </button>
      ) : null}
    </>
  );
}
