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
import { t } from "../messages/index.js";
import { midSentence, worded } from "../language.js";

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
  return `${title}${isGroup ? t("report.oneOfSeveralRepairs") : ""} (${shareText(analysis.suspects[0]!.share)})`;
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
    foot: t("report.madeFromEntriesOfTheLogbook", { entriesCount: entries.length, engine: ENGINE_VERSION }),
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
      [t("report.date"), day((closing?.entry ?? entries.at(-1))?.at)],
      ...(who.length ? [[t("report.workedOnBy"), who.join(", ")] as const] : []),
      [
        t("report.time"),
        t("report.minOfTests", { testing, repairing: repairing ? t("report.minOfRepair", { repairing }) : "" }),
      ],
      [
        t("report.state"),
        closed === undefined
          ? t("report.jobIsOpen")
          : closing?.entry.because
            ? capital(CLOSED_WORDS[closing.entry.because])
            : t("report.closed"),
      ],
    ];
  }

  customer(): ReportSection[] {
    return [
      ...section(t("report.whatWasWrong"), this.wrong()),
      ...section(t("report.howWeKnow"), this.known()),
      ...section(t("report.whatWasDone"), this.done()),
      ...section(t("report.whatWasNotReplaced"), this.spared()),
      ...section(t("report.howSureItIs"), this.sure()),
      ...section(t("report.ifItHappensAgain"), this.ifAgain()),
      ...section(t("report.whatItCosts"), [costs(this.source.entries, this.source.facts.folded, this.source.settings)]),
    ];
  }
  private wrong(): Block[] {
    const { complaint, facts } = this.source;
    const { verdict, intake, repairs, since, followUps } = facts.folded;
    const isOld = verdict !== undefined && verdict.number < since && followUps.some((f) => f.number === since);
    const told = intake?.entry.complaint ?? complaint ?? "";
    return [
      paragraph(told && t("report.youToldUs", { told })),
      paragraph(
        verdict
          ? `${isOld ? t("report.foundBeforeItCameBack") : ""}${verdict.entry.text}.`
          : repairs.length
            ? t("report.noCauseWasLogged", {
                repairs: repairs.map((r) => repairedText(r.entry, this.namer)).join("; "),
              })
            : facts.likeliest
              ? t("report.notProvenYetLikeliest", { likeliest: facts.likeliest })
              : t("report.theCauseIsNotKnownYet"),
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
          set.length
            ? t("report.set", {
                count: set.length,
                set: set.join(", "),
              })
            : "",
          readings.length ? t("report.readingsWereTaken", { count: readings.length }) : "",
          ...(repair === undefined ? [] : beforeAfter(entries, repair)).slice(0, SHOWN_BEFORE_AFTER).map((b) =>
            t("report.atBeforeAfter", {
              functionOf: capital(this.instructor.functionOf(b.point)),
              point: this.namer.point(b.point),
              readingValue: readingValue(b, b.before.value),
              readingValue2: readingValue(b, b.after.value),
            }),
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
          paragraph(t("report.codesNamedThesePartsAndThey")),
          { kind: "list", items },
          paragraph(saved ? t("report.thatSavedWithoutTheWork", { moneyText: moneyText(saved, settings) }) : ""),
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
            ? t("report.nothingWasRepairedSoNothingIs")
            : cameBack
              ? t("report.theFaultCameBackAfterThe")
              : t("report.theProofOfTheRepairIs"),
        ),
        paragraph(closing?.entry.note ?? ""),
      ];
    }
    const wrong = stillWrong(proof.outcome);
    const open = proof.steps.filter((s) => s.status !== "passed");
    return [
      paragraph(`${curedText(proof.outcome)} (${shareText(proof.outcome.cured)}).`, true),
      paragraph(wrong.length ? t("report.stillPossible", { wrong: wrong.join("; ") }) : ""),
      ...(open.length
        ? [
            paragraph(t("report.theseStepsOfTheProofWere")),
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
        ? [{ kind: "caution", text: t("report.theRepairIsTemporaryBringThe", { temporary }) } as const]
        : []),
      ...(closing?.entry.because === "notReproduced"
        ? [
            {
              kind: "caution",
              text: t("report.theFaultDidNotShowItself"),
            } as const,
          ]
        : []),
      ...safety.flatMap((s): Block[] => (DANGER_ADVICE[s] ? [{ kind: "caution", text: DANGER_ADVICE[s] }] : [])),
      paragraph(t("report.stopWhereItIsSafeNote")),
      paragraph(
        next
          ? [
              t("report.weAskAgainOn") + next.on,
              next.km ? t("report.afterKm", { km: next.km }) : "",
              next.hours ? t("report.afterH", { hours: next.hours }) : "",
            ]
              .filter(Boolean)
              .join(t("faults.orJoin")) + "."
          : "",
      ),
      ...followUps.map((f) => paragraph(`${day(f.entry.at)}: ${midSentence(FOLLOW_UP_WORDS[f.entry.result])}.`)),
    ];
  }
}
const SHOWN_BEFORE_AFTER = 3;
const STATUS = worded(() => ({
  open: t("report.notDone"),
  failed: t("report.failed"),
  leftOut: t("report.leftOut"),
  passed: t("report.passed"),
}));
const day = (at: string | undefined) => at?.slice(0, 10) ?? "";
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
