import { SHIPPED_POLICY } from '@core/policy/policy';

export type WrenchFit = 'fits' | 'low' | 'below' | 'above';

/** Does a wrench's range cover a torque, N·m? `low`: in its lowest fifth, where it clicks too early or too late. */
export function wrenchFit(nm: number, range: { from: number; to: number }): WrenchFit {
  if (nm < range.from) return 'below';
  if (nm > range.to) return 'above';
  return nm < SHIPPED_POLICY.goodWrenchFrom * range.to ? 'low' : 'fits';
}

/**
 * What to set on a wrench with an extension so that the bolt gets T: T_set = T·L/(L + a·cos φ), L from the drive to the
 * middle of the grip, a the extension, φ its angle to the wrench (0 in line, 90 across).
 */
export const extensionSetting = (nm: number, lengthMm: number, extensionMm: number, deg: number): number =>
  (nm * lengthMm) / (lengthMm + extensionMm * Math.cos((deg * Math.PI) / 180));
