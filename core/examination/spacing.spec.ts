import { damageSpacing, type SpacedWheel, tornRuns } from './spacing';

/** A generator of the tests' own, so that nothing is checked with what is tested. */
function lcg(seed: number): () => number {
  let s = seed;
  return () => (s = (s * 1103515245 + 12345) % 2147483648) / 2147483648;
}
const wheels: SpacedWheel[] = [20, 22, 36, 40, 41, 44, 47, 52].map((teeth) => ({
  id: `w${teeth}`,
  name: `W${teeth}`,
  teeth,
}));
const scattered = (random: () => number, n: number, belt: number): number[] => {
  const out = new Set<number>();
  while (out.size < n) out.add(1 + Math.floor(random() * belt));
  return [...out];
};

describe('marks on a belt', () => {
  it('name no wheel on a thousand belts whose marks are scattered, but for one in twenty', () => {
    const random = lcg(7);
    let named = 0;
    for (let k = 0; k < 1000; k++) {
      const marks = scattered(random, 4 + (k % 9), 113 + (k % 40));
      if (damageSpacing(marks, 113 + (k % 40), wheels).verdict === 'wheel') named++;
    }
    expect(named).toBeLessThanOrEqual(50);
  });

  it('name the wheel that made six of them, in one lap or the next ones, in nineteen of twenty', () => {
    const random = lcg(11);
    let [right, tried] = [0, 0];
    for (const belt of [117, 121, 127, 137, 211])
      for (const w of wheels)
        for (let k = 0; k < 6; k++) {
          const start = 1 + Math.floor(random() * w.teeth);
          // six of the belt teeth that one tooth of the wheel meets on its first two ways round
          const met = Array.from(
            { length: Math.floor((2 * belt) / w.teeth) },
            (_, i) => ((start - 1 + i * w.teeth) % belt) + 1,
          );
          const six = [...new Set(met)].slice(0, 6);
          if (six.length < 6) continue;
          tried++;
          const a = damageSpacing(six, belt, wheels);
          if (a.verdict !== 'wheel' || (a.wheel !== w.id && !a.alike.includes(w.id))) continue;
          right++;
          // Where it says that the wheel meets the belt, the marks are.
          expect(six.filter((p) => a.met.includes(p)).length).toBe(a.hits);
        }
    expect(tried).toBeGreaterThan(100);
    expect(right / tried).toBeGreaterThanOrEqual(0.95);
  });

  it('cannot tell a wheel from one with a multiple of its teeth, and say so', () => {
    const a = damageSpacing([3, 43, 83, 123, 163, 203], 211, [
      { id: 'crank', name: 'Crank', teeth: 20 },
      { id: 'cam', name: 'Cam', teeth: 40 },
      { id: 'pump', name: 'Pump', teeth: 23 },
    ]);
    if (a.verdict !== 'wheel') return fail(a.verdict);
    expect([a.wheel, ...a.alike].sort()).toEqual(['cam', 'crank']);
    // every twentieth tooth is the crank's alone: the cam would need two faults
    const b = damageSpacing([3, 23, 43, 63, 83, 103], 211, [
      { id: 'crank', name: 'Crank', teeth: 20 },
      { id: 'cam', name: 'Cam', teeth: 40 },
    ]);
    expect(b).toEqual(
      jasmine.objectContaining({ verdict: 'wheel', wheel: 'crank', alike: [], hits: 6, laps: 1 }),
    );
  });

  it('are the same whichever comes first, and wherever the count began', () => {
    const marks = [5, 41, 77, 113, 28, 64];
    const a = damageSpacing(marks, 121, wheels);
    expect(damageSpacing([...marks].reverse(), 121, wheels)).toEqual(
      jasmine.objectContaining({ verdict: a.verdict, marks: 6 }),
    );
    expect(damageSpacing([1, 2, 3], 121, wheels)).toEqual({ verdict: 'too_few', marks: 3, least: 4 });
    // a tooth beyond the belt is none
    expect(damageSpacing([1, 2, 3, 130], 121, wheels).verdict).toBe('too_few');
  });
});

describe('torn runs', () => {
  it('are found over the joint and held against the arcs of contact', () => {
    const mesh = new Map([
      ['crank', 9.2],
      ['cam', 21],
    ]);
    expect(tornRuns([118, 119, 120, 121, 1, 2, 3, 4, 5], 121, mesh)).toEqual([
      { from: 118, teeth: 9, wheels: ['crank'] },
    ]);
    expect(tornRuns([10, 11, 40, 41, 42], 121, mesh)).toEqual([{ from: 40, teeth: 3, wheels: [] }]);
    expect(tornRuns([], 121, mesh)).toEqual([]);
    const all = Array.from({ length: 121 }, (_, i) => i + 1);
    expect(tornRuns(all, 121, mesh)[0]!.teeth).toBe(121);
  });
});
