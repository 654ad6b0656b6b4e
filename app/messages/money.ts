import { MINOR } from '@core/claim/costs';
import { formatNumber } from '@core/quantity/format-quantity';

/** Money in minor units, as it is written. */
export const moneyWords = (minor: number): string => `${formatNumber(minor / MINOR, 2)} AC`;
