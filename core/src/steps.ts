/**
 * Work that pauses now and then, so that a caller may let others in, or leave it; what it comes to is returned at its
 * end.
 */
export type Steps<T> = Generator<void, T, void>;

/** Does work without a pause. */
export function atOnce<T>(steps: Steps<T>): T {
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}
