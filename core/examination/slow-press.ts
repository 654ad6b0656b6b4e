import type { Policy } from '@core/policy/policy';

/** How a plunger is pressed in to be used again: so many turns of a screw, then time for the oil to follow. Seconds, mm. */
export type PressPlan = { strokeMm: number; turns: number; pressS: number; waitS: number };
export type PressNow =
  | { phase: 'press'; turn: number; inMm: number; leftS: number }
  | { phase: 'wait'; leftS: number }
  | { phase: 'look' };

/** The plan for a stroke: n = s / pitch turns at the house's turns a minute. @param strokeMm how far the plunger is out */
export function pressPlan(strokeMm: number, { press }: Pick<Policy, 'press'>): PressPlan {
  const turns = strokeMm / press.pitchMm;
  return { strokeMm, turns, pressS: (turns * 60) / press.turnsPerMin, waitS: press.waitS };
}

/** Where one should be after so many seconds. */
export function pressAt({ strokeMm, turns, pressS, waitS }: PressPlan, s: number): PressNow {
  if (s < pressS)
    return {
      phase: 'press',
      turn: Math.min(Math.floor((s / pressS) * turns) + 1, Math.ceil(turns)),
      inMm: (s / pressS) * strokeMm,
      leftS: pressS - s,
    };
  return s < pressS + waitS ? { phase: 'wait', leftS: pressS + waitS - s } : { phase: 'look' };
}
