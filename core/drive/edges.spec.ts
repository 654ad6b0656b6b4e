import { demoPack } from '../../demo/catalogue';
import { angleAtReading, carrierAt, readingAt } from './carrier';
import { smallestClearance } from './clearance';
import { anyHas, driveHas, hasAll, kindWord } from './drive-has';
import { fitCentres } from './fit-centres';
import { coolingWait, readyTime } from './heat';
import { judgeOffset, offsetPattern } from './judge-offset';
import { type Layout, tensionerIndex } from './layout';
import { circlesOf, pointToSegment } from './path';
import { slotRoom } from './slots';
import { solveDrive, solveFixed } from './solve-drive';
import { crankOffsets, stagesOf } from './stages';
import { safeCrankRanges } from './valve-safety';
import { extensionRemainder, wearState } from './wear';
import { AS_MADE, changedLayout, driveState } from './what-if';

const value = <T>(r: { ok: true; value: T } | { ok: false; error: unknown }): T => {
  if (!r.ok) throw new Error(JSON.stringify(r.error));
  return r.value;
};
const { layouts } = demoPack();
const layoutOf = (id: string): Layout => layouts.find((l) => l.id === id)!;
const carrierOf = (l: Layout) => l.wheels[tensionerIndex(l)]?.carrier;

describe('a reading of a tensioner', () => {
  it('is an angle on its scale wherever there is no plunger, also beyond what its arm sweeps', () => {
    const all = layouts.map(carrierOf).filter((c) => c !== undefined);
    // an arm pressed by a spring alone is one whose plunger is taken away
    const angled = all.map((c) => (c.kind === 'arm' ? { ...c, plunger: undefined } : c));
    expect(new Set(angled.map((c) => c.kind))).toEqual(new Set(['eccentric', 'arm']));
    for (const c of angled)
      for (const reading of [-170, -30, 0, 12, 170]) {
        expect(angleAtReading(c, reading)).toBe(carrierAt(c, reading));
        expect(readingAt(c, angleAtReading(c, reading)!)).toBeCloseTo(reading, 9);
      }
  });

  it('of a plunger is none beyond what its arm sweeps', () => {
    const c = carrierOf(layoutOf('stoat-a'))!;
    expect(c.kind === 'arm' && c.plunger).toBeTruthy();
    expect(angleAtReading(c, 1000)).toBeUndefined();
    expect(angleAtReading(c, -1000)).toBeUndefined();
  });
});

describe('the distance from a point to a piece of line', () => {
  it('is the least of ten thousand points along it, to a thousandth of its length', () => {
    const pieces = [
      [3, 1, 0, 0, 5, 2],
      [-4, 7, -1, -2, 3, -6],
      [10, 10, 1, 2, 4, 3],
      [0.5, -3, 2, 2, -7, 1],
      [1, 1, 4, 5, 4, 5],
    ] as const;
    for (const [px, py, ax, ay, bx, by] of pieces) {
      let least = Infinity;
      for (let k = 0; k <= 10_000; k++) {
        const t = k / 10_000;
        least = Math.min(least, Math.hypot(px - ax - t * (bx - ax), py - ay - t * (by - ay)));
      }
      const exact = pointToSegment({ x: px, y: py }, { x: ax, y: ay }, { x: bx, y: by });
      expect(Math.abs(exact - least)).toBeLessThan(1e-3);
    }
  });
});

describe('the smallest clearance', () => {
  /** Second method: strands as rows of points, every pair looked at, nothing known of segments. */
  function sampled(layout: Layout): number {
    const { circles, path } = value(solveDrive(layout));
    const points = path.spans.map((s) =>
      Array.from({ length: 401 }, (_, k) => ({
        x: s.a.x + ((s.b.x - s.a.x) * k) / 400,
        y: s.a.y + ((s.b.y - s.a.y) * k) / 400,
      })),
    );
    const top = circles.map((c, i) => {
      const w = layout.wheels[i]!;
      return (w.teeth === undefined ? (w.outsideMm ?? c.r) : c.r) + w.rimMm;
    });
    const thick = layout.backMm + layout.toothMm;
    let least = Infinity;
    const n = circles.length;
    const touching = (i: number, j: number) => j === i + 1 || (i === 0 && j === n - 1);
    for (let i = 0; i < n; i++)
      for (let j = i + 1; j < n; j++) {
        if (!circles[i]!.arc && !circles[j]!.arc)
          least = Math.min(
            least,
            Math.hypot(circles[i]!.x - circles[j]!.x, circles[i]!.y - circles[j]!.y) - top[i]! - top[j]!,
          );
        if (touching(i, j)) continue;
        for (const p of points[i]!)
          for (const q of points[j]!) least = Math.min(least, Math.hypot(p.x - q.x, p.y - q.y) - thick);
      }
    path.spans.forEach((s, i) =>
      circles.forEach((c, k) => {
        if (k === s.from || k === s.to || c.arc) return;
        for (const p of points[i]!)
          least = Math.min(
            least,
            Math.hypot(p.x - c.x, p.y - c.y) - top[k]! - Math.max(layout.backMm, layout.toothMm),
          );
      }),
    );
    return least;
  }

  it('is what a look at every pair of points finds, to 0.05 mm, on every demo drive', () => {
    let looked = 0;
    for (const l of layouts.slice(0, 24)) {
      const { circles, path } = value(solveDrive(l));
      const least = smallestClearance(l, circles, path)!;
      expect(Math.abs(least.mm - sampled(l)))
        .withContext(l.id)
        .toBeLessThan(0.05);
      looked++;
    }
    expect(looked).toBe(24);
  });
});

describe('what a drive has', () => {
  const has = (l: Layout, ...more: Layout[]) => driveHas([l, ...more].map((layout) => ({ layout })));

  it('says that valves meet exactly where the room runs out somewhere in a turn', () => {
    const valved = layouts.filter((l) => l.valves);
    expect(valved.length).toBeGreaterThan(5);
    for (const l of valved) {
      const least = Math.min(...safeCrankRanges(l.valves!).roomMm);
      expect(has(l).has('valves_meet'))
        .withContext(l.id)
        .toBe(least <= 0);
      expect(has(l).has('valves')).toBeTrue();
    }
    const shallow = valved.find((l) => has(l).has('valves_meet'))!;
    const { valves } = shallow;
    const pocketed = { ...valves!, deckMm: 1, valves: valves!.valves.map((v) => ({ ...v, reachMm: 0 })) };
    expect(has({ ...shallow, valves: pocketed }).has('valves_meet')).toBeFalse();
  });

  it('tells rows, stages, oil and ends by every stage', () => {
    const belt = layoutOf('corm-121');
    expect([...has(belt)]).toContain('dry');
    expect([...has(belt)]).not.toContain('stages');
    expect([...has(belt, { ...belt, id: 'second', inOil: true })]).toContain('oiled');
    expect([...has(belt, { ...belt, id: 'second' })]).toContain('stages');
    expect([...has({ ...belt, end: 'rear' })]).toContain('rear_end');
    expect([...has(belt)]).toContain('front_end');
  });

  it('of several designs is what any has, and unknown while one of them is', () => {
    const [belt, chain] = [[{ layout: layoutOf('corm-121') }], [{ layout: layoutOf('stoat-a') }]];
    expect(anyHas([])).toBeUndefined();
    expect(anyHas([belt, []])).toBeUndefined();
    const both = anyHas([belt, chain])!;
    for (const x of [...driveHas(belt), ...driveHas(chain)]) expect(both.has(x)).toBeTrue();
    expect(hasAll(['belt', 'chain'], both)).toBeTrue();
    expect(hasAll(['belt', 'chain'], driveHas(belt))).toBeFalse();
    expect(hasAll(['belt', 'chain'], undefined)).toBeTrue();
    expect(hasAll(undefined, driveHas(belt))).toBeTrue();
    expect(kindWord(driveHas(chain))).toBe(layoutOf('stoat-a').kind);
    expect(kindWord(both)).toBe(kindWord(undefined));
  });
});

describe('centres from distances, at their edges', () => {
  const corner = [
    { x: 0, y: 0 },
    { x: 100, y: 0 },
    { x: 50, y: 40 },
  ];
  const side = Math.hypot(50, 60);

  it('refuse a distance of nothing, a negative one and one to itself, with its place', () => {
    const sound = { a: 0, b: 1, mm: 100, u: 0.1 };
    for (const wrong of [
      { ...sound, mm: 0 },
      { ...sound, mm: -5 },
      { ...sound, b: 0 },
      { ...sound, mm: NaN },
    ])
      expect(fitCentres(corner, [sound, wrong])).toEqual({
        ok: false,
        error: { code: 'impossible_distance', index: 1 },
      });
  });

  it('go on until every coordinate stands, also where one has nothing to move', () => {
    // by symmetry the third centre never moves sideways
    const fit = value(
      fitCentres(corner, [
        { a: 0, b: 1, mm: 100, u: 0.1 },
        { a: 0, b: 2, mm: side, u: 0.1 },
        { a: 1, b: 2, mm: side, u: 0.1 },
      ]),
    );
    expect(Math.abs(fit.points[2]!.y - 60)).toBeLessThan(1e-8);
    expect(fit.freedom).toBe(0);
  });
});

describe('waiting for cold', () => {
  it('is over without doubt once both the engine and its neighbourhood are', () => {
    const done = value(readyTime({ s: 0, c: 90 }, { s: 600, c: 24.9 }, 20, 5, 0.5));
    expect([done.waitS, done.uS]).toEqual([0, 0]);
  });

  it('is refused when it does not cool, is colder than the air, or was read twice at once', () => {
    const errorOf = (r: ReturnType<typeof coolingWait>) => (r.ok ? undefined : r.error.code);
    expect(errorOf(coolingWait({ s: 5, c: 90 }, { s: 5, c: 80 }, 20, 5))).toBe('same_time');
    expect(errorOf(coolingWait({ s: 0, c: 80 }, { s: 60, c: 80 }, 20, 5))).toBe('not_cooling');
    expect(errorOf(coolingWait({ s: 0, c: 30 }, { s: 60, c: 19 }, 20, 5))).toBe('below_ambient');
    expect(coolingWait({ s: 0, c: 30 }, { s: 60, c: 20 }, 20, 5).ok).toBeTrue();
    expect(coolingWait({ s: 0, c: 30 }, { s: 60, c: 25 }, 20, 5).ok).toBeTrue();
  });

  it('has the spread of repeated readings, to a twentieth', () => {
    // second method: the wait over a fine grid of normal quantiles of each reading in turn
    const [first, second, air, within, u] = [{ s: 0, c: 92 }, { s: 1200, c: 61 }, 18, 5, 0.4] as const;
    const z = Array.from({ length: 41 }, (_, k) => (k - 20) / 5);
    const weight = (x: number) => Math.exp((-x * x) / 2);
    const spread = (of: (x: number) => ReturnType<typeof coolingWait>) => {
      const waits = z.map((x) => value(of(x * u)).waitS);
      const total = z.reduce((t, x) => t + weight(x), 0);
      const mean = z.reduce((t, x, i) => t + weight(x) * waits[i]!, 0) / total;
      return z.reduce((t, x, i) => t + weight(x) * (waits[i]! - mean) ** 2, 0) / total;
    };
    const variance =
      spread((d) => coolingWait({ ...first, c: first.c + d }, second, air, within)) +
      spread((d) => coolingWait(first, { ...second, c: second.c + d }, air, within)) +
      spread((d) => coolingWait(first, second, air + d, within));
    const said = value(readyTime(first, second, air, within, u));
    expect(Math.abs(said.uS / Math.sqrt(variance) - 1)).toBeLessThan(0.05);
  });
});

describe('marks together', () => {
  const at = (wheel: number, offTeeth: number) => ({
    wheel,
    verdict: judgeOffset(offTeeth, 0.02, { teeth: 0 }, 0.2),
  });

  it('of a single wheel say from which wheel on, never that the driver is meant', () => {
    expect(offsetPattern([at(3, 1)])).toEqual({ pattern: 'from_wheel', wheel: 3 });
    expect(offsetPattern([at(3, -1), at(4, -1)])).toEqual({
      pattern: 'at_driver',
      teeth: 1,
      sense: 'retarded',
    });
    expect(offsetPattern([at(3, 2), at(4, 2)])).toEqual({
      pattern: 'at_driver',
      teeth: 2,
      sense: 'advanced',
    });
  });

  it('say the wheel after which they are out, and nothing that fits none', () => {
    expect(offsetPattern([at(1, 0), at(2, 1), at(3, 1)])).toEqual({ pattern: 'from_wheel', wheel: 2 });
    expect(offsetPattern([at(1, 0), at(2, 1), at(3, 0)])).toEqual({ pattern: 'from_wheel', wheel: 2 });
    expect(offsetPattern([at(1, 0), at(2, 1), at(3, 2)]).pattern).toBe('inconsistent');
    expect(offsetPattern([at(1, 1), at(2, 0.5)]).pattern).toBe('inconsistent');
    expect(offsetPattern([at(1, 0), at(2, 0.5)]).pattern).toBe('fractions');
    expect(offsetPattern([at(1, 0), at(2, 1.5)]).pattern).toBe('teeth_and_rest');
    expect(offsetPattern([]).pattern).toBe('cannot_tell');
  });
});

describe('stages', () => {
  const first = layoutOf('corm-121');
  const cam = first.wheels.find((w) => w.role === 'cam')!;
  const driver = first.wheels[0]!;
  const second: Layout = {
    ...first,
    id: 'second',
    follows: { layout: first.id, wheel: cam.id },
    wheels: first.wheels.map((w, i) => (i === 0 ? { ...w, x: cam.x, y: cam.y } : w)),
  };
  const code = (all: Layout[]) => {
    const r = stagesOf(all, first.id);
    return r.ok ? 'ok' : r.error.code;
  };

  it('stand on one shaft, on a wheel that is there, and never in a ring', () => {
    expect(code([first, second])).toBe('ok');
    const moved = (mm: number): Layout => ({
      ...second,
      wheels: second.wheels.map((w, i) => (i === 0 ? { ...w, x: cam.x + mm } : w)),
    });
    expect(code([first, moved(0.4)])).toBe('ok');
    expect(code([first, moved(0.6)])).toBe('stage_apart');
    expect(code([first, { ...second, follows: { layout: first.id, wheel: 'none' } }])).toBe(
      'stage_wheel_unknown',
    );
    expect(code([{ ...first, follows: { layout: 'second', wheel: second.wheels[0]!.id } }, second])).toBe(
      'stage_loop',
    );
    expect(stagesOf([second], 'none').ok).toBeFalse();
  });

  it('turn as their shafts do, and bring along what their shafts are off', () => {
    const stages = value(stagesOf([first, second], first.id));
    expect(stages.map((s) => s.ratio)).toEqual([1, driver.teeth! / cam.teeth!]);
    const wheel = first.wheels.indexOf(cam);
    const offsets = crankOffsets(stages, [[{ wheel, driverDeg: -3 }], [{ wheel: 2, driverDeg: 1 }]]);
    const { ratio } = stages[1]!;
    expect(offsets).toEqual([
      { stage: 0, wheel, crankDeg: -3 },
      { stage: 1, wheel: 2, crankDeg: -3 + 1 / ratio },
    ]);
  });
});

describe('a drive that cannot be', () => {
  it('says why, with a tensioner and without', () => {
    const belt = layoutOf('corm-121');
    const inside: Layout = {
      ...belt,
      wheels: belt.wheels.map((w, i) =>
        i === 1 ? { ...w, x: belt.wheels[0]!.x + 1, y: belt.wheels[0]!.y } : w,
      ),
    };
    for (const r of [solveFixed(inside), solveDrive(inside)])
      expect(!r.ok && 'why' in r.error && r.error.why.code).toBeTruthy();
  });

  it('without a tensioner stands as drawn', () => {
    const bare = layouts.find((l) => tensionerIndex(l) < 0)!;
    const { path, setting } = value(solveDrive(bare));
    expect(setting).toBeUndefined();
    expect(path.lengthMm).toBe(value(solveFixed(bare)).path.lengthMm);
  });
});

describe('what is left of an extension', () => {
  it('is wear of the shoes only where there are shoes, and only when it is more', () => {
    const plungers = layouts.filter((l) => {
      const c = carrierOf(l);
      return c?.kind === 'arm' && c.plunger;
    });
    const shod = plungers.filter((l) => l.wheels.some((w) => w.arc));
    expect(shod.length).toBeGreaterThan(3);
    const worn: number[] = [];
    for (const l of shod) {
      const { reading } = value(wearState(l, 0.001));
      const e = { value: 0.001, u: 0 };
      const more = value(extensionRemainder(l, { value: reading!.worn + 0.8, u: 0.1 }, e));
      const less = value(extensionRemainder(l, { value: reading!.worn - 0.8, u: 0.1 }, e));
      if (more.guideWear) worn.push(more.guideWear.value);
      expect(less.guideWear).toBeUndefined();
      expect(less.verdict).toBe('less');
    }
    expect(worn.length).toBeGreaterThan(3);
    expect(Math.min(...worn)).toBeGreaterThan(0);
    const bare = layoutOf('corm-121');
    const read = value(wearState(bare, 0)).reading!;
    const turned = value(extensionRemainder(bare, { value: read.worn + 9, u: 0.5 }, { value: 0, u: 0 }));
    expect('guideWear' in turned).toBeFalse();
  });
});

describe('a state that was asked for', () => {
  const belt = layoutOf('corm-121');

  it('as made changes nothing: the intended setting, whole teeth, centres as drawn', () => {
    expect(changedLayout(belt, AS_MADE)).toEqual(belt);
    const s = value(driveState(belt, AS_MADE));
    expect(s.setting!.reading).toBe(value(solveDrive(belt)).setting!.reading);
    expect(s.circles).toEqual(value(solveDrive(belt)).circles);
  });

  it('without heat data keeps its centres at any temperature, and at that of its drawing with them', () => {
    const { heat, ...cold } = belt;
    expect(changedLayout(cold, { ...AS_MADE, temperatureC: 300 })).toEqual(cold);
    const warm: Layout = { ...belt, heat: heat ?? { perKelvin: 2e-5, drawnAtC: 20 } };
    const drawn = changedLayout(warm, { ...AS_MADE, temperatureC: warm.heat!.drawnAtC });
    circlesOf(drawn).forEach((c, i) =>
      expect(Math.hypot(c.x - circlesOf(warm)[i]!.x, c.y - circlesOf(warm)[i]!.y)).toBeLessThan(1e-9),
    );
    expect(changedLayout(warm, { ...AS_MADE, temperatureC: 300 })).not.toEqual(warm);
  });

  it('takes readings of idlers that it has, and none of others', () => {
    expect(changedLayout(belt, { ...AS_MADE, idlers: { nobody: 5 } })).toEqual(belt);
  });
});

describe('room in slots', () => {
  it('is at its end within a twentieth of a degree of it, and not before', () => {
    const radiusMm = 180 / Math.PI;
    const half = { radiusMm, halfMm: 5 };
    expect(slotRoom(half, 0)).toEqual({ advanceDeg: 5, retardDeg: 5, atEnd: false });
    expect(slotRoom(half, 4.94).atEnd).toBeFalse();
    expect(slotRoom(half, 4.96).atEnd).toBeTrue();
    expect(slotRoom(half, -4.96).atEnd).toBeTrue();
  });
});
