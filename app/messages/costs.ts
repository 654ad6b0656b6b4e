import type { CostKind } from '@core/catalogue/plan';
import type { CostLine } from '@core/claim/costs';
import type { Waiting } from '@core/claim/promise';
import { counted } from '../language/plural';
import { formatNumber } from '@core/quantity/format-quantity';
import { percent } from './answers';
import { moneyWords } from './money';

export const COST_KIND_WORDS: Record<CostKind, string> = {
  part: 'Parts',
  labour: 'Labour',
  other: 'Consequential',
};

/** How a line comes about: "4.5 × 68.00 AC + 19 %". */
export const costLineWords = (l: CostLine): string =>
  [
    `${formatNumber(l.quantity, 3).replace(/\.?0+$/, '')} × ${moneyWords(l.rate)}`,
    l.tax > 0 ? `+ ${percent(l.tax)} tax` : '',
  ]
    .filter(Boolean)
    .join(' ');

/** How long a claim waits against what the house promises. */
export const waitingWords = (w: Waiting, promised: number): string =>
  w.over > 0
    ? `Here ${counted(w.days, 'day', 'days')}, ${w.over} over the ${promised} that are promised.`
    : `Here ${counted(w.days, 'day', 'days')} of the ${promised} that are promised.`;

/** How totals are made, so that a reader can add them up himself. */
export const ROUNDING =
  'Each line is rounded half up to 0.01 AC; totals are sums of lines, and what we do not bear is the rest.';
