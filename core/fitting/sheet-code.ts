import { nth, num } from '@core/quantity/must';
import { sha256 } from '@noble/hashes/sha2.js';
import { type Result, err, ok } from '@core/quantity/result';
import { looksLikeCode } from './looks-like-code';

/** What a filled sheet says of each step, in the order of the sheet: enough to be written as a short code. */
export type SheetAnswers = {
  state?: 'done' | 'skipped' | 'wrong' | undefined;
  /** Its place in the order done, from 1, where that is not the sheet's. */
  place?: number | undefined;
  /** Figures in the order asked. */
  values: readonly (number | undefined)[];
  /** Which of the accepted substitutes was used, from 0; none: the tool itself, or not said. */
  instead?: number | undefined;
};
/** How the steps of a sheet ask, so that a code can be read back: figures and substitutes of each. */
export type SheetQuestions = readonly { asks: number; instead: number }[];
export type Coded = {
  /** First eight hex digits of the sheet's digest, and of the case's ten (four in codes of the first edition). */
  sheet: string;
  case: string;
  steps: readonly SheetAnswers[];
};
export type CodeError =
  | { code: 'not_a_code' }
  /** The check sum does not hold: a sign was mistyped, or some are missing. */
  | { code: 'code_broken' }
  | { code: 'code_of_other_length' };

/** Digits and letters without those that are taken for another (Crockford's base 32). */
const SIGNS = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
/** Editions: sixteen bits of the case and sheets of up to 127 steps; forty bits and up to 255. */
const EDITIONS = { HS1: { mark: 4, width: 7 }, HS2: { mark: 10, width: 8 } } as const;
type Edition = keyof typeof EDITIONS;
const NOW: Edition = 'HS2';
/** Signs of the check sum: 25 bits of SHA-256. */
const CHECK = 5;
const STATES = [undefined, 'done', 'skipped', 'wrong'] as const;
/** A figure is written digit by digit, four bits each. */
const DIGITS = '0123456789.-';
const END = 15;

class Bits {
  readonly out: number[] = [];
  put(value: number, width: number): void {
    for (let i = width - 1; i >= 0; i--) this.out.push((value >> i) & 1);
  }
}

/** A filled sheet as a code: "HS2 7K3M 0W2P …", with a check sum at its end. */
export function writeCode(c: Coded, asked: SheetQuestions, edition: Edition = NOW): string {
  const { mark, width } = EDITIONS[edition];
  const bits = new Bits();
  for (const hex of `${c.sheet.slice(0, 8)}${c.case.slice(0, mark)}`) bits.put(parseInt(hex, 16), 4);
  for (const s of c.steps) bits.put(STATES.indexOf(s.state), 2);
  const moved = c.steps.flatMap((s, i) => (s.place === undefined ? [] : [[i, s.place] as const]));
  bits.put(moved.length, width);
  for (const [i, place] of moved) {
    bits.put(i, width);
    bits.put(place, width);
  }
  for (const s of c.steps) {
    for (const v of s.values) {
      for (const d of v === undefined ? '' : String(Math.round(v * 100) / 100))
        bits.put(DIGITS.indexOf(d), 4);
      bits.put(END, 4);
    }
  }
  for (const [i, a] of asked.entries()) {
    const { instead } = nth(c.steps, i);
    if (a.instead > 0) bits.put(instead === undefined ? 0 : instead + 1, 3);
  }
  let text = '';
  for (let i = 0; i < bits.out.length; i += 5)
    text += SIGNS[[0, 1, 2, 3, 4].reduce((n, k) => n * 2 + (bits.out[i + k] ?? 0), 0)];
  const whole = text + checkOf(edition, text);
  return [edition, ...(whole.match(/.{1,4}/g) ?? [])].join(' ');
}

const checkOf = (edition: Edition, text: string): string =>
  [...sha256(new TextEncoder().encode(edition + text)).slice(0, CHECK)].map((b) => SIGNS[b & 31]).join('');

/** The signs of a typed code: small letters, blanks, and letters that are taken for digits, are as they were meant. */
const signsOf = (typed: string): string =>
  typed
    .toUpperCase()
    .replace(/^\s*HS[12]/, '')
    .replace(/[\s-]/g, '')
    .replace(/O/g, '0')
    .replace(/[IL]/g, '1')
    .replace(/U/g, 'V');

/** Sheet and case that a code is of, without reading its steps. */
export function headOfCode(typed: string): Result<{ sheet: string; case: string }, CodeError> {
  const bits = bitsOf(typed);
  if (!bits.ok) return bits;
  const read = readerOf(bits.value.bits);
  const hex = (n: number) => Array.from({ length: n }, () => (read(4) ?? 0).toString(16)).join('');
  return ok({ sheet: hex(8), case: hex(EDITIONS[bits.value.edition].mark) });
}

/** Reads a code back, for a sheet whose steps ask so. */
export function readCode(typed: string, asked: SheetQuestions): Result<Coded, CodeError> {
  const bits = bitsOf(typed);
  if (!bits.ok) return bits;
  const { mark, width } = EDITIONS[bits.value.edition];
  const read = readerOf(bits.value.bits);
  const need = (width: number): number => {
    const v = read(width);
    if (v === undefined) throw new RangeError('short');
    return v;
  };
  try {
    const hex = (n: number) => Array.from({ length: n }, () => need(4).toString(16)).join('');
    const head = { sheet: hex(8), case: hex(mark) };
    const states = asked.map(() => STATES[need(2)]);
    const places = new Map(Array.from({ length: need(width) }, () => [need(width), need(width)] as const));
    const values = asked.map((a) => Array.from({ length: a.asks }, () => figure(need)));
    const instead = asked.map((a) => (a.instead > 0 ? need(3) : 0));
    const steps = asked.map((_, i) => ({
      state: states[i],
      place: places.get(i),
      values: nth(values, i),
      instead: instead[i] === 0 ? undefined : num(instead, i) - 1,
    }));
    return ok({ ...head, steps });
  } catch (e) {
    if (e instanceof RangeError) return err({ code: 'code_of_other_length' });
    throw e;
  }
}

function figure(need: (width: number) => number): number | undefined {
  let text = '';
  for (let d = need(4); d !== END; d = need(4)) text += DIGITS[d] ?? '';
  return text === '' ? undefined : Number(text);
}

function bitsOf(typed: string): Result<{ edition: Edition; bits: number[] }, CodeError> {
  if (!looksLikeCode(typed)) return err({ code: 'not_a_code' });
  const edition: Edition = /^\s*HS1/i.test(typed) ? 'HS1' : 'HS2';
  const whole = signsOf(typed);
  const text = whole.slice(0, -CHECK);
  if (checkOf(edition, text) !== whole.slice(-CHECK)) return err({ code: 'code_broken' });
  const bits = [...text].flatMap((s) => {
    const v = SIGNS.indexOf(s);
    return [16, 8, 4, 2, 1].map((m) => (v & m ? 1 : 0));
  });
  return ok({ edition, bits });
}

function readerOf(bits: readonly number[]): (width: number) => number | undefined {
  let at = 0;
  return (width) => {
    if (at + width > bits.length) return undefined;
    let v = 0;
    for (let i = 0; i < width; i++) v = v * 2 + num(bits, at++);
    return v;
  };
}
