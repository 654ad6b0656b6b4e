import { reduce } from '@core/facts/state';
import { nth } from '@core/quantity/must';
import { demoPack } from '../../demo/catalogue';
import { driveGeometry } from './drive-answer';
import { answers, caseOf, cat, plus } from './demo-case.fixture';
import { stagesFor } from '@core/catalogue/find-records';
import { foundOnDrive, standingDrive } from './found-on-drive';

const found = (facts: ReturnType<typeof caseOf>) => {
  const x = foundOnDrive(answers(facts), reduce(facts));
  if (!x) throw new Error('no drive');
  return x;
};
const roles = (x: ReturnType<typeof found>) =>
  x.spots.map((s) => (s.at === 'strand' ? 'strand' : nth(x.drive.layout.wheels, s.at).role));

describe('findings on the drive', () => {
  it('stand at the wheel or strand of the part that they were seen on, none twice and none left out', () => {
    for (const tag of ['2027', '2033', '2036']) {
      const facts = caseOf(tag);
      const x = found(facts);
      const told = [...x.spots.flatMap((s) => s.abnormal), ...x.elsewhere];
      const { abnormal } = answers(facts).ranking;
      expect(told.length).withContext(tag).toBe(abnormal.length);
      expect(new Set(told)).toEqual(new Set(abnormal));
    }
  });

  it('move with what is filed: a belt on its strand, a tensioner on its wheel, what is of no part elsewhere', () => {
    const belt = found(plus(caseOf('2027'), 'belt.back', 'glazed'));
    expect(roles(belt)).toContain('strand');
    const strand = belt.spots.find((s) => s.at === 'strand');
    // Off every wheel: halfway along the longest strand.
    for (const c of belt.drive.circles)
      expect(Math.hypot(c.x - (strand?.x ?? 0), c.y - (strand?.y ?? 0))).toBeGreaterThan(c.r);
    const before = found(caseOf('2036')).spots.find((s) => s.at !== 'strand')?.abnormal.length ?? 0;
    const after = found(plus(caseOf('2036'), 'tensioner.tip', 'mushroom'));
    expect(roles(after)).toContain('tensioner');
    expect(after.spots.some((s) => s.at !== 'strand' && s.abnormal.length > before)).toBe(true);
    // A shoe is marked on its surface, which lies at its radius from the middle of its arc.
    const shoe = after.spots.find((p) => p.at !== 'strand' && after.drive.circles[p.at]?.arc);
    const c = after.drive.circles[shoe?.at as number];
    expect(Math.hypot((c?.x ?? 0) - (shoe?.x ?? 0), (c?.y ?? 0) - (shoe?.y ?? 0))).toBeCloseTo(c?.r ?? 0, 9);
    expect(found(caseOf('2036')).elsewhere.map((f) => f.finding)).toContain('symptom');
  });

  it('are drawn on any drive of the catalogue, with a tensioner or without', () => {
    for (const l of demoPack().layouts.filter((x) => x.follows === undefined)) {
      const g = driveGeometry(stagesFor(cat, l.id));
      expect(g && standingDrive(g))
        .withContext(l.id)
        .toBeDefined();
    }
    const free = { ...nth(demoPack().layouts, 0) };
    const wheels = free.wheels.map((w) => ({ ...w, carrier: undefined }));
    expect(standingDrive({ layout: { ...free, wheels } })?.path.spans.length).toBe(wheels.length);
  });
});
