import { demoPack } from '../../demo/catalogue';
import { POLICIES } from './check-procedures';
import { expandProcedure, type PlacedStep } from './expand-procedure';
import { catalogueOf, stagesFor } from './find-records';
import type { LawCode } from './law-codes';
import { brokenLaws } from './sheet-laws';
import { orderSteps } from './step-order';

const cat = catalogueOf(demoPack());
const stagesOf = (id: string) => stagesFor(cat, cat.variants.get(id)!.layout!);
/** The steps of a design in the order in which its sheet has them. */
function stepsOf(id: string, policy = POLICIES[0]!): PlacedStep[] {
  const v = cat.variants.get(id)!;
  const { steps, gates } = expandProcedure(
    cat.procedures.get(v.procedure!)!,
    cat.procedures,
    stagesOf(id),
    policy,
  );
  return orderSteps(steps, gates)!;
}
const lawsOf = (id: string, steps: readonly PlacedStep[]): LawCode[] =>
  brokenLaws(steps, stagesOf(id)).map((b) => b.law);
const without = (steps: readonly PlacedStep[], id: string) => steps.filter((s) => s.id !== id);
/** A step done right before another one. */
function moved(steps: readonly PlacedStep[], id: string, before: string): PlacedStep[] {
  const out = without(steps, id);
  out.splice(
    out.findIndex((s) => s.id === before),
    0,
    { ...steps.find((s) => s.id === id)!, phase: out.find((s) => s.id === before)!.phase! },
  );
  return out;
}
const changed = (steps: readonly PlacedStep[], id: string, change: Partial<PlacedStep>) =>
  steps.map((s) => (s.id === id ? { ...s, ...change } : s));

describe('laws of hands and matter', () => {
  it('hold on the sheet of every design, under every answer of the house', () => {
    let [sheets, effects] = [0, 0];
    for (const id of cat.variants.keys())
      for (const policy of POLICIES) {
        const steps = stepsOf(id, policy);
        expect(brokenLaws(steps, stagesOf(id)))
          .withContext(`${id} ${JSON.stringify(policy)}`)
          .toEqual([]);
        sheets++;
        effects += steps.reduce((n, s) => n + (s.does?.length ?? 0), 0);
      }
    console.log(`laws of hands: ${sheets} sheets, ${effects} effects looked at`);
    expect(sheets).toBe(31 * POLICIES.length);
    expect(effects).toBeGreaterThan(30_000);
  });

  it('are broken by leaving out any step that changes anything, on every design', () => {
    let [planted, caught] = [0, 0];
    const missed = new Set<string>();
    for (const id of cat.variants.keys()) {
      const steps = stepsOf(id);
      for (const s of steps) {
        const changes = (s.does ?? []).some(([act]) => act !== 'looked' && act !== 'measured');
        if (!changes) continue;
        planted++;
        if (brokenLaws(without(steps, s.id), stagesOf(id)).length > 0) caught++;
        else missed.add(`${id} ${s.id}`);
      }
    }
    console.log(`laws of hands: ${caught} of ${planted} steps told when left out`);
    // Two blocks wipe the same sprocket on one design; turning once more under the covers undoes nothing.
    expect([...missed].filter((x) => !/ shut\.rub$| clean\.debris$| oil\.teeth/.test(x))).toEqual([]);
    expect(planted).toBeGreaterThan(900);
  });

  /** Each with the danger that it stands for: what is done to which sheet, and the law that names it. */
  const PLANTED: readonly [string, string, (steps: readonly PlacedStep[]) => PlacedStep[], LawCode][] = [
    ['the pin is never pulled', 'SHAW', (s) => without(s, 'release'), 'never_released'],
    [
      'a plunger is pressed that cannot be set back',
      'FLAT',
      (s) => changed(s, 'off.collapse.crank', { does: [['pinned', 'tensioner', 'pressed']] }),
      'plunger_kind',
    ],
    [
      'a screwed plunger is let go by a pin',
      'SCREW',
      (s) => changed(s, 'build.release.crank', { does: [['released', 'tensioner', 'pin']] }),
      'plunger_kind',
    ],
    ['the gearbox never goes back', 'REAR', (s) => without(s, 'shut.gearbox'), 'left_off'],
    ['the left-hand bolt is never undone', 'REAR', (s) => without(s, 'leftoff'), 'not_loosened'],
    ['the seat is cleaned under its sprocket', 'REAR', (s) => moved(s, 'seat.clean', 'seat.off'), 'hidden'],
    [
      'only the sprockets are held and then freed',
      'SLOTS',
      (s) =>
        changed(s, 'place.lock', {
          does: [
            ['locked', 'crank'],
            ['locked', 'cams', 'sprockets'],
          ],
        }),
      'shaft_free',
    ],
    [
      'the slots are looked at on a slack belt',
      'SLOTS',
      (s) => moved(s, 'slots.end', 'tension'),
      'slots_unseen',
    ],
    [
      'the key is let go before the bolt is tight',
      'SLOTS2',
      (s) => moved(s, 'slots.end', 'bolt'),
      'key_let_go',
    ],
    ['phasers are tightened that were never undone', 'V8', (s) => without(s, 'hub.free'), 'not_loosened'],
    [
      'a rear row comes off before the one in front',
      'V8',
      (s) => moved(s, 'off.off.left-intake-rear', 'off.off.crank'),
      'hidden',
    ],
    [
      'caps are undone with the crank at its mark and the cams turned',
      'CAPS',
      (s) => without(without(s, 'clear.away'), 'return.back'),
      'cam_alone',
    ],
    ['the mount never goes back', 'BELT', (s) => without(s, 'shut.mount'), 'left_off'],
    ['the support stays', 'BELT', (s) => without(s, 'shut.support'), 'tool_left'],
    [
      'the support goes before the mount is back',
      'BELT',
      (s) => moved(s, 'shut.support', 'shut.mount'),
      'unsupported',
    ],
    ['the pump is fitted and was never off', 'BELT', (s) => without(s, 'off.pump'), 'already_on'],
    ['coolant is never filled', 'BELT', (s) => without(s, 'end.coolant'), 'not_filled'],
    ['the sump stays open', 'LOWER', (s) => without(s, 'lower.pan'), 'left_off'],
    ['the starter turns with the battery off', 'CHAIN', (s) => without(s, 'end.battery'), 'starter'],
    ['oil is never filled', 'CHAIN', (s) => without(s, 'end.oilfill'), 'not_filled'],
    ['the oil level is not looked at', 'CHAIN', (s) => without(s, 'end.oillevel'), 'not_level'],
    [
      'the feed is filled behind its cover',
      'CHAIN',
      (s) => moved(s, 'build.feed.crank', 'end.prime'),
      'feed_dry',
    ],
    ['the tools of the last proof stay in', 'CHAIN', (s) => without(s, 'verify.out'), 'tool_left'],
    ['the crank is turned against its stop', 'CHAIN', (s) => without(s, 'verify.unlock'), 'turned_locked'],
    [
      'the crank is locked away from its mark',
      'CAPS',
      (s) =>
        moved(s, 'return.cams', 'return.back').map((x) =>
          x.id === 'return.back' ? { ...x, does: [['locked', 'crank']] } : x,
        ),
      'locked_away',
    ],
    ['three turns pass', 'CHAIN', (s) => changed(s, 'verify.turn', { turns: 3 }), 'odd_turns'],
    [
      'the marks are looked at before the turns',
      'CHAIN',
      (s) => moved(s, 'verify.marks', 'verify.turn'),
      'not_turned',
    ],
    ['it is turned against compression', 'CHAIN', (s) => without(s, 'place.plugs'), 'turned_plugged'],
    ['the cover goes on without sealant', 'CHAIN', (s) => without(s, 'close.seal'), 'unsealed'],
    ['oil comes to wet sealant', 'CHAIN', (s) => moved(s, 'close.cure', 'end.oillevel'), 'uncured'],
    [
      'the pulley bolt is tightened against a tool',
      'BELT',
      (s) => moved(s, 'verify.out', 'shut.rub'),
      'lock_as_counterhold',
    ],
    [
      'a bolt is tightened without a torque',
      'BELT',
      (s) => s.map(({ torque, ...x }) => (x.id === 'bolt' || !torque ? x : { ...x, torque })),
      'no_torque',
    ],
    [
      'the belt goes on with the crank free',
      'BELT',
      (s) => moved(s, 'verify.unlock', 'route.route'),
      'loop_unlocked',
    ],
    ['building stands under cleaning', 'BELT', (s) => changed(s, 'again', { phase: 'clean' }), 'phase_back'],
    [
      'a look left out is a fault of the thing',
      'BELT',
      (s) => changed(s, 'verify.marks', { faults: { skipped: 'TIM-OFF' } }),
      'look_faulted',
    ],
    [
      'a balance shaft that is not there is undone',
      'BELT',
      (s) => changed(s, 'again', { does: [['removed', 'arm']] }),
      'not_there',
    ],
    ['the battery stays off', 'BELT', (s) => without(s, 'end.supply'), 'starter'],
    [
      'what holds a new tensioner back is missing',
      'CHAIN',
      (s) =>
        changed(s, 'build.tens.crank', {
          does: [
            ['fitted', 'tensioner'],
            ['tightened', 'tensioner-bolts'],
          ],
        }),
      'pin_missing',
    ],
    ['it is turned with a pin in', 'CHAIN', (s) => without(s, 'build.release.crank'), 'turned_pinned'],
  ];
  const DESIGN: Readonly<Record<string, string>> = {
    SHAW: 'BR19-SHAW/A',
    FLAT: 'QU13-STOA/B',
    SCREW: 'QU13-STOA/A',
    REAR: 'OL15-QUOI/A',
    SLOTS: 'QU22-DRAY/A',
    SLOTS2: 'BR20-HERN/B',
    V8: 'TE47-MOOR/A',
    CAPS: 'BR24-PELL/A',
    BELT: 'TE16-CORM/A',
    LOWER: 'OL20-BRIN/B',
    CHAIN: 'OL15-QUOI/B',
  };
  for (const [what, design, plant, law] of PLANTED)
    it(`name it when ${what}`, () => {
      const id = DESIGN[design]!;
      const steps = stepsOf(id);
      expect(lawsOf(id, steps)).toEqual([]);
      expect(lawsOf(id, plant(steps))).toContain(law);
    });
});
