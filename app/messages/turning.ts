import type { Reason } from '@core/advice/advice';
import type { CrankRange } from '@core/drive/valve-safety';
import { formatNumber } from '@core/quantity/format-quantity';
import { list } from '../language/list';
import { plural } from '../language/plural';

export const degreesWords = (v: number): string => `${formatNumber(v, 0)}°`;

/** A range of the crank that reaches over its mark begins before it. */
export function rangeWords({ fromDeg, toDeg }: CrankRange): string {
  if (toDeg - fromDeg >= 360) return 'anywhere';
  return toDeg > 360
    ? `from ${degreesWords(360 - fromDeg)} before to ${degreesWords(toDeg - 360)} after its mark`
    : `from ${degreesWords(fromDeg)} to ${degreesWords(toDeg)} after its mark`;
}

const GOING = { down: 'going down', up: 'coming up', top: 'at the end of its stroke' };
/** What the pistons do at the safe position. */
export function pistonWords(r: Extract<Reason, { code: 'pistons' }>): string {
  const where =
    Math.round(r.crankDeg) === 0
      ? 'On its mark'
      : `${degreesWords(Math.abs(r.crankDeg))} ${r.crankDeg < 0 ? 'before' : 'after'} its mark`;
  const each = r.at.map(
    (p) =>
      `${plural(p.cylinders.length, 'piston', 'pistons')} ${list(p.cylinders)} ${plural(p.cylinders.length, 'stands', 'stand')} ${formatNumber(p.mm, 0)} mm below the top, ${GOING[p.going]}`,
  );
  return `${where}: ${each.join('; ')}; ${formatNumber(r.roomMm, 1)} mm are left to the deepest open valve.`;
}
