import { num } from '@core/quantity/must';
import type { ValveGeometry } from './valves-schema';

const RAD = Math.PI / 180;

/**
 * Piston below its top, mm, at a crank angle after top: r(1 − cos θ) + l − √(l² − r² sin² θ), slider-crank without
 * offset, r half the stroke, l the rod between centres.
 */
export function pistonDrop(g: Pick<ValveGeometry, 'strokeMm' | 'rodMm'>, degAfterTop: number): number {
  const r = g.strokeMm / 2;
  const a = degAfterTop * RAD;
  return r * (1 - Math.cos(a)) + g.rodMm - Math.sqrt(g.rodMm ** 2 - (r * Math.sin(a)) ** 2);
}

/** Piston crown below the deck, mm, of a cylinder at a crank angle after the mark. */
export const pistonDepth = (g: ValveGeometry, firingDeg: number, crankDeg: number): number =>
  g.deckMm + pistonDrop(g, crankDeg - firingDeg);

/**
 * Valve below the deck, mm: sin² over its opening, a smooth stand-in for the cam's own law (equal at closing, opening and
 * full lift). Angles after the cylinder's own firing top.
 */
export function valveDepth(valve: ValveGeometry['valves'][number], degAfterFiring: number): number {
  const span = valve.closeDeg - valve.openDeg;
  const into = (((degAfterFiring - valve.openDeg) % 720) + 720) % 720;
  return into >= span ? 0 : valve.reachMm * Math.sin((Math.PI * into) / span) ** 2;
}

export type CrankRange = { fromDeg: number; toDeg: number };
export type SafeRanges = {
  ranges: CrankRange[];
  /** Smallest distance between any crown and the deepest open valve, mm, by whole crank degree over 360. */
  roomMm: number[];
};

/** Crank ranges within [0, 360) in which no cylinder's piston reaches an open valve, whatever the cams do. */
export function safeCrankRanges(g: ValveGeometry): SafeRanges {
  const reach = Math.max(...g.valves.map((v) => v.reachMm));
  const room = (deg: number) => Math.min(...g.cylinders.map((c) => pistonDepth(g, c.firingDeg, deg))) - reach;
  const roomMm = Array.from({ length: 360 }, (_, d) => room(d));
  const edge = (from: number, to: number): number => {
    let [a, b] = [from, to];
    const safeAtA = room(a) > 0;
    while (b - a > 1e-6) {
      const m = (a + b) / 2;
      if (room(m) > 0 === safeAtA) a = m;
      else b = m;
    }
    return (a + b) / 2;
  };
  const ranges: CrankRange[] = [];
  if (roomMm.every((r) => r > 0)) return { ranges: [{ fromDeg: 0, toDeg: 360 }], roomMm };
  // Start where it is not safe, so that a range over the mark comes out whole.
  const start = roomMm.findIndex((r) => r <= 0);
  let open: number | undefined;
  for (let k = start; k <= start + 360; k++) {
    const safe = k < start + 360 && num(roomMm, k % 360) > 0;
    if (safe && open === undefined) open = edge(k - 1, k);
    if (!safe && open !== undefined) {
      ranges.push({ fromDeg: open, toDeg: edge(k - 1, k) });
      open = undefined;
    }
  }
  return { ranges, roomMm };
}

/**
 * Where the crank by itself rests nearest to its mark with this room between every crown and the deepest open valve,
 * crank degrees after the mark, negative against the running direction; turned by the short way. Of two equally near ones
 * the one against the running direction. Undefined where there is none.
 */
export function restDeg(g: ValveGeometry, roomMm: number): number | undefined {
  const { roomMm: at } = safeCrankRanges(g);
  for (let d = 0; d <= 180; d++)
    for (const way of d === 0 ? [0] : [-d, d]) if (num(at, (way + 360) % 360) >= roomMm) return way;
  return undefined;
}

/** True when a crank angle after the mark lies in one of the ranges. */
export function isSafe(ranges: readonly CrankRange[], crankDeg: number): boolean {
  const d = ((crankDeg % 360) + 360) % 360;
  return ranges.some((r) => (d >= r.fromDeg && d <= r.toDeg) || (d + 360 >= r.fromDeg && d + 360 <= r.toDeg));
}

export type Contact = { valve: string; cylinder: string; gapMm: number; atCrankDeg: number };

/**
 * Smallest gap between crown and each kind of valve over a working cycle with its shaft advanced by so many crank degrees
 * (negative: retarded). A negative gap is a contact to be expected when the engine is turned.
 */
export function smallestGaps(g: ValveGeometry, advanceCrankDeg: (wheel: string) => number): Contact[] {
  return g.valves.map((valve) => {
    let best: Contact | undefined;
    const advance = advanceCrankDeg(valve.wheel);
    for (const c of g.cylinders) {
      if (valve.bank !== undefined && c.bank !== undefined && valve.bank !== c.bank) continue;
      for (let d = 0; d < 720; d += 0.5) {
        const open = valveDepth(valve, d + advance);
        if (open === 0) continue;
        const gapMm = g.deckMm + pistonDrop(g, d) - open;
        if (best === undefined || gapMm < best.gapMm)
          best = { valve: valve.name, cylinder: c.name, gapMm, atCrankDeg: (d + c.firingDeg) % 720 };
      }
    }
    return best ?? { valve: valve.name, cylinder: '', gapMm: Infinity, atCrankDeg: 0 };
  });
}
