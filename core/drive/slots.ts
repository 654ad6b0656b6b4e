/** Slot travel at the bolt circle as wheel degrees: Δθ = s/r. @example slotDegrees(1, 28.65) // 2.00 */
export const slotDegrees = (travelMm: number, radiusMm: number): number =>
  (travelMm / radiusMm) * (180 / Math.PI);

/** Wheel degrees as travel at the bolt circle, mm. Inverse of {@link slotDegrees}. */
export const slotTravel = (deg: number, radiusMm: number): number => (deg * Math.PI * radiusMm) / 180;

export type SlotRoom = { advanceDeg: number; retardDeg: number; atEnd: boolean };

/**
 * Adjustment left either way, wheel degrees, with the bolts so far from mid-slot (positive: the shaft stands advanced).
 * Beyond the slot's end it is negative: such a position cannot be.
 */
export function slotRoom(slots: { radiusMm: number; halfMm: number }, positionMm: number): SlotRoom {
  const advanceDeg = slotDegrees(slots.halfMm - positionMm, slots.radiusMm);
  const retardDeg = slotDegrees(slots.halfMm + positionMm, slots.radiusMm);
  return { advanceDeg, retardDeg, atEnd: Math.min(advanceDeg, retardDeg) < 0.05 };
}
