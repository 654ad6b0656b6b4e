import { must } from '@core/quantity/must';
import type { CrankRange } from '@core/drive/valve-safety';
import { isSafe, pistonDepth, safeCrankRanges, valveDepth } from '@core/drive/valve-safety';
import type { ValveGeometry } from '@core/drive/valves-schema';
import { type Result, err, ok } from '@core/quantity/result';
import type { Sheet, SheetStep } from './sheet';

/** Where the shafts stand, crank degrees after their marks: the crank in its turn, each cam in its working cycle. */
export type Shafts = { crankDeg: number; cams: Readonly<Record<string, number>> };
/** Shafts as a fitter reads them: the crank in degrees of its own, each cam in degrees of its own, of which one is two of the crank. */
export const shaftsAt = (crankDeg: number, camDeg: Readonly<Record<string, number>>): Shafts => ({
  crankDeg,
  cams: Object.fromEntries(Object.entries(camDeg).map(([wheel, deg]) => [wheel, 2 * deg])),
});
/** One shaft turned, alone or all together, crank degrees; positive in running direction. `gapMm`: least room on the way. */
export type Move = { turn: 'crank' | 'cam'; wheel?: string; fromDeg: number; byDeg: number; gapMm: number };
export type Recovery = { moves: Move[]; safe: readonly CrankRange[]; restDeg: number };
export type RecoverError =
  /** Valves and pistons meet where they stand now: nothing may be turned. */
  | { code: 'touching'; valve: string; cylinder: string }
  /** They do not meet yet, but have less room than the house asks for. */
  | { code: 'too_close'; valve: string; cylinder: string; mm: number; leastMm: number }
  /** No position of the crank is free of the valves, so that no cam may be turned by itself. */
  | { code: 'no_safe_range' }
  /** Neither way round is free from where the shafts stand. */
  | { code: 'no_way' };

/** How finely a way is looked at, crank degrees. */
const FINE = 1;
/** How far inside a safe range the crank is brought to rest, degrees, where the range has room. */
const INSIDE = 10;

type Room = { mm: number; valve: string; cylinder: string };

/**
 * Smallest room between any crown and any valve, and between two valves of one cylinder on different cams, mm, with crank
 * and cams so: negative is a contact.
 */
export function roomAt(g: ValveGeometry, s: Shafts): Room {
  let best: Room = { mm: Infinity, valve: '', cylinder: '' };
  for (const c of g.cylinders) {
    const crown = pistonDepth(g, c.firingDeg, s.crankDeg);
    const open = g.valves.flatMap((valve) => {
      if (valve.bank !== undefined && c.bank !== undefined && valve.bank !== c.bank) return [];
      const mm = valveDepth(valve, (s.cams[valve.wheel] ?? 0) - c.firingDeg);
      return mm === 0 ? [] : [{ valve, mm }];
    });
    open.forEach(({ valve, mm }, i) => {
      const rooms = [crown - mm];
      for (const other of open.slice(i + 1))
        if (g.crossMm !== undefined && other.valve.wheel !== valve.wheel)
          rooms.push(g.crossMm - mm - other.mm);
      const least = Math.min(...rooms);
      if (least < best.mm) best = { mm: least, valve: valve.name, cylinder: c.name };
    });
  }
  return best;
}

/** Least room on the way of one shaft, looked at degree by degree; undefined where it is less than asked for. */
function clear(
  g: ValveGeometry,
  from: Shafts,
  turn: Pick<Move, 'turn' | 'wheel' | 'byDeg'>,
  leastMm: number,
): number | undefined {
  const steps = Math.max(1, Math.ceil(Math.abs(turn.byDeg) / FINE));
  let least = Infinity;
  for (let k = 0; k <= steps; k++) {
    const { mm } = roomAt(g, moved(from, turn, (turn.byDeg * k) / steps));
    if (mm < leastMm) return undefined;
    least = Math.min(least, mm);
  }
  return least;
}

const moved = (s: Shafts, { turn, wheel }: Pick<Move, 'turn' | 'wheel'>, by: number): Shafts =>
  turn === 'crank'
    ? { ...s, crankDeg: s.crankDeg + by }
    : { ...s, cams: { ...s.cams, [must(wheel)]: (s.cams[must(wheel)] ?? 0) + by } };

/** The short way from an angle to another, within ± half a period. */
const short = (from: number, to: number, period: number): number =>
  ((((to - from + period / 2) % period) + period) % period) - period / 2;

/** Where the crank may rest: inside each safe range, off its edges. */
function rests(ranges: readonly CrankRange[]): number[] {
  return ranges.flatMap((r) => {
    const width = r.toDeg - r.fromDeg;
    if (width >= 360) return [0];
    const inside = Math.min(INSIDE, width / 2);
    return [r.fromDeg + inside, r.toDeg - inside];
  });
}

/**
 * The safe way back to all marks from where shafts stand with the drive off: crank to a rest where no valve reaches a
 * piston whatever the cams do, each cam by itself to its mark, crank to its mark by the short way. Every move is free of
 * contact degree by degree (slider-crank against the valves' lift); of the ways that are, the one that turns least.
 * @param leastRoomMm room that is kept on the way; where the marks themselves have less by design, that much
 */
export function recover(g: ValveGeometry, now: Shafts, leastRoomMm: number): Result<Recovery, RecoverError> {
  const leastMm = Math.min(leastRoomMm, roomAt(g, { crankDeg: 0, cams: {} }).mm);
  const { ranges: safe } = safeCrankRanges(g);
  if (safe.length === 0) return err({ code: 'no_safe_range' });
  const here = roomAt(g, now);
  if (here.mm <= 0) return err({ code: 'touching', valve: here.valve, cylinder: here.cylinder });
  if (here.mm < leastMm) return err({ code: 'too_close', ...here, leastMm });
  const wheels = [...new Set(g.valves.map((v) => v.wheel))];
  // With every cam at its mark nothing has to be turned by itself: the crank comes to its mark, if the way is free.
  if (wheels.every((w) => Math.abs(short(now.cams[w] ?? 0, 0, 720)) < 1e-6)) {
    const byDeg = short(now.crankDeg, 0, 360);
    const gapMm = clear(g, now, { turn: 'crank', byDeg }, leastMm);
    const moves =
      Math.abs(byDeg) < 1e-6
        ? []
        : [{ turn: 'crank' as const, fromDeg: now.crankDeg, byDeg, gapMm: gapMm ?? 0 }];
    if (gapMm !== undefined) return ok({ moves, safe, restDeg: now.crankDeg });
  }
  const start = isSafe(safe, now.crankDeg) ? [now.crankDeg] : rests(safe);
  let best: (Recovery & { turned: number }) | undefined;
  // Which cam goes first can matter: two valves may lie in each other's way.
  for (const restDeg of start)
    for (const order of orders(wheels)) {
      const way = wayOver(g, now, restDeg, order, leastMm);
      if (way && (!best || way.turned < best.turned)) best = { ...way, safe, restDeg };
    }
  return best ? ok({ moves: best.moves, safe: best.safe, restDeg: best.restDeg }) : err({ code: 'no_way' });
}

/** Every order of up to four; of more the one given and its reverse. */
function orders(wheels: readonly string[]): (readonly string[])[] {
  if (wheels.length > 4) return [wheels, [...wheels].reverse()];
  if (wheels.length < 2) return [wheels];
  return wheels.flatMap((w) => orders(wheels.filter((x) => x !== w)).map((rest) => [w, ...rest]));
}

function wayOver(
  g: ValveGeometry,
  now: Shafts,
  restDeg: number,
  wheels: readonly string[],
  leastMm: number,
): { moves: Move[]; turned: number } | undefined {
  const moves: Move[] = [];
  let at = now;
  const go = (turn: Pick<Move, 'turn' | 'wheel'>, fromDeg: number, ways: readonly number[]): boolean => {
    for (const byDeg of ways) {
      if (Math.abs(byDeg) < 1e-6) return true;
      const gapMm = clear(g, at, { ...turn, byDeg }, leastMm);
      if (gapMm === undefined) continue;
      moves.push({ ...turn, fromDeg, byDeg, gapMm });
      at = moved(at, turn, byDeg);
      return true;
    }
    return false;
  };
  const toRest = short(at.crankDeg, restDeg, 360);
  const around = (by: number, period: number) => [by, by > 0 ? by - period : by + period];
  if (!go({ turn: 'crank' }, at.crankDeg, around(toRest, 360))) return undefined;
  for (const wheel of wheels) {
    const cam = at.cams[wheel] ?? 0;
    if (!go({ turn: 'cam', wheel }, cam, around(short(cam, 0, 720), 720))) return undefined;
  }
  if (!go({ turn: 'crank' }, at.crankDeg, around(short(at.crankDeg, 0, 360), 360))) return undefined;
  return { moves, turned: moves.reduce((sum, m) => sum + Math.abs(m.byDeg), 0) };
}

/** Numbers of the steps of a sheet at which the work goes on once every shaft stands at its mark. */
export type GoesOn = { off?: number; stop?: number; lock?: number; build?: number; turn?: number };

/** Where a sheet goes on from marks that are set: shafts locked, built up, turned by hand; found by what its steps do. */
export function goesOnAt(sheet: Pick<Sheet, 'steps'>): GoesOn {
  const first = (is: (s: SheetStep) => boolean) => sheet.steps.find(is)?.number;
  const [off, stop, lock, build, turn] = [
    first((s) => s.phase === 'off'),
    first((s) => s.now.located),
    first((s) => s.now.lockedCrank || s.now.lockedCams),
    first((s) => s.phase === 'build'),
    first((s) => s.kind === 'rotate' && s.turns !== undefined),
  ];
  return {
    ...(off === undefined ? {} : { off }),
    ...(stop === undefined ? {} : { stop }),
    ...(lock === undefined ? {} : { lock }),
    ...(build === undefined ? {} : { build }),
    ...(turn === undefined ? {} : { turn }),
  };
}
