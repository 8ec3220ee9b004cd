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

/**
 * How far each value is from what all others make of it, in standard deviations: (C⁻¹ off)ᵢ / √(C⁻¹)ᵢᵢ.
 * @param off distance of each value from its mean @param covariance [i · n + j]
 */
export function offFromOthers(off: Float64Array, covariance: Float64Array): Float64Array {
  const n = off.length;
  const l = choleskyOf(covariance, n);
  const unit = new Float64Array(n);
  return off.map((_, i) => {
    unit.fill(0);
    unit[i] = 1;
    const column = solveUpper(l, solveLower(l, unit));
    return Math.abs(column.reduce((sum, x, j) => sum + x * off[j]!, 0)) / Math.sqrt(column[i]!);
  });
}

/** off' C⁻¹ off: about n where the values are as far off as they should be (Mahalanobis 1936). */
export const squaresOf = (off: Float64Array, covariance: Float64Array): number => whiten(off, covariance).squares;

/** @returns off' C⁻¹ off, and ln |C| */
function whiten(off: Float64Array, covariance: Float64Array): { squares: number; logDeterminant: number } {
  const n = off.length;
  const l = choleskyOf(covariance, n);
  const squares = solveLower(l, off).reduce((sum, x) => sum + x * x, 0);
  let logDeterminant = 0;
  for (let i = 0; i < n; i++) logDeterminant += 2 * Math.log(l[i * n + i]!);
  return { squares, logDeterminant };
}
/** Cholesky decomposition: L with L Lᵀ = C, [i · n + j]. */
function choleskyOf(covariance: Float64Array, n: number): Float64Array {
  const l = new Float64Array(n * n);
  for (let i = 0; i < n; i++) {
    for (let j = 0; j <= i; j++) {
      let x = covariance[i * n + j]!;
      for (let k = 0; k < j; k++) x -= l[i * n + k]! * l[j * n + k]!;
      l[i * n + j] = i === j ? Math.sqrt(Math.max(x, LEAST_SHARE * covariance[i * n + i]!)) : x / l[j * n + j]!;
    }
  }
  return l;
}
/** L⁻¹ b */
function solveLower(l: Float64Array, b: Float64Array): Float64Array {
  const n = b.length;
  const out = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    let x = b[i]!;
    for (let k = 0; k < i; k++) x -= l[i * n + k]! * out[k]!;
    out[i] = x / l[i * n + i]!;
  }
  return out;
}
/** (Lᵀ)⁻¹ b */
function solveUpper(l: Float64Array, b: Float64Array): Float64Array {
  const n = b.length;
  const out = new Float64Array(n);
  for (let i = n - 1; i >= 0; i--) {
    let x = b[i]!;
    for (let k = i + 1; k < n; k++) x -= l[k * n + i]! * out[k]!;
    out[i] = x / l[i * n + i]!;
  }
  return out;
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
