import {
  minutesTaken,
  plannedMinutes,
  partsNamed,
  sharedMatrix,
  undoneEntries,
  type Folded,
  type FrozenProof,
  type ReadingEntry,
} from "../../src/index.js";
import type { Namer } from "../faults.js";
import { CAUTION_WORDS } from "../intake.js";
import type { Instructor } from "../readings.js";
import { keyText } from "../readings.js";
import { readingValue } from "../readingValue.js";
import { shownText } from "../reasons.js";
import { sharedText } from "../shared.js";
import { shareText } from "../shares.js";
import { paragraph, section, type Block, type ReportSection } from "./blocks.js";
import type { ReportSource } from "./source.js";
import { t } from "../messages/index.js";
import { worded } from "../language.js";

/** What the workshop wants beyond what the customer reads: codes, readings, proof, parts, cautions. */
export function evidenceSections(source: ReportSource, namer: Namer, instructor: Instructor): ReportSection[] {
  const { folded, proof } = source.facts;
  return [
    ...section(t("report.codes"), [codeTable(source)]),
    ...section(t("report.whatTheCodedCircuitsShare"), [shared(source)]),
    ...section(t("report.readings"), [readingTable(source, namer, instructor)]),
    ...section(t("report.seenByEye"), looks(source, namer)),
    ...section(t("report.verdictAsItWasGiven"), verdictBlocks(folded)),
    ...section(t("report.proof"), [proofTable(proof)]),
    ...section(t("report.times"), [times(source)]),
    ...section(
      t("report.cautionsThatApplied"),
      (folded.intake?.entry.safety ?? []).map((s): Block => ({ kind: "caution", text: CAUTION_WORDS[s] })),
    ),
  ];
}

function shared({ wiring, facts }: ReportSource): Block {
  const { codesBefore, codes } = facts.folded;
  return paragraph(sharedText(sharedMatrix(wiring, partsNamed(wiring, [...codesBefore, ...codes]))));
}

/** What the tests take by the plan's own times, against what they took by the dates of the entries. */
function times({ wiring, entries }: ReportSource): Block {
  const { testing, repairing } = minutesTaken(entries);
  return {
    kind: "facts",
    rows: [
      [t("report.testsByThePlan"), t("report.min", { plannedMinutes: plannedMinutes(wiring, entries) })],
      [t("report.testsAsTaken"), t("report.minWithScansAndBreaksUnder", { testing })],
      ...(repairing ? [[t("report.repair"), t("report.min2", { repairing })] as const] : []),
    ],
  };
}

function codeTable({ facts }: ReportSource): Block {
  const { codesBefore, codes, since, scans } = facts.folded;
  const after = new Map(codes.map((c) => [`${c.entry.module} ${c.entry.code}`, c.entry.status]));
  const names = new Map([...codesBefore, ...codes].map((c) => [`${c.entry.module} ${c.entry.code}`, c] as const));
  const isRepaired = since > 0;
  return {
    kind: "table",
    head: [
      t("report.module"),
      t("report.code"),
      ...(isRepaired ? [t("report.before"), t("report.after")] : [t("report.status")]),
    ],
    rows: [...names].map(([name, { entry }]) => {
      const before = codesBefore.find((c) => `${c.entry.module} ${c.entry.code}` === name)?.entry.status;
      const scanned = scans.some((s) => s.number > since);
      return [
        entry.module,
        entry.code,
        ...(isRepaired
          ? [before ?? t("report.notSet"), after.get(name) ?? (scanned ? t("report.notSet") : t("report.notScanned"))]
          : [entry.status]),
      ];
    }),
  };
}

function readingTable({ facts, entries }: ReportSource, namer: Namer, instructor: Instructor): Block {
  const undone = undoneEntries(entries);
  const { since } = facts.folded;
  return {
    kind: "table",
    head: [t("report.entry"), t("report.where"), t("report.state"), t("report.value"), t("report.good"), ""],
    rows: entries.flatMap((e, i) => {
      if (e.type !== "reading" || undone.has(i + 1)) return [];
      const good = facts.healthy.get(i + 1);
      return [
        [
          String(i + 1),
          t("report.at", {
            functionOf: instructor.functionOf(e.points.at(-1)!),
            points: e.points.map((p) => namer.point(p)).join(", "),
          }),
          stateOf(e),
          e.values.map((v) => readingValue(e, v)).join(" · "),
          good === undefined || Number.isNaN(good) ? "" : shownText(e.instrument, good),
          since === 0 ? "" : i + 1 > since ? "after" : "before",
        ],
      ];
    }),
  };
}
const stateOf = ({ state, part, black }: ReadingEntry) =>
  [
    keyText(state.key),
    state.unplugged.length ? t("report.unplugged", { unplugged: state.unplugged.join(", ") }) : "",
    part ? t("report.partByItself", { part }) : "",
    black ? t("report.blackLeadOn", { black }) : "",
  ]
    .filter(Boolean)
    .join(", ");

function looks({ entries }: ReportSource, namer: Namer): Block[] {
  const undone = undoneEntries(entries);
  return entries.flatMap((e, i): Block[] => {
    if (e.type !== "look" || undone.has(i + 1)) return [];
    const text = `${namer.thing(e.thing)}: ${e.found.join(", ")}`;
    return e.photo ? [{ kind: "photo", id: e.photo, caption: text }] : [{ kind: "list", items: [text] }];
  });
}

function verdictBlocks(folded: Folded): Block[] {
  const v = folded.verdict?.entry;
  if (!v) return [];
  return [
    {
      kind: "text",
      text: t("report.byEngine", {
        text: v.text,
        share: shareText(v.share),
        engine: v.engine,
        at: v.at.slice(0, 16).replace("T", " "),
      }),
    },
    {
      kind: "table",
      head: [t("report.suspectThen"), t("report.share")],
      rows: v.ranking.map((r) => [r.suspect, shareText(r.share)]),
    },
    {
      kind: "table",
      head: [t("report.repairsThatWereOpen"), t("report.share")],
      rows: (v.open ?? []).map((o) => [o.repair, shareText(o.share)]),
    },
  ];
}

function proofTable(proof: FrozenProof | undefined): Block {
  return {
    kind: "table",
    head: [t("report.step"), t("report.goodIs"), t("report.result"), t("report.entry")],
    rows: (proof?.steps ?? []).map((s) => {
      const again = s.again?.length ? t("report.setAgain", { again: s.again.join(", ") }) : "";
      return [s.title, s.good, `${RESULTS[s.status]}${again}`, s.entry === undefined ? "" : String(s.entry)];
    }),
  };
}
const RESULTS = worded(() => ({
  open: t("report.notDone"),
  passed: t("report.passed"),
  failed: t("report.failed"),
  leftOut: t("report.leftOut"),
}));
