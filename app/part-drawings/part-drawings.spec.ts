import { optionsOf } from '@core/facts/observable';
import { OBSERVABLES } from '@core/facts/registry';
import { answersFor } from '@core/answer/answers';
import { catalogueOf } from '@core/catalogue/find-records';
import { reduce } from '@core/facts/state';
import { worldOf } from '@core/answer/world';
import { demoScenario } from '../../demo/scenario';
import { thingPicture } from './thing-picture';
import { scaledViews } from './to-scale';
import { SHAPES, tilePicture, TILES } from './tile-picture';

describe('drawn grades', () => {
  it('every grade of every look that is a choice is drawn, each otherwise than the others of its look, by shape', () => {
    const asked = OBSERVABLES.filter(
      (o) => o.station === 'examine' && !o.hidden && !o.place && o.type.kind === 'choice',
    );
    expect(asked.length).toBeGreaterThan(150);
    for (const o of asked) {
      const grades = optionsOf(o).filter((x) => x.key !== 'unknown');
      const drawn = grades.map((g) => JSON.stringify(tilePicture(o.key, g.key)));
      expect(drawn.every((d) => d !== undefined))
        .withContext(o.key)
        .toBeTrue();
      expect(new Set(drawn).size).withContext(o.key).toBe(grades.length);
    }
  });

  it('use only shapes that there are, every shape is used, and each is an outline in its box', () => {
    const used = new Set(Object.values(TILES).flatMap((t) => Object.values(t).flatMap((g) => g.split(' '))));
    const known = new Set([...Object.keys(SHAPES.bases), ...Object.keys(SHAPES.marks)]);
    expect([...used].filter((u) => !known.has(u))).toEqual([]);
    expect([...known].filter((k) => !used.has(k))).toEqual([]);
    for (const [key, grades] of Object.entries(TILES)) {
      const o = OBSERVABLES.find((x) => x.key === key);
      expect(o).withContext(key).toBeDefined();
      for (const g of Object.keys(grades))
        expect(optionsOf(o!).some((x) => x.key === g))
          .withContext(`${key} ${g}`)
          .toBeTrue();
    }
    for (const [name, d] of Object.entries(SHAPES.bases)) {
      const path = document.createElementNS('http://www.w3.org/2000/svg', 'path');
      path.setAttribute('d', d);
      document.body.append(path);
      expect(path.getTotalLength()).withContext(name).toBeGreaterThan(40);
      path.remove();
    }
  });
});

describe('a thing in hand', () => {
  const scenario = demoScenario();
  const world = worldOf(catalogueOf(scenario.pack));
  const cases = [...new Set(scenario.facts.map((f) => f.case))].map((id) => ({
    id,
    state: reduce(scenario.facts.filter((f) => f.case === id)),
  }));

  it('is drawn with a place for each of its looks, whatever drive and case it is of', () => {
    let drawn = 0;
    for (const { id, state } of [...cases, { id: 'empty', state: reduce([]) }]) {
      const a = answersFor(world, state);
      for (const t of a.examination.things) {
        const picture = thingPicture(t, state, a.drive);
        if (t.kind === 'belt' || t.kind === 'chain') {
          expect(picture).toBeUndefined();
          continue;
        }
        drawn++;
        const zones = new Set(picture!.zones.map((z) => z.key));
        const lost = t.inspections.filter((l) => !zones.has(l.inspection.zone)).map((l) => l.inspection.key);
        expect(lost).withContext(`${id} ${t.wording}`).toEqual([]);
        for (const { x, y } of picture!.zones) {
          const { box } = picture!;
          expect(x > box.x && x < box.x + box.w && y > box.y && y < box.y + box.h)
            .withContext(`${id} ${t.wording} ${x} ${y}`)
            .toBeTrue();
        }
        expect(picture!.shapes.map((s) => s.d).join('')).not.toMatch(/NaN|undefined|Infinity/);
      }
    }
    expect(drawn).toBeGreaterThan(30);
  });

  it('shows a plunger as far out as it was found, and a pointer where it was read', () => {
    const chain = cases.find((c) => c.id === 'demo-2036')!;
    const a = answersFor(world, chain.state);
    const t = a.examination.things.find((x) => x.kind === 'tensioner')!;
    const found = thingPicture(t, chain.state, a.drive)!.shapes.filter((s) => s.look === 'found');
    expect(found.length).toBe(1);
    // its right edge is the extension that was filed
    expect(
      Math.max(...[...found[0]!.d.matchAll(/(-?[\d.]+) -?[\d.]+/g)].map((m) => Number(m[1]))),
    ).toBeCloseTo(21.6, 6);
  });
});

describe('a part to scale', () => {
  const parts = demoScenario().pack.parts;
  /** Extent of a path of moves, lines and circles, mm. */
  const extent = (d: string) => {
    const xs = [...d.matchAll(/[ML](-?[\d.]+) (-?[\d.]+)/g)].map(
      (m) => [Number(m[1]), Number(m[2])] as const,
    );
    return [0, 1].map((i) => Math.max(...xs.map((p) => p[i]!)) - Math.min(...xs.map((p) => p[i]!)));
  };

  it('is as large as its dimensions say, and nothing is drawn that none says', () => {
    let drawn = 0;
    for (const p of parts) {
      const [view] = scaledViews(p);
      const { outsideMm, pitchMm, widthMm, boltM, lengthMm } = p.attributes as Record<string, number>;
      const strip = p.kind === 'belt' || p.kind === 'chain';
      if (strip && pitchMm) {
        const [long, wide] = extent(view!.d);
        expect(long)
          .withContext(p.number)
          .toBeCloseTo(6 * pitchMm, 1);
        expect(wide)
          .withContext(p.number)
          .toBeCloseTo(Math.max(widthMm ?? 0, pitchMm), 1);
      } else if (p.kind === 'bolt' && boltM && lengthMm) {
        expect(extent(view!.d)[0])
          .withContext(p.number)
          .toBeCloseTo(lengthMm + 0.64 * boltM, 1);
      } else if (outsideMm && !strip && p.kind !== 'bolt') {
        expect(view!.w).withContext(p.number).toBe(outsideMm);
        expect(view!.d)
          .withContext(p.number)
          .toContain(`M${-outsideMm / 2} 0`);
      } else if (Object.values(p.attributes).every((v) => typeof v === 'string')) {
        expect(view).withContext(p.number).toBeUndefined();
      }
      drawn += view ? 1 : 0;
    }
    expect(drawn).toBeGreaterThan(150);
  });
});
