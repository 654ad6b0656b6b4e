import { CAUSES } from '@core/cause/cause-data';
import { catalogueOf } from '@core/catalogue/find-records';
import { SHIPPED_POLICY } from '@core/policy/policy';
import { demoPack } from '../../demo/catalogue';
import { drawVirtual } from './draw-return';
import { drivesOf, kindsOfDrive } from './drives';
import { scoreDesk } from './score';
import { TRUTHS } from './truths';

const drives = drivesOf(CAUSES, kindsOfDrive(catalogueOf(demoPack())));
const at = (complete: number, returns = 300) =>
  scoreDesk(drives, SHIPPED_POLICY, { returns, complete, seed: 7 });

describe('truths that returns are drawn from', () => {
  it('speak of causes, findings and grades that there are, and of every family', () => {
    const causes = new Map(CAUSES.causes.map((c) => [c.key, c]));
    const findings = new Map(CAUSES.findings.map((f) => [f.finding, new Set(Object.keys(f.off))]));
    const symptoms = new Set(Object.values(CAUSES.symptoms).flatMap((s) => Object.keys(s)));
    for (const t of TRUTHS) {
      expect(causes.has(t.cause)).withContext(t.cause).toBeTrue();
      for (const [f, grades] of Object.entries(t.shows)) {
        for (const g of Object.keys(grades))
          expect(findings.get(f)?.has(g)).withContext(`${t.cause} ${f} ${g}`).toBeTrue();
        expect(Object.values(grades).reduce((s, p) => s + p, 0))
          .withContext(`${t.cause} ${f}`)
          .toBeLessThan(1);
      }
      for (const s of Object.keys(t.noticed))
        expect(symptoms.has(s)).withContext(`${t.cause} ${s}`).toBeTrue();
    }
    expect(new Set(TRUTHS.map((t) => causes.get(t.cause)!.family))).toEqual(
      new Set(CAUSES.causes.map((c) => c.family)),
    );
    expect(new Set(TRUTHS.map((t) => t.cause)).size).toBe(TRUTHS.length);
  });
});

describe('a virtual return', () => {
  it('is the same for the same seed, of a cause its drive can have, with as many looks as are made', () => {
    let [whole, half, visible] = [0, 0, 0];
    for (let seed = 1; seed <= 200; seed++) {
      const r = drawVirtual(drives, seed, 1);
      expect(drawVirtual(drives, seed, 1)).toEqual(r);
      const data = drives.find((d) => d.id === r.drive)!.data;
      expect(data.causes.some((c) => c.key === r.truth.cause)).toBeTrue();
      whole += r.findings.length;
      half += drawVirtual(drives, seed, 0.5).findings.length;
      if (r.visible) visible++;
    }
    expect(half / whole).toBeGreaterThan(0.45);
    expect(half / whole).toBeLessThan(0.6);
    // most causes show on a box that is whole
    expect(visible).toBeGreaterThan(120);
  });
});

describe('the score of a desk', () => {
  const whole = at(1);

  it('counts every return once, and what was stated as often as it was judged', () => {
    expect(whole.decidable + whole.hidden).toBe(whole.returns);
    expect(whole.stated.reduce((s, b) => s + b.n, 0)).toBe(whole.decidable);
    expect(whole.stated.reduce((s, b) => s + b.right, 0)).toBe(whole.right);
    expect(Object.values(whole.families).reduce((s, f) => s + f.n, 0)).toBe(whole.decidable);
    expect(Object.values(whole.families).reduce((s, f) => s + f.right, 0)).toBe(whole.right);
    for (const [i, b] of whole.stated.entries())
      if (b.n > 0) {
        expect(b.mean).toBeGreaterThanOrEqual(i / 10);
        expect(b.mean).toBeLessThanOrEqual((i + 1) / 10);
      }
  });

  it('beats guessing by how common causes are, many times over, and falls with what is known', () => {
    const blind = at(0);
    // nothing is looked at: only the symptom and the distance are told
    expect(blind.decidable).toBeLessThan(60);
    expect(whole.right / whole.decidable).toBeGreaterThan(0.5);
    const turned = drives.map((d) => ({
      ...d,
      data: {
        ...d.data,
        causes: d.data.causes.map((c, i, all) => ({ ...c, works: all[(i + 1) % all.length]!.works })),
      },
    }));
    const wrong = scoreDesk(turned, SHIPPED_POLICY, { returns: 300, complete: 1, seed: 7 });
    expect(wrong.right / wrong.decidable).toBeLessThan(0.25);
    expect(wrong.brier).toBeGreaterThan(whole.brier);
  });
});
