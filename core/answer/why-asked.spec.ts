import { featureKey } from '@core/catalogue/feature-observables';
import { optionsOf } from '@core/facts/observable';
import { identify } from '@core/match/identify';
import { reduce } from '@core/facts/state';
import { applies } from './applies';
import { answers, cat, caseOf, plus } from './demo-case.fixture';
import { whyAsked } from './why-asked';

const CASES = ['2027', '2033', '2036', '2041', '2044'];

describe('why something is asked', () => {
  it('is the designs that its answers would really part, on every demo case', () => {
    let asked = 0;
    for (const tag of CASES) {
      const facts = caseOf(tag);
      const a = answers(facts);
      const possible = a.identification?.possible ?? [];
      for (const f of cat.pack.features) {
        const why = whyAsked(featureKey(f.id), a, reduce(facts)).find((w) => w.use === 'designs');
        const engine = a.engine?.code;
        if (engine === undefined) continue;
        // Tried one by one: does any answer leave fewer than another does?
        const left = f.options.map((o) =>
          identify(cat, engine, reduce(plus(facts, featureKey(f.id), o.key)))
            .possible.filter((v) => possible.some((p) => p.id === v.id && p.features[f.id] !== undefined))
            .map((v) => v.id)
            .join(),
        );
        if (a.identification && !facts.some((x) => x.key === featureKey(f.id)))
          expect(why !== undefined)
            .withContext(`${tag} ${f.id}`)
            .toBe(new Set(left).size > 1 && possible.filter((p) => p.features[f.id]).length > 1);
        asked += why ? 1 : 0;
      }
    }
    expect(asked).toBeGreaterThan(1);
  });

  it('is causes whose share an answer really moves, on every demo case', () => {
    let moved = 0;
    for (const tag of CASES) {
      const facts = caseOf(tag);
      const a = answers(facts);
      const share = (x: typeof a, name: string) =>
        x.ranking.causes.find((c) => c.cause.wording === name)?.probability ?? 0;
      const free = [...a.registry.values()].filter(
        (o) =>
          o.type.kind === 'choice' &&
          o.place === undefined &&
          applies(o, a.possible) &&
          !facts.some((f) => f.key === o.key),
      );
      for (const o of free.slice(0, 60)) {
        const why = whyAsked(o.key, a, reduce(facts)).find((w) => w.use === 'causes');
        if (why?.use !== 'causes' || why.together.length > 0 || why.open) continue;
        const after = optionsOf(o).map((x) => answers(plus(facts, o.key, x.key)));
        const [first] = why.causes;
        if (first === undefined || share(a, first) < 1e-4) continue;
        const odds = (x: typeof a) => share(x, first) / (1 - share(x, first));
        expect(after.some((x) => Math.abs(odds(x) / odds(a) - 1) > 1e-6))
          .withContext(`${tag} ${o.key}: ${first}`)
          .toBe(true);
        moved++;
      }
    }
    expect(moved).toBeGreaterThan(20);
  });

  it('is nothing for what is only kept, and what is needed where nothing else speaks for it', () => {
    const a = answers(caseOf('2041'));
    const state = reduce(caseOf('2041'));
    expect(whyAsked('case.tag', a, state)).toEqual([]);
    const box = caseOf('2036');
    expect(whyAsked('symptom', answers(box), reduce(box))).toEqual([{ use: 'every_cause' }]);
    expect(whyAsked('symptom', a, state)).not.toContain({ use: 'every_cause' });
    const needed = [...a.registry.values()].find(
      (o) => (o.needed ?? []).length > 0 && whyAsked(o.key, a, state)[0]?.use === 'needed',
    );
    expect(needed).toBeDefined();
  });
});
