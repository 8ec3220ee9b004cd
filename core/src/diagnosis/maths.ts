/** ln of the mean of numbers given as logarithms. */
export function logMean(log: Float64Array): number {
  let most = -Infinity;
  let sum = 0;
  for (const l of log) most = Math.max(most, l);
  for (const l of log) sum += Math.exp(l - most);
  return most + Math.log(sum / log.length);
}
/** Weights that sum to 1 from their logarithms. */
export function normalise(log: Float64Array): Float64Array {
  const most = log.reduce((a, b) => Math.max(a, b), -Infinity);
  const w = log.map((l) => Math.exp(l - most));
  const sum = w.reduce((a, b) => a + b, 0);
  return w.map((x) => x / sum);
}

/** Entropy of shares, bits (Shannon 1948); shares that do not sum to 1 are taken as they are. */
export const entropyBits = (shares: Iterable<number>): number => {
  let bits = 0;
  for (const p of shares) if (p > 0) bits -= p * Math.log2(p);
  return bits;
};
