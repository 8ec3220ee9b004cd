"use client";
import { wiggleVerdict, type Candidate, type WiggleSample, type Wiring } from "@radicula/core";
import { useEffect, useMemo, useRef, useState, type RefObject } from "react";
import { z } from "zod";
import { makeTone, toneRange, type Tone } from "./tone";

/** A simulated meter is read so often; on a real one each second counts as still, unless a key says that it jumped. */
const EVERY_MS = 250;
const STILL_MS = 1000;
/**
 * A value that moves by more than this between two readings has jumped, volt. Judgement: above a digit that flickers.
 */
export const JUMP_VOLT = 0.15;

const Measured = z.object({ values: z.array(z.unknown()) });

export interface WatchSource {
  readonly jobId: string;
  readonly wiring: Wiring;
  readonly practice: boolean;
  readonly candidate: Candidate;
}

/** A value watched while one place after the other is moved, and heard. */
export function useWatch(source: WatchSource) {
  const { practice, wiring, candidate } = source;
  const [samples, setSamples] = useState<readonly WiggleSample[]>([]);
  const [moving, setMoving] = useState("");
  const [running, setRunning] = useState(false);
  const [hears, setHears] = useState(true);
  const tone = useTone();
  const last = useRef<number | undefined>(undefined);
  const now = useRef({ moving: "", hears: true });
  useEffect(() => {
    now.current = { moving, hears };
  });
  const take = (value: number) => {
    const before = last.current;
    last.current = value;
    if (now.current.hears) {
      tone.current?.sound(value);
      if (before !== undefined && Math.abs(value - before) > JUMP_VOLT) tone.current?.click();
    }
    const sample = { place: now.current.moving, value };
    setSamples((list) => [...list, sample]);
  };
  const begin = () => (tone.current ??= makeTone(toneRange(wiring, candidate)));
  useSimulatedStream(source, running && practice, now, take);
  const markJump = useStillUnlessJumped(running && !practice, take);
  return {
    samples,
    moving,
    setMoving,
    running,
    hears,
    setHears,
    verdicts: useMemo(() => wiggleVerdict(samples), [samples]),
    take: (value: number) => {
      begin();
      take(value);
    },
    start: () => {
      begin();
      setRunning(true);
    },
    hold: () => setRunning(false),
    jump: () => {
      markJump();
      tone.current?.click();
    },
  };
}
export type Watch = ReturnType<typeof useWatch>;

function useTone(): RefObject<Tone | undefined> {
  const tone = useRef<Tone | undefined>(undefined);
  useEffect(() => () => tone.current?.stop(), []);
  return tone;
}

/** On a simulated machine the value streams by itself. */
function useSimulatedStream(
  { jobId, candidate }: WatchSource,
  on: boolean,
  now: RefObject<{ moving: string }>,
  take: (value: number) => void,
): void {
  const tick = useRef(0);
  const taking = useRef(take);
  useEffect(() => {
    taking.current = take;
  });
  useEffect(() => {
    if (!on) return;
    let stopped = false;
    const read = async () => {
      const { moving } = now.current;
      try {
        const response = await fetch(`/api/jobs/${jobId}/measure`, {
          method: "POST",
          headers: { "Content-Type": "application/json" },
          body: JSON.stringify({
            points: candidate.points,
            instrument: candidate.instrument,
            kind: candidate.kind,
            state: candidate.state,
            watch: { tick: tick.current++, ...(moving ? { moving } : {}) },
          }),
        });
        const value = Measured.parse(await response.json()).values[0];
        if (!stopped && typeof value === "number") taking.current(value);
      } catch {
        /* the next one */
      }
      if (!stopped) timer = setTimeout(() => void read(), EVERY_MS);
    };
    let timer = setTimeout(() => void read(), 0);
    return () => {
      stopped = true;
      clearTimeout(timer);
    };
  }, [on, jobId, candidate, now]);
}

/** On a real machine somebody watches the meter, and says when it jumps. */
function useStillUnlessJumped(on: boolean, take: (value: number) => void): () => void {
  const jumped = useRef(false);
  const taking = useRef(take);
  useEffect(() => {
    taking.current = take;
  });
  useEffect(() => {
    if (!on) return;
    const timer = setInterval(() => {
      taking.current(jumped.current ? 1 : 0);
      jumped.current = false;
    }, STILL_MS);
    return () => clearInterval(timer);
  }, [on]);
  return () => {
    jumped.current = true;
  };
}
