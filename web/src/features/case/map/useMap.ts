"use client";
import { fold, toldCodes, type Entry, type Wiring } from "@radicula/core";
import { useEffect, useMemo, useRef, useState } from "react";
import { layOutInWorker } from "@/ui/elkWorker";
import { buildMap } from "./graph";
import { mapElkGraph, placedMap } from "./layout";
import type { Maps } from "./placed";

/** The laid-out map: the one sent with the page, and laid out anew in a worker when the set of codes has changed. */
export function useMap(wiring: Wiring, initial: Maps, entries: readonly Entry[]): Maps {
  const [map, setMap] = useState(initial);
  const codes = useMemo(() => toldCodes(fold(entries)), [entries]);
  const key = codes
    .map((c) => `${c.module} ${c.code}`)
    .sort()
    .join("\n");
  const drawn = useRef(key);
  useEffect(() => {
    if (drawn.current === key) return;
    const graphs = [buildMap(wiring, codes, false), buildMap(wiring, codes, true)] as const;
    const running = graphs.map((g) => layOutInWorker(mapElkGraph(g)));
    Promise.all(running.map((r) => r.laidOut)).then(
      ([short, full]) => {
        drawn.current = key;
        setMap({ short: placedMap(graphs[0], short!), full: placedMap(graphs[1], full!) });
      },
      () => undefined, // stopped; the old map stays, and the next change of codes asks again
    );
    return () => running.forEach((r) => r.stop());
    // eslint-disable-next-line react-hooks/exhaustive-deps -- codes are the same while their names are
  }, [key, wiring]);
  return map;
}
