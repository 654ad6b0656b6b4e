import type { Effect } from '@core/catalogue/effects';
import type { PlacedStep } from '@core/catalogue/expand-procedure';
import type { StepSets } from '@core/catalogue/procedure';

/** How one stage of the drive stands. */
export type StageNow = {
  loop: 'fitted' | 'off' | 'slack' | 'taut';
  tensioner: 'fitted' | 'slack' | 'off' | 'start' | 'nominal';
  pin?: 'in' | 'out';
  cam: 'tight' | 'loose';
};
/** How the drive stands after a step: shafts, and each stage. */
export type DriveNow = {
  crank: 'any' | 'mark' | 'before' | 'safe' | 'turning';
  located: boolean;
  lockedCrank: boolean;
  lockedCams: boolean;
  stages: readonly StageNow[];
};

export const asFound = (stages: number): DriveNow => ({
  crank: 'any',
  located: false,
  lockedCrank: false,
  lockedCams: false,
  stages: Array.from({ length: stages }, () => ({ loop: 'fitted', tensioner: 'fitted', cam: 'tight' })),
});

const WHOLE: Partial<Record<StepSets, Partial<Omit<DriveNow, 'stages'>>>> = {
  'crank-mark': { crank: 'mark' },
  'crank-before': { crank: 'before' },
  'crank-safe': { crank: 'safe' },
  'crank-turning': { crank: 'turning' },
  locate: { located: true },
  'lock-crank': { lockedCrank: true },
  'lock-cams': { lockedCams: true },
  unlock: { located: false, lockedCrank: false, lockedCams: false },
  'unlock-stop': { located: false },
  'unlock-crank': { lockedCrank: false },
  'unlock-cams': { lockedCams: false },
};
const OF_STAGE: Partial<Record<StepSets, Partial<StageNow>>> = {
  'loop-off': { loop: 'off' },
  'loop-slack': { loop: 'slack' },
  'loop-gives': { loop: 'slack' },
  'loop-taut': { loop: 'taut' },
  'tensioner-slack': { tensioner: 'slack' },
  'tensioner-off': { tensioner: 'off' },
  'tensioner-start': { tensioner: 'start' },
  'tensioner-nominal': { tensioner: 'nominal' },
  'pin-in': { pin: 'in' },
  'pin-out': { pin: 'out' },
  'cam-loose': { cam: 'loose' },
  'cam-tight': { cam: 'tight' },
};

/** What an effect sets of what is drawn, by act and thing, and by how where that matters. */
const DRAWN: Readonly<Record<string, readonly StepSets[]>> = {
  'turned crank mark': ['crank-mark'],
  'turned crank turns': ['crank-mark'],
  'turned crank return': ['crank-mark'],
  'turned crank clear': ['crank-safe'],
  'locked stop': ['locate'],
  'locked crank': ['lock-crank'],
  'locked cams': ['lock-cams'],
  'unlocked stop': ['unlock-stop'],
  'unlocked crank': ['unlock-crank'],
  'unlocked cams': ['unlock-cams'],
  'removed loop': ['loop-off'],
  'fitted loop': ['loop-slack'],
  'loosened tensioner-bolts': ['tensioner-slack', 'loop-gives'],
  'removed tensioner': ['tensioner-off'],
  'fitted tensioner': ['tensioner-start'],
  'set tensioner': ['tensioner-nominal', 'loop-taut'],
  'pinned tensioner new': ['pin-in'],
  'pinned tensioner': ['pin-in', 'tensioner-slack', 'loop-gives'],
  'released tensioner': ['pin-out', 'tensioner-nominal', 'loop-taut'],
  'loosened cam-bolts': ['cam-loose'],
  'loosened phaser-bolts': ['cam-loose'],
  'tightened cam-bolts': ['cam-tight'],
  'tightened phaser-bolts': ['cam-tight'],
};
const drawnBy = (e: Effect): readonly StepSets[] => DRAWN[e.join(' ')] ?? DRAWN[`${e[0]} ${e[1]}`] ?? [];

/** What a step sets of what is drawn: what it says itself, as older ones do, and what its effects do. */
export const setsOf = (s: Pick<PlacedStep, 'sets' | 'does'>): readonly StepSets[] => [
  ...(s.sets ?? []),
  ...(s.does ?? []).flatMap(drawnBy),
];

/** The drive after a step that does these things at a stage. */
export function after(now: DriveNow, sets: readonly StepSets[], stage: number): DriveNow {
  let next = now;
  for (const s of sets) {
    next = { ...next, ...WHOLE[s] };
    // What lies on the bench does not hang slack.
    if (s === 'loop-gives' && next.stages[stage]?.loop === 'off') continue;
    const part = OF_STAGE[s];
    if (part) next = { ...next, stages: next.stages.map((x, i) => (i === stage ? { ...x, ...part } : x)) };
  }
  return next;
}
