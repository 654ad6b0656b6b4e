import { answers, caseOf, cat, plus } from '@core/answer/demo-case.fixture';
import { causeVerdict } from '@core/answer/verdict';
import { registryFor, worldOf } from '@core/answer/world';
import type { Fact } from '@core/facts/fact';
import { reduce } from '@core/facts/state';
import { METRIC } from '@core/facts/read-value';
import { anyCase } from '../../demo/any-case';
import { settlingWords, unweighedWords, verdictWords } from './verdict';
import type { SentenceContext } from './sentence-context';

const registry = registryFor(worldOf(cat));
const v: SentenceContext = { notation: METRIC, cat, registry };
const RAW = /[_{}]|undefined|\bNaN\b|\bbits\b|deciban|\bodds\b/;
const wordsOf = (facts: readonly Fact[]) => {
  const a = answers(facts);
  const x = causeVerdict(a);
  return x && { x, a, words: verdictWords(x, a.policy, v) };
};

describe('the verdict in words', () => {
  it('is whole, and in words of the trade, on sixty cases of any kind and on those of the demo', () => {
    const cases = [
      ...Array.from({ length: 60 }, (_, k) => plus(anyCase(k + 1, 25, registry, cat), 'case.kind', 'claim')),
      ...['2027', '2033', '2036', '2038', '2041', '2044'].map(caseOf),
    ];
    let told = 0;
    for (const facts of cases) {
      const said = wordsOf(facts);
      if (!said) continue;
      told++;
      const { words, x, a } = said;
      const all = [words.title, words.because, words.settles, words.tie, words.sound, ...words.together];
      for (const s of all.filter((y) => y !== undefined)) expect(RAW.test(s)).withContext(s).toBeFalse();
      expect(words.title).toContain(x.leader.wording);
      expect(x.leader).toBe(a.ranking.causes[0]!.cause);
      expect(x.together.length).not.toBe(1);
      for (const s of unweighedWords(a.ranking, reduce(facts), v))
        expect(RAW.test(s)).withContext(s).toBeFalse();
    }
    expect(told).toBeGreaterThan(40);
  });

  it('says nothing where nothing weighs, or of a question', () => {
    expect(causeVerdict(answers(caseOf('2044')))).toBeUndefined();
    expect(causeVerdict(answers([]))).toBeUndefined();
  });

  it('says that it was seen where it was, and names by what', () => {
    const pinned = wordsOf(plus(caseOf('2036'), 'tensioner.activated', 'pinned'))!;
    expect(pinned.x.because.seen).toBeTrue();
    expect(pinned.x.because.findings.map((f) => f.finding)).toEqual(['tensioner.activated']);
    expect(wordsOf(caseOf('2036'))!.x.because.seen).toBeFalse();
  });

  it('tells how much a check settles beside the best, never more than it', () => {
    const said = [1, 0.8, 0.5, 0.1].map((r) => settlingWords(r, 1, 2));
    expect(new Set(said).size).toBe(4);
    expect(settlingWords(0, 0, 1)).toBe(settlingWords(0.1, 1, 1));
  });
});
