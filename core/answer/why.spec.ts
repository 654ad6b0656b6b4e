import { demoPack } from '../../demo/catalogue';
import { catalogueOf, stagesFor } from '@core/catalogue/find-records';
import { CAUSES, causesFor } from '@core/cause/cause-data';
import { rankCauses } from '@core/cause/rank';
import { driveHas } from '@core/drive/drive-has';
import type { Fact } from '@core/facts/fact';
import { reduce } from '@core/facts/state';
import { fittedAs, stepThing } from '@core/fitting/fitted';
import { makeSheet } from '@core/fitting/sheet';
import { SHIPPED_POLICY } from '@core/policy/policy';
import { suspects } from './why';

const cat = catalogueOf(demoPack());
let n = 0;
const told = (step: string, value: string): Fact => ({
  id: `f${++n}`,
  case: 'c',
  about: stepThing(step),
  key: 'step.done',
  value,
  how: 'reported',
  by: 'F',
  at: new Date(Date.UTC(2026, 0, 1) + n).toISOString(),
});
const { names } = CAUSES.sheet;

describe('what went wrong', () => {
  const cases = [...cat.variants.values()].map((v) => {
    const stages = stagesFor(cat, v.layout!);
    const causes = causesFor(CAUSES, driveHas(stages));
    return {
      v,
      causes,
      sheet: makeSheet(cat, v, stages, SHIPPED_POLICY),
      ranking: rankCauses(causes, [], 1.2),
    };
  });

  it('deals the share of each cause out over its steps, no more and no less, on every drive', () => {
    for (const { v, causes, sheet, ranking } of cases) {
      const found = suspects(sheet, ranking, causes, undefined);
      const mine = new Set(found.flatMap((s) => s.causes));
      const want = ranking.causes
        .filter((c) => mine.has(c.cause.key))
        .reduce((sum, c) => sum + c.probability, 0);
      expect(found.reduce((sum, s) => sum + s.share, 0))
        .withContext(v.id)
        .toBeCloseTo(want, 9);
      expect(found.map((s) => s.share)).toEqual([...found.map((s) => s.share)].sort((a, b) => b - a));
      for (const s of found)
        for (const code of s.codes) {
          expect(Object.values(s.step.faults!)).toContain(code);
          expect(s.causes.some((c) => names[code]!.includes(c)))
            .withContext(code)
            .toBeTrue();
        }
      // A cause that this drive cannot have accuses no step.
      const possible = new Set(causes.causes.map((c) => c.key));
      for (const key of mine) expect(possible.has(key)).withContext(`${v.id} ${key}`).toBeTrue();
    }
  });

  it('asks less after a step that was confirmed, and first after one that the sheet shows', () => {
    const { causes, sheet, ranking } = cases.find((c) => c.v.id === 'QU13-STOA/A')!;
    const place = (facts: Fact[], id: string) => {
      const list = suspects(
        sheet,
        ranking,
        causes,
        facts.length ? fittedAs(sheet, reduce(facts), SHIPPED_POLICY) : undefined,
      );
      const at = list.findIndex((s) => s.step.id === id);
      return { at, ...list[at]! };
    };
    const step = suspects(sheet, ranking, causes, undefined).find((s) => s.codes.includes('TNS-FAST'))!.step
      .id;
    const open = place([], step);
    const confirmed = place([told(step, 'done')], step);
    const shown = place([told(step, 'wrong')], step);
    expect([open.state, confirmed.state, shown.state]).toEqual(['open', 'confirmed', 'shown']);
    expect(confirmed.share).toBeLessThan(open.share);
    expect(shown.share).toBeGreaterThan(open.share);
    expect(shown.at).toBeLessThanOrEqual(open.at);
  });
});
