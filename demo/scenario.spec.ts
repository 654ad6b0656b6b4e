import boxes from './boxes.json';
import calls from './calls.json';
import demo from './demo.json';
import judged from './judged.json';
import { demoFacts } from './cases';
import { demoPack } from './catalogue';
import { demoScenario, SEED } from './scenario';
import { judgedOf, shipped } from './shipped';
import { worldOf } from '@core/answer/world';
import { catalogueOf } from '@core/catalogue/find-records';
import type { Fact } from '@core/facts/fact';
import { daysUntil, laterBy } from '@core/answer/moved-days';
import type { CaseSummary } from '@core/answer/case-summary';
import { nominalLength, tensionerIndex } from '@core/drive/layout';
import { limitsOf } from '@core/drive/carrier';
import { solveDrive } from '@core/drive/solve-drive';
import { tensionerSettings, travelFrom } from '@core/drive/tensioner';
import { smallestGaps } from '@core/drive/valve-safety';
import { cat } from '@core/answer/demo-case.fixture';

const value = <T>(r: { ok: true; value: T } | { ok: false; error: unknown }): T => {
  if (!r.ok) throw new Error(JSON.stringify(r.error));
  return r.value;
};

describe('demo scenario', () => {
  it('is what the generator makes', () => {
    expect(JSON.parse(JSON.stringify(shipped({ demo: demoScenario() }).demo))).toEqual(demo);
  });

  it('keeps what hangs on the knowledge in one file: it is what today’s knowledge makes of the others', () => {
    const told = [demo, calls, boxes].flatMap((part) => part.facts as unknown as Fact[]);
    const beside = judged.facts as unknown as Fact[];
    expect(told.filter((f) => /^(report|cause)\./.test(f.key))).toEqual([]);
    expect(beside.some((f) => f.key === 'report.issue')).toBeTrue();
    const again = judgedOf([...told, ...beside], worldOf(catalogueOf(demoPack())));
    const byId = (rows: readonly { id: string }[]) => [...rows].sort((a, b) => (a.id < b.id ? -1 : 1));
    expect(JSON.parse(JSON.stringify(byId(again.summaries)))).toEqual(byId(judged.summaries));
    expect(judged.summaries.length).toBeGreaterThan(50);
    const sealed = demoFacts(SEED).filter((f) => f.key.startsWith('report.'));
    expect(JSON.parse(JSON.stringify(sealed))).toEqual(beside.filter((f) => f.key.startsWith('report.')));
  });

  it('moved to another day, each case reads as if it had been filed then, and an issued one stays of its day', () => {
    const facts = [demo, calls, boxes, judged].flatMap((part) => part.facts as unknown as Fact[]);
    const summaries = judged.summaries as unknown as CaseSummary[];
    const last = Math.max(...summaries.map((s) => Date.parse(s.touched)));
    expect([daysUntil(summaries, last), daysUntil(summaries, last + 39 * 86_400_000 + 3_600_000)]).toEqual([
      0, 39,
    ]);
    const moved = laterBy(39, { facts, summaries });
    const again = judgedOf(moved.facts, worldOf(catalogueOf(demoPack())));
    const lines = (rows: readonly CaseSummary[]) =>
      new Map(rows.map((s) => [s.id, { ...s, text: s.text.split('\n').sort() }]));
    const [now, then] = [lines(moved.summaries), lines(again.summaries)];
    expect(now.size).toBe(summaries.length);
    for (const [id, s] of now) expect(s).withContext(id).toEqual(then.get(id)!);
    const sealed = new Set(facts.filter((f) => f.key === 'report.issue').map((f) => f.case));
    expect(sealed.size).toBeGreaterThan(0);
    facts.forEach((f, i) => {
      const g = moved.facts[i]!;
      expect(Date.parse(g.at) - Date.parse(f.at)).toBe(sealed.has(f.case) ? 0 : 39 * 86_400_000);
    });
  });

  it('is physically true: each layout has its belt’s or chain’s length at the nominal reading, to 0.05 mm', () => {
    expect(cat.pack.variants.every((v) => v.layout !== undefined)).toBeTrue();
    for (const layout of cat.pack.layouts) {
      const solved = solveDrive(layout);
      if (!solved.ok) throw new Error(`${layout.id} ${solved.error.code}`);
      expect(Math.abs(solved.value.path.lengthMm - nominalLength(layout)))
        .withContext(layout.id)
        .toBeLessThan(0.05);
      const carrier = layout.wheels[tensionerIndex(layout)]?.carrier;
      if (!carrier) continue;
      const { nominal } = limitsOf(carrier).window;
      expect(Math.abs(solved.value.setting!.reading - nominal))
        .withContext(layout.id)
        .toBeLessThan(0.5);
      expect(travelFrom(layout, value(tensionerSettings(layout)), solved.value.setting!).followsMm)
        .withContext(layout.id)
        .toBeGreaterThan(1);
    }
  });
});

describe('interference in the demo', () => {
  it('is what stroke, rod and valve reach say, wherever they are given', () => {
    let seen = 0;
    for (const v of cat.pack.variants) {
      const valves = cat.layouts.get(v.layout!)?.valves;
      const stated = cat.engines.get(v.engine)!.interference;
      if (!valves || stated === 'unknown') continue;
      const phases = Array.from({ length: 36 }, (_, k) => k * 20);
      const meets = phases.some((p) => smallestGaps(valves, () => p).some((c) => c.gapMm <= 0));
      expect(meets)
        .withContext(v.id)
        .toBe(stated === 'yes');
      seen++;
    }
    expect(seen).toBeGreaterThan(6);
  });
});
