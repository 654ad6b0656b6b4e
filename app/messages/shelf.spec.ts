import type { ShelfStanding } from '@core/shelf/standing';
import { besideWords, cameInWords, faultWords, standingLine, standingSentence } from './shelf';

const STANDINGS: readonly ShelfStanding[] = [
  { is: 'together' },
  { is: 'away', detail: '' },
  { is: 'asleep' },
  { is: 'shut_out' },
  { is: 'refused', detail: 'log 3' },
];

describe('words about the shelf', () => {
  it('say each standing otherwise, and nothing where there is no shelf', () => {
    expect(standingLine({ is: 'none' }, 3)).toBe('');
    expect(new Set(STANDINGS.map((s) => standingLine(s, 0))).size).toBe(STANDINGS.length);
    expect(new Set(STANDINGS.map((s) => standingSentence(s))).size).toBe(STANDINGS.length);
  });

  it('count what is still to go, where something is', () => {
    expect(standingLine({ is: 'away', detail: '' }, 1)).toContain('1 fact ');
    expect(standingLine({ is: 'away', detail: '' }, 2)).toContain('2 facts');
    expect(standingLine({ is: 'together' }, 0)).not.toMatch(/\d/);
  });

  it('name each desk once, and say nothing of nobody', () => {
    const at = (desk: string, name: string) => ({ desk, name, case: 'c' });
    expect(besideWords([])).toBe('');
    expect(besideWords([at('1', 'Bench'), at('2', 'Bench')]).match(/Bench/g)?.length).toBe(1);
    expect(cameInWords(2, ['Mara', 'Odo'])).toMatch(/2 .*Mara.*Odo/);
  });

  it('name the place of a line that cannot be read', () => {
    const fault = { path: 'logs/a/00000001.jsonl', line: 7, why: { code: 'no_json' } } as const;
    expect(faultWords([])).toBe('');
    expect(faultWords([fault])).toMatch(/00000001\.jsonl.*7/);
  });
});
