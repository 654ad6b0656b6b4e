import { anyCase } from '../../demo/any-case';
import { demoPack } from '../../demo/catalogue';
import { demoScenario } from '../../demo/scenario';
import { catalogueOf } from '@core/catalogue/find-records';
import { reduce } from '@core/facts/state';
import { answersFor } from './answers';
import { byWorth } from './checks';
import { SHIPPED_POLICY } from '@core/policy/policy';
import { registryFor, worldOf } from './world';

const cat = catalogueOf(demoPack());
const world = worldOf(cat);
const registry = registryFor(world);

const { facts: demo } = demoScenario();
const cases = [
  ...Array.from({ length: 60 }, (_, i) => anyCase(i + 1, 20, registry, cat)),
  ...[...new Set(demo.map((f) => f.case))].map((id) => demo.filter((f) => f.case === id)),
];

describe('what is missing to conclude', () => {
  it('is in any case each open look of a thing that is here once, worth what its best check is, and of absent things what they were worth', () => {
    let [proposed, lost, held] = [0, 0, 0];
    for (const facts of cases) {
      const a = answersFor(world, reduce(facts));
      const { wanted } = a.conclude;
      proposed += wanted.length;
      lost += a.conclude.lost.length;
      expect(new Set(wanted.map((w) => `${w.key} ${w.about}`)).size).toBe(wanted.length);
      for (const w of wanted) {
        const thing = a.examination.things.find(
          (t) => t.about === w.about && t.inspections.some((l) => l.inspection.key === w.key),
        );
        expect(thing && thing.came !== 'not_sent').toBeTrue();
        expect(thing!.inspections.find((l) => l.inspection.key === w.key)!.status).not.toBe('done');
        const perMinute = a.checks.filter((c) =>
          c.inspections.some((l) => l.key === w.key && l.about === w.about),
        );
        expect(w.settles).toBe(perMinute[0]!.settles);
      }
      // by the worth of their checks a minute, as the checks come
      const at = wanted.map((w) =>
        a.checks.findIndex((c) => c.inspections.some((l) => l.key === w.key && l.about === w.about)),
      );
      expect(at).toEqual([...at].sort((x, y) => x - y));
      // what is proposed as possible needs nothing that did not come, and all else is
      const absent = (look: { key: string; about: string | undefined }) =>
        registry.get(look.key)!.station === 'examine' &&
        a.examination.things.some(
          (t) =>
            t.came === 'not_sent' &&
            t.about === look.about &&
            t.inspections.some((l) => l.inspection.key === look.key),
        );
      const here = a.checks.filter((c) => !c.inspections.some(absent));
      expect(new Set(a.conclude.possible.map((c) => c.finding))).toEqual(new Set(here.map((c) => c.finding)));
      for (const c of a.conclude.possible) {
        const check = here.find((x) => x.finding === c.finding)!;
        expect(c.minutes).toBe(c.first.reduce((sum, f) => sum + f.minutes, check.minutes));
        // nothing that an inspection destroys is lost by it
        for (const inspection of c.inspections) {
          const firsts = a.examination.things
            .find(
              (t) =>
                t.about === inspection.about &&
                t.inspections.some((l) => l.inspection.key === inspection.key),
            )
            ?.inspections.find((l) => l.inspection.key === inspection.key)?.first;
          for (const o of firsts ?? [])
            expect([...c.first, ...c.inspections].map((l) => l.key)).toContain(o.key);
        }
        held += c.first.length;
      }
      const order = byWorth(SHIPPED_POLICY.minutesTo.begin);
      expect(a.conclude.possible).toEqual([...a.conclude.possible].sort(order));
      for (const l of a.conclude.lost) {
        expect(a.examination.things.find((t) => t.kind === l.kind)!.came).toBe('not_sent');
        expect(l.settles).toBeGreaterThan(0);
      }
    }
    expect(proposed).toBeGreaterThan(60);
    expect(lost).toBeGreaterThan(0);
    expect(held).toBeGreaterThan(0);
  });
});
