import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { placeKey } from '@core/facts/place';
import type { Proposal } from './proposal';

const Value = z.union([z.string(), z.number(), z.null(), z.array(z.string())]);
const Label = z.object({
  key: z.string(),
  value: Value.optional(),
  tol: z.number().optional(),
  thing: z.string().optional(),
  place: z.string().optional(),
  hearsay: z.string().optional(),
});
const MessageSchema = z.object({
  id: z.string(),
  voice: z.string(),
  text: z.string(),
  expect: z.array(Label),
  /** Never to be ticked: this value, or any of the key where none is named. */
  not: z.array(Label),
  asks: z.array(z.string()),
});
const CorpusSchema = z.object({ today: z.string(), messages: z.array(MessageSchema) });
type Label = z.infer<typeof Label>;
type Corpus = z.infer<typeof CorpusSchema>;

/** Messages labelled by another hand than the reader's. */
export const corpusFrom = (json: unknown): Corpus => CorpusSchema.parse(json);

const ASKS: Record<string, string> = {
  'which kit': 'kit',
  'does it fit': 'fits',
  'torque or order': 'torque',
  'what else': 'also',
  'when due': 'due',
  'still good': 'reuse',
  'timing lost': 'lost',
  'code or noise': 'means',
};
/** Texts that are right when they name the same. */
const NAMES = new Set(['call.who', 'step.tool', 'trace.wheel', 'trace.cam', 'vehicle.name']);

const fold = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^\p{L}\d]+/gu, ' ')
    .trim();

function sameName(a: string, b: string): boolean {
  const [x, y] = [fold(a).split(' '), fold(b).split(' ')];
  return x.every((w) => y.includes(w)) || y.every((w) => x.includes(w));
}

function sameValue(label: Label, value: Proposal['value']): boolean {
  const want = label.value;
  if (want === undefined || want === null) return true;
  if (typeof want === 'number')
    return typeof value === 'number' && Math.abs(value - want) <= (label.tol ?? 1e-9) + 1e-9;
  if (Array.isArray(want))
    return (
      Array.isArray(value) && value.length === want.length && want.every((w) => value.some((v) => v === w))
    );
  if (typeof value !== 'string') return false;
  if (NAMES.has(label.key)) return sameName(value, want);
  if (/^\d{4}(-\d\d){0,2}$/.test(want)) return value.startsWith(want);
  return fold(value) === fold(want);
}

/** What a thing is called, whichever way: several words in any order, without what every label of its kind has. */
const thingWords = (thing: string): string =>
  fold(thing.replace(/^(old|new):.*/, '$1').replace(/\barm\b|\brail\b/, 'guide'))
    .split(' ')
    .sort()
    .join(' ');

type Split = { thing: string; cases: number[] };
function splitThing(thing: string | undefined): Split {
  let rest = thing ?? '';
  let cases: number[] = [];
  const range = /^vehicles (\d) (?:to|and) (\d)(?:, )?/.exec(rest);
  const one = /^(?:vehicle|claim) (\d)(?:, )?/.exec(rest);
  const both = /^both (?:claims|vehicles)(?:, )?/.exec(rest);
  if (range)
    cases = Array.from({ length: Number(range[2]) - Number(range[1]) + 1 }, (_, i) => Number(range[1]) + i);
  else if (one) cases = [Number(one[1])];
  else if (both) cases = [1, 2];
  rest = rest.replace((range ?? one ?? both)?.[0] ?? '', '');
  return { thing: rest, cases };
}

const NOT_TOLD = new Set([
  '',
  'kit',
  'old',
  'bank:head',
  'tensioner',
  'intake',
  'exhaust',
  'both phasers',
  'guide, left',
]);

/** Whether a proposal is about what the label is about. */
function sameThing(label: Label, p: Proposal): boolean {
  const { thing, cases } = splitThing(label.thing);
  if (p.of !== undefined && p.of > 0 && cases.length > 0 && !cases.includes(p.of)) return false;
  if (p.of === undefined && cases.length === 1 && cases[0] !== 1) return false;
  if (label.place !== undefined && (p.place === undefined || placeKey(p.place) !== label.place)) return false;
  const about = p.part ? `${p.part.kind}, ${p.part.place}` : (p.about ?? p.which ?? '');
  if (thingWords(about) === thingWords(thing)) return true;
  if (thing === 'new') return p.which === 'new';
  // Part kinds that need no name: "the old belt" is the one that was sent.
  return (
    p.which !== 'new' &&
    NOT_TOLD.has(thing.replace(/^old:.*/, 'old')) &&
    (about === '' || thing === 'bank:head')
  );
}

type CorpusScore = {
  wanted: number;
  found: number;
  ticked: number;
  tickedRight: number;
  rules: number;
  broken: number;
  asks: number;
  asksFound: number;
  asksExtra: number;
  told: number;
  toldRight: number;
  missed: { id: string; label: Label }[];
  wrong: { id: string; p: Proposal }[];
  brokenBy: { id: string; p: Proposal }[];
  asksMissed: { id: string; ask: string }[];
  asksWrong: { id: string; ask: string }[];
};

/**
 * Reading against labels. Recall counts what is proposed at all; precision what is ticked, among the keys that the labels know:
 * what nobody labelled anywhere is neither right nor wrong.
 */
export function scoreCorpus(corpus: Corpus, read: (text: string) => readonly Proposal[]): CorpusScore {
  const known = new Set(corpus.messages.flatMap((m) => [...m.expect, ...m.not].map((l) => l.key)));
  const s: CorpusScore = {
    wanted: 0,
    found: 0,
    ticked: 0,
    tickedRight: 0,
    rules: 0,
    broken: 0,
    asks: 0,
    asksFound: 0,
    asksExtra: 0,
    told: 0,
    toldRight: 0,
    missed: [],
    wrong: [],
    brokenBy: [],
    asksMissed: [],
    asksWrong: [],
  };
  for (const m of corpus.messages) {
    const all = read(m.text);
    const asked = all.find((p) => p.key === 'call.asked')?.value;
    const facts = all.filter((p) => p.key !== 'call.asked');
    const hit = (l: Label, p: Proposal) => p.key === l.key && sameValue(l, p.value) && sameThing(l, p);
    for (const label of m.expect) {
      s.wanted++;
      const found = facts.some((p) => hit(label, p));
      if (found) s.found++;
      else s.missed.push({ id: m.id, label });
      const { thing, cases } = splitThing(label.thing);
      if (cases.length > 0 || (thing !== '' && !NOT_TOLD.has(thing))) {
        s.told++;
        if (found) s.toldRight++;
      }
    }
    for (const p of facts.filter((x) => x.sure !== 'ask' && known.has(x.key))) {
      s.ticked++;
      if (m.expect.some((l) => hit(l, p))) s.tickedRight++;
      else s.wrong.push({ id: m.id, p });
    }
    for (const rule of m.not) {
      s.rules++;
      const by = facts.find(
        (p) =>
          p.sure !== 'ask' &&
          p.key === rule.key &&
          sameValue(rule, p.value) &&
          (rule.thing === undefined || sameThing(rule, p)) &&
          !m.expect.some((l) => hit(l, p)),
      );
      if (!by) continue;
      s.broken++;
      s.brokenBy.push({ id: m.id, p: by });
    }
    const asks = m.asks.filter((a) => a !== 'nothing').map((a) => ASKS[a] ?? a);
    const got = Array.isArray(asked) ? asked.map(String) : [];
    s.asks += asks.length;
    for (const a of asks) {
      if (got.includes(a)) s.asksFound++;
      else s.asksMissed.push({ id: m.id, ask: a });
    }
    for (const a of got) {
      if (asks.includes(a) || !Object.values(ASKS).concat(['setting', 'marks']).includes(a)) continue;
      s.asksExtra++;
      s.asksWrong.push({ id: m.id, ask: a });
    }
  }
  return s;
}
