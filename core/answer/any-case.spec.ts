import { anyCase } from '../../demo/any-case';
import { demoPack } from '../../demo/catalogue';
import { catalogueOf } from '@core/catalogue/find-records';
import { mergeFacts } from '@core/facts/change';
import type { Fact } from '@core/facts/fact';
import { extractPack } from '@core/catalogue/extract-pack';
import { readCaseFile, writeCaseFile } from '@core/claim/case-file';
import { deskFileFrame, readDeskFile } from '@core/claim/desk-file';
import { fileFacts } from '@core/facts/change';
import { checkFacts } from '@core/facts/consistent';
import { textOf } from '@core/facts/read';
import { needsThing } from '@core/facts/registry';
import { breathe } from '@core/quantity/breathe.fixture';
import { reduce } from '@core/facts/state';
import { applies } from './applies';
import { type Answers, answersFor, settled } from './answers';
import { answerDifference, linesOf, movedBy, readAnswerLine, writeLine } from './difference';
import { summaryOf } from './case-summary';
import { countInspections } from './inspection-count';
import { reread, sealing } from './sealing';
import { registryFor, worldOf } from './world';

const cat = catalogueOf(demoPack());
const world = worldOf(cat);
const registry = registryFor(world);
const SEEDS = Array.from({ length: 60 }, (_, i) => i + 1);
const cases = SEEDS.map((seed) => anyCase(seed, 25, registry, cat));
const names = Object.keys(
  Object.getPrototypeOf(answersFor(world, reduce([]))) as object,
) as (keyof Answers)[];
const each = (law: (a: Answers, facts: readonly Fact[], seed: number) => void) =>
  cases.forEach((facts, i) => law(settled(answersFor(world, reduce(facts))), facts, SEEDS[i]!));

describe('the answers of any case', () => {
  it('are made of facts that could come in a file, about most of what can be observed', () => {
    const keys = new Set(cases.flat().map((f) => f.key));
    expect(keys.size).toBeGreaterThan(registry.size / 2);
    for (const facts of cases) {
      expect(checkFacts(facts)).toBeUndefined();
    }
  });

  it('can be exported and read back, whatever stands: also where the engine became another one', () => {
    let read = 0;
    cases.forEach((facts, i) => {
      const other = cat.pack.engines[i % cat.pack.engines.length]!.code;
      const now = fileFacts(
        reduce(facts),
        facts[0]!.case,
        [{ key: 'engine.code', value: other, how: 'seen' }],
        { by: 'T', now: () => '2026-11-25T08:00:00.000Z', newId: () => `later-${i}` },
      );
      const log = [...facts, ...now];
      const state = reduce(log);
      const pack = extractPack(cat, textOf(state, 'engine.code'), textOf(state, 'kit.number'));
      const file = writeCaseFile(facts[0]!.case, state.log, pack, '2026-11-25T08:00:00.000Z');
      const back = readCaseFile(JSON.stringify(file));
      expect(back.ok ? back.value.digest : JSON.stringify(back.error))
        .withContext(`${SEEDS[i]}`)
        .toBe('verified');
      const [head, foot] = deskFileFrame('2026-11-25T08:00:00.000Z', {});
      const desk = readDeskFile(head + log.map((f) => JSON.stringify(f)).join(',') + foot);
      expect(desk.ok && [...desk.value.cases.values()].flat().length)
        .withContext(`${SEEDS[i]}`)
        .toBe(log.length);
      read++;
    });
    console.log(`exported and read back: ${read} cases`);
    expect(read).toBe(SEEDS.length);
  });

  it('have shares of causes that are finite and add up to one with "none of these"', () => {
    each(({ ranking }, _, seed) => {
      const shares = [...ranking.causes.map((c) => c.probability), ranking.none];
      expect(shares.every((p) => p >= 0 && p <= 1))
        .withContext(`${seed}`)
        .toBeTrue();
      expect(shares.reduce((s, p) => s + p, 0))
        .withContext(`${seed}`)
        .toBeCloseTo(1, 9);
      for (const c of ranking.causes.slice(0, 3))
        for (const w of c.weights)
          expect(Number.isFinite(w.nats)).withContext(`${seed} ${w.finding}`).toBeTrue();
    });
  });

  it('stand on facts that stand, and weigh nothing that no possible drive has', () => {
    each((a, facts, seed) => {
      const state = reduce(facts);
      const known = new Set(
        facts.filter((f) => !state.retracted.has(f.id) && f.strikes === undefined).map((f) => f.id),
      );
      for (const f of a.findings) {
        expect(f.facts.length).withContext(`${seed} ${f.finding}`).toBeGreaterThan(0);
        for (const id of f.facts) expect(known.has(id)).withContext(`${seed} ${f.finding}`).toBeTrue();
        const o = registry.get(f.finding);
        if (o) expect(applies(o, a.possible)).withContext(`${seed} ${f.finding}`).toBeTrue();
      }
      for (const c of a.contradictions)
        for (const f of c.facts) expect(known.has(f.id)).withContext(`${seed} ${c.code}`).toBeTrue();
      for (const c of a.checks)
        for (const l of c.inspections) expect(applies(registry.get(l.key)!, a.possible, l.about)).toBeTrue();
    });
  });

  it('are the same in whatever order the facts come, and however they were kept while the case grew', async () => {
    for (const [i, facts] of cases.slice(0, 24).entries()) {
      const [a, seed] = [settled(answersFor(world, reduce(facts))), SEEDS[i]!];
      if (i % 3 === 0) await breathe();
      const turned = answersFor(world, reduce([...facts].reverse()));
      let kept: Answers | undefined;
      for (let n = 1; n <= facts.length; n++)
        kept = settled(answersFor(world, reduce(facts.slice(0, n)), kept));
      for (const name of names) {
        expect(turned[name])
          .withContext(`${seed} ${name}, turned round`)
          .toEqual(a[name] as never);
        expect(kept![name])
          .withContext(`${seed} ${name}, kept`)
          .toEqual(a[name] as never);
      }
    }
  });

  it('count every look once: looked at, open, not sent and not applying are all there are', () => {
    each((a, facts, seed) => {
      const state = reduce(facts);
      for (const station of ['fit', 'examine'] as const) {
        const l = countInspections(registry, state, a.possible, station, a.things);
        // by another way: of each observable its wheels or banks, else the first of its kind and every further one
        let all = 0;
        for (const o of registry.values()) {
          if (o.station !== station || o.hidden || o.how === 'computed' || !applies(o, a.possible)) continue;
          if (station === 'examine' && !a.examination.things.some((t) => t.kind === o.part)) continue;
          all += needsThing(o)
            ? [...(a.possible.own ?? [])].filter((id) => id.startsWith(`${o.part}:`)).length
            : 1 + a.things.filter((t) => t.kind === o.part && t.id !== o.part).length;
        }
        expect(l.looked + l.open.length + l.notSent.length)
          .withContext(`${seed} ${station}`)
          .toBe(all);
        for (const key of [...l.open, ...l.notSent])
          expect(applies(registry.get(key)!, a.possible)).toBeTrue();
      }
    });
  });

  it('move by a fact what they move back without it, and an issue reads again as it was', () => {
    each((a, facts, seed) => {
      const lines = linesOf(a);
      expect(
        answerDifference(
          lines,
          lines.map((l) => readAnswerLine(writeLine(l))!),
        ),
      )
        .withContext(`${seed}`)
        .toEqual([]);
      const last = facts.at(-1)!;
      const without = linesOf(answersFor(world, reduce(facts.slice(0, -1))));
      expect(movedBy(world, facts, last, a))
        .withContext(`${seed}`)
        .toEqual(answerDifference(without, lines));
      let n = 0;
      const author = { by: 'S', now: () => '2027-01-01T00:00:00.000Z', newId: () => `s${++n}` };
      const state = reduce([...facts, ...sealing(world, reduce(facts), 'any', author)]);
      const check = answersFor(world, state).seals.at(-1)!;
      expect(check.verdict).withContext(`${seed}`).toBe('intact');
      expect(reread(world, state, check))
        .withContext(`${seed}`)
        .toEqual({ changed: [], differs: [] });
    });
  });

  it('and its head are those of the merged work of two desks, whoever merged', () => {
    cases.forEach((facts, i) => {
      const cut = facts.length >> 1;
      const [one, other] = [
        facts.filter((_, k) => k < cut || k % 2 === 0),
        facts.filter((_, k) => k < cut || k % 2 === 1),
      ];
      const [ab, ba] = [mergeFacts(one, other), mergeFacts(other, one)];
      if (!ab.ok || !ba.ok) throw new Error('two desks hold one fact with two contents');
      expect(summaryOf('any', ab.value, world))
        .withContext(`${SEEDS[i]!}`)
        .toEqual(summaryOf('any', facts, world));
      expect(summaryOf('any', ba.value, world)).toEqual(summaryOf('any', ab.value, world));
    });
  });
});
