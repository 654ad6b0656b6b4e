import { expectedByLot } from '@core/patterns/expected';
import { INVENTED_DAY, inventPopulation, THREE_YEARS } from '@core/patterns/invented';
import { lifeOf, lookThrough } from '@core/patterns/look';
import { populationOf } from '@core/patterns/population';
import { atLeastOf } from '@core/patterns/rates';
import { PATTERN_LIMITS } from '@core/patterns/limits';
import { scanAll } from '@core/patterns/scan';
import { fitWeibull } from '@core/patterns/weibull';
import type { LifeRow } from '@core/patterns/weibull-likelihood';
import { randomFrom } from '@core/quantity/random';
import { compare, type Row } from './measure';

/** Young lots among 2,000. */
const YOUNG = 222;

/** Lives of which some failed within a month and most still run. */
function lives(n: number): LifeRow[] {
  const random = randomFrom(1);
  return Array.from({ length: n }, () => {
    const t = 140 * (-Math.log(1 - random())) ** (1 / 2.2);
    const cut = 6 + 30 * random();
    return t > cut ? { from: cut, to: Infinity } : { from: Math.floor(t), to: Math.floor(t) + 1 };
  });
}

/** Baseline: the same rows gone through once for each of the 25 steps that a search without slopes needs at the least. */
function passes(rows: readonly LifeRow[]): number {
  let sum = 0;
  for (let k = 0; k < 25; k++) for (const r of rows) sum += Math.exp(1.1 * Math.log(1 + r.from) - 5);
  return sum;
}

/**
 * How often a lot with three times the usual rate, 400 sold, is above the line within two months of its first return, among
 * 2,000 lots: by the rate that is usual in a month. Simulated with the scan's own test; of lots sold evenly over three years one
 * in nine is young, and those share half of what may be false.
 */
function power(monthly: number): number {
  const random = randomFrom(7);
  const runs = 400;
  let found = 0;
  for (let run = 0; run < runs; run++) {
    let mine = 0;
    for (let u = 0; u < 400; u++) if (random() < 1 - (1 - 3 * monthly) ** 2) mine++;
    const others = Math.round(66 * 400 * (1 - (1 - monthly) ** 2));
    const p = atLeastOf(mine, mine + others, 1 / 67);
    if (mine >= PATTERN_LIMITS.leastReturns && p <= PATTERN_LIMITS.falseShare / 3 / 2 / YOUNG) found++;
  }
  return found / runs;
}

export function patternsBench(): Row[] {
  const rows = lives(5000);
  const invented = inventPopulation(2, INVENTED_DAY);
  const population = populationOf(invented.sold, invented.returns, INVENTED_DAY);
  const count = () => expectedByLot(population.lots, population).length;
  for (const monthly of [0.002, 0.005, 0.01, 0.013, 0.015, 0.02])
    console.log(
      `a lot of 400 at three times the usual ${(100 * monthly).toFixed(1)} % a month is found within two months of its first return in ${(100 * power(monthly)).toFixed(0)} %`,
    );
  console.log('');
  const against = 'expected returns once';
  return [
    compare(
      'life of 5,000 rows',
      () => fitWeibull(rows),
      'rows gone through 25 times',
      () => passes(rows),
      '20 ms',
    ),
    compare(
      `2,000 lots, ${invented.returns.length} returns`,
      () => scanAll(population),
      against,
      count,
      '1 s',
    ),
    compare('the whole view of them', () => lookThrough(population), against, count, '500 ms'),
    compare(
      'a kit with intervals, modes, mixture',
      () => lifeOf(population, 'MF-P012'),
      against,
      count,
      '500 ms',
    ),
    compare(
      `${THREE_YEARS.lots} lots invented`,
      () => inventPopulation(3, INVENTED_DAY),
      against,
      count,
      '1 s',
    ),
  ];
}
