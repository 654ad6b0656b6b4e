import { nth } from '@core/quantity/must';
import { findUnit } from '@core/quantity/units';
import type { Token } from './text';

const ONE_WORD_UNITS = new Set(
  (
    'mm cm m km kms k mi mls ml miles mile kilometres kilometers kilometre kilometer ° deg degree degrees % kg kgs kilo kilos g gram grams gr lb lbs lbf kgf n newton newtons ' +
    'nm in inch inches " ″ min minute minutes h hour hours s sec second seconds day days week weeks month months year years hz bar v volt volts tooth teeth t link links turn turns time times revolution revolutions ' +
    'screw screws bolt bolts window windows step steps click clicks notch notches piece pieces thou c f fahrenheit celsius ac eur'
  ).split(' '),
);
/** The unit that begins here: of a torque in up to three words, else one word. */
export function unitAt(
  tokens: readonly Token[],
  at: number,
  first: Token,
): { typed: string; n: number } | undefined {
  const t = tokens[at];
  if (t?.sentence !== first.sentence) return undefined;
  for (let n = 3; n > 1; n--) {
    const run = tokens.slice(at, at + n);
    if (
      run.length === n &&
      run.every((x) => x.sentence === first.sentence && /^[\p{L}·.]+$/u.test(x.text)) &&
      findUnit('torque', run.map((x) => x.text).join('')) &&
      !(nth(run, n - 1).low === 'in' && /^(the|a|my|our)$/.test(tokens[at + n]?.low ?? ''))
    )
      return { typed: run.map((x) => x.text).join('·'), n };
  }
  if (t.text === '°') {
    const c = tokens[at + 1];
    return c && /^[cf]$/i.test(c.text) && c.from === t.to
      ? { typed: `°${c.text}`, n: 2 }
      : { typed: '°', n: 1 };
  }
  if (/^degrees?$/.test(t.low) && /^(c|celsius|f|fahrenheit)$/.test(tokens[at + 1]?.low ?? ''))
    return { typed: `°${(tokens[at + 1]?.low ?? 'c').slice(0, 1).toUpperCase()}`, n: 2 };
  if (findUnit('torque', t.text) !== undefined) return { typed: t.text, n: 1 };
  // "15.84 in" is inches, "twelve in the box" is not
  if (t.low === 'in' && !/[.,/½¼¾]/.test(first.text)) return undefined;
  if (t.text === '"' || t.text === '″') return { typed: '"', n: 1 };
  return ONE_WORD_UNITS.has(t.low) ? { typed: t.low, n: 1 } : undefined;
}
