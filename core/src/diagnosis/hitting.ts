/**
 * Minimal hitting sets: the smallest sets that have a member in common with every given set. With conflicts as the
 * given sets they are the minimal diagnoses (Reiter, A theory of diagnosis from first principles, 1987; de Kleer &
 * Williams, Diagnosing multiple faults, 1987).
 * @param sets no order; an empty one can be hit by nothing @param most larger ones are left out @param limit how many
 * are kept
 * @returns smallest first, each in ascending order of `sets`' first mention
 */
export function minimalHittingSets<T>(sets: readonly (readonly T[])[], most = Infinity, limit = 10_000): T[][] {
  if (sets.some((s) => s.length === 0)) return [];
  const order = new Map<T, number>();
  for (const s of sets) for (const x of s) if (!order.has(x)) order.set(x, order.size);
  // breadth first (Berge's product, kept minimal at each step)
  let found: ReadonlySet<T>[] = [new Set<T>()];
  for (const s of [...sets].sort((a, b) => a.length - b.length)) {
    const hit = found.filter((f) => s.some((x) => f.has(x)));
    const grown: Set<T>[] = [];
    for (const f of found) {
      if (s.some((x) => f.has(x)) || f.size >= most) continue;
      for (const x of s) {
        const g = new Set([...f, x]);
        if (!hit.some((h) => isSubset(h, g)) && !grown.some((h) => isSubset(h, g))) grown.push(g);
      }
    }
    found = [...hit, ...grown.filter((g) => !grown.some((h) => h !== g && h.size < g.size && isSubset(h, g)))].slice(
      0,
      limit,
    );
  }
  return found
    .map((f) => [...f].sort((a, b) => order.get(a)! - order.get(b)!))
    .sort((a, b) => a.length - b.length || compare(a, b, order));
}
const isSubset = <T>(a: ReadonlySet<T>, b: ReadonlySet<T>) => a.size <= b.size && [...a].every((x) => b.has(x));
function compare<T>(a: readonly T[], b: readonly T[], order: ReadonlyMap<T, number>): number {
  for (let i = 0; i < a.length; i++) {
    const d = order.get(a[i]!)! - order.get(b[i]!)!;
    if (d) return d;
  }
  return 0;
}

/**
 * All minimal diagnoses of a system, from nothing but a check of consistency: which sets of components, taken as
 * broken, would let everybody else be healthy (Reiter's tree, conflicts found as they are needed).
 * @param conflict given the components taken as broken, a set of others that cannot all be healthy; undefined when
 * consistent
 */
export function minimalDiagnoses<T>(
  conflict: (broken: ReadonlySet<T>) => readonly T[] | undefined,
  most = 3,
): { readonly diagnoses: T[][]; readonly conflicts: T[][] } {
  const conflicts: T[][] = [];
  const diagnoses: Set<T>[] = [];
  const seen = new Set<string>();
  let front: Set<T>[] = [new Set<T>()];
  while (front.length) {
    const next: Set<T>[] = [];
    for (const broken of front) {
      if (diagnoses.some((d) => isSubset(d, broken))) continue;
      const known = conflicts.find((c) => !c.some((x) => broken.has(x)));
      const found = known ?? conflict(broken);
      if (!found) {
        diagnoses.push(broken);
        continue;
      }
      if (!known) conflicts.push([...found]);
      if (broken.size >= most) continue;
      for (const x of found) {
        const g = new Set([...broken, x]);
        const name = [...g].map(String).sort().join(" ");
        if (!seen.has(name)) {
          seen.add(name);
          next.push(g);
        }
      }
    }
    front = next;
  }
  return { diagnoses: diagnoses.map((d) => [...d]), conflicts };
}
