/** Standard normal density. */
export const normalDensity = (z: number): number => Math.exp(-0.5 * z * z) / Math.sqrt(2 * Math.PI);

/**
 * Standard normal distribution function, absolute error below 1e-14: the series about zero (Abramowitz and Stegun 26.2.10)
 * near it, the continued fraction of the tail (26.2.14) far from it.
 */
export function normalCdf(z: number): number {
  if (z > 0) return 1 - normalCdf(-z);
  if (z < -38) return 0;
  if (z > -4) {
    let term = -z;
    let sum = term;
    for (let n = 1; n < 200 && Math.abs(term) > 1e-17 * Math.abs(sum); n++) {
      term *= (-z * z) / (2 * n);
      sum += term / (2 * n + 1);
    }
    return 0.5 - sum / Math.sqrt(2 * Math.PI);
  }
  let tail = 0;
  for (let n = 60; n > 0; n--) tail = n / (-z + tail);
  return normalDensity(z) / (-z + tail);
}

/** Quantile of the standard normal, by halving; 1e-12. */
export function normalQuantile(q: number): number {
  let [low, high] = [-10, 10];
  for (let k = 0; k < 60; k++) {
    const mid = (low + high) / 2;
    if (normalCdf(mid) < q) low = mid;
    else high = mid;
  }
  return (low + high) / 2;
}
