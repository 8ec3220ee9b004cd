import {
  ENGINE_VERSION,
  fold,
  healthyReadings,
  minutesTaken,
  toldCodes,
  type Analysis,
  type Entry,
  type Wiring,
  beforeAfter,
} from "../../src/index.js";
import { Namer } from "../faults.js";
import { DANGER_ADVICE } from "../intake.js";
import { isOneOfSeveral, verdictText } from "../outcome.js";
import {
  CLOSED_WORDS,
  curedText,
  FOLLOW_UP_WORDS,
  frozenProof,
  repairDetail,
  repairedText,
  stillWrong,
} from "../proof.js";
import { Instructor } from "../readings.js";
import { readingValue } from "../readingValue.js";
import { shareText } from "../shares.js";
import { paragraph, section, type Block, type Report, type ReportLength, type ReportSection } from "./blocks.js";
import { costs, moneyText, notReplaced } from "./money.js";
import { recordSections } from "./record.js";
import type { ReportFacts, ReportSource } from "./source.js";
import { evidenceSections } from "./workshop.js";

/**
 * What a report says of a logbook. Of a closed job the proof is the one that was frozen then; of an open one it is
 * worked out, where `analyse` says how.
 * @param analyse weighs the logbook; left out where a draft without it will do
 */
export function reportFacts(wiring: Wiring, entries: readonly Entry[], analyse?: () => Analysis): ReportFacts {
  const folded = fold(entries);
  const frozen = folded.closed === undefined ? undefined : folded.closing?.entry.proof;
  const isDue = frozen === undefined && (folded.repairs.length > 0 || !folded.verdict);
  const analysis = isDue ? analyse?.() : undefined;
  const namer = new Namer(wiring);
  return {
    folded,
    healthy: healthyReadings(wiring, folded),
    proof: frozen ?? (analysis?.proof && frozenProof(analysis.proof, namer, new Instructor(wiring))),
    likeliest: analysis && analysis.stage !== "waiting" && !folded.verdict ? likeliestText(analysis, namer) : undefined,
  };
}
function likeliestText(analysis: Analysis, namer: Namer): string {
  const { title } = verdictText(analysis, namer);
  const isGroup = isOneOfSeveral(analysis);
  return `${title}${isGroup ? ", one of several repairs" : ""} (${shareText(analysis.suspects[0]!.share)})`;
}

/** A report made from the logbook, in one of three lengths. */
export function makeReport(source: ReportSource, length: ReportLength): Report {
  const { settings, entries, machine, title } = source;
  const words = new ReportWords(source);
  return {
    length,
    title: machine ? `${machine}: ${title}` : title,
    letterhead: [settings.name, settings.address, settings.contact].filter(Boolean),
    facts: words.facts(),
    sections:
      length === "customer"
        ? words.customer()
        : [
            ...words.customer(),
            ...evidenceSections(source, words.namer, words.instructor),
            ...(length === "record" ? recordSections(source) : []),
          ],
    foot:
      `Made from ${entries.length} entries of the logbook by radicula, engine ${ENGINE_VERSION}. ` +
      "Maker’s manuals, local codes and licensed practice come before what stands here.",
  };
}

class ReportWords {
  readonly namer: Namer;
  readonly instructor: Instructor;
  constructor(private readonly source: ReportSource) {
    this.namer = new Namer(source.wiring);
    this.instructor = new Instructor(source.wiring);
  }

  facts(): (readonly [string, string])[] {
    const { entries, facts } = this.source;
    const { closing, closed } = facts.folded;
    const { testing, repairing } = minutesTaken(entries);
    const who = [...new Set(entries.flatMap((e) => (e.by ? [e.by] : [])))];
    return [
      ["Date", day((closing?.entry ?? entries.at(-1))?.at)],
      ...(who.length ? [["Worked on by", who.join(", ")] as const] : []),
      ["Time", `${testing} min of tests${repairing ? `, ${repairing} min of repair` : ""}`],
      [
        "State",
        closed === undefined
          ? "Job is open"
          : closing?.entry.because
            ? capital(CLOSED_WORDS[closing.entry.because])
            : "Closed",
      ],
    ];
  }

  customer(): ReportSection[] {
    return [
      ...section("What was wrong", this.wrong()),
      ...section("How we know", this.known()),
      ...section("What was done", this.done()),
      ...section("What was not replaced", this.spared()),
      ...section("How sure it is", this.sure()),
      ...section("If it happens again", this.ifAgain()),
      ...section("What it costs", [costs(this.source.entries, this.source.facts.folded, this.source.settings)]),
    ];
  }
  private wrong(): Block[] {
    const { complaint, facts } = this.source;
    const { verdict, intake, repairs, since, followUps } = facts.folded;
    const isOld = verdict !== undefined && verdict.number < since && followUps.some((f) => f.number === since);
    const told = intake?.entry.complaint ?? complaint ?? "";
    return [
      paragraph(told && `You told us: ${told}`),
      paragraph(
        verdict
          ? `${isOld ? "Found before it came back: " : ""}${verdict.entry.text}.`
          : repairs.length
            ? `No cause was logged. ${repairs.map((r) => repairedText(r.entry, this.namer)).join("; ")}.`
            : facts.likeliest
              ? `Not proven yet. Likeliest: ${facts.likeliest}.`
              : "The cause is not known yet.",
        true,
      ),
    ];
  }
  private known(): Block[] {
    const { facts, entries } = this.source;
    const { readings, repairs } = facts.folded;
    const repair = repairs.at(-1)?.number;
    const set = [...new Set(toldCodes(facts.folded).map((c) => c.code))];
    return [
      {
        kind: "list",
        items: [
          set.length ? `${set.length === 1 ? "One code was" : `${set.length} codes were`} set: ${set.join(", ")}.` : "",
          readings.length
            ? (readings.length === 1 ? "One reading was" : `${readings.length} readings were`) +
              " taken at the machine."
            : "",
          ...(repair === undefined ? [] : beforeAfter(entries, repair))
            .slice(0, SHOWN_BEFORE_AFTER)
            .map(
              (b) =>
                `${capital(this.instructor.functionOf(b.point))} at ${this.namer.point(b.point)}: ` +
                `${readingValue({ instrument: b.instrument }, b.before.value)} before, ` +
                `${readingValue({ instrument: b.instrument }, b.after.value)} after.`,
            ),
        ].filter(Boolean),
      },
    ];
  }
  private done(): Block[] {
    const { repairs } = this.source.facts.folded;
    return [
      {
        kind: "list",
        items: repairs.map(({ entry }) => {
          const detail = repairDetail(entry);
          const text = `${repairedText(entry, this.namer)}${detail ? `: ${detail}` : ""}`;
          return entry.note ? `${text}. ${entry.note}` : text;
        }),
      },
      ...repairs.flatMap(({ entry }): Block[] =>
        entry.photo ? [{ kind: "photo", id: entry.photo, caption: repairedText(entry, this.namer) }] : [],
      ),
    ];
  }
  private spared(): Block[] {
    const { wiring, facts, settings } = this.source;
    if (facts.folded.repairs.length === 0) return [];
    const { items, saved } = notReplaced(wiring, facts.folded, this.namer, settings);
    return items.length
      ? [
          paragraph("Codes named these parts, and they were not bought:"),
          { kind: "list", items },
          paragraph(saved ? `That saved ${moneyText(saved, settings)}, without the work.` : ""),
        ]
      : [];
  }
  private sure(): Block[] {
    const { proof, folded } = this.source.facts;
    const { closing, repairs, since } = folded;
    if (!proof) {
      const cameBack = folded.followUps.some((f) => f.number === since);
      return [
        paragraph(
          repairs.length === 0
            ? "Nothing was repaired, so nothing is proven."
            : cameBack
              ? "The fault came back after the repair: the search goes on."
              : "The proof of the repair is not finished.",
        ),
        paragraph(closing?.entry.note ?? ""),
      ];
    }
    const wrong = stillWrong(proof.outcome);
    const open = proof.steps.filter((s) => s.status !== "passed");
    return [
      paragraph(`${curedText(proof.outcome)} (${shareText(proof.outcome.cured)}).`, true),
      paragraph(wrong.length ? `Still possible: ${wrong.join("; ")}.` : ""),
      ...(open.length
        ? [
            paragraph("These steps of the proof were not passed:"),
            {
              kind: "list",
              items: open.map((s) => `${s.title} (${STATUS[s.status]})`),
            } as const,
          ]
        : []),
      paragraph(closing?.entry.note ?? ""),
    ];
  }
  private ifAgain(): Block[] {
    const { folded } = this.source.facts;
    const { closing, repairs, intake, followUps } = folded;
    const temporary = repairs.at(-1)?.entry.temporary;
    const next = closing?.entry.followUp;
    const safety = intake?.entry.safety ?? [];
    return [
      ...(temporary
        ? [{ kind: "caution", text: `The repair is temporary. Bring the machine back by ${temporary}.` } as const]
        : []),
      ...(closing?.entry.because === "notReproduced"
        ? [
            {
              kind: "caution",
              text: "The fault did not show itself here. That does not mean that it is gone.",
            } as const,
          ]
        : []),
      ...safety.flatMap((s): Block[] => (DANGER_ADVICE[s] ? [{ kind: "caution", text: DANGER_ADVICE[s] }] : [])),
      paragraph(
        "Stop where it is safe. Note what the machine did, which lamps came on, and whether it was cold, wet, hot or " +
          "shaken. Do not clear codes, and tell us.",
      ),
      paragraph(
        next
          ? [
              "We ask again on " + next.on,
              next.km ? `after ${next.km} km` : "",
              next.hours ? `after ${next.hours} h` : "",
            ]
              .filter(Boolean)
              .join(", or ") + "."
          : "",
      ),
      ...followUps.map((f) => paragraph(`${day(f.entry.at)}: ${FOLLOW_UP_WORDS[f.entry.result].toLowerCase()}.`)),
    ];
  }
}
const SHOWN_BEFORE_AFTER = 3;
const STATUS = { open: "not done", failed: "failed", leftOut: "left out", passed: "passed" } as const;
const day = (at: string | undefined) => at?.slice(0, 10) ?? "";
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
