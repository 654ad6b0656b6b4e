import type { LimitedInspection } from '@core/answer/examined';
import { normalGrade } from '@core/examination/examination';
import { optionsOf } from '@core/facts/observable';
import { formatQuantity } from '@core/quantity/format-quantity';

/** What a new part shows at an inspection: its dimension, or the grade of one at which nothing is found. */
export function newWords({ observable: o, limit }: LimitedInspection): string {
  if (limit && o.type.kind === 'number')
    return formatQuantity(o.type.dimension, limit.nominal, { unit: o.type.unit, decimals: o.type.decimals });
  if (limit) return String(limit.nominal);
  const grade = normalGrade(o);
  return optionsOf(o).find((x) => x.key === grade)?.wording ?? '';
}
