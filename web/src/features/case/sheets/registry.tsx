"use client";
import type { Entry, Folded, Proof } from "@radicula/core";
import dynamic from "next/dynamic";
import type { ComponentType } from "react";
import { askedBy, askedOn } from "../recording/props";
import { scanSimulated } from "../scan/simulated";
import { useCase } from "../session/caseContext";
import { useKeepPhoto } from "../session/useCardActions";
import { now } from "../session/useCaseSession";
import type { SheetName } from "../session/sheetNames";
import { suspectedPlaces } from "../watch/places";
import { useKeptCodes } from "./useKeptCodes";

const Close = dynamic(() => import("../proof/CloseSheet").then((m) => m.CloseSheet), { ssr: false });
const FollowUp = dynamic(() => import("../proof/FollowUpSheet").then((m) => m.FollowUpSheet), { ssr: false });
const Recorded = dynamic(() => import("../recording/RecordingSheet").then((m) => m.RecordingSheet), { ssr: false });
const Repair = dynamic(() => import("../proof/RepairSheet").then((m) => m.RepairSheet), { ssr: false });
const Before = dynamic(() => import("../before/BeforeSheet").then((m) => m.BeforeSheet), { ssr: false });
const Bench = dynamic(() => import("../../bench/BenchSheet").then((m) => m.BenchSheet), { ssr: false });
const Disturbed = dynamic(() => import("../disturbed/DisturbedList").then((m) => m.DisturbedSheet), { ssr: false });
const Gaps = dynamic(() => import("../gaps/GapSheet").then((m) => m.GapSheet), { ssr: false });
const HelpSheet = dynamic(() => import("../Help").then((m) => m.Help), { ssr: false });
const IntakeSheet = dynamic(() => import("../intake/IntakeSheet").then((m) => m.IntakeSheet), { ssr: false });
const MakerChart = dynamic(() => import("../policy/MakerChartSheet").then((m) => m.MakerChartSheet), { ssr: false });
const Meter = dynamic(() => import("../meter/MeterSheet").then((m) => m.MeterSheet), { ssr: false });
const NameCodes = dynamic(() => import("../scan/NameCodes").then((m) => m.NameCodes), { ssr: false });
const OtherReading = dynamic(() => import("../reading/OtherReading").then((m) => m.OtherReading), { ssr: false });
const Runs = dynamic(() => import("../runs/RunSheet").then((m) => m.RunSheet), { ssr: false });
const Scan = dynamic(() => import("../scan/ScanSheet").then((m) => m.ScanSheet), { ssr: false });
const Seen = dynamic(() => import("../seen/SeenSheet").then((m) => m.SeenSheet), { ssr: false });
const Sums = dynamic(() => import("../reading/SumSheet").then((m) => m.SumSheet), { ssr: false });
const Watch = dynamic(() => import("../watch/WatchSheet").then((m) => m.WatchSheet), { ssr: false });

interface Props {
  readonly isOpen: boolean;
}
function useSheetCase() {
  const session = useCase();
  const { write, sheets } = session;
  const logAndClose = (entries: readonly Entry[]) => {
    write.append(entries);
    sheets.close();
  };
  return { ...session, logAndClose };
}

function OtherEntry({ isOpen }: Props) {
  const { sheets, folded, wiring, namer, instructor, analysis, next, card } = useSheetCase();
  const others = analysis?.next.map((n) => n.candidate).filter((c) => c.id !== next.candidate?.id) ?? [];
  return (
    <OtherReading
      open={isOpen}
      point={sheets.point}
      now={folded.state}
      wiring={wiring}
      namer={namer}
      instructor={instructor}
      offered={others.slice(0, OFFERED_BESIDE)}
      onChoose={(chosen) => {
        card.choose(chosen);
        sheets.close();
      }}
      onClose={sheets.dismiss}
    />
  );
}
/** Other tests offered beside a reading of one's own. */
const OFFERED_BESIDE = 5;

function CodesEntry({ isOpen }: Props) {
  const { job, wiring, folded, analysis, workbench, write, sheets } = useSheetCase();
  const kept = useKeptCodes();
  return (
    <Scan
      open={isOpen}
      wiring={wiring}
      given={sheets.given}
      due={scanDue(analysis?.proof)}
      onSimulated={job.practice ? (when) => scanSimulated(job.id, when) : undefined}
      folded={folded}
      workbench={workbench}
      unkept={kept.unkept}
      onKeep={() => void kept.keep()}
      onLog={(entries) => {
        write.append(entries);
        if (entries[0]?.type !== "cleared") sheets.close();
      }}
      onClose={sheets.dismiss}
    />
  );
}

/** The scan that the proof asks for next. */
function scanDue(proof: Proof | undefined) {
  const step = proof?.steps.find((s) => s.status === "open" && s.action.kind === "scan");
  return step?.action.kind === "scan" ? step.action.when : undefined;
}

function IntakeEntry({ isOpen }: Props) {
  const { wiring, intake, computed, logAndClose, sheets } = useSheetCase();
  return (
    <IntakeSheet
      open={isOpen}
      wiring={wiring}
      intake={intake}
      feedsOf={computed.feedsOf}
      onLog={(i) => logAndClose([{ type: "intake", at: now(), intake: i }])}
      onClose={sheets.dismiss}
    />
  );
}

function NameEntry({ isOpen }: Props) {
  const { wiring, codes, folded, logAndClose, sheets } = useSheetCase();
  return (
    <NameCodes
      open={isOpen}
      wiring={wiring}
      unnamed={codes.unnamed}
      scans={folded.scans}
      onLog={logAndClose}
      onClose={sheets.dismiss}
    />
  );
}

function SeenEntry({ isOpen }: Props) {
  const { wiring, next, logAndClose, sheets } = useSheetCase();
  return (
    <Seen
      open={isOpen}
      wiring={wiring}
      connector={next.candidate?.at}
      onLog={(e) => logAndClose([e])}
      onClose={sheets.dismiss}
    />
  );
}

function ChartEntry({ isOpen }: Props) {
  const { wiring, namer, instructor, folded, logAndClose, sheets } = useSheetCase();
  return (
    <MakerChart
      open={isOpen}
      wiring={wiring}
      namer={namer}
      instructor={instructor}
      chart={folded.school?.chart}
      onLog={(e) => logAndClose([e])}
      onClose={sheets.dismiss}
    />
  );
}

function RunsEntry({ isOpen }: Props) {
  const { wiring, namer, computed, write, setWaitingRun, sheets } = useSheetCase();
  return (
    <Runs
      open={isOpen}
      wiring={wiring}
      namer={namer}
      offers={computed.offers}
      onBegin={(run, on) => {
        write.append([{ type: "run", at: now(), run, on, event: "begun" }]);
        setWaitingRun(undefined);
        if (run === "wiggle") sheets.open("watch");
        else sheets.close();
      }}
      onClose={sheets.dismiss}
    />
  );
}

function DisturbedEntry({ isOpen }: Props) {
  const { wiring, namer, open, closed, write, sheets } = useSheetCase();
  return (
    <Disturbed
      open={isOpen}
      wiring={wiring}
      namer={namer}
      list={open}
      closed={closed !== undefined}
      onLog={write.append}
      onCloseJob={() => sheets.open("close")}
      onClose={sheets.dismiss}
    />
  );
}

function MeterEntry({ isOpen }: Props) {
  const { logAndClose, sheets } = useSheetCase();
  return <Meter open={isOpen} onLog={(e) => logAndClose([e])} onClose={sheets.dismiss} />;
}

/** Where one place after the other is being moved while a value is watched. */
const watchedOn = ({ run }: Folded) => (run?.entry.run === "wiggle" ? run.entry.on : undefined);
function endOfWatch(folded: Folded, event: "finished" | "left"): Entry[] {
  const on = watchedOn(folded);
  return on === undefined ? [] : [{ type: "run", at: now(), run: "wiggle", on, event }];
}

function WatchEntry({ isOpen }: Props) {
  const { job, wiring, namer, instructor, folded, computed, analysis, logAndClose, sheets } = useSheetCase();
  const on = watchedOn(folded);
  const ended = (event: "finished" | "left") => endOfWatch(folded, event);
  return (
    <Watch
      open={isOpen}
      jobId={job.id}
      wiring={wiring}
      namer={namer}
      instructor={instructor}
      practice={job.practice}
      asked={on}
      best={computed.watch}
      places={suspectedPlaces(wiring, analysis?.suspects ?? [])}
      onLog={(entries) => logAndClose([...entries, ...ended("finished")])}
      onRecord={() => sheets.open("recording")}
      onClose={() => {
        logAndClose(ended("left"));
        sheets.close();
      }}
    />
  );
}

function RecordingEntry({ isOpen }: Props) {
  const { job, wiring, namer, instructor, analysis, next, folded, logAndClose, sheets } = useSheetCase();
  return (
    <Recorded
      open={isOpen}
      jobId={job.id}
      practice={job.practice}
      wiring={wiring}
      namer={namer}
      instructor={instructor}
      now={folded.state}
      leader={analysis?.suspects[0]}
      given={sheets.recording}
      asked={askedBy(next.candidate) ?? askedOn(watchedOn(folded))}
      traces={folded.traces}
      onLog={(e) => logAndClose([e, ...endOfWatch(folded, "finished")])}
      onClose={sheets.dismiss}
    />
  );
}

function SumsEntry({ isOpen }: Props) {
  const { wiring, next, sheets } = useSheetCase();
  return <Sums open={isOpen} wiring={wiring} candidate={next.candidate} onClose={sheets.dismiss} />;
}

function BenchEntry({ isOpen }: Props) {
  const { job, sheets } = useSheetCase();
  return <Bench open={isOpen} job={job.id} onClose={sheets.dismiss} />;
}

function HelpEntry({ isOpen }: Props) {
  const { sheets } = useSheetCase();
  return <HelpSheet open={isOpen} onClose={sheets.dismiss} />;
}

function RepairEntry({ isOpen }: Props) {
  const { wiring, namer, instructor, analysis, dangers, logAndClose, sheets } = useSheetCase();
  const keepPhoto = useKeepPhoto();
  const leader = analysis?.suspects[0];
  const repairs = analysis?.outcome?.repairs;
  const isCause = leader?.type === "fault" || leader?.type === "several";
  const faults = repairs?.[0]?.faults ?? (isCause ? leader.members[0]?.faults : undefined) ?? [];
  const cautions = [...new Set([...dangers, ...instructor.cautionsAt(faults.map((f) => f.place.id))])];
  return (
    <Repair
      open={isOpen}
      wiring={wiring}
      namer={namer}
      faults={faults}
      cautions={cautions}
      onPhoto={keepPhoto}
      onLog={(e) => logAndClose([e])}
      onClose={sheets.dismiss}
    />
  );
}

/** Circuits whose faults must never be called fine because they stay away. */
const DANGEROUS = ["restraint", "throttle", "brake", "highVoltage"];

function CloseEntry({ isOpen }: Props) {
  const { namer, instructor, analysis, folded, open, logAndClose, sheets } = useSheetCase();
  return (
    <Close
      open={isOpen}
      namer={namer}
      instructor={instructor}
      proof={analysis?.proof}
      temporary={folded.repairs.at(-1)?.entry.temporary}
      isDangerous={folded.intake?.entry.safety.some((s) => DANGEROUS.includes(s)) ?? false}
      left={open}
      onLog={(e) => logAndClose([e])}
      onRestore={() => sheets.open("disturbed")}
      onClose={sheets.dismiss}
    />
  );
}

function FollowUpEntry({ isOpen }: Props) {
  const { logAndClose, sheets } = useSheetCase();
  return <FollowUp open={isOpen} onLog={(e) => logAndClose([e])} onClose={sheets.dismiss} />;
}

function BeforeEntry({ isOpen }: Props) {
  const { job, folded, analysis, write, sheets } = useSheetCase();
  return (
    <Before
      open={isOpen}
      jobId={job.id}
      practice={job.practice}
      learned={folded.learned}
      isRepaired={folded.since > 0}
      feeds={analysis?.feeds.filter((f) => f.because === "lessons") ?? []}
      onLog={(e) => write.append([e])}
      onClose={sheets.dismiss}
    />
  );
}

/** Every sheet that can be opened over the case. */
export const REGISTRY: Readonly<Record<SheetName, ComponentType<Props>>> = {
  other: OtherEntry,
  codes: CodesEntry,
  name: NameEntry,
  intake: IntakeEntry,
  seen: SeenEntry,
  chart: ChartEntry,
  help: HelpEntry,
  runs: RunsEntry,
  disturbed: DisturbedEntry,
  meter: MeterEntry,
  watch: WatchEntry,
  recording: RecordingEntry,
  sums: SumsEntry,
  bench: BenchEntry,
  repair: RepairEntry,
  close: CloseEntry,
  followUp: FollowUpEntry,
  before: BeforeEntry,
  gaps: Gaps,
};
