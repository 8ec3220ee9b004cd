/**
 * ln density of a multivariate normal whose covariance was estimated from few draws: a Student t, so that what lies
 * outside what the draws happened to reach is not held for impossible (Gelman et al., Bayesian Data Analysis, §3.6).
 * @param off distance of each value from its mean, of length n
 * @param covariance [i · n + j], with the instruments' own variances in it
 * @param freedom degrees of freedom, above 2
 */
export function logStudent(off: Float64Array, covariance: Float64Array, freedom: number): number {
  const n = off.length;
  if (n === 0) return 0;
  // the scale is such that the variance is the covariance
  const shrink = (freedom - 2) / freedom;
  const { squares, logDeterminant } = whiten(off, covariance);
  return (
    logGamma((freedom + n) / 2) -
    logGamma(freedom / 2) -
    (n / 2) * Math.log(freedom * Math.PI) -
    0.5 * (logDeterminant + n * Math.log(shrink)) -
    ((freedom + n) / 2) * Math.log1p(squares / shrink / freedom)
  );
}

/** Cholesky decomposition. @returns off' C⁻¹ off, and ln |C| */
function whiten(off: Float64Array, covariance: Float64Array): { squares: number; logDeterminant: number } {
  const n = off.length;
  const l = new Float64Array(n * n);
  const white = new Float64Array(n);
  let squares = 0;
  let logDeterminant = 0;
  for (let i = 0; i < n; i++) {
    let w = off[i]!;
    for (let j = 0; j < i; j++) {
      let x = covariance[i * n + j]!;
      for (let k = 0; k < j; k++) x -= l[i * n + k]! * l[j * n + k]!;
      x /= l[j * n + j]!;
      l[i * n + j] = x;
      w -= x * white[j]!;
    }
    let d = covariance[i * n + i]!;
    for (let k = 0; k < i; k++) d -= l[i * n + k]! ** 2;
    const root = Math.sqrt(Math.max(d, LEAST_SHARE * covariance[i * n + i]!));
    l[i * n + i] = root;
    white[i] = w / root;
    squares += white[i]! ** 2;
    logDeterminant += 2 * Math.log(root);
  }
  return { squares, logDeterminant };
}
/** Rounding must not make a variance negative. */
const LEAST_SHARE = 1e-9;

/** ln Γ(x) for x > 0 (Stirling's series after shifting x above 7; Abramowitz & Stegun 6.1.40, 6.1.15). */
export function logGamma(x: number): number {
  let shift = 0;
  while (x < 7) shift -= Math.log(x++);
  const y = 1 / (x * x);
  return shift + (x - 0.5) * Math.log(x) - x + 0.5 * Math.log(2 * Math.PI) + (1 / 12 - y * (1 / 360 - y / 1260)) / x;
}
