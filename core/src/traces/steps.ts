/** Runs steps to their end without a rest between them. */
export function finished<T>(steps: Generator<void, T>): T {
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
  }
}
