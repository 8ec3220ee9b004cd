/** Deeper than anything of ours is nested. */
const DEEPEST = 60;
/**
 * Where a text holds what PostgreSQL cannot keep: a character 0, or half of a pair of code units; or where it is nested
 * deeper than anything that is meant.
 */
export function unsaveable(
  value: unknown,
  path: readonly (string | number)[] = [],
): readonly (string | number)[] | undefined {
  if (typeof value === "string") return isSaveable(value) ? undefined : path;
  if (typeof value !== "object" || value === null) return undefined;
  if (path.length > DEEPEST) return path.slice(0, 8);
  for (const [key, inner] of Object.entries(value)) {
    const here = [...path, Array.isArray(value) ? Number(key) : key];
    if (!isSaveable(key)) return path;
    const bad = unsaveable(inner, here);
    if (bad) return bad;
  }
  return undefined;
}
const LONE_SURROGATE = /[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/;
export const isSaveable = (text: string) => !text.includes("\0") && !LONE_SURROGATE.test(text);
