"use client";
import type { ChannelPlace, State, SuspectView, Wiring } from "@radicula/core";
import { useEffect, useState } from "react";
import type { ExpectedLevels } from "@/workers/recording.worker";
import type { OpenRecording } from "./useRecording";

/** Levels between which a sound machine, and one with the leading suspect, would keep the channels. */
export function useExpected(
  { worker }: OpenRecording,
  wiring: Wiring,
  state: State,
  places: readonly (ChannelPlace | undefined)[],
  leader: SuspectView | undefined,
): ExpectedLevels | undefined {
  const [expected, setExpected] = useState<ExpectedLevels | undefined>(undefined);
  const member = leader?.type === "fault" ? leader.members[0] : undefined;
  const fault = member?.faults.length === 1 ? member.faults[0]!.id : undefined;
  const ohm = member && Number.isFinite(member.ohm) ? member.ohm : null;
  useEffect(() => {
    let isHere = true;
    const points = places.map((p) => (p?.by === "scope" ? p.on : undefined));
    void worker.expected({ wiring, state, points, ...(fault === undefined ? {} : { suspect: { fault, ohm } }) }).then(
      (found) => {
        if (isHere) setExpected(found);
      },
      () => undefined, // nothing is drawn then
    );
    return () => {
      isHere = false;
    };
  }, [worker, wiring, state, places, fault, ohm]);
  return expected;
}
