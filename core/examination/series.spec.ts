import { leakDown } from './leak-down';
import { readInstrumentLine } from './instrument-line';
import { MOST_POINTS, readSeries, seriesPoints, seriesValue, thinned } from './read-series';

const read = (text: string) => {
  const r = readSeries(text);
  return r.ok ? r.value.points : r.error;
};

describe('a line of an instrument', () => {
  it('is a reading in whatever unit and decimal sign, with its time or without', () => {
    const value = (line: string) => {
      const r = readInstrumentLine(line);
      return r.ok && r.value.kind === 'reading' ? [r.value.value, r.value.dimension, r.value.t] : r;
    };
    expect(value('7.412 mm')).toEqual([7.412, 'length', undefined]);
    expect(value(' t=1.20 7,412 mm\r')).toEqual([7.412, 'length', 1.2]);
    expect(value('-0.5 in')).toEqual([-12.7, 'length', undefined]);
    expect(value('63.7g')).toEqual([63.7, 'mass', undefined]);
    expect(value('92.0 Hz')).toEqual([92, 'frequency', undefined]);
  });

  it('is a remark with the resolution, or is refused with what it was', () => {
    expect(readInstrumentLine('# Dial gauge; resolution 0.001 mm')).toEqual({
      ok: true,
      value: {
        kind: 'remark',
        text: 'Dial gauge; resolution 0.001 mm',
        resolution: { value: 0.001, dimension: 'length' },
      },
    });
    const code = (line: string) => {
      const r = readInstrumentLine(line);
      return r.ok ? 'ok' : r.error.code;
    };
    expect(['', '\u0000\u0017@@', '7.4.1 mm', 'mm 7', '7.412'].map(code)).toEqual(Array(5).fill('garbage'));
    expect(code('7 furlongs')).toBe('unknown_unit');
  });
});

describe('a series from a table', () => {
  const truth = [
    { t: 0, x: 8 },
    { t: 0.5, x: 7.9 },
    { t: 1, x: 7.8 },
  ];

  it('is read with any separator, decimal sign, heading and unit, from its first row on', () => {
    for (const text of [
      '0,8.0\n0.5,7.9\n1,7.8',
      '0;8,0\r\n0,5;7,9\r\n1;7,8\r\n',
      '\uFEFFtime [s]\tway [mm]\n0\t8.0\n0.5\t7.9\n1\t7.8',
      'Time (ms);Way (mm)\n5000;8,0\n5500;7,9\n6000;7,8',
      't;x\nms;mm\n0;8,0\n500;7,9\n1000;7,8',
      '-2 8.0\n-1.5 7.9\n-1 7.8',
      't [s];x [µm]\n0;8000\n0,5;7900\n1;7800',
    ]) {
      const points = read(text);
      if (!Array.isArray(points)) return fail(`${text}: ${points.code}`);
      points.forEach((p, i) => {
        expect(p.t).withContext(text).toBeCloseTo(truth[i]!.t, 9);
        expect(p.x).withContext(text).toBeCloseTo(truth[i]!.x, 9);
      });
      expect(points.length).toBe(3);
    }
  });

  it('tells gaps and lines without numbers, and keeps the rest', () => {
    const rows = Array.from({ length: 40 }, (_, i) => `${i * 0.5};${8 - 0.01 * i}`);
    rows.splice(20, 6);
    rows[5] = 'overload;';
    const r = readSeries(rows.join('\n'));
    if (!r.ok) return fail(r.error.code);
    expect(r.value.refused).toEqual([6]);
    expect(r.value.gaps).toEqual([{ line: 21, seconds: 3.5 }]);
    expect(r.value.points.length).toBe(33);
    const leak = leakDown(r.value.points, 2);
    expect(leak.ok && leak.value.chosen.rate).toBeCloseTo(0.02, 9);
  });

  it('is refused with the line and the reason', () => {
    expect(read('')).toEqual({ code: 'empty' });
    expect(read('hello\nworld')).toEqual({ code: 'empty' });
    expect(read('1\n2\n3')).toEqual({ code: 'one_column', line: 1 });
    expect(read('t [s];p [bar]\n0;1')).toEqual({
      code: 'wrong_unit',
      line: 1,
      unit: 'bar',
      wanted: 'length',
    });
    expect(read('t [mm];x [mm]\n0;1')).toEqual({ code: 'wrong_unit', line: 1, unit: 'mm', wanted: 'time' });
    expect(read('0;1\n1;1\n0,5;1')).toEqual({ code: 'runs_back', line: 3 });
  });

  it('is thinned evenly, and is a fact’s value and back', () => {
    const many = Array.from({ length: 5000 }, (_, i) => ({ t: i * 0.02, x: 8 - i * 1e-4 }));
    const few = thinned(many);
    expect(few.length).toBe(MOST_POINTS);
    expect([few[0], few.at(-1)]).toEqual([many[0], many.at(-1)]);
    expect(seriesPoints(seriesValue(few)).length).toBe(few.length);
    expect(seriesPoints(seriesValue(truth))).toEqual(truth);
    expect(seriesPoints('skipped')).toEqual([]);
  });
});
