"use client";
import { connectorOf, recordAnswer, recordReading, recordWatched, watchedBy, type Finding } from "@radicula/core";
import { postPhoto } from "@/ui/postPhoto";
import type { How } from "../reading/TakenHow";
import type { TypedMore, TypedValue } from "../reading/ValueBox";
import { useCase } from "./caseContext";
import { now } from "./useCaseSession";

/** What can be done with the card: log what was read, set it aside, keep a photo. */
export function useCardActions() {
  const { wiring, card, write, next } = useCase();
  const { candidate } = next;
  const setAside = (reason: "cannotReach" | "noTool") => {
    if (card.other?.reading) card.clear();
    else if (candidate) write.append([{ type: "setAside", at: now(), candidate: candidate.id, reason }]);
  };
  const logReading = (values: readonly TypedValue[], typed: string, { swing, swings, unit }: TypedMore, how: How) => {
    if (!candidate) return;
    if (watchedBy(candidate.kind) && candidate.points.length > 1) {
      write.append(recordWatched(candidate, values, swings ?? [], now(), how));
      return;
    }
    const corrects = card.other?.reading?.corrects;
    write.append(
      recordReading(candidate, values, now(), {
        as: typed,
        ...(swing ? { swing: [...swing] } : {}),
        ...(unit ? { unit } : {}),
        ...how,
        ...(corrects === undefined ? {} : { corrects }),
      }),
    );
  };
  const logAnswer = (yes: boolean, found: readonly Finding[], photo: string | undefined) => {
    if (candidate) write.append(recordAnswer(wiring, candidate, yes, now(), found, photo ? { photo } : {}));
  };
  const keepOf = useKeepPhoto();
  const keepPhoto =
    keepOf &&
    (async (file: File): Promise<string | undefined> => {
      const thing = candidate && (candidate.at || connectorOf(candidate.points[0] ?? ""));
      return thing ? keepOf(file, thing) : undefined;
    });
  return { setAside, logReading, logAnswer, keepPhoto };
}

/** Keeps a photo of a thing with the wiring of the library; undefined where the job has none. */
export function useKeepPhoto(): ((file: File, thing: string) => Promise<string | undefined>) | undefined {
  const { library } = useCase().job;
  return (
    (library &&
      (async (file, thing) => {
        const kept = await postPhoto(library.id, connectorOf(thing).slice(0, LONGEST_PLACE), file);
        return kept.ok ? kept.body.id : undefined;
      })) ??
    undefined
  );
}
/** As long as the server takes the place of a photo. */
const LONGEST_PLACE = 40;
