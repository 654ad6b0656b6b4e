/** Degrees of the crank in which a four-stroke engine does everything once. */
export const CYCLE = 720;

/** An angle between minus and plus half a period. */
export const wrapped = (deg: number, period = CYCLE): number =>
  ((((deg + period / 2) % period) + period) % period) - period / 2;

/** An angle from nought to a period. */
export const within = (deg: number, period = CYCLE): number => ((deg % period) + period) % period;
