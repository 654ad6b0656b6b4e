import { randomFrom } from '@core/quantity/random';
import { simulateCapture } from '@core/simulate/capture';
import { type CaptureDialect, writeCapture } from '@core/simulate/capture-file';
import { CaptureReader, type SaidOfFile } from './read-capture';
import { numberIn, plainRow } from './row-bytes';
import { readWheel } from './wheel';

const wheel = readWheel('36-1');
const sim = simulateCapture({
  seed: 5,
  teeth: wheel.ok ? wheel.value.teeth : [],
  cam: [
    { deg: 100, rising: true },
    { deg: 300, rising: false },
  ],
  late: 0,
  rpm: 300,
  ripple: 0.1,
  cycles: 1,
  rateHz: 5000,
  crank: 'swing',
  noise: 0.02,
  jitterDeg: 0,
});
const read = (text: string, piece = 1e9, said: SaidOfFile = {}) => {
  const reader = new CaptureReader(said);
  const bytes = new TextEncoder().encode(text);
  for (let i = 0; i < bytes.length; i += piece) reader.push(bytes.slice(i, i + piece));
  return reader.finish();
};
const plain: CaptureDialect = { separator: ',', decimal: '.', heading: 'one', time: 's', volts: 'V' };
const DIALECTS: readonly CaptureDialect[] = [
  plain,
  { ...plain, separator: ';', decimal: ',', heading: 'two', time: 'ms', volts: 'mV', crlf: true, bom: true },
  { ...plain, separator: '\t', decimal: ',', heading: 'one', time: 'µs' },
  { ...plain, separator: '\t', heading: 'none', startS: -0.2 },
  { ...plain, separator: ';', decimal: ',', heading: 'one', time: 'none', crlf: true },
  { ...plain, heading: 'two', order: ['cam', 'marker', 'time', 'crank'], volts: 'mV' },
  { ...plain, exponent: true, heading: 'one', bom: true, startS: -1 },
  { ...plain, separator: ';', heading: 'none', time: 's', order: ['crank', 'time', 'cam'] },
];

describe('reading a capture', () => {
  it('gives a line without an end up after a megabyte, not after the last of three hundred', () => {
    const reader = new CaptureReader();
    const head = new TextEncoder().encode('Time (s),Crank (V),Cam (V)\n0.0,1.0,2.0\n0.1,1.0,2.0\n');
    const piece = new Uint8Array(64 * 1024).fill(0x37);
    expect(reader.push(head)).toBeTrue();
    let pieces = 0;
    while (reader.push(piece) && pieces < 4800) pieces++;
    expect(pieces).toBeLessThan(18);
    const read = reader.finish();
    expect(!read.ok && read.error.code).toBe('long_line');
    // no heading, no line: a file of another kind
    const other = new CaptureReader();
    for (let k = 0; other.push(piece) && k < 4800; k++) pieces = k;
    expect(pieces).toBeLessThan(18);
  });

  DIALECTS.forEach((d, k) =>
    it(`takes dialect ${k + 1} without asking: the same volts, the same time, whatever pieces it comes in`, () => {
      const text = writeCapture(sim, d);
      const whole = read(text);
      if (!whole.ok) return fail(JSON.stringify(whole.error));
      const c = whole.value;
      expect(c.channels.length).toBe(2);
      const crank = c.channels.find(
        (x) => Math.max(...x.samples.slice(0, 500)) < 4.5 && Math.min(...x.samples.slice(0, 500)) < -1,
      )!;
      expect(crank.samples.length).toBe(sim.crank.length);
      const worst = Math.max(...crank.samples.map((v, i) => Math.abs(v - sim.crank[i]!)));
      expect(worst).toBeLessThan(1e-3);
      expect(Math.abs(c.stepS / sim.stepS - 1)).toBeLessThan(1e-3);
      if (d.time !== 'none') expect(c.startS).toBeCloseTo(d.startS ?? 0, 6);
      if (d.heading !== 'none') expect(c.channels.map((x) => x.name).sort()).toEqual(['Cam', 'Crank']);
      expect(c.refused).toEqual([]);
      expect(c.gaps).toEqual([]);
      // in pieces, which may part a line or the two signs that end it
      const pieces = read(text, 997);
      expect(pieces.ok && pieces.value.channels[0]!.samples).toEqual(c.channels[0]!.samples);
      expect(pieces.ok && pieces.value.stepS).toBe(c.stepS);
    }),
  );

  const rows = () => writeCapture(sim, plain).split('\n');
  it('keeps what is good: a last row cut short and text among numbers are left out by their line', () => {
    const lines = rows();
    lines[40] = lines[40]!.replace(/,[^,]*$/, ',OL');
    const cut = lines.slice(0, 500).join('\n').slice(0, -9);
    const c = read(cut);
    if (!c.ok) return fail(JSON.stringify(c.error));
    expect(c.value.refused).toEqual([41, 500]);
    expect(c.value.channels[0]!.samples.length).toBe(497 + 0);
  });

  it('fills a gap, so that time runs on, and says where it was', () => {
    const lines = rows();
    lines.splice(600, 50);
    const c = read(lines.join('\n'));
    if (!c.ok) return fail(JSON.stringify(c.error));
    expect(c.value.gaps.length).toBe(1);
    expect(c.value.gaps[0]!.after).toBe(599);
    expect(c.value.gaps[0]!.seconds).toBeCloseTo(51 * sim.stepS, 6);
    expect(c.value.channels[0]!.samples.length).toBe(sim.crank.length);
    expect(c.value.channels[0]!.samples[700]).toBeCloseTo(sim.crank[700]!, 3);
  });

  it('refuses with the place and the reason', () => {
    const code = (text: string) => {
      const c = read(text);
      return c.ok ? 'read' : c.error;
    };
    expect(code('')).toEqual({ code: 'empty' });
    expect(code('  \n \n')).toEqual({ code: 'empty' });
    expect(code('%PDF-1.7\nnothing here\n')).toEqual(jasmine.objectContaining({ code: 'not_rows', line: 1 }));
    const back = rows();
    [back[600], back[601]] = [back[601]!, back[600]!];
    expect(code(back.join('\n'))).toEqual({ code: 'runs_back', line: 602 });
    expect(
      code(
        rows()
          .map((l) => l.split(',')[0])
          .join('\n'),
      ),
    ).toEqual({ code: 'one_column' });
    const broken = rows().map((l, i) => (i > 20 && i % 3 === 0 ? `${l}x` : l));
    expect(code(broken.join('\n'))).toEqual(jasmine.objectContaining({ code: 'not_rows', line: 22 }));
    const jump = rows();
    jump[601] = jump[601]!.replace(/^[^,]*/, '99999.5');
    expect(code(jump.slice(0, 602).join('\n'))).toEqual(
      jasmine.objectContaining({ code: 'long_gap', line: 602 }),
    );
    // no time and no interval: it has to be given, and then it is read
    const timeless = rows()
      .slice(1)
      .map((l) => l.split(',').slice(1).join(','))
      .join('\n');
    expect(code(timeless)).toEqual({ code: 'no_time' });
    const given = read(timeless, 1e9, { stepS: 2e-4 });
    expect(given.ok && given.value.stepS).toBe(2e-4);
  });

  it('takes the units that are said instead of those that stand there, and no unit for seconds and volts', () => {
    const headless = writeCapture(sim, { ...plain, heading: 'none', time: 'ms', volts: 'mV' });
    const [asIs, said] = [read(headless), read(headless, 1e9, { timeUnit: 'ms', voltUnit: 'mv' })];
    if (!asIs.ok || !said.ok) return fail('not read');
    expect(asIs.value.stepS / said.value.stepS).toBeCloseTo(1000, 6);
    expect(asIs.value.channels[0]!.samples[9]! / said.value.channels[0]!.samples[9]!).toBeCloseTo(1000, 2);
    expect([said.value.head.timeUnit, said.value.head.units]).toEqual(['ms', ['mv', 'mv']]);
    expect(said.value.stepS).toBeCloseTo(sim.stepS, 9);
  });

  it('reads a row in one walk to the same numbers as JavaScript itself, and leaves anything but plain numbers', () => {
    const random = randomFrom(7);
    const cells = new Float64Array(8);
    const bytes = (t: string) => new TextEncoder().encode(t);
    for (let k = 0; k < 500; k++) {
      const numbers = Array.from({ length: 3 }, () =>
        ((random() - 0.5) * 10 ** Math.floor(6 * random())).toFixed(Math.floor(7 * random())),
      );
      const comma = k % 2 === 1;
      const line = numbers.join(';').replace(/\./g, comma ? ',' : '.');
      const end = plainRow(bytes(`${line}\r\n1;2;3\n`), 0, { separator: 59, comma, width: 3 }, cells);
      expect(end).toBe(line.length);
      expect([...cells.subarray(0, 3)]).toEqual(numbers.map(Number));
      const first = bytes(line.split(';')[0]!);
      expect(numberIn(first, 0, first.length, comma)).toBe(Number(numbers[0]));
    }
    for (const odd of ['1;2\n', '1;2;x\n', '1;;3\n', '1;2;3e4\n', '1; 2;3\n', '"1";2;3\n', '1.2.3;4;5\n'])
      expect(plainRow(bytes(odd), 0, { separator: 59, comma: false, width: 3 }, cells))
        .withContext(odd)
        .toBe(-1);
    expect(numberIn(bytes(' "-1.5e3" '), 0, 10, false)).toBe(-1500);
    expect(numberIn(bytes('1e'), 0, 2, false)).toBeNaN();
  });
});
