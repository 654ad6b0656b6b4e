import type { DamageMap } from '@core/examination/damage-map';
import { damageWords } from './damage';

const base: Omit<DamageMap, 'spacing' | 'runs'> = {
  about: '',
  kind: 'belt',
  count: 121,
  wheels: [
    { id: 'crank', name: 'Crank sprocket', teeth: 20 },
    { id: 'cam', name: 'Cam sprocket', teeth: 40 },
  ],
  facts: [],
};

describe('sentences about damage', () => {
  it('name the wheel, those that it cannot be told from, and runs with what holds as many', () => {
    const said = damageWords({
      ...base,
      spacing: {
        verdict: 'wheel',
        met: [],
        wheel: 'cam',
        alike: ['crank'],
        p: 0.012,
        marks: 7,
        hits: 6,
        laps: 2,
      },
      runs: [
        { from: 118, teeth: 9, wheels: ['crank'] },
        { from: 40, teeth: 5, wheels: [] },
      ],
    });
    expect(said.length).toBe(4);
    expect(said[0]).toContain('6 of 7 marks repeat with the 40 teeth of the cam sprocket, in 2 laps');
    expect(said[0]).toContain('12 of 1,000');
    expect(said[1]).toContain('cannot be told from the crank sprocket');
    expect(said[2]).toContain('9 torn in a row from 118');
    expect(said[3]).toContain('no wheel');
  });

  it('judge nothing of a few marks, and say so of scattered ones', () => {
    expect(
      damageWords({ ...base, spacing: { verdict: 'too_few', marks: 1, least: 4 }, runs: [] })[0],
    ).toContain('1 mark: too few');
    expect(damageWords({ ...base, spacing: { verdict: 'none', p: 0.4, marks: 5 }, runs: [] })[0]).toContain(
      'no wheel of this drive',
    );
  });
});
