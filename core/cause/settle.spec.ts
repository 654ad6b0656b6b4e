import { APART, type CauseData, CAUSES } from './cause-data';
import { drives, every, found, leaderOf, rank, run, shareOf, sights, soundOf } from './laws.fixture';
import type { Finding } from '@core/examination/finding';
import { modelOf } from './model';

describe('what shows a cause itself', () => {
  it('leads on every drive that can have it, at whatever distance, symptom and sound neighbour', () => {
    let tried = 0;
    for (const { id, data } of drives)
      for (const { finding, grade, by } of sights(data))
        for (const km of [10, 12_000, 260_000])
          for (const symptom of ['none', 'stopped']) {
            // the neighbours of the finding, all of them sound
            const near = [...modelOf(data).findings.values()]
              .filter(
                (n) => n.spec.finding.split('.')[0] === finding.split('.')[0] && n.spec.finding !== finding,
              )
              .map((n) => soundOf(data, n.spec.finding))
              .filter((f) => !denies(data, by, f))
              .slice(0, 4);
            const r = rank(data, [
              found(finding, grade),
              ...near,
              found(APART.symptom.finding, symptom),
              run(km),
            ]);
            expect(by).withContext(`${id} ${finding} ${grade} ${km} ${symptom}`).toContain(leaderOf(r));
            tried++;
          }
    expect(tried).toBeGreaterThan(1000);
  });
  const denies = (data: CauseData, by: readonly string[], f: Finding) =>
    (data.bars ?? []).some(
      (b) =>
        b.by !== 'abnormal' &&
        b.by.finding === f.finding &&
        b.by.value === f.value &&
        b.causes.some((c) => by.includes(c)),
    );

  it('comes of no cause that does not claim it, and hardly of none', () => {
    for (const { finding, grade, by } of sights(CAUSES)) {
      const spec = CAUSES.findings.find((f) => f.finding === finding)!;
      expect(spec.off[grade]).withContext(`${finding} ${grade}`).toBeLessThan(0.001);
      for (const m of CAUSES.mechanisms) {
        const p = m.shows[finding]?.[grade] ?? 0;
        for (const c of CAUSES.causes)
          if (!by.includes(c.key))
            expect(p * (c.works[m.key] ?? 0))
              .withContext(`${c.key} ${finding} ${grade}`)
              .toBeLessThan(0.02);
      }
    }
  });

  it('of one of several parts is not denied by the others', () => {
    const data = every.find((d) => d.id.startsWith('QU30-VASK'))!.data;
    const out = found('tensioner.activated', 'out');
    const pinned = found('tensioner.activated', 'pinned', 'tensioner-left');
    expect(leaderOf(rank(data, [out, pinned, run(31_000)]))).toBe('not_released');
    expect(shareOf(rank(data, [out, run(31_000)]), 'not_released')).toBeLessThan(1e-4);
  });

  it('is half as much where a reading is half as sure, and none where it is less than nine in ten', () => {
    const data = every.find((d) => d.id === 'TE16-CORM/A')!.data;
    const at = (p: number) =>
      shareOf(
        rank(data, [found('setting.shown', { grades: { wrong_way: p, right: 1 - p } }), run(9000)]),
        'set_wrong_way',
      );
    const shares = [0.05, 0.3, 0.5, 0.8, 0.95, 1].map(at);
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    expect(shares[2]! - shares[0]!).toBeGreaterThan(0.1);
  });
});

describe('a denial', () => {
  it('sinks the causes that need what it denies, on every drive that can have them', () => {
    let sunk = 0;
    for (const { id, data } of drives)
      for (const { causes, by } of data.bars ?? []) {
        if (by === 'abnormal') continue;
        for (const key of causes) {
          if (!data.causes.some((c) => c.key === key)) continue;
          const r = rank(data, [found(by.finding, by.value)]);
          expect(shareOf(r, key)).withContext(`${id} ${key}`).toBeLessThan(1e-4);
          sunk++;
        }
      }
    expect(sunk).toBeGreaterThan(80);
  });
});

describe('two faults that were seen', () => {
  const data = every.find((d) => d.id === 'TE16-CORM/A')!.data;
  const pry = found('belt.pry_marks', 'edge');
  const tab = found('tensioner.tab_print', 'beside');

  it('stand together: they are the first two, and neither takes from what is held of both', () => {
    for (const more of [[], [run(200)], [run(90_000)], [found('belt.break', 'stepped')]]) {
      const r = rank(data, [pry, tab, ...more]);
      expect(
        r.causes
          .slice(0, 2)
          .map((c) => c.cause.key)
          .sort(),
      ).toEqual(['belt_levered', 'tab_beside_slot']);
      expect(shareOf(r, 'belt_levered') + shareOf(r, 'tab_beside_slot')).toBeGreaterThan(0.9);
      expect(r.faults.length).toBe(2);
      expect(r.faults.reduce((s, f) => s + f.part, 0)).toBeCloseTo(1, 12);
    }
  });

  it('have their parts by what each explains, and it is told which alone would do', () => {
    const even = rank(data, [pry, tab]);
    expect(even.faults.map((f) => f.part)).toEqual([0.5, 0.5]);
    for (const f of even.faults) expect(shareOf(even, f.cause.key)).toBeCloseTo(f.part, 1);
    const r = rank(data, [pry, tab, found('belt.break', 'stepped'), found('belt.back', 'cut')]);
    const of = (key: string) => r.faults.find((f) => f.cause.key === key)!;
    expect(of('belt_levered').part).toBeGreaterThan(0.7);
    expect(of('belt_levered').suffices).toBeTrue();
    expect(of('tab_beside_slot').suffices).toBeFalse();
    expect(
      of('belt_levered')
        .explains.map((f) => f.finding)
        .sort(),
    ).toEqual(['belt.back', 'belt.break']);
  });

  it('are not two where what was told of one is denied by what was found', () => {
    const told = found(APART.sheet.finding, 'SEL-KIT');
    const broken = found('belt.break', 'stepped');
    expect(shareOf(rank(data, [pry, told, broken]), 'wrong_kit')).toBeGreaterThan(0.05);
    const denied = rank(data, [pry, told, broken, found('kit.match', 'fits')]);
    expect(shareOf(denied, 'wrong_kit')).toBeLessThan(1e-4);
    expect(denied.faults.map((f) => f.cause.key)).toEqual(['belt_levered']);
  });

  it('are one where one cause shows in both', () => {
    const r = rank(data, [found('cover.foreign', 'stone'), found('cover.screws', 'missing')]);
    expect(r.faults.map((f) => f.cause.key)).toEqual(['cover_left_open']);
  });
});
