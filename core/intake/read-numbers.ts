import { must, nth } from '@core/quantity/must';
import { findUnit, toBase } from '@core/quantity/units';
import { readNumber } from '@core/quantity/parse-quantity';
import type { Observable } from '@core/facts/observable';
import { type IntakeContext, usualSpread } from './context';
import { findPhrases, groupBy, hasPhrase, spanOf } from './phrases';
import type { Proposal } from './proposal';
import type { Token } from './text';
import { namesOfSubject, WORDS } from './words';

type Figure = { at: number; n: number; value: number; unit: string | undefined; whole: boolean };

/** Numbers of a clause with the unit behind each: "178 200 km", "62 thousand km", "21,6 mm", "42 N·m". */
function figuresOf(tokens: readonly Token[]): Figure[] {
  const out: Figure[] = [];
  for (let i = 0; i < tokens.length; i++) {
    const spoken = WORDS.numbers[nth(tokens, i).low];
    if (spoken !== undefined && /^(turn|time|link)$/.test(tokens[i + 1]?.stem ?? '')) {
      out.push({ at: i, n: 1, value: spoken, unit: nth(tokens, i + 1).text, whole: true });
      continue;
    }
    const m = /^([-+−]?[\d.,]*\d)([a-z°]*)$/i.exec(nth(tokens, i).text);
    if (!m) continue;
    let [n, digits] = [1, nth(m, 1)];
    // Groups of three behind blanks belong to one number.
    while (
      /^[-+−]?\d{1,3}( \d{3})*$/.test(digits) &&
      /^\d{3}$/.test(tokens[i + n]?.text ?? '') &&
      nth(tokens, i + n).from - nth(tokens, i + n - 1).to === 1 &&
      m[2] === ''
    )
      digits += ` ${nth(tokens, i + n++).text}`;
    let value = readNumber(digits, /^\d{2,3}[.,]\d{3}$/.test(digits));
    if (value === undefined) continue;
    if (tokens[i + n]?.low === 'thousand') {
      value *= 1000;
      n++;
    }
    let unit = m[2] === '' ? undefined : m[2];
    if (unit === undefined && tokens[i + n]?.clause === nth(tokens, i).clause) {
      const two = `${nth(tokens, i + n).text}·${tokens[i + n + 1]?.text ?? ''}`;
      if (findUnit('torque', two) !== undefined) {
        unit = two;
        n += 2;
      } else if (/^[a-z°]+$/i.test(nth(tokens, i + n).text)) unit = nth(tokens, i + n).text;
    }
    out.push({ at: i, n, value, unit, whole: /^[\d\s.,]+$/.test(digits) && Number.isInteger(value) });
    i += n - 1;
  }
  return out;
}

const distanceUnit = (unit: string | undefined): string | undefined => {
  if (unit === undefined) return undefined;
  if (WORDS.miles.includes(unit.toLowerCase())) return 'mi';
  return /^k(m|ms|ilometres|ilometers)?$/i.test(unit) ? 'km' : undefined;
};

/** Distances by what is said around them: now, when fitted, since fitting, in a year. */
export function readDistances(tokens: readonly Token[], ctx: IntakeContext): Proposal[] {
  const out: Proposal[] = [];
  const since: { km: number; span: Proposal['spans'][number] }[] = [];
  for (const sentence of groupBy(tokens, 'sentence')) {
    const figures = figuresOf(sentence);
    for (const f of figures) {
      const unit = distanceUnit(f.unit);
      const near = sentence
        .slice(Math.max(0, f.at - 7), f.at + f.n + 5)
        .filter((t) => t.clause === nth(sentence, f.at).clause);
      const before = sentence.slice(Math.max(0, f.at - 5), f.at);
      const behind = sentence
        .slice(f.at + f.n, f.at + f.n + 4)
        .filter((t) => t.clause === nth(sentence, f.at).clause);
      const fittedBefore = hasPhrase(before, WORDS.fitted);
      const clock = hasPhrase(near, WORDS.clock);
      const large = f.whole && f.value >= 1000 && f.value < 2_000_000;
      const year = f.value > 1950 && f.value < 2100 && f.unit === undefined;
      if (unit === undefined && (!large || year || !(clock || fittedBefore || before.at(-1)?.low === 'at')))
        continue;
      if (unit === undefined && f.unit !== undefined && findUnit('length', f.unit) !== undefined) continue;
      const km = unit === 'mi' ? Math.round(toBase('distance', f.value, 'mi')) : f.value;
      const span = spanOf(
        sentence,
        f.at,
        unit !== undefined && f.unit === sentence[f.at + f.n]?.text ? f.n + 1 : f.n,
      );
      const put = (key: string, sure: Proposal['sure'] = unit === undefined ? 'likely' : 'sure') =>
        out.push({ key, value: km, how: 'reported', sure, spans: [span] });
      if (hasPhrase(behind, WORDS.yearly)) {
        out.push({ key: 'vehicle.yearly', value: km, how: 'reported', sure: 'likely', spans: [span] });
        continue;
      }
      const now = hasPhrase(near, WORDS.now);
      if (hasPhrase(behind, WORDS.since) || (hasPhrase(before, WORDS.ran) && !now)) {
        since.push({ km, span });
        continue;
      }
      if (hasPhrase(before, WORDS.otherSpan)) continue;
      if (
        !hasPhrase(before.slice(-3), WORDS.now) &&
        (hasPhrase(before, WORDS.atFitting) ||
          (fittedBefore && before.at(-1)?.low === 'at') ||
          atFitting(sentence, f))
      )
        put('kit.fitted_odometer');
      else put('vehicle.odometer');
    }
  }
  const odo = out.find((p) => p.key === 'vehicle.odometer')?.value ?? ctx.odometerKm;
  for (const s of since)
    if (typeof odo === 'number' && odo > s.km && !out.some((p) => p.key === 'kit.fitted_odometer'))
      out.push({
        key: 'kit.fitted_odometer',
        value: odo - s.km,
        // a difference of two readings is less sharp than either
        u: Math.SQRT2 * (usualSpread(ctx.registry.get('vehicle.odometer')) ?? 0),
        how: 'reported',
        sure: 'likely',
        spans: [s.span],
      });
  return out;
}

/** A large number with neither unit nor cue, where no distance was told: it may be the one or the other, and is asked. */
export function readBare(tokens: readonly Token[], found: readonly Proposal[]): Proposal[] {
  const keys = ['vehicle.odometer', 'kit.fitted_odometer'];
  if (found.some((p) => keys.includes(p.key))) return [];
  for (const clause of groupBy(tokens, 'clause'))
    for (const f of figuresOf(clause)) {
      const unitless =
        f.unit === undefined || !/^(mm|cm|n|nm|kg|eur|ac|°|deg|teeth|links?|turns?)/i.test(f.unit);
      if (!f.whole || !unitless || f.value < 10_000 || f.value >= 2_000_000) continue;
      if (WORDS.notDistance.includes(clause[f.at - 1]?.low ?? '')) continue;
      const span = spanOf(clause, f.at, f.n);
      if (found.some((p) => p.spans.some((s) => s.from < span.to && span.from < s.to))) continue;
      return keys.map((key) => ({
        key,
        value: f.value,
        how: 'reported' as const,
        sure: 'ask' as const,
        doubt: 'bare_number' as const,
        spans: [span],
      }));
    }
  return [];
}

/** Words before a figure among which its cue is looked for: a sentence of people has fewer. */
const CUE_REACH = 60;

/** "fitted 3.2.2026 at 51 000 km", "went in on 12 March 2024 at 118 400 km": the last cue before the figure is the fitting. */
function atFitting(sentence: readonly Token[], f: Figure): boolean {
  if (sentence[f.at - 1]?.low !== 'at') return false;
  const before = sentence.slice(Math.max(0, f.at - CUE_REACH), f.at);
  const last = (words: readonly string[]) => findPhrases(before, words).at(-1)?.at ?? -1;
  return last(WORDS.fitted) > Math.max(last(WORDS.now), -1);
}

/** Measured numbers and counts by the words around them, from the registry: "ext 7.4 mm", "320,9 mm on 40 link", "pointer on 41 degree". */
export function readMeasured(tokens: readonly Token[], ctx: IntakeContext): Proposal[] {
  const out: Proposal[] = [];
  const numbers = [...ctx.registry.values()].filter(
    (o) =>
      (o.type.kind === 'number' || o.type.kind === 'count') &&
      (!o.hidden || o.line) &&
      o.part !== 'old' &&
      o.part !== 'wheel' &&
      o.part !== 'bank' &&
      o.place === undefined &&
      !(
        o.type.kind === 'number' &&
        (o.type.dimension === 'distance' || o.type.dimension === 'money' || o.type.dimension === 'ratio')
      ),
  );
  for (const sentence of groupBy(tokens, 'sentence')) {
    // Looked for once a sentence, however many figures it has.
    const spoken = numbers.flatMap((o) => {
      const at = findPhrases(sentence, namesOfSubject(o));
      return at.length > 0 ? [{ o, at }] : [];
    });
    for (const f of figuresOf(sentence)) {
      let best: { o: Observable; away: number; at: number; n: number } | undefined;
      for (const { o, at } of spoken) {
        if (!unitSuits(o, f.unit)) continue;
        for (const s of at) {
          if (Math.abs(s.at - f.at) > MEASURE_REACH) continue;
          if (s.at <= f.at && f.at < s.at + s.n && o.type.kind === 'number') continue;
          const away = s.at > f.at ? s.at - f.at - f.n + 1 : f.at - s.at - s.n + 1;
          const unsaid = !hasUnit(o, f.unit);
          if (Math.abs(nth(sentence, s.at).clause - nth(sentence, f.at).clause) > (unsaid ? 0 : 1)) continue;
          if (away > (unsaid ? 3 : 9)) continue;
          if (!best || away < best.away) best = { o, away, at: s.at, n: s.n };
        }
      }
      if (!best || !inRange(best.o, f) || turnsOfElse(best.o, sentence, f)) continue;
      const next = sentence[f.at + f.n];
      const n = f.n + (f.unit !== undefined && next?.text === f.unit ? 1 : 0);
      out.push(figureOf(best.o, f, spanOf(sentence, f.at, n)));
    }
  }
  return out;
}

/** Turns that are not the engine's: of a screw, of a key; those say nothing of a check by hand. */
function turnsOfElse(o: Observable, sentence: readonly Token[], f: Figure): boolean {
  if (o.type.kind !== 'count' || o.type.what !== 'turns') return false;
  const clause = sentence.filter((t) => t.clause === nth(sentence, f.at).clause);
  if (hasPhrase(clause, WORDS.engineTurns)) return false;
  // "We backed the adjuster off, it turned 2 turns": what turned was named before; the last named is meant.
  const before = sentence.slice(0, f.at);
  const last = (words: readonly string[]) => findPhrases(before, words).at(-1)?.at ?? -1;
  return hasPhrase(clause, WORDS.othersTurn) || last(WORDS.othersTurn) > last(WORDS.engineTurns);
}

/** A subject further from its figure than this is that of another, words. */
const MEASURE_REACH = 20;

function figureOf(o: Observable, f: Figure, span: Proposal['spans'][number]): Proposal {
  const base =
    o.type.kind === 'number' && hasUnit(o, f.unit)
      ? toBase(o.type.dimension, f.value, must(findUnit(o.type.dimension, must(f.unit))))
      : f.value;
  return {
    key: o.key,
    value: base,
    how: 'reported',
    sure: hasUnit(o, f.unit) ? 'sure' : 'likely',
    spans: [span],
  };
}

const hasUnit = (o: Observable, unit: string | undefined): boolean =>
  unit !== undefined &&
  (o.type.kind === 'number'
    ? findUnit(o.type.dimension, unit) !== undefined
    : o.type.kind === 'count' && countUnit(o, unit));

const countUnit = (o: Observable, unit: string): boolean =>
  o.type.kind === 'count' &&
  o.type.what !== '' &&
  ((o.type.what === 'turns' && /^times?$/i.test(unit)) ||
    o.type.what.toLowerCase().startsWith(unit.toLowerCase().replace(/s$/, '').slice(0, 4)));

/** A unit of another dimension rules it out; a word that is no unit is none. */
function unitSuits(o: Observable, unit: string | undefined): boolean {
  if (o.type.kind === 'count') return countUnit(o, unit ?? '') && unit !== undefined;
  if (unit === undefined || hasUnit(o, unit)) return true;
  return (
    !/^(mm|cm|m|km|mi|nm|°|deg|degrees?|miles?|links?|teeth|tooth|turns?|times?|screws?|windows?|%)$/i.test(
      unit,
    ) && !/^n·/i.test(unit)
  );
}

function inRange(o: Observable, f: Figure): boolean {
  const t = o.type;
  if (t.kind === 'count') return Number.isInteger(f.value) && f.value >= t.min && f.value <= t.max;
  if (t.kind !== 'number') return false;
  const unit = f.unit === undefined ? undefined : findUnit(t.dimension, f.unit);
  const v = unit === undefined ? f.value : toBase(t.dimension, f.value, unit);
  return v >= t.min && v <= t.max;
}
