import TinyQueue from "tinyqueue";

/** A search for whole things that grow from parts, the most promising first. */
export interface Growing<T> {
  readonly start: readonly T[];
  /** how much a thing, whole or not, may come to */
  readonly worth: (thing: T) => number;
  readonly isWhole: (thing: T) => boolean;
  /** what a thing grows to in one step */
  readonly next: (thing: T) => readonly T[];
  /** so many are looked at */
  readonly most: number;
}

/**
 * Best-first search (Hart, Nilsson & Raphael 1968). Where `worth` is never too little, the first whole thing is the
 * best.
 * @returns whole things in the order found
 */
export function bestFirst<T>({ start, worth, isWhole, next, most }: Growing<T>): T[] {
  const rated = (thing: T) => ({ thing, worth: worth(thing) });
  const queue = new TinyQueue(start.map(rated), (a, b) => b.worth - a.worth);
  const found: T[] = [];
  for (let looked = 0; looked < most; looked++) {
    const best = queue.pop();
    if (!best) break;
    const { thing } = best;
    if (isWhole(thing)) found.push(thing);
    else for (const grown of next(thing)) queue.push(rated(grown));
  }
  return found;
}
