import { nth } from '@core/quantity/must';
import type { ValveGeometry } from '@core/drive/valves-schema';

/** An inline four of one cam, or of two that open exhaust and intake: invented lengths, a flat crank. `free`: pockets so deep that nothing meets. */
export function inlineFour(wheels: { exhaust: string; intake: string }, free = false): ValveGeometry {
  return {
    strokeMm: 82,
    rodMm: 138,
    deckMm: free ? 10.2 : 1.2,
    cylinders: [0, 180, 360, 540].map((firingDeg, i) => ({ name: String([1, 3, 4, 2][i]), firingDeg })),
    valves: [
      { name: 'exhaust', wheel: wheels.exhaust, openDeg: 144, closeDeg: 366, reachMm: 6.4 },
      { name: 'intake', wheel: wheels.intake, openDeg: 352, closeDeg: 576, reachMm: 6.9 },
    ],
    // Two cams open valves that lean towards each other: both fully open, their heads would meet.
    ...(wheels.exhaust === wheels.intake ? {} : { crossMm: free ? 16 : 10.5 }),
  };
}

const BANKS = {
  /** Bank by bank in the order in which they fire, every 120° of the crank, pins of 30° apart. */
  six: { strokeMm: 86, rodMm: 150, names: ['1', '4', '2', '5', '3', '6'], stepDeg: 120 },
  /** A cross-plane eight: every 90°. */
  eight: { strokeMm: 88, rodMm: 152, names: ['1', '8', '4', '3', '6', '5', '7', '2'], stepDeg: 90 },
} as const;

/** A V engine of two heads with two cams each; left and right fire in turn. */
export function twinBank(kind: keyof typeof BANKS): ValveGeometry {
  const { strokeMm, rodMm, names, stepDeg } = BANKS[kind];
  const sides = ['left', 'right'] as const;
  return {
    strokeMm,
    rodMm,
    deckMm: 1.6,
    cylinders: names.map((name, i) => ({
      name,
      // The mark stands between two of them, as on an engine whose mark is no cylinder's top.
      firingDeg: (i * stepDeg + stepDeg / 2) % 720,
      bank: nth(sides, i % 2),
    })),
    valves: sides.flatMap((bank) => [
      { name: `${bank} exhaust`, wheel: `${bank}-exhaust`, bank, openDeg: 146, closeDeg: 366, reachMm: 6.6 },
      { name: `${bank} intake`, wheel: `${bank}-intake`, bank, openDeg: 350, closeDeg: 576, reachMm: 7.2 },
    ]),
    crossMm: 11,
  };
}
