import { randomFrom } from '@core/quantity/random';
import { togetherOf, traceVerdict, type TraceVerdict } from './verdict';

const TOLERANCE = 2;
const of = (deg: number, half: number, zCrank: number, zCam: number): TraceVerdict =>
  traceVerdict(
    { deg, low: deg - half, high: deg + half, moving: false },
    { sensorSlots: 60, zCrank, zCam },
    TOLERANCE,
  );
const whole = (v: TraceVerdict) => (v.verdict === 'whole' ? v.at : v.verdict);

describe('whole teeth of a drive', () => {
  it('are told apart by the wheel where the stages have different pitches, and said of both where they have one', () => {
    expect(whole(of(18, 0.3, 20, 40))).toEqual([
      { wheel: 'crank', teeth: 1 },
      { wheel: 'cam', teeth: 1 },
    ]);
    // a second stage of 30 teeth at the cam: one of them is 24 degrees of the crank, one at the crank 18
    expect(whole(of(24, 0.3, 20, 30))).toEqual([{ wheel: 'cam', teeth: 1 }]);
    expect(whole(of(-18, 0.3, 20, 30))).toEqual([{ wheel: 'crank', teeth: -1 }]);
    expect(whole(of(72, 0.3, 20, 30))).toEqual(
      jasmine.arrayWithExactContents([
        { wheel: 'crank', teeth: 4 },
        { wheel: 'cam', teeth: 3 },
      ]),
    );
    // too near each other to be told apart: both are said
    expect(whole(of(17.6, 0.3, 20, 41))).toEqual([
      { wheel: 'crank', teeth: 1 },
      { wheel: 'cam', teeth: 1 },
    ]);
    expect(whole(of(21, 0.3, 20, 30))).toBe('fraction');
    expect(whole(of(21, 3, 20, 30))).toBe('cannot_tell');
  });

  it('hold the truth among them for any two wheels, and no claim is made that an interval does not carry', () => {
    const random = randomFrom(11);
    let claims = 0;
    for (let k = 0; k < 2000; k++) {
      const [zCrank, zCam] = [16 + Math.floor(20 * random()), 28 + Math.floor(40 * random())];
      const atCrank = random() < 0.5;
      const teeth = Math.floor(7 * random()) - 3;
      const truth = teeth * (atCrank ? 360 / zCrank : 720 / zCam);
      const half = 3 * random();
      const v = of(truth + half * (2 * random() - 1), half, zCrank, zCam);
      if (v.verdict === 'fraction') fail(`${truth} of ${zCrank} and ${zCam} is whole`);
      if (v.verdict === 'in_tolerance') expect(Math.abs(truth)).toBeLessThanOrEqual(TOLERANCE);
      if (v.verdict !== 'whole') continue;
      claims++;
      expect(v.at).toContain({ wheel: atCrank ? 'crank' : 'cam', teeth });
    }
    expect(claims).toBeGreaterThan(500);
  });
});

describe('cams together', () => {
  const [good, crank, cam, open] = [
    of(0, 0.3, 20, 40),
    of(18, 0.3, 20, 40),
    of(24, 0.3, 20, 30),
    of(9, 9, 20, 40),
  ];
  it('lay it at the crank when all are out alike, at a cam when only that one is, and nowhere when one cannot be told', () => {
    expect(togetherOf([crank])).toBeUndefined();
    expect(togetherOf([good, good])).toEqual({ together: 'good' });
    expect(togetherOf([crank, crank, crank])).toEqual({ together: 'crank', teeth: 1 });
    expect(togetherOf([good, crank])).toEqual({ together: 'apart', cams: [1] });
    expect(togetherOf([crank, open])).toEqual({ together: 'open' });
    expect(togetherOf([good, open])).toEqual({ together: 'open' });
    expect(togetherOf([cam, cam])).toEqual({ together: 'open' });
    expect(togetherOf([crank, of(-18, 0.3, 20, 40)])).toEqual({ together: 'open' });
  });
});
