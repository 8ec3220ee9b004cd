"use client";
import { batteryVolt, findNets, type BusSeen, type ChannelPlace, type State, type Wiring } from "@radicula/core";
import { busText } from "@radicula/core/words";
import { useEffect, useMemo, useState } from "react";
import styles from "./Recording.module.css";
import type { OpenRecording } from "./useRecording";
import { t } from "@/messages";

interface Props {
  readonly recording: OpenRecording;
  readonly wiring: Wiring;
  readonly places: readonly (ChannelPlace | undefined)[];
  readonly state: State;
}
type Lines = Parameters<OpenRecording["worker"]["bus"]>[0];

/** What a bus does, where channels were put on its lines. */
export function Bus({ recording, wiring, places, state }: Props) {
  const { worker } = recording;
  const lines = useMemo(() => linesOf(wiring, places, state), [wiring, places, state]);
  const [seen, setSeen] = useState<{ readonly of: Lines; readonly is: BusSeen } | undefined>(undefined);
  useEffect(() => {
    if (!lines) return undefined;
    let isHere = true;
    void worker.bus(lines).then(
      (is) => {
        if (isHere) setSeen({ of: lines, is });
      },
      () => undefined, // it was closed meanwhile
    );
    return () => {
      isHere = false;
    };
  }, [worker, lines]);
  if (!lines || seen?.of !== lines) return null;
  return (
    <section aria-label={t("recording.bus")} className={styles.bus}>
      {busText(seen.is).map((line) => (
        <p key={line}>{line}</p>
      ))}
    </section>
  );
}

/** The channels that were on the lines of one bus. */
function linesOf(wiring: Wiring, places: readonly (ChannelPlace | undefined)[], state: State): Lines | undefined {
  const nets = findNets(wiring);
  const roles = new Map<number, string>();
  for (const d of wiring.devices)
    if (d.kind === "module")
      for (const p of d.pins) {
        const net = nets.netOf.get(p.at);
        if (net !== undefined && BUS.has(p.role)) roles.set(net, p.role);
      }
  const on = (role: string) =>
    places.findIndex((p) => p?.by === "scope" && roles.get(nets.netOf.get(p.on) ?? -1) === role);
  const [high, low, line] = [on("busHigh"), on("busLow"), on("busLine")];
  if (high >= 0 && low >= 0) return { high, low };
  return line >= 0 ? { line, supply: batteryVolt(wiring, state.key) } : undefined;
}
const BUS: ReadonlySet<string> = new Set(["busHigh", "busLow", "busLine"]);
