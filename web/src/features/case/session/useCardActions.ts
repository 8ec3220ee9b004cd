"use client";
import { connectorOf, recordAnswer, recordReading, type Finding } from "@radicula/core";
import { postPhoto } from "@/ui/postPhoto";
import type { How } from "../reading/TakenHow";
import type { TypedMore, TypedValue } from "../reading/ValueBox";
import { useCase } from "./caseContext";
import { now } from "./useCaseSession";

/** What can be done with the card: log what was read, set it aside, keep a photo. */
export function useCardActions() {
  const { job, wiring, card, write, next } = useCase();
  const { candidate } = next;
  const setAside = (reason: "cannotReach" | "noTool") => {
    if (card.other?.reading) card.clear();
    else if (candidate) write.append([{ type: "setAside", at: now(), candidate: candidate.id, reason }]);
  };
  const logReading = (values: readonly TypedValue[], typed: string, { swing, unit }: TypedMore, how: How) => {
    if (!candidate) return;
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
  const keepPhoto = async (file: File): Promise<string | undefined> => {
    const thing = candidate && (candidate.at || connectorOf(candidate.points[0] ?? ""));
    if (!job.library || !thing) return undefined;
    const kept = await postPhoto(job.library.id, thing, file);
    return kept.ok ? kept.body.id : undefined;
  };
  return { setAside, logReading, logAnswer, keepPhoto: job.library ? keepPhoto : undefined };
}
