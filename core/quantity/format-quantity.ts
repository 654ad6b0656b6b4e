import { baseUnit, type Dimension, fromBase, spreadToBase } from './units';

/** Groups the whole part in threes with a narrow no-break space, decimal point. */
export function formatNumber(value: number, decimals: number): string {
  const fixed = Math.abs(value).toFixed(decimals);
  const [whole = '0', part] = fixed.split('.');
  const grouped = whole.length > 4 ? whole.replace(/\B(?=(\d{3})+$)/g, '\u202f') : whole;
  const negative = value < 0 && Number(fixed) !== 0;
  return (negative ? '−' : '') + grouped + (part ? `.${part}` : '');
}

/**
 * Decimals that a standard uncertainty justifies: two significant digits of u (JCGM 100:2008, 7.2.6).
 * @example decimalsFor(0.05) // 3, since 0.050
 */
export function decimalsFor(u: number): number {
  if (!(u > 0)) return 0;
  return Math.max(0, Math.min(6, 1 - Math.floor(Math.log10(u))));
}

/**
 * "7.40 ± 0.05 mm". Value and u in the base unit; shown in `unit`. With u, digits follow u; without, `decimals`.
 * Trailing zeros of u are dropped together with those of the value.
 */
export function formatQuantity(
  dimension: Dimension,
  value: number,
  options: {
    unit?: string | undefined;
    decimals?: number | undefined;
    u?: number | undefined;
    /** It was computed: before the decimal sign, too, no more digits than u gives. What was read is written as it was read. */
    computed?: boolean;
  } = {},
): string {
  const unit = options.unit ?? baseUnit(dimension);
  const shown = fromBase(dimension, value, unit);
  const space = unit === '°' || unit === '1' ? '' : '\u00a0';
  const symbol = unit === '1' ? '' : unit;
  if (options.u === undefined) return formatNumber(shown, options.decimals ?? 0) + space + symbol;
  const u = options.u / spreadToBase(dimension, 1, unit);
  let digits = decimalsFor(u);
  while (digits > 0 && u.toFixed(digits).endsWith('0')) digits--;
  const step = options.computed && u >= 100 ? 10 ** (Math.floor(Math.log10(u)) - 1) : 0;
  const tail = `${space}${symbol}`;
  if (step === 0) return `${formatNumber(shown, digits)}\u00a0±\u00a0${u.toFixed(digits)}${tail}`;
  const whole = (v: number) => formatNumber(Math.round(v / step) * step, 0);
  return `${whole(shown)}\u00a0±\u00a0${whole(u)}${tail}`;
}
