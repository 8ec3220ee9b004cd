/** Room a reading's tag takes on the map, with a little air. */
const WIDTH = 92;
const HEIGHT = 42;
const PASSES = 8;

/** Moves tags that would cover each other apart sideways, half each, until none does. Order and heights stay. */
export function spreadTags<T extends { readonly x: number; readonly y: number }>(tags: readonly T[]): T[] {
  const placed = tags.map((t) => ({ ...t })).sort((a, b) => a.x - b.x);
  for (let pass = 0; pass < PASSES; pass++) {
    let moved = false;
    placed.forEach((left, i) => {
      for (let j = i + 1; j < placed.length; j++) {
        const right = placed[j]!;
        const short = WIDTH - (right.x - left.x);
        if (short <= 0.01 || Math.abs(right.y - left.y) >= HEIGHT) continue;
        placed[i] = left = { ...left, x: left.x - short / 2 };
        placed[j] = { ...right, x: right.x + short / 2 };
        moved = true;
      }
    });
    if (!moved) break;
  }
  return placed;
}
