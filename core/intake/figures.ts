import { nth } from '@core/quantity/must';
import { readNumber } from '@core/quantity/parse-quantity';
import { GRAMMAR } from './grammar';
import { unitAt } from './unit-behind';
import type { Token } from './text';

/** A number of a text with what stands behind it. */
export type Figure = {
  /** Where it begins among the tokens, and how many tokens it and its unit take. */
  at: number;
  n: number;
  value: number;
  /** Half width of a range told, or of what "about" leaves open. */
  spread?: number;
  /** The unit as typed; undefined where the next word is none. */
  unit?: string;
  /** Tokens of the number alone. */
  digits: number;
  /** Written out in words. */
  spelled: boolean;
  /** A whole number, by how it is written. */
  whole: boolean;
  /** Written or told in thousands: "66k", "104 thousand", "41 200". */
  thousands: boolean;
  /** The value where its one mark parts thousands: "102.330" is 102.33 or 102 330. */
  grouped?: number;
  about: boolean;
  signed: boolean;
  /** A part of one: "3/8", "half a". */
  part: boolean;
};

type Read = {
  value: number;
  n: number;
  spelled: boolean;
  part: boolean;
  thousands: boolean;
  grouped?: number;
};

const GLYPHS: Readonly<Record<string, number>> = { '½': 0.5, '¼': 0.25, '¾': 0.75 };

/** Every number of a text, the longest at each place. */
export function figuresOf(tokens: readonly Token[]): Figure[] {
  const out: Figure[] = [];
  for (let i = 0; i < tokens.length; i++) {
    const f = figureAt(tokens, i);
    if (!f) continue;
    out.push(f);
    i = f.at + f.digits - 1;
  }
  return out;
}

function figureAt(tokens: readonly Token[], at: number): Figure | undefined {
  const first = numberAt(tokens, at);
  if (!first) return undefined;
  let { value, n } = first;
  let spread: number | undefined;
  let thousands = first.thousands;
  // "90 to 95 thousand", "170-180": the middle, and half its width
  const link = tokens[at + n];
  const dash =
    link !== undefined &&
    (/^[–-]$/.test(link.text) ||
      link.low === 'to' ||
      (link.low === 'and' && tokens[at - 1]?.low === 'between'));
  const second = dash ? numberAt(tokens, at + n + 1) : undefined;
  if (
    second &&
    second.value > value &&
    (link?.low !== 'to' || second.value < (second.thousands && value < 1000 ? value * 1000 : value) * 4) &&
    !first.part
  ) {
    let from = value;
    if (second.thousands && from < 1000) from *= 1000;
    value = (from + second.value) / 2;
    spread = (second.value - from) / 2;
    thousands ||= second.thousands;
    n += 1 + second.n;
  }
  const text = nth(tokens, at).text;
  const near = [tokens[at - 1], tokens[at - 2]].filter((t) => t !== undefined);
  const about = near.some((t) => GRAMMAR.about.includes(t.low) || t.text === '~') || spread !== undefined;
  if (near[0] && GRAMMAR.nearly.includes(near[0].low)) value *= value > 100 ? 0.99 : 0.92;
  if (tokens[at - 1]?.low === 'minus') value = -value;
  // "seventy-one thousand and something": somewhere in the next thousand
  if (thousands && tokens[at + n]?.low === 'and' && tokens[at + n + 1]?.low === 'something') {
    value += 500;
    spread = 500;
    n += 2;
  }
  const unit =
    unitAt(tokens, at + n, nth(tokens, at)) ??
    (GRAMMAR.times[nth(tokens, at).low] === undefined ? undefined : { typed: 'times', n: 0 });
  return {
    at,
    n: n + (unit?.n ?? 0),
    digits: n,
    value,
    ...(spread === undefined ? {} : { spread }),
    ...(unit === undefined ? {} : { unit: unit.typed }),
    spelled: first.spelled,
    whole: Number.isInteger(value) && /^[+−-]?\d[\d.,]*$|^\p{L}+$/u.test(text),
    thousands,
    ...(first.grouped === undefined || second ? {} : { grouped: first.grouped }),
    about,
    signed: /^[+−-]/.test(text) || tokens[at - 1]?.low === 'minus',
    part: first.part,
  };
}

/** The number that begins here, without its unit. */
function numberAt(tokens: readonly Token[], at: number): Read | undefined {
  const t = tokens[at];
  if (!t) return undefined;
  if (/^[+−-]?\.?\d/.test(t.text)) return digitsAt(tokens, at, t);
  const glyph = GLYPHS[t.text.replace(/^[+−-]/, '')];
  if (glyph !== undefined)
    return {
      value: /^[−-]/.test(t.text) ? -glyph : glyph,
      n: 1,
      spelled: false,
      part: true,
      thousands: false,
    };
  const times = GRAMMAR.times[t.low];
  if (times !== undefined) return { value: times, n: 1, spelled: true, part: false, thousands: false };
  return spelledAt(tokens, at);
}

function digitsAt(tokens: readonly Token[], at: number, t: Token): Read | undefined {
  const broken = /^(\d{1,2})\/(\d{1,2})$/.exec(t.text);
  if (broken) {
    const [a, b] = [Number(broken[1]), Number(broken[2])];
    return [2, 3, 4, 8, 16, 32].includes(b) && a < b
      ? { value: a / b, n: 1, spelled: false, part: true, thousands: false }
      : undefined;
  }
  if (/^[+−-]?\.\d+$/.test(t.text))
    return { value: Number(t.text.replace('−', '-')), n: 1, spelled: false, part: false, thousands: false };
  if (!/^[+−-]?\d+(?:[.,]\d+)*$/.test(t.text)) return undefined;
  let [n, digits, grouped] = [1, t.text, false];
  while (
    /^[+−-]?\d{1,3}( \d{3})*$/.test(digits) &&
    /^\d{3}$/.test(tokens[at + n]?.text ?? '') &&
    nth(tokens, at + n).from - nth(tokens, at + n - 1).to === 1
  ) {
    digits += ` ${nth(tokens, at + n++).text}`;
    grouped = true;
  }
  const marked = /^\d{1,3}([.,])\d{3}$/.test(digits) && !digits.startsWith('0');
  let value = readNumber(digits);
  if (value === undefined) return undefined;
  let thousands = grouped || marked;
  // "9½", "9 1/2"
  const next = tokens[at + n];
  if (
    next &&
    Number.isInteger(value) &&
    (GLYPHS[next.text] !== undefined || /^\d\/\d$/.test(next.text)) &&
    next.from - nth(tokens, at + n - 1).to <= 1
  ) {
    const part = GLYPHS[next.text] ?? digitsAt(tokens, at + n, next)?.value;
    if (part !== undefined) [value, n] = [value + part, n + 1];
  }
  // "its 4th step"
  if (
    /^(st|nd|rd|th)$/.test(tokens[at + n]?.low ?? '') &&
    tokens[at + n]?.from === nth(tokens, at + n - 1).to
  )
    n++;
  const scale = tokens[at + n];
  if (
    scale &&
    (scale.low === 'thousand' ||
      (scale.low === 'k' && scale.from - nth(tokens, at + n - 1).to <= 1 && value < 2000))
  ) {
    value *= 1000;
    thousands = true;
    n++;
  }
  const parts = marked && n === 1 ? Number(digits.replace(/[.,]/, '')) : undefined;
  return {
    value,
    n,
    spelled: false,
    part: false,
    thousands,
    ...(parts === undefined ? {} : { grouped: parts }),
  };
}

/** "a hundred and ten thousand", "eighteen point four", "one and a half", "three quarters", "half a dozen". */
function spelledAt(tokens: readonly Token[], at: number): Read | undefined {
  let [i, total, current, seen, part, thousands] = [at, 0, 0, false, false, false];
  const low = (k: number) => tokens[k]?.low ?? '';
  const small = (k: number) => GRAMMAR.numbers[low(k)];
  if (
    /^an?$/.test(low(i)) &&
    (GRAMMAR.scales[low(i + 1)] !== undefined || /^(half|quarter|third|tenth)$/.test(low(i + 1)))
  )
    i++;
  if (low(i) === 'half' || low(i) === 'quarter' || low(i) === 'third' || low(i) === 'tenth') {
    const value = GRAMMAR.fractions[low(i)] ?? 0;
    i++;
    if (/^(a|an|of)$/.test(low(i))) i += low(i) === 'of' && /^(a|an|the)$/.test(low(i + 1)) ? 2 : 1;
    if (low(i) === 'dozen')
      return { value: 12 * value, n: i + 1 - at, spelled: true, part: false, thousands: false };
    if (GRAMMAR.scales[low(i)] !== undefined)
      return {
        value: value * (GRAMMAR.scales[low(i)] ?? 1),
        n: i + 1 - at,
        spelled: true,
        part: false,
        thousands: true,
      };
    return { value, n: i - at, spelled: true, part: true, thousands: false };
  }
  for (;;) {
    const digit = small(i);
    const scale = GRAMMAR.scales[low(i)];
    if (digit !== undefined) {
      // Two small numbers side by side are two numbers: "twelve thirty two".
      if (seen && current > 0 && !joins(current, digit)) break;
      current += digit;
      seen = true;
      i++;
    } else if (scale !== undefined && (seen || i > at || at === i)) {
      if (
        !seen &&
        !(i > at || /^(the|some|a)$/.test(low(at - 1)) || small(i + 1) !== undefined || low(i + 1) === 'and')
      )
        break;
      if (scale === 100) current = (current || 1) * 100;
      else {
        total += (current || 1) * scale;
        current = 0;
        thousands = true;
      }
      seen = true;
      i++;
    } else if (low(i) === 'k' && seen) {
      total += current * 1000;
      current = 0;
      thousands = true;
      i++;
    } else if (low(i) === 'point' && seen && small(i + 1) !== undefined) {
      let digits = '';
      for (i++; small(i) !== undefined && (small(i) ?? 10) < 10; i++) digits += String(small(i));
      current += Number(`0.${digits || '0'}`);
    } else if (low(i) === 'and' && seen && fractionAt(tokens, i + 1)) {
      const f = fractionAt(tokens, i + 1);
      if (!f) break;
      current += f.value;
      part = true;
      i += 1 + f.n;
    } else if (low(i) === 'and' && seen && (current >= 100 || current === 0) && small(i + 1) !== undefined)
      i++;
    else if (GRAMMAR.fractions[low(i)] !== undefined && seen && low(i).endsWith('s')) {
      current *= GRAMMAR.fractions[low(i)] ?? 1;
      part = true;
      i++;
      break;
    } else break;
  }
  if (!seen) return undefined;
  return { value: total + current, n: i - at, spelled: true, part, thousands };
}

/** Whether a small number goes on the one before: "twenty four", "hundred four". */
const joins = (current: number, digit: number): boolean =>
  (current % 100 === 0 && current >= 100 && digit < 100) ||
  (current % 10 === 0 && current % 100 >= 20 && digit < 10);

/** "a half", "half", "three quarters", behind "one and". */
function fractionAt(tokens: readonly Token[], at: number): { value: number; n: number } | undefined {
  const low = (k: number) => tokens[k]?.low ?? '';
  let i = at;
  const count = GRAMMAR.numbers[low(i)];
  if (
    count !== undefined &&
    (low(i + 1).endsWith('s') || count > 1) &&
    GRAMMAR.fractions[low(i + 1)] !== undefined
  )
    return { value: count * (GRAMMAR.fractions[low(i + 1)] ?? 0), n: 2 };
  if (/^an?$/.test(low(i))) i++;
  const f = GRAMMAR.fractions[low(i)];
  return f === undefined || low(i).endsWith('s') ? undefined : { value: f, n: i + 1 - at };
}
