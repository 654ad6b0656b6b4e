import { must, nth } from '@core/quantity/must';
import { findUnit, toBase } from '@core/quantity/units';
import type { Place, PlacedOn } from '@core/facts/place';
import type { Figure } from './figures';
import type { IntakeContext } from './context';
import { kindNamed } from './lexicon';
import { gapped } from './lexicon';
import { hasPhrase } from './phrases';
import type { Proposal } from './proposal';
import { moodOf } from './read-choices';
import { figuresIn, type Speech } from './said';
import type { Token } from './text';
import { WORDS } from './words';

/** Tokens around the counted place in which what is there is looked for. */
const REACH = 8;

/** What is found at a place: "root cracks at teeth 12, 32 and 52", "links 7–8 stiff", "groove 1.1 at 60 from the pivot", pieces by their mass. */
export function readPlaces(said: Speech, ctx: IntakeContext): Proposal[] {
  const known = (key: string) => ctx.registry.has(key);
  return [
    ...(known('belt.tooth_damage') ? atCounted(said, 'tooth', 'belt.tooth_damage') : []),
    ...(known('chain.link_damage') ? atCounted(said, 'link', 'chain.link_damage') : []),
    ...(known('guide.groove') ? atStation(said) : []),
    ...(known('guide.piece_mass') ? pieces(said) : []),
  ].map((p) => moodOf(p, said));
}

const found = (
  key: string,
  value: string | number,
  place: Place,
  tokens: readonly Token[],
  from: number,
  to: number,
): Proposal => ({
  key,
  value,
  place,
  how: 'reported',
  sure: 'likely',
  spans: [{ from: nth(tokens, from).from, to: nth(tokens, Math.min(to, tokens.length - 1)).to }],
});

/** A state beside counted teeth or links. */
function atCounted(said: Speech, on: 'tooth' | 'link', key: string): Proposal[] {
  const states = WORDS.atPlace[key] ?? {};
  const out: Proposal[] = [];
  said.tokens.forEach((t, i) => {
    if (!(on === 'tooth' ? /^(tooth|teeth)$/ : /^links?$/).test(t.low)) return;
    const places = placesBehind(said, i, on);
    if (places.length === 0) return;
    const from = Math.max(said.begins.get(t.sentence) ?? 0, i - REACH);
    const around = said.tokens
      .slice(from, Math.min(said.tokens.length, i + REACH + 2 * places.length))
      .filter((x) => x.sentence === t.sentence);
    for (const [option, phrases] of Object.entries(states)) {
      if (gapped(around, phrases).length === 0) continue;
      for (const { place, at } of places) out.push(found(key, option, place, said.tokens, from, at));
      break;
    }
  });
  return out;
}

/** Numbers behind "teeth" or "links": each a place, two with a dash from one to the other. */
function placesBehind(said: Speech, at: number, on: PlacedOn): { place: Place; at: number }[] {
  const out: { place: Place; at: number }[] = [];
  let next = at + 1;
  if (/^(number|no|nos)$/.test(said.tokens[next]?.low ?? '')) next++;
  for (;;) {
    const f = said.figureAt.get(next);
    if (!f || f.part || f.value <= 0) break;
    if (f.spread !== undefined && Number.isInteger(f.value - f.spread))
      out.push({ place: { on, from: f.value - f.spread, to: f.value + f.spread }, at: f.at + f.digits - 1 });
    else if (Number.isInteger(f.value)) out.push({ place: { on, from: f.value }, at: f.at + f.digits - 1 });
    else break;
    next = f.at + f.digits;
    if (said.tokens[next]?.low === 'and') next++;
  }
  return out;
}

/** Depths along a guide, by their distance from its end: "groove 1.1 at 60 from the pivot", "cracked through 30 mm below its end". */
function atStation(said: Speech): Proposal[] {
  const out: Proposal[] = [];
  for (const f of said.figures) {
    const behind = said.tokens.slice(f.at + f.n, f.at + f.n + 5);
    if (!hasPhrase(behind.slice(0, 4), WORDS.fromEnd) || f.spelled) continue;
    const mm = mmOf(f);
    if (mm === undefined) continue;
    const place: Place = { on: 'station', from: mm };
    const sentence = nth(said.tokens, f.at).sentence;
    const before = said.tokens.slice(Math.max(0, f.at - 10), f.at).filter((t) => t.sentence === sentence);
    const depth = [1, 2, 3, 4, 5]
      .map((back) => said.figureAt.get(f.at - back))
      .find((g) => g !== undefined && nth(said.tokens, g.at).sentence === sentence);
    if (depth && hasPhrase(before, ['groove', 'grooved', 'worn'])) {
      const value = mmOf(depth);
      if (value !== undefined) out.push(found('guide.groove', value, place, said.tokens, depth.at, f.at));
    } else if (
      hasPhrase(before, ['crack', 'cracked', 'broken']) &&
      before.some((t) => kindNamed(t) === 'guide')
    )
      out.push(
        found(
          'guide.crack',
          hasPhrase(before, ['through'])
            ? 'through'
            : hasPhrase(before, ['broken off'])
              ? 'broken'
              : 'hairline',
          place,
          said.tokens,
          f.at,
          f.at,
        ),
      );
  }
  return out;
}

const mmOf = (f: Figure): number | undefined => {
  if (f.unit === undefined) return f.value;
  const unit = findUnit('length', f.unit);
  return unit === undefined ? undefined : toBase('length', f.value, unit);
};

/** "The pieces weigh 4,2 and 1,1 gram": one mass a piece, in the order told. */
function pieces(said: Speech): Proposal[] {
  const out: Proposal[] = [];
  for (const sentence of said.sentences) {
    if (
      !hasPhrase(sentence, ['pieces', 'piece', 'bits', 'fragments']) ||
      !hasPhrase(sentence, ['weigh', 'weighs', 'weight', 'mass', 'gram', 'grams', 'g'])
    )
      continue;
    const own = figuresIn(said, sentence).filter((f) => !f.part && !f.spelled);
    const gram = own.some((f) => f.unit !== undefined && /^g(ram|rams|r)?$/.test(f.unit));
    if (!gram) continue;
    own
      .filter(
        (f) => f.unit === undefined || findUnit('mass', f.unit.replace(/^gr(am)?s?$/, 'g')) !== undefined,
      )
      .forEach((f, i) => {
        const unit = f.unit === undefined ? 'g' : must(findUnit('mass', f.unit.replace(/^gr(am)?s?$/, 'g')));
        out.push(
          found(
            'guide.piece_mass',
            toBase('mass', f.value, unit),
            { on: 'piece', from: i + 1 },
            said.tokens,
            f.at,
            f.at + f.n - 1,
          ),
        );
      });
  }
  return out;
}
