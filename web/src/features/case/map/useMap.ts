"use client";
import { fold, type Entry } from "@radicula/core";
import { useEffect, useRef, useState } from "react";
import type { Maps } from "./placed";

/** The laid-out map; asked for anew when the set of codes in the database has changed. */
export function useMap(jobId: string, initial: Maps, entries: readonly Entry[], saved: number): Maps {
  const [map, setMap] = useState(initial);
  const codes = fold(entries.slice(0, saved))
    .codes.filter((c) => c.entry.status !== "absent" && c.entry.status !== "notRun")
    .map((c) => `${c.entry.module} ${c.entry.code}`)
    .sort()
    .join(" ");
  const drawn = useRef(codes);
  useEffect(() => {
    if (drawn.current === codes) return;
    const stop = new AbortController();
    fetch(`/api/jobs/${jobId}/map`, { signal: stop.signal })
      .then(async (r) => {
        if (!r.ok) return;
        setMap((await r.json()) as Maps);
        drawn.current = codes;
      })
      .catch(() => undefined); // the old map stays; the next change of codes asks again
    return () => stop.abort();
  }, [jobId, codes]);
  return map;
}
