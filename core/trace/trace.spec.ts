import { type CaptureOf, simulateCapture } from '@core/simulate/capture';
import { breathe } from '@core/quantity/breathe.fixture';
import { numbered } from './numbering';
import { compareCams, comparePatterns } from './compare';
import { findEdges } from './edges';
import { pitchOf, readTrace, type Trace } from './trace';
import { traceVerdict } from './verdict';
import { readWheel, USUAL_WHEELS } from './wheel';

const CAM = [
  { deg: 40, rising: true },
  { deg: 110, rising: false },
  { deg: 220, rising: true },
  { deg: 330, rising: false },
  { deg: 420, rising: true },
  { deg: 470, rising: false },
  { deg: 600, rising: true },
  { deg: 690, rising: false },
];
const teethOf = (notation: string) => {
  const w = readWheel(notation);
  if (!w.ok) throw new Error(notation);
  return w.value.teeth;
};
type Of = Partial<CaptureOf> & { wheel?: string };
const simulated = ({ wheel = '60-2', ...more }: Of) =>
  simulateCapture({
    seed: 1,
    teeth: teethOf(wheel),
    cam: CAM,
    late: 0,
    rpm: 250,
    ripple: 0.15,
    cycles: 8,
    rateHz: 20_000,
    crank: 'square',
    noise: 0.05,
    jitterDeg: 0.1,
    ...more,
  });
const traced = (of: Of, alone?: string) => {
  const s = simulated(of);
  const channels = [
    { name: 'cam', samples: s.cam },
    { name: 'crank', samples: s.crank },
  ];
  const wheel = alone === undefined ? undefined : readWheel(alone);
  const head = { separator: ',', decimal: '.' as const, timeUnit: 's', units: [], time: 'Time' };
  return {
    limit: s.limitDeg,
    read: readTrace(
      { channels, startS: 0, stepS: s.stepS, gaps: [], refused: [], head },
      wheel?.ok ? wheel.value : undefined,
    ),
  };
};
const good = (of: Of, alone?: string): Trace & { limit: number } => {
  const { read, limit } = traced(of, alone);
  if (!read.ok) throw new Error(`${JSON.stringify(of)}: ${JSON.stringify(read.error)}`);
  return { ...read.value, limit };
};
const between = (a: Trace, b: Trace) => {
  const [p, q] = [a.cams[0]!.pattern, b.cams[0]!.pattern];
  if (!p || !q) throw new Error('no pattern');
  const c = comparePatterns(p, q, pitchOf(a));
  if (!c.ok) throw new Error(c.error.code);
  return c.value;
};
const DRIVE = { sensorSlots: 60, zCrank: 20, zCam: 40 };

describe('a cam against its crank', () => {
  const WAYS: Of[] = [
    {},
    { noise: 0.15 },
    { upsideDown: true },
    { lost: 0.01 },
    { crank: 'swing' },
    { crank: 'swing', noise: 0.12, hum: 0.1 },
    { crank: 'swing', upsideDown: true, lost: 0.01 },
    { crank: 'swing', clip: 1.2 },
    { rpm: 160, ripple: 0.25 },
    { rpm: 800, ripple: 0.05, rateHz: 50_000 },
  ];
  for (const wheel of USUAL_WHEELS)
    it(`on a wheel ${wheel} is read in ${WAYS.length} kinds of capture, the wheel found, within one and a half times the limit of the generator`, () => {
      WAYS.forEach((way, k) => {
        const late = [18, -18, 4.5, 0, 36][k % 5]!;
        const [a, b] = [good({ ...way, wheel, seed: 10 + k }), good({ ...way, wheel, late, seed: 60 + k })];
        expect(a.clock.wheel.notation).withContext(JSON.stringify(way)).toBe(wheel);
        const shift = between(b, a);
        const over = pitchOf(a) ?? 720;
        const error = ((((shift.deg - late) % over) + 1.5 * over) % over) - over / 2;
        expect(Math.abs(error))
          .withContext(`${JSON.stringify(way)} ${shift.deg}`)
          .toBeLessThan(1.5 * Math.hypot(a.limit, b.limit) + 0.02);
        expect(shift.reversed).toBeFalse();
      });
    });

  it('covers the truth with its interval in 90 to 99 of a hundred of 250 repeats, and its error stays near the limit', async () => {
    let [inside, squares, limits] = [0, 0, 0];
    const N = 250;
    for (let k = 0; k < N; k++) {
      if (k % 25 === 0) await breathe();
      const late = ((k * 7) % 41) - 20;
      const of: Of = {
        rateHz: 5000,
        cycles: 6,
        wheel: k % 2 ? '60-2' : '36-1',
        crank: k % 3 ? 'square' : 'swing',
        noise: 0.03,
      };
      const [a, b] = [good({ ...of, seed: 1000 + 2 * k }), good({ ...of, late, seed: 1001 + 2 * k })];
      const s = between(b, a);
      if (s.low <= late && late <= s.high) inside++;
      squares += (s.deg - late) ** 2;
      // the limit is one of 95 %, two standard deviations
      limits += (a.limit ** 2 + b.limit ** 2) / 4;
    }
    expect(inside / N).toBeGreaterThanOrEqual(0.9);
    expect(inside / N).toBeLessThanOrEqual(0.995);
    expect(Math.sqrt(squares / limits)).toBeLessThan(1.5);
  });

  it('never claims a wrong whole tooth: of 200 offsets each claim is the truth, and what lies between is a fraction', () => {
    let [claims, fractions] = [0, 0];
    const reference = good({ seed: 5 });
    for (let k = 0; k < 200; k++) {
      const late = (k - 100) * 0.45;
      const s = between(
        good({ seed: 200 + k, late, rateHz: 10_000, jitterDeg: 0.05 + (k % 5) * 0.07, cycles: 4 + (k % 4) }),
        reference,
      );
      const v = traceVerdict(s, DRIVE, 2);
      if (v.verdict === 'whole') {
        claims++;
        expect(Math.abs(late - v.at[0]!.teeth * 18)).toBeLessThanOrEqual(2.3);
      }
      if (v.verdict === 'in_tolerance') expect(Math.abs(late)).toBeLessThanOrEqual(2.3);
      if (v.verdict === 'fraction') {
        fractions++;
        expect(Math.abs(late - 18 * Math.round(late / 18))).toBeGreaterThan(1.7);
      }
    }
    expect(claims).toBeGreaterThan(20);
    expect(fractions).toBeGreaterThan(60);
  });

  it('says what it could be where the wheel has no gap, the truth among it', () => {
    const [a, b] = [good({ wheel: '24', seed: 3 }), good({ wheel: '24', late: 18, seed: 4 })];
    const v = traceVerdict(between(b, a), { ...DRIVE, sensorSlots: 24 }, 2);
    expect(v.verdict === 'cannot_tell' && v.why).toBe('no_gap');
    expect(v.verdict === 'cannot_tell' && v.couldBe.some((d) => Math.abs(d - 18) < 0.3)).toBeTrue();
  });

  it('knows a cam signal that is upside down, and a phaser that moves, and calls neither an offset', () => {
    const a = good({ seed: 3 });
    const turned = between(good({ seed: 4, camUpsideDown: true, late: 18 }), a);
    expect(turned.reversed).toBeTrue();
    expect(turned.deg).toBeCloseTo(18, 0);
    const moving = between(good({ seed: 6, phaser: 8, cycles: 12 }), a);
    expect(moving.moving).toBeTrue();
    expect(traceVerdict(moving, DRIVE, 2).verdict).toBe('cannot_tell');
    expect(a.cams[0]!.pattern!.moving).toBeFalse();
  });

  it('takes second edges of a tooth out and counts them, wherever they come', () => {
    const s = simulated({ seed: 12 });
    const found = findEdges(s.crank);
    if (!found.ok) return fail('no edges');
    const { falling } = found.value;
    const twice = Float64Array.from(
      [...falling].flatMap((t, i) => (i % 37 === 5 || i === 0 ? [t, t + 3] : [t])),
    );
    const [clean, mended] = [numbered(falling), numbered(twice)];
    expect(mended.double).toBe(twice.length - falling.length);
    expect(mended.kept).toEqual(clean.kept);
    expect(mended.slots).toEqual(clean.slots);
  });

  it('is compared only where the same was read of both cranks', () => {
    const cam = (of: Of) => {
      const t = good(of);
      const { notation: wheel, teeth } = t.clock.wheel;
      return {
        crankKind: t.crankKind,
        wheel,
        slots: teeth.length,
        even: t.clock.even,
        pattern: t.cams[0]!.pattern!,
      };
    };
    const code = (a: Of, b: Of) => {
      const c = compareCams(cam(a), cam(b));
      return c.ok ? 'ok' : c.error.code;
    };
    expect(code({ seed: 1 }, { seed: 2 })).toBe('ok');
    expect(code({ seed: 1 }, { seed: 2, wheel: '36-1' })).toBe('other_wheel');
    expect(code({ seed: 1 }, { seed: 2, crank: 'swing' })).toBe('other_sensor');
    expect(
      code({ seed: 1 }, { seed: 2, cam: CAM.slice(0, 2).map((e, i) => ({ ...e, deg: 100 + 190 * i })) }),
    ).toBe('other_pattern');
  });

  it('leaves one bad edge out and tells which', () => {
    const bent = CAM.map((e, i) => (i === 3 ? { ...e, deg: e.deg + 3 } : e));
    const s = between(good({ seed: 8, cam: bent, late: 5 }), good({ seed: 9 }));
    expect(s.edges.filter((e) => e.out).length).toBe(1);
    expect(Math.abs(s.deg - 5)).toBeLessThan(0.15);
  });

  it('refuses what cannot be judged, and says why', () => {
    const error = (of: Of, alone?: string) => {
      const { read } = traced(of, alone);
      return read.ok ? read.value.cams[0]?.error : read.error;
    };
    expect(error({ cycles: 1 })).toEqual(jasmine.objectContaining({ code: 'too_few_cycles' }));
    expect(error({}, '36-1')).toEqual(
      jasmine.objectContaining({
        code: 'crank',
        error: jasmine.objectContaining({ code: 'wheel_does_not_match' }),
      }),
    );
    expect(error({ wheel: '36-1' }, '60-2')).toEqual(jasmine.objectContaining({ code: 'crank' }));
    expect(findEdges(new Float32Array(5000).fill(2.5))).toEqual({ ok: false, error: { code: 'constant' } });
    expect(findEdges(new Float32Array(0))).toEqual({ ok: false, error: { code: 'constant' } });
  });
});

describe('a wheel', () => {
  it('is read from slots less missing ones, from counted teeth, or as a pattern', () => {
    const teeth = (s: string) => {
      const w = readWheel(s);
      return w.ok ? [w.value.teeth.length, w.value.teeth.filter(Boolean).length] : w.error.code;
    };
    expect(teeth('60-2')).toEqual([60, 58]);
    expect(teeth('60−2')).toEqual([60, 58]);
    expect(teeth('58')).toEqual([60, 58]);
    expect(teeth('36-2-2-2')).toEqual([36, 30]);
    expect(teeth('24')).toEqual([24, 24]);
    expect(teeth('1110111101')).toEqual([10, 8]);
    for (const bad of ['', 'x', '4', '60-60', '36-0', '999'])
      expect(teeth(bad)).withContext(bad).toBe('no_wheel');
  });
});

describe('the arithmetic of a shift', () => {
  it('is one of degrees: 18 of the crank are 9 of the cam, three sensor teeth of sixty, one tooth of twenty at the crank and of forty at the cam', () => {
    const v = traceVerdict({ deg: 18, low: 17.8, high: 18.2, moving: false }, DRIVE, 2);
    expect(v).toEqual({
      verdict: 'whole',
      at: [
        { wheel: 'crank', teeth: 1 },
        { wheel: 'cam', teeth: 1 },
      ],
      spoken: { crankDeg: 18, camDeg: 9, sensorTeeth: 3, atCrank: 1, atCam: 1, low: 17.8, high: 18.2 },
    });
    const of = (deg: number, half: number) =>
      traceVerdict({ deg, low: deg - half, high: deg + half, moving: false }, DRIVE, 2).verdict;
    expect([of(0.5, 0.3), of(-18, 0.5), of(9, 0.5), of(2, 0.5), of(18, 9), of(27, 0.4)]).toEqual([
      'in_tolerance',
      'whole',
      'fraction',
      'cannot_tell',
      'cannot_tell',
      'fraction',
    ]);
  });
});
