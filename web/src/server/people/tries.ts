import { RateLimiterDrizzle } from "rate-limiter-flexible";
import { database } from "../db/connection";
import { failedTries } from "../db/people";

const QUARTER_HOUR_S = 15 * 60;
/** Failed tries taken within a time, seconds; a PIN then waits for the password. */
const TAKEN = {
  name: { points: 10, duration: QUARTER_HOUR_S },
  address: { points: 60, duration: QUARTER_HOUR_S },
  pin: { points: 5, duration: 30 * 24 * 3600 },
} as const;
/** At what a try is made, and which: one person's name, one address, one person's PIN on one device. */
export type Tried = readonly (readonly [keyof typeof TAKEN, string])[];

const limiters = new Map<string, RateLimiterDrizzle>();
/** Kept in the database: all servers count together. */
function limiterOf(kind: keyof typeof TAKEN): RateLimiterDrizzle {
  const known = limiters.get(kind);
  if (known) return known;
  const limiter = new RateLimiterDrizzle({
    storeClient: database(),
    schema: failedTries,
    keyPrefix: kind,
    clearExpiredByTimeout: false,
    ...TAKEN[kind],
  });
  limiters.set(kind, limiter);
  return limiter;
}
const keyOf = (what: string) => what.toLowerCase().slice(0, 120);

export interface TryTaken {
  /** until another try is taken, where there were too many; else 0 */
  readonly lockedSeconds: number;
  /** this is the last that is taken */
  readonly isLast: boolean;
}
/** Counts a try as failed before it is looked at, so that many made at once are no way round. */
export async function takeTry(tried: Tried): Promise<TryTaken> {
  const states = await Promise.all(
    tried.map(async ([kind, what]) => {
      const { consumedPoints, msBeforeNext } = await limiterOf(kind).penalty(keyOf(what), 1);
      return { over: consumedPoints - TAKEN[kind].points, msBeforeNext };
    }),
  );
  const waits = states.filter((s) => s.over > 0).map((s) => s.msBeforeNext);
  return { lockedSeconds: Math.ceil(Math.max(0, ...waits) / 1000), isLast: states.some((s) => s.over === 0) };
}
/** The try was no failure: who signs in begins anew; the address has one failure less. */
export async function forgiveTry(tried: Tried): Promise<void> {
  for (const [kind, what] of tried) {
    if (kind === "address") await limiterOf(kind).reward(keyOf(what), 1);
    else await limiterOf(kind).delete(keyOf(what));
  }
}
