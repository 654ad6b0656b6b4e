import { MINOR } from '@core/claim/costs';
import { formatNumber } from '@core/quantity/format-quantity';

/** Money in minor units, as it is written. */
export const moneyWords = (minor: number): string => `${formatNumber(minor / MINOR, 2)} AC`;

/** Money that is only estimated: two figures, since more would be read into it. */
export function roughMoneyWords(minor: number): string {
  const units = Math.abs(minor) / MINOR;
  const last = 10 ** Math.max(0, Math.floor(Math.log10(Math.max(1, units))) - 1);
  return `${formatNumber(Math.sign(minor) * Math.round(units / last) * last, 0)} AC`;
}
