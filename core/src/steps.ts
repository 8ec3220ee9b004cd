/**
 * Work in steps, so that a caller may let others in between two of them, or leave it; what it comes to is returned at
 * its end.
 */
export type InSteps<T> = Generator<void, T>;

/** Work in steps, done without a pause. */
export function finished<T>(steps: InSteps<T>): T {
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}
