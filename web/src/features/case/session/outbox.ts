import { Entry, placedAfter, speaksOf, type Entry as EntryT } from "@radicula/core";
import { z } from "zod";
import { DATABASE_HEADER } from "@/ui/databaseHeader";
import { SaidIssue, type Batch, type Destination } from "./deviceStore";

export type SendResult =
  /** `missed`: what others wrote before it */
  | { readonly status: "saved"; readonly last: number; readonly missed: readonly EntryT[] }
  /** the database has fewer entries than this page thinks, or would not join */
  | { readonly status: "stale"; readonly missed: readonly EntryT[]; readonly last: number }
  | { readonly status: "refused"; readonly issues: readonly SaidIssue[] }
  /** no answer, or none of ours: try again */
  | { readonly status: "unreachable"; readonly why: Unsent };
/** Why a batch waits. */
export type Unsent = "no-answer" | "another-database" | "no-such-job" | "signed-out" | "of-another" | "may-only-read";

const Issues = z.object({ issues: z.array(SaidIssue).min(1) });
const Missed = z.object({ missed: z.array(Entry), last: z.number().int() });

/**
 * Sends one batch. Sending the same batch twice is safe: the server keeps it once. Only an answer of the very database
 * the entries are meant for counts: anything else on that address (another server, a proxy) changes nothing.
 */
export async function send(
  { database, job }: Destination,
  batch: Batch,
  fetcher: typeof fetch = fetch,
): Promise<SendResult> {
  try {
    const response = await fetcher(`/api/jobs/${job}/entries`, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify({ ...batch, join: true }),
    });
    const from = response.headers.get(DATABASE_HEADER);
    const why = NOT_LET_IN.get(await codeOf(response));
    if (why) return { status: "unreachable", why };
    if (from !== database) return { status: "unreachable", why: from ? "another-database" : "no-answer" };
    const body: unknown = await response.json();
    if (response.status === 201) return { status: "saved", ...Missed.parse(body) };
    if (response.status === 409) return { status: "stale", ...Missed.parse(body) };
    if (response.status === 422) return { status: "refused", issues: Issues.parse(body).issues };
    return { status: "unreachable", why: response.status === 404 ? "no-such-job" : "no-answer" };
  } catch {
    return { status: "unreachable", why: "no-answer" };
  }
}

/** What the door or the server says of who sends: the entries wait until the right person has signed in. */
const NOT_LET_IN = new Map<string | undefined, Unsent>([
  ["sign-in.needed", "signed-out"],
  ["sign-in.of-another", "of-another"],
  ["sign-in.may-only-read", "may-only-read"],
]);
async function codeOf(response: Response): Promise<string | undefined> {
  if (response.status !== 401 && response.status !== 403) return undefined;
  const said = Issues.safeParse(await response.json().catch(() => undefined));
  return said.data?.issues[0]?.code;
}

/** Batches that stand behind `count` more entries than they knew of, from number `at` on. */
export const placeAfterOthers = (queue: readonly Batch[], at: number, count: number): Batch[] =>
  queue.map((b) => ({ ...b, after: b.after + count, entries: placedAfter(b.entries, at, count) }));

/**
 * What is left of the queue when its first batch is refused: batches that speak of one of its entries (an undo of it)
 * are set aside with it, and theirs in turn; the others move up.
 */
export function withoutRefused(queue: readonly Batch[]): { readonly rest: Batch[]; readonly aside: Batch[] } {
  const aside: Batch[] = [];
  let left = [...queue];
  for (let at = 0; at < left.length;) {
    const b = left[at]!;
    const goes = aside.length === 0 || b.entries.some((e) => aside.some((a) => speaksOf(e, ...numbersOf(a))));
    if (!goes) {
      at++;
      continue;
    }
    aside.push(b);
    left = left.filter((x) => x !== b);
  }
  let rest = left;
  // from the last on, so that the numbers of those before still hold
  for (const a of [...aside].sort((x, y) => y.after - x.after)) {
    const [after, last] = numbersOf(a);
    rest = rest.map((b) => ({
      ...b,
      after: b.after >= last ? b.after - (last - after) : b.after,
      entries: placedAfter(b.entries, last, after - last),
    }));
  }
  return { rest, aside };
}
const numbersOf = (b: Batch): [number, number] => [b.after, b.after + b.entries.length];
