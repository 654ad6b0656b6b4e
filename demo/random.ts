/** A Weibull life by inversion: scale·(−ln(1−q))^(1/shape). */
export function weibullLife(random: () => number, shape: number, scale: number): number {
  return scale * (-Math.log(1 - random())) ** (1 / shape);
}
