import { must, nth } from '@core/quantity/must';
import { oncePer } from '@core/quantity/keep';
import { findUnit, toBase } from '@core/quantity/units';
import type { Observable, Registry } from '@core/facts/observable';
import type { DayTold } from './days';
import type { Figure } from './figures';
import type { IntakeContext } from './context';
import { findPhrases, hasPhrase } from './phrases';
import type { Proposal, TextSpan } from './proposal';
import { beginOf, figuresIn, type Speech } from './said';
import type { Token } from './text';
import { kindNamed } from './lexicon';
import { namesOfSubject, WORDS } from './words';

/** A subject further from its figure than this is that of another, words. */
const REACH = 14;
/** Counts that are told by their noun alone: "137 teeth", "9 clicks out". */
const LOOSE = 3;

/** Observables of measured numbers and counts that a message may tell. */
const numbersOf = oncePer((registry: Registry): readonly Observable[] =>
  [...registry.values()].filter(
    (o) =>
      (o.type.kind === 'number' || o.type.kind === 'count') &&
      (!o.hidden || o.line) &&
      o.part !== 'old' &&
      o.part !== 'wheel' &&
      o.part !== 'bank' &&
      o.place === undefined &&
      !(o.type.kind === 'number' && ['distance', 'money', 'ratio', 'torque'].includes(o.type.dimension)),
  ),
);

/** Measured numbers and counts by the words around them, from the registry: "ext 7.4 mm", "320,9 mm on 40 link", "pointer on 41 degree". */
export function readMeasured(
  said: Speech,
  days: readonly DayTold[],
  used: ReadonlySet<number>,
  ctx: IntakeContext,
): Proposal[] {
  const out: Proposal[] = [];
  const numbers = numbersOf(ctx.registry);
  for (const sentence of said.sentences) {
    const first = beginOf(said, sentence);
    const figures = figuresIn(said, sentence);
    if (figures.length === 0) continue;
    // Links are counted for a length only where a length is told.
    const lengths = figures.some(
      (f) =>
        (f.unit !== undefined && findUnit('length', f.unit) !== undefined) ||
        /\d[.,]\d/.test(nth(said.tokens, f.at).text),
    );
    // Looked for once a sentence, however many figures it has.
    const spoken = numbers.flatMap((o) => {
      if (!lengths && (o.key === 'chain.links_over' || o.key === 'chain.length')) return [];
      const at = findPhrases(sentence, namesOfSubject(o));
      return at.length > 0 ? [{ o, at }] : [];
    });
    let last: Proposal | undefined;
    for (const f of figures) {
      const t = nth(said.tokens, f.at);
      if (used.has(f.at) || days.some((d) => d.span.from < t.to && t.from < d.span.to)) continue;
      const best = subjectOf(spoken, sentence, { ...f, at: f.at - first });
      const before = last && ctx.registry.get(last.key);
      if (!best && last && before && goesOn(sentence, f, first, before.part)) {
        out.push({
          ...withoutWhich(last),
          value: f.value,
          spans: [{ from: t.from, to: nth(said.tokens, f.at + f.digits - 1).to }],
          ...whichOf(before, sentence, f.at - first),
        });
        continue;
      }
      if (!best || turnsOfElse(best.o, sentence, f.at - first)) continue;
      const which = whichOf(best.o, sentence, f.at - first);
      // Windows of the drive's own ring are what tells its design; those of a part in hand are counted on it.
      if (best.o.part === 'ring' && which.which === undefined) continue;
      const span: TextSpan = { from: t.from, to: nth(said.tokens, f.at + f.n - 1).to };
      const mood = said.clauses.get(t.clause);
      const named = hasUnit(best.o, f.unit);
      const stated = mood === undefined || mood.mood === 'stated';
      out.push(
        (last = {
          key: best.o.key,
          value: valueOf(best.o, f),
          how: 'reported',
          sure: !stated || mood?.earlier ? 'ask' : named ? 'sure' : 'likely',
          spans: [span],
          ...(f.spread === undefined && !f.about
            ? {}
            : { u: Math.max(f.spread ?? 0, Math.abs(valueOf(best.o, f)) * 0.1) }),
          ...(mood?.theirs === undefined ? {} : { hearsay: mood.theirs }),
          ...which,
        }),
      );
    }
  }
  return out;
}

/** "Old belt", "the one that came out", "in your box": of the part that was taken out, or of the one that goes in. */
function whichOf(o: Observable, sentence: readonly Token[], at: number): { which?: 'old' | 'new' } {
  const clause = nth(sentence, at).clause;
  const near = sentence.filter((t, i) => t.clause === clause || (i < at && clause - t.clause <= 1));
  const here = near.indexOf(nth(sentence, at));
  // "New belt" says nothing of the tensioner's pointer.
  const fits = (f: { at: number; n: number }) =>
    near
      .slice(f.at, f.at + f.n + 2)
      .every((t, i) => i >= f.n + 1 || kindNamed(t) === undefined || kindNamed(t) === o.part);
  const away = (f: readonly { at: number; n: number }[]) =>
    Math.min(...f.filter(fits).map((x) => (x.at <= here ? here - x.at : 2 * (x.at - here))), 99);
  const [old, fresh] = [away(findPhrases(near, WORDS.oldPart)), away(findPhrases(near, WORDS.newPart))];
  if (old === 99 && fresh === 99) return {};
  return { which: fresh < old ? 'new' : 'old' };
}

function subjectOf(
  spoken: readonly { o: Observable; at: readonly { at: number; n: number; phrase: string }[] }[],
  sentence: readonly Token[],
  f: Figure,
): { o: Observable } | undefined {
  let best: { o: Observable; away: number; length: number } | undefined;
  for (const { o, at } of spoken) {
    if (
      !inRange(o, f) ||
      !unitSuits(o, f.unit) ||
      (f.part && o.type.kind === 'count') ||
      (f.spelled && f.value === 1)
    )
      continue;
    const between = hasPhrase(sentence.slice(f.at + f.digits, f.at + f.digits + 3), ['between']);
    if (o.type.kind === 'count' && between !== (o.key === 'chain.between')) continue;
    for (const s of at) {
      if (s.at <= f.at && f.at < s.at + s.n && o.type.kind === 'number') continue;
      const away = s.at > f.at ? 2 * (s.at - f.at - f.digits) + 1 : f.at - s.at - s.n + 1;
      const told = hasUnit(o, f.unit);
      // A figure without its unit, and a count, are told of the part that was named last.
      const topic = topicAt(sentence, f.at);
      const suits = topic === undefined || topic === o.part || !PARTS.has(o.part);
      if (!suits && !(s.at > f.at && told && !WORDS.looseNames.includes(s.phrase))) continue;
      if (!told && PARTS.has(o.part) && topic !== o.part && !ownNames(o).has(s.phrase)) continue;
      const clauses = Math.abs(nth(sentence, s.at).clause - nth(sentence, f.at).clause);
      if (clauses > (told ? 2 : o.type.kind === 'count' ? 0 : 1) || away > (told ? REACH : LOOSE * 2))
        continue;
      const score = away + 3 * clauses;
      if (!best || score < best.away || (score === best.away && s.n > best.length))
        best = { o, away: score, length: s.n };
    }
  }
  return best;
}

const PARTS = new Set(Object.keys(WORDS.nouns));
/** Names that leave no doubt what is meant, and may stand before a figure without its unit. */
const ownNames = oncePer(
  (o: Observable): ReadonlySet<string> =>
    new Set([
      o.wording,
      ...o.aliases,
      ...(WORDS.subjects[o.key] ?? []).filter((n) => !WORDS.looseNames.includes(n)),
    ]),
);

/** Kind of part that was named last before a place of a sentence. */
function topicAt(sentence: readonly Token[], at: number): string | undefined {
  for (let i = at - 1; i >= 0; i--) {
    const kind = kindNamed(nth(sentence, i));
    if (kind !== undefined) return kind;
  }
  return undefined;
}

const withoutWhich = (p: Proposal): Proposal => {
  const same = { ...p };
  delete same.which;
  return same;
};

/** "Left ratchet 14 clicks out, right 13, primary only 6": a clause of a place and a figure goes on what was measured before. */
function goesOn(sentence: readonly Token[], f: Figure, first: number, kind: string | undefined): boolean {
  if (f.unit !== undefined) return false;
  const clause = sentence.filter((t) => t.clause === nth(sentence, f.at - first).clause);
  // "The ones I took out are 45": the other part's.
  const other = hasPhrase(clause, WORDS.oldPart) || hasPhrase(clause, WORDS.newPart);
  if (other && clause.length <= 8 && clause.every((t) => kindNamed(t) === undefined || kindNamed(t) === kind))
    return true;
  return (
    clause.length <= 4 &&
    clause.length > f.digits &&
    clause.every(
      (t) =>
        WORDS.placeWords.includes(t.low) ||
        /^[\d.,]+$/.test(t.text) ||
        kindNamed(t) === kind ||
        /^(?:old|new)$/.test(t.low),
    )
  );
}

/** Turns that are not the engine's: of a screw, of a key; those say nothing of a check by hand. */
function turnsOfElse(o: Observable, sentence: readonly Token[], at: number): boolean {
  if (o.type.kind !== 'count' || o.type.what !== 'turns') return false;
  const clause = sentence.filter((t) => t.clause === nth(sentence, at).clause);
  if (hasPhrase(clause, WORDS.engineTurns)) return false;
  if (hasPhrase(clause, ['by hand']) && !hasPhrase(clause, WORDS.othersTurn)) return false;
  // "We backed the adjuster off, it turned 2 turns": what turned was named before; the last named is meant.
  const before = sentence.slice(0, at);
  const last = (words: readonly string[]) => findPhrases(before, words).at(-1)?.at ?? -1;
  return hasPhrase(clause, WORDS.othersTurn) || last(WORDS.othersTurn) > last(WORDS.engineTurns);
}

const valueOf = (o: Observable, f: Figure): number =>
  o.type.kind === 'number' && hasUnit(o, f.unit)
    ? toBase(o.type.dimension, f.value, must(findUnit(o.type.dimension, must(f.unit))))
    : f.value;

const hasUnit = (o: Observable, unit: string | undefined): boolean =>
  unit !== undefined &&
  (o.type.kind === 'number'
    ? findUnit(o.type.dimension, unit) !== undefined
    : o.type.kind === 'count' && countUnit(o, unit));

const countUnit = (o: Observable, unit: string): boolean =>
  o.type.kind === 'count' &&
  o.type.what !== '' &&
  ((o.type.what === 'turns' && /^(times?|revolutions?)$/i.test(unit)) ||
    (o.type.what === 'steps' && /^(clicks?|notch|notches|teeth)$/i.test(unit)) ||
    (o.type.what === 'teeth' && /^(t|tooth)$/i.test(unit)) ||
    o.type.what.toLowerCase().startsWith(unit.toLowerCase().replace(/s$/, '').slice(0, 4)));

const OTHER_UNITS =
  /^(mm|cm|m|km|kms|k|mi|mls|nm|°|°c|°f|deg|degrees?|miles?|links?|teeth|tooth|t|turns?|times?|screws?|windows?|bolts?|steps?|clicks?|pieces?|%|h|hours?|min|minutes?|s|sec|seconds?|days?|weeks?|months?|years?|g|grams?|kg|kilos?|lb|lbs|lbf|hz|bar|v|in|inch|inches|"|ac|eur)$/i;

/** A unit of another dimension rules it out; a word that is no unit is none. */
function unitSuits(o: Observable, unit: string | undefined): boolean {
  // "11 between the marks": what is counted between them can be links only.
  if (o.type.kind === 'count') return unit === undefined ? o.key === 'chain.between' : countUnit(o, unit);
  if (unit === undefined || hasUnit(o, unit)) return true;
  return !OTHER_UNITS.test(unit) && !/^n·/i.test(unit) && findUnit('torque', unit) === undefined;
}

function inRange(o: Observable, f: Figure): boolean {
  const t = o.type;
  if (t.kind === 'count') return Number.isInteger(f.value) && f.value >= t.min && f.value <= t.max;
  if (t.kind !== 'number') return false;
  const v = valueOf(o, f);
  return v >= t.min && v <= t.max;
}
