import { anyCase } from '../../demo/any-case';
import { demoFacts } from '../../demo/cases';
import { demoPack } from '../../demo/catalogue';
import { SEED } from '../../demo/scenario';
import { adviseKit } from '@core/advice/kits';
import { type Answers, answersFor, settled } from '@core/answer/answers';
import { answerDifference, linesOf } from '@core/answer/difference';
import { likelyCause } from '@core/answer/verdict';
import { nameIn } from '@core/answer/read-context';
import { sealing } from '@core/answer/sealing';
import { toExplain } from '@core/answer/to-explain';
import { thingWords } from '@core/answer/things';
import { nameWorld, registryFor, worldOf } from '@core/answer/world';
import { catalogueOf } from '@core/catalogue/find-records';
import type { Fact } from '@core/facts/fact';
import { type Notation, METRIC } from '@core/facts/read-value';
import { reduce, type State } from '@core/facts/state';
import type { CaseOnPaper } from '../report/case-on-paper';
import { customerLetter } from '../report/customer-letter';
import { printable } from '../report/make-pdf';
import { paperHtml } from '../report/paper-html';
import { reportDocument } from '../report/report-document';
import { workshopLetter } from '../report/workshop-letter';
import { fingerprintWords } from './seal';
import { contradictionWords, findingWords, objectionWords, usageWords, warningWords } from './answers';
import { examineOpening, fitOpening, identifyOpening, settleOpening } from './openings';
import { planOnCase, termsWords } from './terms';
import { differenceWords } from './difference';
import { weightWords } from './weights';
import { factWords } from './facts';
import { exclusionWords, kitReasons } from './match';
import type { SentenceContext } from './sentence-context';
import { plainText } from '@core/facts/value';

const cat = catalogueOf(demoPack());
const world = worldOf(cat);
const registry = registryFor(world);
const MILES: Notation = { ...METRIC, dateOrder: 'mdy', units: { distance: 'mi' } };
const SEEDS = Array.from({ length: 40 }, (_, i) => i + 180);

type Case = {
  seed: number;
  facts: Fact[];
  state: State;
  a: Answers;
  context: SentenceContext;
  name: (t: string, k: string) => string;
};
const cases = SEEDS.map((seed): Case => {
  const facts = anyCase(seed, 60, registry, cat);
  const state = reduce(facts);
  const a = settled(answersFor(world, state));
  const notation = seed % 2 === 0 ? METRIC : MILES;
  const context: SentenceContext = { notation, cat, registry, thing: (id) => thingWords(a.things, id) };
  return { seed, facts, state, a, context, name: (table, key) => nameIn(a, table, key) };
});

/** What no sentence may hold: what is missing, what is no number, what was left to fill in, an object, a key of ours. */
const BROKEN = /undefined|\bNaN\b|\bnull\b|Infinity|\[object|\{\w+\}|\b[a-z]+_[a-z_]+\b/;
/** What people typed is theirs, and is taken out before a sentence is looked at. */
const TYPED = /“odd” <b>text<\/b> £ ±|said so/g;
const sound = (sentence: string, c: Case, of: string): void => {
  expect(sentence.replace(TYPED, '')).withContext(`${c.seed} ${of}`).not.toMatch(BROKEN);
  expect(sentence.trim()).withContext(`${c.seed} ${of}`).not.toBe('');
};
/** Every text in a document, however deep. */
function textsIn(value: unknown): string[] {
  if (typeof value === 'string') return [value];
  if (Array.isArray(value)) return value.flatMap(textsIn);
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([k, v]) =>
    ['text', 'content', 'table', 'body', 'stack', 'columns', 'ul'].includes(k) ? textsIn(v) : [],
  );
}

describe('what is said of any case', () => {
  it('of its facts, findings, weights and contradictions is whole', () => {
    for (const c of cases) {
      const { a, context, name, facts } = c;
      for (const f of facts) if (f.strikes === undefined) sound(factWords(f, context, name), c, f.key);
      for (const f of a.findings) sound(findingWords(f, context), c, f.finding);
      for (const r of a.ranking.causes) {
        sound(r.cause.wording, c, r.cause.key);
        for (const w of r.weights) sound(weightWords(w, context), c, w.finding);
      }
      for (const x of a.contradictions) sound(contradictionWords(x, context), c, x.code);
      sound(usageWords(a.usage, context.notation), c, 'ran');
      if (a.terms) sound(termsWords(a.terms, context.notation), c, 'terms');
      const plan = planOnCase(a, context.notation);
      for (const line of plan ? [plan.says, ...plan.leaves] : []) sound(line, c, 'plan');
    }
    // enough was said for that to mean something
    expect(cases.flatMap((c) => c.a.findings).length).toBeGreaterThan(100);
    const codes = cases.flatMap((c) => c.a.contradictions.map((x) => x.code));
    expect(new Set(codes).size).toBeGreaterThanOrEqual(2);
    expect(codes.length).toBeGreaterThan(100);
  });

  it('of kits, designs, decisions and what another reading would say is whole', () => {
    for (const [i, c] of cases.entries()) {
      const { a, context, name } = c;
      for (const k of a.kits) for (const r of kitReasons(k, context)) sound(r, c, k.kit.number);
      for (const s of a.identification?.standings ?? [])
        for (const e of s.excludedBy) sound(exclusionWords(e, context), c, e.code);
      for (const o of a.decision.objections) sound(objectionWords(o), c, o.code);
      for (const w of a.decision.warnings) sound(warningWords(w, name), c, w.code);
      const other = cases[(i + 1) % cases.length]!;
      for (const d of answerDifference(linesOf(a), linesOf(other.a)))
        sound(differenceWords(d, context, name), c, `${d.what} ${d.of}`);
    }
  });

  it('first at each station is whole, of just what has to be explained, and judges nothing where nothing is known', () => {
    const openings = (state: State, a: Answers, v: SentenceContext, shown: () => string) => {
      const { sheet } = a;
      const things = a.examination.things;
      return {
        things,
        identify: identifyOpening(adviseKit({ world, state, a, today: '2026-11-25' }).lead, a, v),
        fit: sheet?.status === 'ready' ? fitOpening(sheet, a.fitted) : undefined,
        examine: examineOpening(a, state, v, '', shown),
        settle: settleOpening(a, state, likelyCause(a), v),
      };
    };
    let named = 0;
    for (const c of cases) {
      const o = openings(c.state, c.a, c.context, () => 'SHOWN');
      for (const [station, said] of Object.entries(o)) {
        if (station === 'things' || !said || !('says' in said)) continue;
        sound(said.says, c, station);
        if (said.next !== '') sound(said.next, c, station);
      }
      // Whatever is out of order or outside its limit, and whatever a cause is weighed on, makes it another sentence.
      const bad = o.things.some(
        (t) => t.abnormal > 0 || t.inspections.some((l) => l.limit?.within === false),
      );
      const { inspections, ranking, registry: known, examination } = c.a;
      const clean = examineOpening(
        {
          inspections,
          ranking: { ...ranking, abnormal: [] },
          registry: known,
          examination: { ...examination, things: [] },
        },
        c.state,
        c.context,
        '',
        () => 'SHOWN',
      );
      const same = o.examine.says === clean.says;
      if (bad) expect(same).withContext(`${c.seed}`).toBeFalse();
      expect(o.examine.says.includes('SHOWN') && !bad).toBeFalse();
      if (!same) named++;
    }
    expect(named).toBeGreaterThan(10);
    const nothing = reduce([]);
    const empty = openings(
      nothing,
      answersFor(world, nothing),
      { notation: METRIC, cat, registry },
      () => '',
    );
    expect(empty.fit).toBeUndefined();
    for (const said of [empty.identify, empty.examine, empty.settle])
      expect(`${said.says} ${said.next}`).not.toMatch(/\d|%|explained|fault/);
  });

  it('at the bench names a reading out of its window; of a fitting a step left out or an entry that cannot be', () => {
    const facts = demoFacts(SEED).filter((f) => f.case === 'demo-2027');
    const state = reduce(facts);
    const a = answersFor(world, state);
    const voice = { notation: METRIC, cat, registry };
    // the pointer stands at −100°, on the other side of its start mark; no grade says so
    const pointer = facts.find((f) => f.key === 'tensioner.pointer')!.id;
    expect(toExplain(a, state).findings.some((f) => f.facts.includes(pointer))).toBeTrue();
    expect(examineOpening(a, state, voice, '', () => '').says).toMatch(/: .+;/);
    const { sheet } = a;
    if (sheet?.status !== 'ready') throw new Error('no sheet');
    const [one] = sheet.steps;
    const said = (went: 'done' | 'skipped' | 'wrong') =>
      new Map([[one!.id, { state: went, values: {}, facts: [] }]]);
    const none = {
      performed: undefined as never,
      broken: [],
      faults: [],
      odd: [],
      unconfirmed: [],
      back: undefined as never,
    };
    const clean = fitOpening(sheet, { ...none, said: said('done') }).says;
    for (const went of ['skipped', 'wrong'] as const)
      expect(fitOpening(sheet, { ...none, said: said(went) }).says).not.toBe(clean);
    const odd = { code: 'too_short' as const, step: one!.id, minutes: 1, least: 9, facts: [] };
    expect(fitOpening(sheet, { ...none, said: said('done'), odd: [odd] }).says).not.toBe(clean);
  });

  it('on paper is whole, sealed or not, for each reader; only the house is told what it rests on', () => {
    for (const c of cases) {
      let n = 0;
      const author = { by: 'S', now: () => '2027-01-01T00:00:00.000Z', newId: () => `s${++n}` };
      const issued = reduce([...c.facts, ...sealing(world, c.state, 'any', author)]);
      for (const state of [c.state, issued]) {
        const a = answersFor(world, state);
        const seal = a.seals.at(-1);
        for (const write of [reportDocument, workshopLetter, customerLetter]) {
          const paper = write(paperOf(c, state, a));
          const texts = textsIn(paper.content);
          for (const t of texts) if (t.trim() !== '') sound(t, c, write.name);
          const all = texts.join('\n');
          expect(printable(all).replace(PRINTED, '')).toBe('');
          const inside = write === reportDocument;
          expect(all.includes(nameWorld(world).knowledge.slice(0, 16))).toBe(inside);
          expect(all.includes('SHA-256')).toBe(inside);
          if (!inside)
            expect(all)
              .withContext(write.name)
              .not.toMatch(/[×÷]\d/);
          expect(all.includes('DRAFT'))
            .withContext(`${c.seed}`)
            .toBe(seal === undefined);
          if (seal)
            expect(all).toContain(
              inside ? plainText(seal.seal.value) : fingerprintWords(plainText(seal.seal.value)),
            );
          const page = new DOMParser().parseFromString(paperHtml(paper, {}), 'text/html');
          expect(page.querySelectorAll('h1').length).toBe(1);
          // what was typed is text, and no mark of the page
          expect(page.querySelector('main')!.textContent.includes('<b>text</b>')).toBe(
            all.includes('<b>text</b>'),
          );
          const words = (t: string) => t.replace(/\s+/g, '');
          const shown = words(page.querySelector('main')!.textContent);
          for (const t of texts) expect(shown).withContext(t).toContain(words(t));
        }
      }
    }
  });
});

/** Letters of Latin and Greek, dashes and quotation marks, figures and signs that were seen in the embedded typeface. */
const PRINTED = /[\n -~\u00a0-\u017f\u0370-\u03ff–—‘’“”•…\u202f‰₀-₉→←↺↻−≈≤≥≠✓]/g;

const paperOf = (c: Case, state: State, answers: Answers): CaseOnPaper => ({
  tag: '1',
  state,
  answers,
  world: nameWorld(world),
  voice: c.context,
  name: c.name,
  today: '2026-11-25',
  house: 'Some house\nSome lane',
});
