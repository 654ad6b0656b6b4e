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
};
const OF_STAGE: Partial<Record<StepSets, Partial<StageNow>>> = {
  'loop-off': { loop: 'off' },
  'loop-slack': { loop: 'slack' },
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

/** The drive after a step that does these things at a stage. */
export function after(now: DriveNow, sets: readonly StepSets[], stage: number): DriveNow {
  let next = now;
  for (const s of sets) {
    next = { ...next, ...WHOLE[s] };
    const part = OF_STAGE[s];
    if (part) next = { ...next, stages: next.stages.map((x, i) => (i === stage ? { ...x, ...part } : x)) };
  }
  return next;
}
