import type { OffsetVerdict } from '@core/drive/judge-offset';
import type { ExaminationContext } from './context';
import { bankPattern, marksVerdict } from './mark-findings';
import type { MarkAnswer, SureVerdict } from './marks';

type Read = { bank?: string; off: number; chances: Partial<Record<SureVerdict, number>> };
/** Marks as they were read, each with how likely each verdict is; the likeliest is the verdict, unless none is sure. */
const marks = (of: number, ...read: Read[]): ExaminationContext =>
  ({
    marks: {
      of,
      marks: read.map(({ bank, off, chances }, k) => {
        const [most] = Object.entries(chances).sort((a, b) => b[1] - a[1]);
        const verdict = most![1] > 0.95 ? most![0] : 'cannot_tell';
        return {
          ...(bank === undefined ? {} : { bank }),
          chances,
          verdict: { verdict, offTeeth: off } as unknown as OffsetVerdict,
          facts: [{ id: `m${k}` }],
        } as unknown as MarkAnswer;
      }),
    },
  }) as unknown as ExaminationContext;
const right = (bank?: string): Read => ({ ...(bank ? { bank } : {}), off: 0, chances: { as_predicted: 1 } });
const off = (by: number, bank?: string): Read => ({
  ...(bank ? { bank } : {}),
  off: by,
  chances: { fraction: 1 },
});
const gradesOf = (c: ExaminationContext) => {
  const value = marksVerdict(c)[0]?.value;
  return typeof value === 'object' && 'grades' in value ? value.grades : value;
};

describe('marks as a finding', () => {
  it('show the worst of them, by the chances of each: as independent readings', () => {
    expect(gradesOf(marks(2, right(), right()))).toBe('as_predicted');
    expect(gradesOf(marks(2, right(), { off: 1, chances: { teeth_out: 1 } }))).toBe('teeth_out');
    const half = { off: 0.25, chances: { as_predicted: 0.5, fraction: 0.5 } };
    // by hand: both right a quarter, else a fraction
    expect(gradesOf(marks(2, half, half))).toEqual({ as_predicted: 0.25, fraction: 0.75 });
    const worse = { off: 0.9, chances: { fraction: 0.4, teeth_out: 0.6 } };
    // the second alone decides: teeth out in six of ten
    expect(gradesOf(marks(2, half, worse))).toEqual({ teeth_out: 0.6, fraction: 0.4 });
  });

  it('leave open what those show that were not looked at', () => {
    const one = gradesOf(marks(4, right())) as Record<string, number>;
    expect(one['as_predicted']).toBe(1);
    for (const wrong of ['fraction', 'teeth_out', 'teeth_and_rest']) expect(one[wrong]).toBeCloseTo(0.75, 12);
    expect(marksVerdict({} as ExaminationContext)).toEqual([]);
  });

  it('lie all alike, on one bank, or alone beside a right one; a single one says nothing', () => {
    const of = (...read: Read[]) => bankPattern(marks(4, ...read))[0]?.value;
    expect(of(right('l'), right('l'), right('r'))).toBe('none');
    expect(of(off(0.6, 'l'), off(0.62, 'l'), right('r'), right('r'))).toBe('bank');
    expect(of(off(0.6, 'l'), right('l'), right('r'))).toBe('alone');
    expect(of(off(0.6, 'l'), off(0.5, 'r'))).toBe('all');
    expect(of(off(0.6, 'l'), off(-0.5, 'l'), right('r'))).toBeUndefined();
    expect(of(off(0.6, 'l'))).toBeUndefined();
    expect(of(off(0.6, 'l'), right('r'))).toBeUndefined();
  });
});
