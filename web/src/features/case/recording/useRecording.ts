"use client";
import type { Doing, Issue } from "@radicula/core";
import { proxy, wrap, type Remote } from "comlink";
import { useCallback, useEffect, useRef, useState } from "react";
import type { MovedWhen } from "./movedWhen";
import type { Measured, OpenedChannel, RecordingApi } from "@/workers/recording.worker";

/** How a file is to be read where it does not tell by itself. */
export interface HowRead {
  readonly interval?: number;
  readonly scales?: readonly number[];
}
/** A recording as it was given, before anything is known of it. */
export interface GivenRecording {
  readonly file: Blob;
  readonly name: string;
  readonly isCompressed?: boolean;
  readonly how?: HowRead;
  /** what was done meanwhile, where that is known */
  readonly doing?: Doing;
  readonly moved?: readonly MovedWhen[];
}
export interface OpenRecording {
  readonly given: GivenRecording;
  readonly channels: readonly OpenedChannel[];
  readonly issues: readonly Issue[];
  readonly worker: Remote<RecordingApi>;
  /** what is measured of it, once it is */
  readonly measured: Measured | undefined;
}
export type RecordingState =
  | { readonly is: "none" }
  | { readonly is: "opening"; readonly name: string; readonly share: number }
  | { readonly is: "refused"; readonly name: string; readonly issues: readonly Issue[] }
  | { readonly is: "open"; readonly recording: OpenRecording };

const failed = (name: string): RecordingState => ({
  is: "refused",
  name,
  issues: [{ code: "worker.stopped", path: [], params: {} }],
});

/**
 * A recording that is read and measured in a worker of its own: the page never waits for it, and it can be stopped. One
 * at a time; the next takes the place of the last.
 */
export function useRecording() {
  const [state, setState] = useState<RecordingState>({ is: "none" });
  const running = useRef<Worker | undefined>(undefined);
  const end = useCallback(() => {
    running.current?.terminate();
    running.current = undefined;
  }, []);
  useEffect(() => end, [end]);
  const open = useCallback(
    async (given: GivenRecording) => {
      end();
      const worker = new Worker(new URL("../../../workers/recording.worker.ts", import.meta.url), { type: "module" });
      running.current = worker;
      const isCurrent = () => running.current === worker;
      setState({ is: "opening", name: given.name, share: 0 });
      const remote = wrap<RecordingApi>(worker);
      try {
        const asked = { file: given.file, isCompressed: given.isCompressed ?? false, ...given.how };
        const progress = proxy((share: number) => {
          if (isCurrent()) setState({ is: "opening", name: given.name, share });
        });
        const opened = await remote.open(asked, progress);
        if (!isCurrent()) return;
        if (!opened.ok) {
          setState({ is: "refused", name: given.name, issues: opened.issues });
          return;
        }
        const { channels, issues } = opened;
        const recording: OpenRecording = { given, channels, issues, worker: remote, measured: undefined };
        setState({ is: "open", recording });
        const measured = await remote.measure();
        if (isCurrent()) setState({ is: "open", recording: { ...recording, measured } });
      } catch {
        if (isCurrent()) setState(failed(given.name));
      }
    },
    [end],
  );
  const close = useCallback(() => {
    end();
    setState({ is: "none" });
  }, [end]);
  const refuse = useCallback(
    (name: string, issues: readonly Issue[]) => {
      end();
      setState({ is: "refused", name, issues });
    },
    [end],
  );
  return { state, open, close, refuse };
}
