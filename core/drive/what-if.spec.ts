import { demoPack } from '../../demo/catalogue';
import { readingAt } from './carrier';
import { type Layout, nominalLength, tensionerIndex } from './layout';
import { atCarrier, growCentres, moveBanks } from './move';
import { circlesOf } from './path';
import { strandKinds, teethInMesh } from './strands';
import { AS_MADE, type DriveState, driveState, type WhatIf } from './what-if';

const layouts = demoPack().layouts;
const belt = layouts.find((l) => l.id === 'corm-121')!;
const opposed = layouts.find((l) => l.id === 'fletcher-a')!;
const chain = layouts.find((l) => l.id === 'stoat-a')!;
const state = (l: Layout, w: Partial<WhatIf> = {}): DriveState => {
  const s = driveState(l, { ...AS_MADE, ...w });
  if (!s.ok) throw new Error(JSON.stringify(s.error));
  return s.value;
};

describe('a drive in a state', () => {
  it('as made has no slack, and the marks that the layout predicts', () => {
    for (const l of layouts) {
      const s = state(l);
      expect(Math.abs(s.slackMm)).withContext(l.id).toBeLessThan(0.05);
      expect(s.phases.every((p) => Math.abs(p.teeth) <= 0.5 + 1e-9))
        .withContext(l.id)
        .toBeTrue();
    }
  });

  it('held short of its setting hangs slack by just what the path is shorter', () => {
    const s = state(belt, { heldAt: 60 });
    expect(s.slackMm).toBeGreaterThan(0);
    expect(s.slackMm).toBeCloseTo(nominalLength(belt) - s.path.lengthMm, 12);
    // by the other way: at the reading of the found setting there is none
    const free = state(belt);
    expect(state(belt, { heldAt: free.setting!.reading }).slackMm).toBeCloseTo(0, 8);
  });

  it('the wrong way round is the other setting, with the same marks', () => {
    const right = state(belt);
    const wrong = state(belt, { wrongWay: true });
    expect(wrong.setting!.reading).toBeLessThan(0);
    expect(wrong.path.lengthMm).toBeCloseTo(right.path.lengthMm, 8);
    // the tensioner lies on the slack side: no setting of it moves a mark
    wrong.phases.forEach((p, i) => expect(p.teeth).toBeCloseTo(right.phases[i]!.teeth, 9));
  });

  it('shows a jumped wheel a whole tooth on, and no other', () => {
    const made = state(opposed);
    const jumped = state(opposed, { jumped: { 'right-upper': -1 } });
    for (const [i, p] of jumped.phases.entries()) {
      const moved = opposed.wheels[p.wheel]!.id === 'right-upper' ? -1 : 0;
      expect(p.teeth - made.phases[i]!.teeth).toBeCloseTo(moved, 12);
    }
  });

  it('that cannot be says why instead of drawing something', () => {
    const s = driveState(chain, { ...AS_MADE, elongation: 0.02 });
    expect(s.ok ? '' : s.error.code).toBe('belt_too_long');
    const crushed = driveState(opposed, { ...AS_MADE, nearerMm: { left: 150, right: 150 } });
    expect(crushed.ok).toBeFalse();
  });

  it('takes heat, heads and idlers together as one after the other', () => {
    const w = { temperatureC: 80, nearerMm: { left: 0.3, right: 0.2 }, idlers: { 'idler-left': 100 } };
    const hand = atCarrier(
      growCentres(moveBanks(opposed, w.nearerMm), 1 + opposed.heat!.perKelvin * 60),
      7,
      // readings of idlers are counted where the grown pivot stands
      opposed.wheels[7]!.carrier!.startDeg + 100,
    );
    expect(state(opposed, w).path.lengthMm).toBeCloseTo(state(hand).path.lengthMm, 9);
  });
});

describe('moving parts', () => {
  it('keeps arms as long as they are, and plungers at their reading', () => {
    const grown = growCentres(chain, 1.001);
    const i = tensionerIndex(chain);
    const [a, b] = [chain.wheels[i]!, grown.wheels[i]!];
    expect(b.carrier!.arm).toBe(a.carrier!.arm);
    const off = (w: typeof a) => Math.hypot(w.x - w.carrier!.pivot.x, w.y - w.carrier!.pivot.y);
    expect(off(b)).toBeCloseTo(off(a), 9);
    const [from, to] = [chain, grown].map((l) => {
      const w = l.wheels[i]!;
      const deg = (Math.atan2(w.y - w.carrier!.pivot.y, w.x - w.carrier!.pivot.x) * 180) / Math.PI;
      return readingAt(w.carrier!, deg);
    });
    expect(to!).toBeCloseTo(from!, 1);
  });

  it('turns a carried shoe with its arm', () => {
    const i = tensionerIndex(chain);
    const w = chain.wheels[i]!;
    const at = (Math.atan2(w.y - w.carrier!.pivot.y, w.x - w.carrier!.pivot.x) * 180) / Math.PI;
    const moved = atCarrier(chain, i, at + 4);
    expect(moved.wheels[i]!.arc!.fromDeg - w.arc!.fromDeg).toBeCloseTo(4, 9);
    const [stored] = circlesOf(moved).slice(i, i + 1);
    const [asked] = circlesOf(chain, [{ wheel: i, carrierDeg: at + 4 }]).slice(i, i + 1);
    expect(stored!.x).toBeCloseTo(asked!.x, 9);
    expect(stored!.arc![0]).toBeCloseTo(asked!.arc![0], 9);
  });

  it('leaves a bank that is not named where it is', () => {
    const moved = moveBanks(opposed, { left: 1 });
    opposed.wheels.forEach((w, i) => {
      const by = w.bank === 'left' ? 1 : 0;
      expect(moved.wheels[i]!.x - w.x)
        .withContext(w.id)
        .toBeCloseTo(by, 12);
    });
  });
});

describe('strands', () => {
  it('are slack from the driver to the first driven wheel and tight back to it', () => {
    expect(strandKinds(belt)).toEqual(['slack', 'slack', 'slack', 'tight', 'tight']);
    expect(strandKinds(opposed)).toEqual([
      'slack',
      'slack',
      'between',
      'between',
      'between',
      'between',
      'tight',
      'tight',
    ]);
    // the tensioner of every demo drive lies on a slack strand
    for (const l of layouts.filter((x) => tensionerIndex(x) > 0)) {
      const kinds = strandKinds(l);
      expect([kinds[tensionerIndex(l) - 1], kinds[tensionerIndex(l)]])
        .withContext(l.id)
        .toEqual(['slack', 'slack']);
    }
    expect(teethInMesh(40, Math.PI)).toBe(20);
  });
});
