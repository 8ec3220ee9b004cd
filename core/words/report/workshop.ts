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

/** What the workshop wants beyond what the customer reads: codes, readings, proof, parts, cautions. */
export function evidenceSections(source: ReportSource, namer: Namer, instructor: Instructor): ReportSection[] {
  const { folded, proof } = source.facts;
  return [
    ...section("Codes", [codeTable(source)]),
    ...section("What the coded circuits share", [shared(source)]),
    ...section("Readings", [readingTable(source, namer, instructor)]),
    ...section("Seen by eye", looks(source, namer)),
    ...section("Verdict as it was given", verdictBlocks(folded)),
    ...section("Proof", [proofTable(proof)]),
    ...section("Times", [times(source)]),
    ...section(
      "Cautions that applied",
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
      ["Tests by the plan", `${plannedMinutes(wiring, entries)} min`],
      ["Tests as taken", `${testing} min, with scans and breaks under half an hour`],
      ...(repairing ? [["Repair", `${repairing} min`] as const] : []),
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
    head: ["Module", "Code", ...(isRepaired ? ["Before", "After"] : ["Status"])],
    rows: [...names].map(([name, { entry }]) => {
      const before = codesBefore.find((c) => `${c.entry.module} ${c.entry.code}` === name)?.entry.status;
      const scanned = scans.some((s) => s.number > since);
      return [
        entry.module,
        entry.code,
        ...(isRepaired
          ? [before ?? "not set", after.get(name) ?? (scanned ? "not set" : "not scanned")]
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
    head: ["Entry", "Where", "State", "Value", "Good", ""],
    rows: entries.flatMap((e, i) => {
      if (e.type !== "reading" || undone.has(i + 1)) return [];
      const good = facts.healthy.get(i + 1);
      return [
        [
          String(i + 1),
          `${instructor.functionOf(e.points.at(-1)!)} at ${e.points.map((p) => namer.point(p)).join(", ")}`,
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
    state.unplugged.length ? `${state.unplugged.join(", ")} unplugged` : "",
    part ? `${part} part by itself` : "",
    black ? `black lead on ${black}` : "",
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
      text: `${v.text} (${shareText(v.share)}), by engine ${v.engine}, ${v.at.slice(0, 16).replace("T", " ")}.`,
    },
    {
      kind: "table",
      head: ["Suspect then", "Share"],
      rows: v.ranking.map((r) => [r.suspect, shareText(r.share)]),
    },
    {
      kind: "table",
      head: ["Repairs that were open", "Share"],
      rows: (v.open ?? []).map((o) => [o.repair, shareText(o.share)]),
    },
  ];
}

function proofTable(proof: FrozenProof | undefined): Block {
  return {
    kind: "table",
    head: ["Step", "Good is", "Result", "Entry"],
    rows: (proof?.steps ?? []).map((s) => {
      const again = s.again?.length ? `, set again: ${s.again.join(", ")}` : "";
      return [s.title, s.good, `${RESULTS[s.status]}${again}`, s.entry === undefined ? "" : String(s.entry)];
    }),
  };
}
const RESULTS = { open: "not done", passed: "passed", failed: "failed", leftOut: "left out" } as const;
