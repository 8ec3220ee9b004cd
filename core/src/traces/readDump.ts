import { fail, issue, ok, type Issue, type Result } from "../issues/issue.js";
import { cutText } from "../units/cutText.js";
import type { RecordingRead } from "./readTable.js";
import { MOST_CHANNELS, MOST_SAMPLES, type Channel } from "./recording.js";

const UNITS: Readonly<Record<string, number>> = { s: 1, ms: 1e-3, us: 1e-6, ns: 1e-9, ps: 1e-12, fs: 1e-15 };

/** Whether a text begins as a value change dump does. */
export const isDump = (head: string): boolean => /^\s*\$(date|version|comment|timescale|scope|var)\b/.test(head);

interface Line {
  readonly name: string;
  readonly times: number[];
  readonly values: number[];
}

/** Characters before the samples begin: more is no head. Judgement. */
const LONGEST_HEAD = 2_000_000;

/**
 * Recordings of logic analysers as value change dumps (VCD, IEEE 1364; value from memory): lines of one bit, and real
 * numbers. A value holds until the next: each change has a point of its own just before it.
 * @returns the channels, or `trace.no-numbers`; what could not be read stands with its row
 */
export function readDump(text: string): Result<RecordingRead> {
  const issues: Issue[] = [];
  const lines = new Map<string, Line>();
  let scale = 1e-9;
  let now = 0;
  let last = 0;
  let samples = 0;
  const head: string[] = [];
  let headLength = 0;
  let isBody = false;
  let row = 0;
  for (const raw of rowsOf(text)) {
    row++;
    const line = raw.trim();
    if (line === "") continue;
    if (!isBody) {
      head.push(line);
      headLength += line.length;
      if (headLength > LONGEST_HEAD) return fail([issue("trace.no-numbers")]);
      if (line.includes("$enddefinitions")) {
        isBody = true;
        const header = head.join(" ");
        scale = timescale(header) ?? scale;
        for (const m of header.matchAll(/\$var\s+(\w+)\s+(\d+)\s+(\S+)\s+(\S.*?)\s*\$end/g))
          if ((m[2] === "1" || m[1] === "real") && lines.size < MOST_CHANNELS)
            lines.set(m[3]!, { name: cutText(m[4]!, 60), times: [], values: [] });
        if (lines.size === 0) return fail([issue("trace.no-numbers")]);
      }
      continue;
    }
    if (line.startsWith("#")) {
      const t = Number(line.slice(1)) * scale;
      if (!Number.isFinite(t) || t < now) {
        if (issues.length < 3) issues.push(issue("trace.time-backwards", [], { row }));
        continue;
      }
      now = t;
      last = Math.max(last, t);
      continue;
    }
    const change = /^(?:([01xXzZ])|[rR](\S+)\s+)(\S+)$/.exec(line);
    const own = change && lines.get(change[3]!);
    if (!own) continue; // a bus, a keyword, or a line that was left out
    const value = change[2] !== undefined ? Number(change[2]) : /[01]/.test(change[1]!) ? Number(change[1]) : NaN;
    const before = own.values[own.values.length - 1];
    const since = own.times[own.times.length - 1];
    if (before !== undefined && since !== undefined) {
      if (since === now) {
        own.values[own.values.length - 1] = value;
        continue;
      }
      if (now - scale > since) {
        own.times.push(now - scale);
        own.values.push(before);
      }
    }
    own.times.push(now);
    own.values.push(value);
    samples += 2;
    if (samples > MOST_SAMPLES) {
      issues.push(issue("trace.too-long", [], { row, limit: MOST_SAMPLES }));
      break;
    }
  }
  const channels = [...lines.values()].flatMap((l): Channel[] => {
    if (l.values.length === 0) return [];
    if (last > l.times[l.times.length - 1]!) {
      l.times.push(last);
      l.values.push(l.values[l.values.length - 1]!);
    }
    return [
      {
        name: l.name,
        unit: "",
        start: l.times[0]!,
        step: undefined,
        times: Float64Array.from(l.times),
        values: Float32Array.from(l.values),
      },
    ];
  });
  return channels.length ? ok({ recording: { channels }, issues }) : fail([issue("trace.no-numbers"), ...issues]);
}

function timescale(header: string): number | undefined {
  const m = /\$timescale\s*(\d+)\s*(s|ms|us|ns|ps|fs)\b/.exec(header);
  return m ? Number(m[1]) * UNITS[m[2]!]! : undefined;
}
function* rowsOf(text: string): Generator<string> {
  for (let from = 0; from < text.length;) {
    const to = text.indexOf("\n", from);
    yield text.slice(from, to < 0 ? text.length : to);
    if (to < 0) return;
    from = to + 1;
  }
}
