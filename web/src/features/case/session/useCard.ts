"use client";
import type { Entry, ReadingEntry } from "@radicula/core";
import { useCallback, useMemo, useState } from "react";
import type { Other } from "../reading/useOwnReading";

/** What somebody chose to read instead of what the plan says, and what is typed so far. */
export interface Card {
  readonly other: Other | undefined;
  readonly texts: readonly string[];
  readonly choose: (other: Other | undefined) => void;
  readonly setTexts: (texts: readonly string[]) => void;
  /** back to the plan, with nothing typed */
  readonly clear: () => void;
  /** a reading to be taken again: it could not be saved, or is to be corrected */
  readonly take: (reading: ReadingEntry, corrects?: number) => void;
}

export function useCard(): Card {
  const [other, setOther] = useState<Other | undefined>(undefined);
  const [texts, setTexts] = useState<readonly string[]>([]);
  const choose = useCallback((next: Other | undefined) => {
    setOther(next);
    setTexts([]);
  }, []);
  const clear = useCallback(() => choose(undefined), [choose]);
  const take = useCallback((reading: ReadingEntry, corrects?: number) => {
    const { instrument, points, state, black, part } = reading;
    setOther({
      reading: {
        instrument,
        points,
        state,
        ...(black === undefined ? {} : { black }),
        ...(part ? { part } : {}),
        ...(corrects === undefined ? {} : { corrects }),
      },
    });
    setTexts(reading.as?.split(" · ") ?? reading.values.map(String));
  }, []);
  return useMemo(
    () => ({
      other,
      texts,
      choose,
      clear,
      take,
      setTexts: (next) => setTexts(next),
    }),
    [other, texts, choose, clear, take],
  );
}

/** The reading among entries that the database gave back. */
export const readingIn = (entries: readonly Entry[]): ReadingEntry | undefined =>
  entries.find((e): e is ReadingEntry => e.type === "reading");
