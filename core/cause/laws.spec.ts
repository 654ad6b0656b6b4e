import type { Finding } from '@core/examination/finding';
import { CAUSES } from './cause-data';
import { evidenceOf } from './evidence';
import { drives, every, found, leaderOf, rank, run, shareOf, sights, soundOf } from './laws.fixture';
import { modelOf } from './model';

describe('what leads', () => {
  it('explains something of what was found, whatever its distance and however common it is', () => {
    let tried = 0;
    for (const { id, data } of drives) {
      const model = modelOf(data);
      for (const node of model.findings.values())
        for (const [g, grade] of node.grades.entries()) {
          if (node.reach[g]!.size === 0 || node.ordinary.has(grade)) continue;
          for (const km of [5, 150_000]) {
            const r = rank(data, [found(node.spec.finding, grade), run(km)]);
            const i = data.causes.indexOf(r.causes[0]!.cause);
            expect(node.reach[g]!.has(i))
              .withContext(`${id} ${node.spec.finding} ${grade} ${km} ${leaderOf(r)}`)
              .toBeTrue();
            tried++;
          }
        }
    }
    expect(tried).toBeGreaterThan(3000);
  });

  it('is no surer than nineteen in twenty on three findings, unless it was seen itself', () => {
    for (const { id, data } of drives) {
      const seen = new Set(sights(data).map((s) => `${s.finding} ${s.grade}`));
      for (const m of data.mechanisms) {
        const strong = Object.entries(m.shows)
          .flatMap(([f, grades]) => Object.keys(grades).map((g) => ({ f, g })))
          .filter(({ f, g }) => data.findings.some((x) => x.finding === f) && !seen.has(`${f} ${g}`))
          .filter(({ f }, i, all) => all.findIndex((x) => x.f === f) === i)
          .slice(0, 3);
        const r = rank(
          data,
          strong.map(({ f, g }) => found(f, g)),
        );
        expect(Math.max(...r.causes.map((c) => c.probability)))
          .withContext(`${id} ${m.key}`)
          .toBeLessThan(0.9501);
      }
    }
  });

  it('is moved by less than five points by a sound look that has nothing to do with it', () => {
    let tried = 0;
    for (const { id, data } of drives) {
      const model = modelOf(data);
      const own = found('tensioner.bolt', 'fretted');
      if (!data.causes.some((c) => c.key === 'bolt_loose')) continue;
      const base = rank(data, [own, run(8000), found('symptom', 'noise')]);
      const i = data.causes.indexOf(base.causes[0]!.cause);
      for (const node of model.findings.values()) {
        const touches = node.parents.some((p) => model.touchedBy[p.mechanism]!.includes(i));
        if (touches || node.parents.length === 0) continue;
        const r = rank(data, [own, run(8000), found('symptom', 'noise'), soundOf(data, node.spec.finding)]);
        expect(Math.abs(shareOf(r, leaderOf(base)) - base.causes[0]!.probability))
          .withContext(`${id} ${node.spec.finding}`)
          .toBeLessThan(0.05);
        tried++;
      }
    }
    expect(tried).toBeGreaterThan(500);
  });
});

describe('a finding', () => {
  it('that only one cause sets off never lowers it', () => {
    let tried = 0;
    for (const { id, data } of drives) {
      const before = rank(data, []);
      for (const node of modelOf(data).findings.values())
        for (const [g, grade] of node.grades.entries()) {
          const [only, ...more] = node.reach[g]!;
          if (only === undefined || more.length > 0) continue;
          const { key } = data.causes[only]!;
          expect(shareOf(rank(data, [found(node.spec.finding, grade)]), key))
            .withContext(`${id} ${node.spec.finding} ${grade}`)
            .toBeGreaterThanOrEqual(shareOf(before, key));
          tried++;
        }
    }
    expect(tried).toBeGreaterThan(500);
  });

  it('said again in another place moves no share by more than three points', () => {
    let tried = 0;
    for (const { id, data } of drives)
      for (const group of data.same ?? [])
        for (const [i, [a, x]] of group.entries())
          for (const [b, y] of group.slice(i + 1)) {
            if (a === b || !data.findings.some((f) => f.finding === a)) continue;
            const beside = [run(30_000), found('symptom', 'noise')];
            const once = rank(data, [found(a, x), ...beside]);
            const twice = rank(data, [found(a, x), found(b, y), ...beside]);
            for (const c of data.causes)
              expect(Math.abs(shareOf(twice, c.key) - shareOf(once, c.key)))
                .withContext(`${id} ${a} ${b} ${c.key}`)
                .toBeLessThan(0.03);
            tried++;
          }
    expect(tried).toBeGreaterThan(80);
  });

  it('of what was changed since it came off is left as much as that leaves', () => {
    const data = every.find((d) => d.id === 'TE16-CORM/A')!.data;
    const rough = found('tensioner.bearing', 'rough');
    const dry = found('tensioner.grease', 'gone');
    const of = (...more: Finding[]) =>
      shareOf(rank(data, [rough, dry, run(9000), ...more]), 'tensioner_bearing');
    const none = shareOf(rank(data, [run(9000)]), 'tensioner_bearing');
    const [plain, washed, blasted] = [
      of(),
      of(found('packing.washed', 'washed')),
      of(found('packing.washed', 'blasted')),
    ];
    expect(plain).toBeGreaterThan(washed);
    expect(washed).toBeGreaterThan(blasted);
    expect(blasted).toBeGreaterThan(none * 0.9);
  });
});

describe('what was set back or put in for the way', () => {
  it('shows no cause itself: a plunger pinned for the return is no pin left in, a pointer moved is no wrong setting', () => {
    let tried = 0;
    for (const { id, data } of every)
      for (const { by, findings, left } of data.screens ?? [])
        for (const { finding, grade, by: claimants } of sights(data)) {
          if (!findings.includes(finding) || left > 0.5) continue;
          const plain = rank(data, [found(finding, grade), run(9000)]);
          const moved = rank(data, [found(finding, grade), found(by[0], by[1]), run(9000)]);
          const of = (r: typeof plain) => claimants.reduce((s, k) => s + shareOf(r, k), 0);
          expect(of(moved))
            .withContext(`${id} ${finding} ${grade}`)
            .toBeLessThan(of(plain) / 1.5);
          expect(moved.faults).withContext(`${id} ${finding} ${grade}`).toEqual([]);
          tried++;
        }
    expect(tried).toBeGreaterThan(20);
  });
});

describe('every cause, on every drive that can have it', () => {
  it('can lead, and can be brought down again', () => {
    const gone = new Set<string>();
    for (const { id, data } of drives) {
      const model = modelOf(data);
      for (const [i, c] of data.causes.entries()) {
        if (Object.keys(c.works).length === 0) continue;
        const shows = Object.keys(c.works).flatMap((m) =>
          Object.entries(data.mechanisms.find((x) => x.key === m)?.shows ?? {}).flatMap(([f, grades]) => {
            const node = model.findings.get(f)!;
            const share = (g: string) => (grades[g] ?? 0) / (1 + node.reach[node.grades.indexOf(g)]!.size);
            const best = Object.keys(grades).sort((a, b) => share(b) - share(a))[0]!;
            return node.reach[node.grades.indexOf(best)]!.has(i) ? [found(f, best)] : [];
          }),
        );
        const all = [...new Map(shows.map((f) => [f.finding, f])).values()];
        const km = Math.max(20, c.life.scale * 0.7);
        const r = rank(data, [...all, run(km)]);
        expect(r.causes.slice(0, 3).map((x) => x.cause.key))
          .withContext(`${id} ${c.key}`)
          .toContain(c.key);
        // what none of it is, as far as it was looked at
        const sound = rank(data, [...all.map((f) => soundOf(data, f.finding)), run(km)]);
        expect(shareOf(sound, c.key)).withContext(`${id} ${c.key}`).toBeLessThan(shareOf(r, c.key));
        gone.add(c.key);
      }
    }
    expect(gone.size).toBeGreaterThan(CAUSES.causes.length - 3);
  });

  it('weighs every grade that is filed, or says so: nothing is dropped in silence', () => {
    const model = modelOf(CAUSES);
    for (const spec of CAUSES.findings)
      for (const grade of [...spec.sound, ...Object.keys(spec.off)]) {
        const e = evidenceOf(model, [found(spec.finding, grade)]);
        expect(e.observed.length + e.strange.length)
          .withContext(`${spec.finding} ${grade}`)
          .toBe(1);
        expect(e.strange.length).toBe(0);
      }
  });
});
