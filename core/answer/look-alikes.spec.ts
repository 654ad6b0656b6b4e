import * as fc from 'fast-check';
import { CAUSES } from '@core/cause/cause-data';
import type { CaseSummary } from './case-summary';
import { lookAlikes } from './look-alikes';

const head = (id: string, signs: readonly string[], decided?: string): CaseSummary => ({
  id,
  tag: id,
  engine: 'TE16-CORM',
  who: '',
  kind: 'return',
  waits: 'sealed',
  opened: `2026-01-${id.padStart(2, '0')}T08:00:00.000Z`,
  touched: '',
  text: '',
  world: '',
  ...(decided === undefined ? {} : { settled: { decided, signs: [...signs] } }),
});
const grades = CAUSES.findings.flatMap((f) => Object.keys(f.off).map((g) => `${f.finding}=${g}`));
const sound = CAUSES.findings.map((f) => f.finding);
const signs = fc.uniqueArray(fc.constantFrom(...grades, ...sound), { maxLength: 12 });
const like = (summaries: CaseSummary[], mine: readonly string[]) =>
  lookAlikes(CAUSES, summaries, { id: 'mine', signs: mine }, 10);

describe('settled cases that look alike', () => {
  it('are as near one way as the other, nearest where they show the very same, and share only what both show', () => {
    fc.assert(
      fc.property(signs, signs, (a, b) => {
        const there = like([head('1', b, 'set_hot')], a)[0];
        const back = like([head('1', a, 'set_hot')], b)[0];
        expect(there?.bits).toBe(back?.bits);
        const same = like([head('1', a, 'set_hot')], a)[0];
        if (there) {
          expect(same!.bits).toBeGreaterThanOrEqual(there.bits);
          for (const s of there.shares) expect(a.includes(s) && b.includes(s)).toBeTrue();
          expect(there.shares.length).toBeGreaterThan(0);
        }
        expect(same?.differs ?? []).toEqual([]);
        expect(same === undefined).toBe(!a.some((s) => s.includes('=')));
      }),
    );
  });

  it('count the rare for more, what differs against, and nothing that only one was looked at for', () => {
    const spec = (f: string) => CAUSES.findings.find((x) => x.finding === f)!;
    const [first, second] = ['belt.edge_front', 'belt.back'].map(
      (f) => `${f}=${Object.keys(spec(f).off)[0]}`,
    );
    const alone = like([head('1', [first!], 'set_hot')], [first!])[0]!;
    expect(alone.bits).toBeCloseTo(-Math.log2(Object.values(spec('belt.edge_front').off)[0]!), 9);
    const [both, one, other] = like(
      [
        head('1', [first!], 'set_hot'),
        head('2', [first!, second!], 'bolt_loose'),
        head('3', [first!, 'belt.back'], 'misaligned'),
        head('4', [first!, second!]),
      ],
      [first!, second!],
    ).map((x) => x.summary.id);
    expect([both, one, other]).toEqual(['2', '1', '3']);
  });

  it('are none by what is noticed alone', () => {
    expect(like([head('1', ['symptom=noise'], 'set_hot')], ['symptom=noise'])).toEqual([]);
  });
});
