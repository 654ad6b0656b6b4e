import { num } from '@core/quantity/must';

/** Readings of one thing, taken again and again. */
export type Repeats = {
  value: number;
  /** Standard uncertainty of the mean, the gauge's own resolution included. */
  u: number;
  n: number;
  /** Experimental standard deviation of one reading; none with a single one. */
  spread?: number;
  /** Index of a reading that does not belong with the others, by Grubbs' test at 5 %. It is pointed out, never dropped. */
  outlier?: number;
};

/** Critical values of Grubbs' test for one outlier either way, 5 %, n = 3 … 20 (Grubbs & Beck 1972, table I, two-sided). */
const GRUBBS: readonly number[] = [
  1.155, 1.481, 1.715, 1.887, 2.02, 2.126, 2.215, 2.29, 2.355, 2.412, 2.462, 2.507, 2.549, 2.585, 2.62, 2.651,
  2.681, 2.709,
];

/**
 * Mean of repeats with its standard uncertainty: u² = s²/n + u_gauge² (JCGM 100, 4.2.3 and 5.1.2), since repeating does not
 * make the gauge finer. @param gauge standard uncertainty of the gauge, ≥ 0
 */
export function meanOf(readings: readonly number[], gauge: number): Repeats {
  const n = readings.length;
  const value = readings.reduce((a, b) => a + b, 0) / n;
  if (n < 2) return { value, u: gauge, n };
  const spread = Math.sqrt(readings.reduce((s, r) => s + (r - value) ** 2, 0) / (n - 1));
  const outlier = outlierOf(readings, value, spread, gauge);
  return {
    value,
    u: Math.hypot(spread / Math.sqrt(n), gauge),
    n,
    spread,
    ...(outlier === undefined ? {} : { outlier }),
  };
}

function outlierOf(
  readings: readonly number[],
  mean: number,
  spread: number,
  gauge: number,
): number | undefined {
  const critical = GRUBBS[Math.min(readings.length, 20) - 3];
  if (critical === undefined || !(spread > 0)) return undefined;
  const far = readings.map((r) => Math.abs(r - mean));
  const worst = far.indexOf(Math.max(...far));
  // Within what the gauge cannot resolve nothing stands out.
  return num(far, worst) / spread > critical && num(far, worst) > gauge ? worst : undefined;
}
