import { anyCase } from '../../../demo/any-case';
import { demoPack } from '../../../demo/catalogue';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { answersFor } from '@core/answer/answers';
import { registryFor, worldOf } from '@core/answer/world';
import { catalogueOf } from '@core/catalogue/find-records';
import { explain } from '@core/cause/explain';
import { reduce } from '@core/facts/state';
import { paint } from '../../testing/demo-desk';
import { CauseChain } from './cause-chain';
import { outcomesOf, causeRivals } from './rivals';

const cat = catalogueOf(demoPack());
const world = worldOf(cat);
const cases = Array.from({ length: 25 }, (_, i) =>
  answersFor(world, reduce(anyCase(i + 1, 40, registryFor(world), cat))),
);

describe('rivals as they are shown', () => {
  it('are in any case the likeliest of all, with the one decided and those of the fitting sheet, each once', () => {
    for (const a of cases) {
      const last = a.ranking.causes.at(-1)!.cause.key;
      const { all, likely } = causeRivals(a, last);
      expect(all.map((r) => r.key)).toEqual(a.ranking.causes.map((c) => c.cause.key));
      expect(new Set(likely.map((r) => r.key)).size).toBe(likely.length);
      expect(likely.filter((r) => r.decided).map((r) => r.key)).toEqual([last]);
      const onSheet = new Set(a.fitted?.faults.map((f) => f.code));
      const others = likely.filter((r) => {
        const fault = a.causes.causes.find((c) => c.key === r.key)!.fault;
        return !r.decided && !(fault !== undefined && onSheet.has(fault));
      });
      // nothing that is left out is likelier than what is in sight for its share
      const least = Math.min(1, ...others.map((r) => r.p!));
      for (const r of all.filter((x) => !likely.includes(x)))
        expect(r.p! <= least || r.p! < 0.01)
          .withContext(r.key)
          .toBeTrue();
      const shares = all.reduce((s, r) => s + r.p!, 0);
      const outcomes = outcomesOf(a, 'undecidable');
      expect(shares + outcomes.reduce((s, o) => s + (o.p ?? 0), 0)).toBeCloseTo(1, 9);
      expect(outcomes.filter((o) => o.decided).map((o) => o.key)).toEqual(['undecidable']);
    }
  });
});

describe('the chain of a cause', () => {
  /** Share of a disc that a path of it covers, by the angle at which its arc ends. */
  const covered = (d: string) => {
    const [, large, x, y] = /A\S+ \S+ 0 (\d) 1 (\S+) (\S+)Z/.exec(d)!.map(Number) as [
      number,
      number,
      number,
      number,
    ];
    const angle = (Math.atan2(x - 10, 10 - y) + 2 * Math.PI) % (2 * Math.PI);
    expect(large).toBe(angle > Math.PI ? 1 : 0);
    return angle / (2 * Math.PI);
  };

  it('is drawn from the cause through each mechanism to what follows, every disc filled by its share, the evidence on it', async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const links = [0, 0.1, 0.5, 0.75, 1].map((p, i) => ({
      name: `mechanism ${i}`,
      p,
      share: `${100 * p}`,
      shows: i % 2 === 0 ? [] : ['one', 'another'],
    }));
    const chain = await paint(CauseChain, { cause: 'the cause', links, consequence: 'what follows' });
    const items = chain.all('li');
    expect(items.length).toBe(links.length + 2);
    expect(items[0]!.textContent).toContain('the cause');
    expect(items.at(-1)!.textContent).toContain('what follows');
    links.forEach((l, i) => {
      const item = items[i + 1]!;
      expect(item.classList.contains('unseen')).toBe(l.shows.length === 0);
      for (const s of l.shows) expect(item.textContent).toContain(s);
      expect(covered(item.querySelector('path')!.getAttribute('d')!)).toBeCloseTo(Math.min(l.p, 0.995), 2);
    });
  });

  it('has of any case the mechanisms of its leader in the order of the knowledge, with what was found on them', () => {
    let told = 0;
    for (const a of cases) {
      const e = explain(a.causes, a.findings);
      if (!e) continue;
      const order = Object.keys(e.leader.works).filter((m) => a.causes.mechanisms.some((x) => x.key === m));
      expect(e.working.map((w) => w.mechanism)).toEqual(order);
      for (const w of e.working) {
        expect(w.probability >= 0 && w.probability <= 1).toBeTrue();
        const shows = a.causes.mechanisms.find((m) => m.key === w.mechanism)!.shows;
        for (const f of w.shows) expect(Object.keys(shows)).toContain(f.finding);
        told += w.shows.length;
      }
    }
    expect(told).toBeGreaterThan(10);
  });
});
