"use client";
import type { Entry, Played, Wiring } from "@radicula/core";
import { wrap } from "comlink";
import { useEffect, useState } from "react";
import { get } from "@/ui/send";
import type { PracticeApi } from "@/workers/practice.worker";
import { HiddenMachine } from "./hidden";

/** What was hidden; asked for when the job is closed. */
export function useHidden(job: string): HiddenMachine | undefined {
  const [hidden, setHidden] = useState<HiddenMachine | undefined>(undefined);
  useEffect(() => {
    let isCurrent = true;
    void get(`/api/jobs/${job}/hidden`, HiddenMachine).then((answer) => {
      if (isCurrent && answer.ok) setHidden(answer.body);
    });
    return () => {
      isCurrent = false;
    };
  }, [job]);
  return hidden;
}

export type Planned = { readonly state: "working" | "none" } | { readonly state: "played"; readonly played: Played };
/** What the plan alone would have taken, worked out beside the page; over when the page is left. */
export function usePlanned(wiring: Wiring, hidden: HiddenMachine, entries: readonly Entry[]): Planned {
  const [planned, setPlanned] = useState<Planned>({ state: "working" });
  const [before] = useState(() => entries.filter((e) => e.type === "intake"));
  useEffect(() => {
    const worker = new Worker(new URL("../../../workers/practice.worker.ts", import.meta.url), { type: "module" });
    wrap<PracticeApi>(worker)
      .play(wiring, hidden, before)
      .then(
        (played) => setPlanned(played ? { state: "played", played } : { state: "none" }),
        () => setPlanned({ state: "none" }),
      );
    return () => worker.terminate();
  }, [wiring, hidden, before]);
  return planned;
}
