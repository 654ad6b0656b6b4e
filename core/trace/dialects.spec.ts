import { simulateCapture } from '@core/simulate/capture';
import { BOX_DIALECTS, boxCapture, camOf } from '@core/simulate/capture-box';
import { type CaptureDialect, writeCapture } from '@core/simulate/capture-file';
import { speedOf } from './clock';
import { comparePatterns } from './compare';
import { wrapped } from './cycle';
import { CaptureReader } from './read-capture';
import { readTrace, type Roles, type Trace } from './trace';
import { inUnitOfTime } from './time-unit';
import { readWheel, type ToothWheel, USUAL_WHEELS } from './wheel';

const plain: CaptureDialect = { separator: ',', decimal: '.', heading: 'one', time: 's', volts: 'V' };
const DIALECTS: readonly CaptureDialect[] = [
  plain,
  { ...plain, separator: ';', decimal: ',', heading: 'two', time: 'ms', volts: 'mV', crlf: true, bom: true },
  { ...plain, separator: '\t', decimal: ',', time: 'µs' },
  { ...plain, separator: '\t', heading: 'none', startS: -0.2 },
  { ...plain, separator: ';', decimal: ',', time: 'none', crlf: true },
  { ...plain, heading: 'two', order: ['cam', 'marker', 'time', 'crank'], volts: 'mV' },
  { ...plain, exponent: true, bom: true, startS: -1 },
  { ...plain, separator: ';', heading: 'none', order: ['crank', 'time', 'cam'] },
];
/** What is wrong with each, besides an offset that differs from one to the next. */
const FAULTS = [
  {},
  { lost: 0.01 },
  { upsideDown: true },
  { noise: 0.15 },
  { camUpsideDown: true },
  { rpm: 160, ripple: 0.25 },
  { clip: 1.4, crank: 'swing' as const },
  { hum: 0.1, crank: 'swing' as const },
];
const traced = (text: string, roles?: Roles, wheel?: ToothWheel): Trace => {
  const reader = new CaptureReader();
  reader.push(new TextEncoder().encode(text));
  const capture = reader.finish();
  if (!capture.ok) throw new Error(JSON.stringify(capture.error));
  const t = readTrace(capture.value, wheel, roles);
  if (!t.ok) throw new Error(JSON.stringify(t.error));
  return t.value;
};

describe('captures of every dialect, wheel and fault', () => {
  DIALECTS.forEach((dialect, d) =>
    it(`dialect ${d + 1}: none fails, and the offset is within one and a half times the generator's limit, on every second wheel in turn`, () => {
      USUAL_WHEELS.forEach((notation, w) => {
        if ((d + w) % 2 === 1) return;
        const wheel = readWheel(notation);
        if (!wheel.ok) return fail(notation);
        const late = [18, -36, 4.5, 0, 7][(d + w) % 5]!;
        const one = (seed: number, by: number, more: object) =>
          simulateCapture({
            seed,
            teeth: wheel.value.teeth,
            cam: camOf('dialects'),
            late: by,
            rpm: 240,
            ripple: 0.15,
            cycles: 6,
            rateHz: 10_000,
            crank: 'square',
            noise: 0.04,
            jitterDeg: 0.08,
            ...more,
          });
        const chosen = FAULTS[(d + 3 * w) % FAULTS.length]!;
        // without a gap nothing tells a crank signal that is upside down from one half a tooth on
        const fault = 'upsideDown' in chosen && wheel.value.teeth.every(Boolean) ? {} : chosen;
        const sensor = 'crank' in fault ? { crank: fault.crank } : {};
        const [good, bad] = [one(50 + d, 0, sensor), one(80 + 9 * d + w, late, fault)];
        // thirty less two may be sixty less two and two at half the speed: that one is told
        const told = notation === '30-2' ? wheel.value : undefined;
        const [a, b] = [
          traced(writeCapture(good, plain), undefined, told),
          traced(writeCapture(bad, dialect), undefined, told),
        ];
        expect(b.clock.wheel.notation).withContext(JSON.stringify(fault)).toBe(notation);
        const pitch = a.clock.period;
        const c = comparePatterns(b.cams[0]!.pattern!, a.cams[0]!.pattern!, pitch);
        if (!c.ok) return fail(c.error.code);
        expect(Math.abs(wrapped(c.value.deg - late, pitch)))
          .withContext(`${notation} ${JSON.stringify(fault)} ${c.value.deg}`)
          .toBeLessThan(1.5 * Math.hypot(good.limitDeg, bad.limitDeg));
        expect(c.value.reversed).toBe('camUpsideDown' in fault);
      });
    }),
  );

  it('of several cams are read each for itself, and the crank is asked for by name where it was said to be another channel', () => {
    for (const dialect of BOX_DIALECTS) {
      const text = boxCapture({ engine: 'x', fault: 'one_cam_late', dialect, seed: 3, zCrank: 20, cams: 2 });
      const good = boxCapture({ engine: 'x', fault: 'good', dialect: 'point', seed: 4, zCrank: 20, cams: 2 });
      const [a, b] = [traced(text), traced(good)];
      const shifts = a.cams.map((c, i) => {
        const s = comparePatterns(c.pattern!, b.cams[i]!.pattern!);
        return s.ok ? s.value.deg : NaN;
      });
      expect(shifts[0]).toBeCloseTo(18, 0);
      expect(shifts[1]).toBeCloseTo(0, 0);
      for (const notation of [undefined, '60-2', '36-2', '12-1']) {
        const named = notation === undefined ? undefined : readWheel(notation);
        const wheel = named?.ok ? named.value : undefined;
        // a cam that passes for a wheel, or not, is never the crank, whatever wheel is told
        expect(() => traced(text, { crank: 1, cams: [0] }, wheel))
          .withContext(`${dialect} ${notation}`)
          .toThrowError(notation === undefined || notation === '60-2' ? /"swapped".*/ : /"crank"|"swapped"/);
      }
      expect(traced(text, { crank: 0, cams: [2] }).cams.length).toBe(1);
    }
  });
});

describe('how a file says its time', () => {
  const sim = simulateCapture({
    seed: 21,
    teeth: Array.from({ length: 36 }, (_, i) => i < 35),
    cam: camOf('time'),
    late: 0,
    rpm: 240,
    ripple: 0.1,
    cycles: 2,
    rateHz: 10_000,
    crank: 'square',
    noise: 0.03,
    jitterDeg: 0,
  });
  const rows = (column?: (i: number) => string) =>
    Array.from(sim.crank, (v, i) =>
      [...(column ? [column(i)] : []), v.toFixed(3), sim.cam[i]!.toFixed(3)].join(';'),
    ).join('\n');
  const capture = (text: string) => {
    const reader = new CaptureReader();
    reader.push(new TextEncoder().encode(text));
    const read = reader.finish();
    if (!read.ok) throw new Error(JSON.stringify(read.error));
    return read.value;
  };

  it('by a line in words, in other tongues and with any separator', () => {
    for (const line of [
      'Abtastintervall; 100; us',
      'Interval = 100 us',
      'dt = 1.000e-04 s',
      'Sample interval: 0,1 ms',
      'Sample rate: 10 kHz',
      '# rate; 10000; Hz',
    ])
      expect(capture(`${line}\nCrank;Cam\n${rows()}`).stepS)
        .withContext(line)
        .toBeCloseTo(1e-4, 12);
  });

  it('by an interval in the heading: a signal that rises is no time then, a column that counts no channel', () => {
    const read = capture(`Interval = 100 us\nA;B;C\n${rows((i) => (0.1 + i * 1e-6).toFixed(6))}`);
    expect(read.head.time).toBeUndefined();
    expect(read.channels.length).toBe(3);
    const timed = capture(`Interval = 100 us\nA;B;C\n${rows((i) => (i * 0.1).toFixed(1))}`);
    expect(timed.head.time).toBeDefined();
    const counted = capture(`Interval = 100 us\nN;B;C\n${rows((i) => String(i % 7))}`);
    expect(counted.channels.map((c) => c.name)).toEqual(['B', 'C']);
  });

  it('without a unit: in the one in which an engine turns as engines do', () => {
    for (const [perS, unit, places] of [
      [1, 's', 6],
      [1e3, 'ms', 3],
      [1e6, 'µs', 0],
    ] as const) {
      const read = capture(`Time;Crank;Cam\n${rows((i) => (i * 1e-4 * perS).toFixed(places))}`);
      expect(read.head.unitOpen).toBeTrue();
      const timed = inUnitOfTime(read, (c) => readTrace(c));
      expect(timed.capture.head.timeUnit).toBe(unit);
      expect(timed.capture.stepS).toBeCloseTo(1e-4, 9);
      if (!timed.trace.ok) return fail(timed.trace.error.code);
      for (const { rpm } of speedOf(timed.trace.value.clock)) expect(Math.abs(rpm - 240)).toBeLessThan(40);
    }
    expect(
      capture(`Time (ms);Crank;Cam\n${rows((i) => (i * 0.1).toFixed(1))}`).head.unitOpen,
    ).toBeUndefined();
  });

  it('not at all in a device’s own format, which is told at once', () => {
    const reader = new CaptureReader();
    reader.push(new Uint8Array([0x42, 0x10, 0, 0, 7, 0, 0, 0, ...new Array<number>(40_000).fill(3)]));
    const read = reader.finish();
    expect(!read.ok && read.error.code).toBe('binary');
  });
});
