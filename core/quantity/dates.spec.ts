import * as fc from 'fast-check';
import {
  addDays,
  dayOf,
  daysBetween,
  formatMonth,
  isDay,
  isMonthOnly,
  monthsBetween,
  parseDay,
  plusMonths,
} from './dates';

const day = fc
  .date({ min: new Date('1950-01-01'), max: new Date('2090-12-31'), noInvalidDate: true })
  .map((d) => d.toISOString().slice(0, 10));

describe('days of a calendar', () => {
  it('add up, also over days that a zone skipped or had twice', () => {
    fc.assert(
      fc.property(day, fc.integer({ min: -20000, max: 20000 }), (a, n) => {
        const b = addDays(a, n);
        expect(isDay(b)).toBeTrue();
        expect(daysBetween(a, b)).toBe(n);
        expect(addDays(b, -n)).toBe(a);
      }),
    );
    // Samoa has no 30 December 2011; the calendar has.
    expect(addDays('2011-12-29', 1)).toBe('2011-12-30');
    expect(daysBetween('2011-12-29', '2011-12-31')).toBe(2);
  });

  it('months stay inside their month, and are counted as the most that do not pass', () => {
    fc.assert(
      fc.property(day, fc.integer({ min: 0, max: 500 }), (a, n) => {
        const b = plusMonths(a, n);
        expect(isDay(b)).toBeTrue();
        expect(monthsBetween(a, b)).toBe(n);
        expect(plusMonths(a, monthsBetween(a, addDays(b, 13))) <= addDays(b, 13)).toBeTrue();
      }),
    );
    expect(plusMonths('2026-01-31', 1)).toBe('2026-02-28');
    expect(plusMonths('2024-02-29', -12)).toBe('2023-02-28');
    expect(monthsBetween('2026-03-01', '2026-01-15')).toBe(-1);
  });

  it('an instant is the day that it is where the user sits', () => {
    const t = new Date(2026, 2, 1, 0, 5);
    expect(dayOf(t.toISOString())).toBe('2026-03-01');
  });

  it('a month alone is known as one, and shown as one', () => {
    for (const text of ['Mar 2026', 'march 26', '3/2026', '03.2026', '2026-03']) {
      expect(isMonthOnly(text)).withContext(text).toBeTrue();
      const read = parseDay(text, 'dmy', '2026-05-01');
      expect(read.ok && read.value)
        .withContext(text)
        .toBe('2026-03-01');
    }
    for (const text of ['12 Mar 2026', '2026-03-12', '12.3.2026', 'today'])
      expect(isMonthOnly(text)).withContext(text).toBeFalse();
    expect(formatMonth('2026-03-01')).toBe('Mar 2026');
  });
});
