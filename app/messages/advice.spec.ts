import { type Advice, QUESTIONS } from '@core/advice/advice';
import { advise } from '@core/advice/advise';
import { answersFor } from '@core/answer/answers';
import { thingWords } from '@core/answer/things';
import { registryFor, worldOf } from '@core/answer/world';
import { featureKey } from '@core/catalogue/feature-observables';
import { catalogueOf, stagesFor } from '@core/catalogue/find-records';
import type { Variant } from '@core/catalogue/pack';
import { driveHas } from '@core/drive/drive-has';
import { tensionerIndex } from '@core/drive/layout';
import { senseWord } from '@core/drive/sense';
import { fileFacts, type NewFact } from '@core/facts/change';
import { METRIC } from '@core/facts/read-value';
import { reduce } from '@core/facts/state';
import { anyCase } from '../../demo/any-case';
import { demoPack } from '../../demo/catalogue';
import { ASKED_WORDS, leadWords, reasonWords, spokenText } from './advice';
import { reuseWords } from './reuse';
import type { SentenceContext } from './sentence-context';

const cat = catalogueOf(demoPack());
const world = worldOf(cat);
const registry = registryFor(world);
const BROKEN = /undefined|\bNaN\b|\bnull\b|Infinity|\[object|\{\w+\}|\b[a-z]+_[a-z_]+\b/;
let n = 0;
const author = { by: 'T', now: () => '2026-11-25T08:00:00.000Z', newId: () => `a${++n}` };

/** Every design with its engine and all the features that tell it, as facts. */
function designFacts(v: Variant): NewFact[] {
  return [
    { key: 'engine.code', value: v.engine, how: 'reported' },
    ...Object.entries(v.features).map(
      ([f, values]): NewFact => ({ key: featureKey(f), value: values[0]!, how: 'reported' }),
    ),
  ];
}

function sayAll(facts: Parameters<typeof reduce>[0]): { advice: Advice; text: string; first: string }[] {
  const state = reduce(facts);
  const a = answersFor(world, state);
  const v: SentenceContext = { notation: METRIC, cat, registry, thing: (id) => thingWords(a.things, id) };
  return QUESTIONS.map((asked) => {
    const advice = advise(asked, { world, state, a, today: '2026-11-25' });
    const first = [leadWords(advice.lead, v), ...advice.because.map((r) => reasonWords(r, v))].join(' ');
    return { advice, text: spokenText(advice, v), first };
  });
}

describe('what is read out', () => {
  it('is whole for every question on every design, and names no part that its drive has not', () => {
    for (const variant of cat.pack.variants) {
      const facts = fileFacts(reduce([]), 'c', designFacts(variant), author);
      const has = driveHas(variant.layout === undefined ? [] : stagesFor(cat, variant.layout));
      for (const { advice, text, first } of sayAll(facts)) {
        const of = `${variant.id} ${advice.asked}`;
        expect(text).withContext(of).not.toMatch(BROKEN);
        // items of a job are the catalogue's own words
        if (advice.asked === 'also' || advice.asked === 'torque' || advice.asked === 'kit') continue;
        if (!has.has('belt'))
          expect(first)
            .withContext(of)
            .not.toMatch(/\bbelts?\b/i);
        if (!has.has('chain'))
          expect(first)
            .withContext(of)
            .not.toMatch(/\bchains?\b/i);
      }
    }
  });

  it('is whole for any facts', () => {
    for (let seed = 1; seed <= 25; seed++)
      for (const { advice, text } of sayAll(anyCase(seed + 700, 40, registry, cat)))
        expect(text.replace(/“odd” <b>text<\/b> £ ±|said so/g, ''))
          .withContext(`${seed} ${advice.asked}`)
          .not.toMatch(BROKEN);
  });

  it('tells senses as the layout of the design has them', () => {
    let eccentrics = 0;
    for (const variant of cat.pack.variants) {
      if (variant.layout === undefined) continue;
      const facts = fileFacts(reduce([]), 'c', designFacts(variant), author);
      const setting = sayAll(facts).find((s) => s.advice.asked === 'setting')!;
      if (setting.advice.lead.code !== 'setting') continue;
      const carriers = stagesFor(cat, variant.layout).flatMap(
        ({ layout }) => layout.wheels[tensionerIndex(layout)]?.carrier ?? [],
      );
      for (const c of carriers) {
        if (c.kind !== 'eccentric') continue;
        eccentrics++;
        expect(setting.first)
          .withContext(variant.id)
          .toContain(`Key ${senseWord(c.keyTurn)}`);
        expect(setting.first)
          .withContext(variant.id)
          .toContain(`moves ${senseWord(c.turn)}`);
      }
    }
    expect(eccentrics).toBeGreaterThan(8);
  });

  it('speaks of no limit where the catalogue gives none', () => {
    const length = { about: '', stage: 0, elongation: { value: 0.003, u: 0.0001 }, facts: [] };
    const chain = { part: 'chain', some: false, stage: '' } as const;
    expect(reuseWords({ ...chain, length: { ...length, limit: 0.005, long: 'within' } })).toContain(
      'its limit',
    );
    expect(reuseWords({ ...chain, length })).not.toContain('its limit');
  });

  it('has words for every question that can be asked', () => {
    const asked = registry.get('call.asked')!.type;
    expect(asked.kind === 'several' && asked.options.map((o) => o.key)).toEqual(Object.keys(ASKED_WORDS));
  });
});
