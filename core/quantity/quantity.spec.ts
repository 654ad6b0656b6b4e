import fc from 'fast-check';
import { formatDay, parseDay, plusMonths } from './dates';
import { decimalsFor, formatQuantity } from './format-quantity';
import { parseQuantity, readNumber } from './parse-quantity';
import { DIMENSIONS, fromBase, toBase, unitsOf } from './units';

const read = (dimension: Parameters<typeof parseQuantity>[0], text: string, unit?: string) => {
  const r = parseQuantity(dimension, text, unit);
  return r.ok ? r.value : r.error.code;
};

describe('quantities', () => {
  it('agree with published factors', () => {
    // NIST SP 811 (2008), table B.8: 1 lbf·ft = 1.355818 N·m, 1 mi = 1.609344 km, 1 in = 25.4 mm exactly
    expect(toBase('torque', 1, 'lbf·ft')).toBeCloseTo(1.355818, 6);
    expect(toBase('distance', 1, 'mi')).toBe(1.609344);
    expect(toBase('temperature', 212, '°F')).toBeCloseTo(100, 12);
  });

  it('come back unchanged from any unit', () => {
    for (const d of DIMENSIONS) {
      for (const unit of unitsOf(d)) {
        fc.assert(
          fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), (v) =>
            expect(fromBase(d, toBase(d, v, unit), unit)).toBeCloseTo(v, 6),
          ),
        );
      }
    }
  });

  it('are read as people type them', () => {
    expect(read('length', '7,4 mm ± 0,05')).toEqual({ value: 7.4, u: 0.05 });
    expect(read('length', '7.4 ±0.05mm')).toEqual({ value: 7.4, u: 0.05 });
    expect(read('length', '1 in')).toEqual({ value: 25.4 });
    expect(read('distance', '48.200 km')).toEqual({ value: 48200 });
    expect(read('distance', '30k mi')).toEqual({ value: 30000 * 1.609344 });
    expect(read('angle', '-96')).toEqual({ value: -96 });
    expect(read('angle', '−96°')).toEqual({ value: -96 });
    expect(read('length', '7.4 kg')).toBe('unknown_unit');
    expect(read('length', 'seven')).toBe('not_a_number');
    expect(read('length', '7 ± 0 mm')).toBe('bad_uncertainty');
  });

  it('know a torque however it is spelled', () => {
    const spellings = {
      'N·m': ['Nm', 'N.m', 'N*m', 'N m', 'n·m', 'N-m', 'newton metres'],
      'lbf·ft': ['lb·ft', 'ft·lbf', 'lb-ft', 'ft-lb', 'ft lb', 'lbf ft', 'lb.ft', 'ft.lbs', 'foot pounds'],
      'lbf·in': ['lb-in', 'in·lbf', 'in lb', 'inch-pounds', 'lbf.in', 'in.lbs'],
      'kgf·m': ['kp·m', 'kpm', 'kgf m', 'm·kg', 'kg·m', 'mkp', 'kgm'],
      'kgf·cm': ['kgf·cm', 'kg-cm', 'kp cm'],
      'daN·m': ['daNm', 'daN·m'],
    };
    for (const [unit, typed] of Object.entries(spellings))
      for (const t of typed) {
        const wanted = toBase('torque', 12.5, unit);
        expect(read('torque', `12.5 ${t}`))
          .withContext(t)
          .toEqual({ value: wanted });
        expect(read('torque', `12,5${t.toUpperCase()}`))
          .withContext(t)
          .toEqual({ value: wanted });
      }
    expect(read('torque', '12 kg')).toBe('unknown_unit');
    expect(read('torque', '12 constructor')).toBe('unknown_unit');
    // 1 kgf·m against the metre-kilogram of the handbooks: 9.80665 N·m exactly; 1 lbf·in a twelfth of a lbf·ft
    expect(toBase('torque', 1, 'kgf·m')).toBe(9.80665);
    expect(toBase('torque', 12, 'lbf·in')).toBeCloseTo(toBase('torque', 1, 'lbf·ft'), 12);
  });

  it('are finite, whatever is typed', () => {
    const digits = '9'.repeat(400);
    expect(readNumber(digits)).toBeUndefined();
    expect(read('length', digits)).toBe('not_a_number');
    expect(read('length', `7 ± ${digits}`)).toBe('bad_uncertainty');
    fc.assert(
      fc.property(fc.string(), (t) => {
        const v = readNumber(t);
        expect(v === undefined || Number.isFinite(v)).toBeTrue();
      }),
    );
  });

  it('tell a decimal comma from grouping', () => {
    expect(readNumber('1.234,5')).toBe(1234.5);
    expect(readNumber('1,234.5')).toBe(1234.5);
    expect(readNumber('12.345')).toBe(12.345);
    expect(readNumber('12.345', true)).toBe(12345);
    expect(readNumber('1.23.4')).toBeUndefined();
  });

  it('are written with the digits that the uncertainty justifies', () => {
    expect(decimalsFor(0.05)).toBe(3);
    expect(formatQuantity('length', 7.4, { u: 0.05 })).toBe('7.40\u00a0±\u00a00.05\u00a0mm');
    expect(formatQuantity('distance', 48200, {})).toBe('48\u202f200\u00a0km');
    // what was computed bears no more digits than its uncertainty, what was read is written as read
    const ran = { u: 707.1 };
    expect(formatQuantity('distance', 10_503, { ...ran, computed: true })).toBe(
      '10\u202f500\u00a0±\u00a0710\u00a0km',
    );
    expect(formatQuantity('distance', 10_503, ran)).toBe('10\u202f503\u00a0±\u00a0707\u00a0km');
    expect(formatQuantity('distance', 10_503, { u: 70.7, computed: true })).toBe(
      '10\u202f503\u00a0±\u00a071\u00a0km',
    );
  });
});

describe('days', () => {
  const day = (text: string, order: 'dmy' | 'mdy' | 'ymd' = 'dmy') => {
    const r = parseDay(text, order, '2026-11-24');
    return r.ok ? r.value : r.error.code;
  };

  it('follow the house’s order and refuse days that do not exist', () => {
    expect(day('12.3.2026')).toBe('2026-03-12');
    expect(day('12/3/26', 'mdy')).toBe('2026-12-03');
    expect(day('12 Mar 2026')).toBe('2026-03-12');
    expect(day('Mar 2026')).toBe('2026-03-01');
    expect(day('yesterday')).toBe('2026-11-23');
    expect(day('29.2.2025')).toBe('not_a_date');
    expect(day('29.2.2024')).toBe('2024-02-29');
  });

  it('round-trip through every order, and months keep inside their end', () => {
    for (const order of ['dmy', 'mdy', 'ymd'] as const) {
      expect(day(formatDay('2026-03-12', order), order)).toBe('2026-03-12');
      // named, it reads the same in any house
      expect(day(formatDay('2026-03-12', 'named'), order)).toBe('2026-03-12');
    }
    expect(plusMonths('2026-01-31', 1)).toBe('2026-02-28');
  });
});
