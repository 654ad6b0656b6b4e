import { stagesOf } from '@core/drive/stages';
import { driveTeeth } from '@core/trace/drive-teeth';
import { traceVerdict } from '@core/trace/verdict';
import { demoPack } from '../../demo/catalogue';
import { arithmeticWords, cursorWords, movedWords, togetherWords, traceVerdictWords } from './trace';
import { speedWords } from './capture';

const pack = demoPack();
const drives = pack.variants.flatMap((v) => {
  const stages = v.layout === undefined ? undefined : stagesOf(pack.layouts, v.layout);
  const teeth = stages?.ok ? driveTeeth(stages.value.map((s) => s.layout)) : undefined;
  return stages?.ok && teeth ? [{ v, stages: stages.value, teeth }] : [];
});
const shiftOf = (deg: number) => ({ deg, low: deg - 0.3, high: deg + 0.3, moving: false });
const numbers = (text: string) => [...text.matchAll(/[\d.]+/g)].map((m) => Number(m[0]));

describe('what a capture says of a drive', () => {
  it('counts in teeth on a belt and in links on a chain, stage by stage, on every drive of the catalogue', () => {
    for (const { v, stages, teeth } of drives) {
      const crankStage = stages.find((s) => s.layout.wheels.some((w) => w.role === 'crank'))!;
      expect(teeth.unit)
        .withContext(v.id)
        .toBe(crankStage.layout.kind === 'chain' ? 'link' : 'tooth');
      for (const cam of teeth.cams) {
        const wheels = { sensorSlots: 60, zCrank: teeth.zCrank, zCam: cam.teeth };
        const units = { crank: teeth.unit, cam: cam.unit };
        const other = { tooth: /\blinks?\b/, link: /\b(?:tooth|teeth)\b/ } as const;
        for (const deg of [360 / teeth.zCrank, -720 / teeth.zCrank, 144 / teeth.zCrank]) {
          const said = traceVerdict(shiftOf(deg), wheels, 3);
          const texts = [traceVerdictWords(said, units), movedWords(said, units)];
          if (units.crank === units.cam)
            for (const t of texts) expect(t).withContext(v.id).not.toMatch(other[units.cam]);
          expect(texts[0]).toMatch(deg > 0 ? /\blate\b/ : /\bearly\b/);
          expect(texts[1]).toMatch(deg > 0 ? /\blater\b/ : /\bearlier\b/);
        }
      }
    }
  });

  it('shows arithmetic that is right: each line can be worked out again from the numbers that stand in it', () => {
    const wheels = { sensorSlots: 36, zCrank: 22, zCam: 44 };
    const shift = { ...shiftOf(17.37), edges: [], aligned: 0, reversed: false };
    const lines = arithmeticWords(traceVerdict(shift, wheels, 3), wheels, shift, {
      crank: 'link',
      cam: 'link',
    });
    const [of, by, cam] = numbers(lines[1]!) as [number, number, number];
    expect(of / by).toBeCloseTo(cam, 1);
    for (const line of lines.slice(2)) {
      const [deg, turn, teeth, result] = numbers(line) as [number, number, number, number];
      expect(deg / (turn / teeth)).toBeCloseTo(result, 1);
    }
  });

  it('lays it at the crank or at the cams that are out, by their names', () => {
    const names = ['Left cam', 'Right cam', 'Third cam'];
    const crank = togetherWords({ together: 'crank', teeth: -2 }, names, 'link')!;
    expect(crank).toMatch(/2 links early/);
    expect(names.some((n) => crank.includes(n))).toBeFalse();
    const apart = togetherWords({ together: 'apart', cams: [0, 2] }, names, 'tooth')!;
    expect(names.map((n) => apart.includes(n))).toEqual([true, false, true]);
    expect(togetherWords({ together: 'open' }, names, 'tooth')).toBeUndefined();
  });

  it('tells the cursor’s way from the mark in degrees and in teeth of the drive, and a steady speed once', () => {
    const [at, off, teeth] = numbers(cursorWords(118.5, 82.5, 20, 'tooth')) as [number, number, number];
    expect([at, off, teeth]).toEqual([118.5, 36, 2]);
    expect(cursorWords(82.5, 118.5, 20, 'tooth')).not.toBe(cursorWords(118.5, 82.5, 20, 'tooth'));
    expect(numbers(cursorWords(10, undefined, 20, 'tooth'))).toEqual([10]);
    expect(numbers(speedWords([200.2, 199.9, 200.3].map((rpm, s) => ({ s, rpm })))!)).toEqual([200, 1]);
    expect(numbers(speedWords([180, 240].map((rpm, s) => ({ s, rpm })))!)).toEqual([180, 240, 1]);
    expect(speedWords([])).toBeUndefined();
  });
});
