"use client";
import { FINDINGS, type Candidate, type Finding } from "@radicula/core";
import { unitOf, yesNo } from "@radicula/core/words";
import { useEffect, useRef, useState } from "react";
import { z } from "zod";
import { useKey } from "@/ui/keys";
import styles from "./NextReading.module.css";
import { t } from "@/messages";

const Answer = z.object({
  values: z.array(z.union([z.number(), z.enum(["OL", "bright", "dim", "dark", "beep", "silent"]), z.null()])),
  found: z.enum(FINDINGS).optional(),
  /** both ends of a value that would not stand still */
  swings: z.array(z.tuple([z.number(), z.number()]).nullable()).optional(),
});

/** A meter on a simulated machine: shows what a real one would, for whoever has no machine at hand. */
export function SimulatedMeter({
  jobId,
  candidate,
  onRead,
}: {
  readonly jobId: string;
  readonly candidate: Candidate;
  readonly onRead: (values: (number | string)[], found: Finding | undefined) => void;
}) {
  const [shown, setShown] = useState<string | undefined>(undefined);
  // an answer that arrives after the leads have moved on belongs to no box any more
  const here = useRef(true);
  useEffect(() => {
    here.current = true;
    return () => {
      here.current = false;
    };
  }, []);
  const read = async () => {
    try {
      const response = await fetch(`/api/jobs/${jobId}/measure`, {
        method: "POST",
        headers: { "Content-Type": "application/json" },
        body: JSON.stringify({
          points: candidate.points,
          instrument: candidate.instrument,
          kind: candidate.kind,
          ...(candidate.black === undefined ? {} : { black: candidate.black }),
          ...(candidate.part ? { part: candidate.part } : {}),
          state: candidate.state,
        }),
      });
      if (!response.ok) throw new Error(String(response.status));
      const read = Answer.parse(await response.json());
      const { found } = read;
      const values = read.values.map((v, i) => {
        const ends = read.swings?.[i];
        return ends ? `${Math.min(...ends)} – ${Math.max(...ends)}` : v;
      });
      if (!here.current) return;
      setShown(
        candidate.instrument === "none"
          ? yesNo(candidate.kind)[values[0] ? 0 : 1]
          : values.map((v) => (v === null ? "—" : v === "silent" ? t("reading.noBeep") : String(v))).join(" / "),
      );
      if (values.every((v) => v !== null))
        onRead(
          values.filter((v) => v !== null),
          found,
        );
    } catch {
      if (here.current) setShown(t("reading.noAnswer"));
    }
  };
  useKey("s", () => void read());
  return (
    <div className={styles.meter}>
      <span className={styles.meterName}>
        {candidate.instrument === "none"
          ? t("reading.simulatedMachine")
          : candidate.instrument === "scanTool"
            ? t("reading.simulatedScanTool")
            : candidate.instrument === "lamp"
              ? t("reading.simulatedLamp")
              : t("reading.simulatedMeter")}
      </span>
      <output className={`mono ${styles.display}`} aria-label={t("reading.simulatedMeterShows")}>
        {shown ?? "– – –"}
        <small>
          {candidate.instrument === "none" || candidate.instrument === "lamp" || candidate.instrument === "continuity"
            ? ""
            : unitOf(candidate.instrument)}
        </small>
      </output>
      <button type="button" className={styles.meterButton} onClick={() => void read()}>
        {candidate.instrument === "none"
          ? t("reading.doIt")
          : candidate.instrument === "scanTool"
            ? t("reading.readIt")
            : t("reading.putTheLeadsOn")}{" "}
        <kbd>S</kbd>
      </button>
    </div>
  );
}
