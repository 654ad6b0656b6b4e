import { nth } from '@core/quantity/must';
import { type Layout, nominalLength, pitchRadius, senseOf, type Wheel } from './layout';
import { circlesOf, type Path, type PathError, solvePath } from './path';

/** A toothed wheel's rim as it was measured, by its index: radius and standard uncertainty, mm. */
export type RimSeen = { wheel: number; mm: number; u: number };

/** One thing that, had it been entered or picked otherwise, would let the loop close. */
type LoopChange =
  | { what: 'count'; count: number }
  | { what: 'teeth'; wheel: number; teeth: number }
  | { what: 'side'; wheel: number }
  | { what: 'order'; wheels: readonly [number, number] }
  /** Everything picked is larger than it is by this factor. */
  | { what: 'scale'; factor: number };
export type LoopReason = LoopChange & {
  /** What the loop would be off by then, mm. */
  offMm: number;
  /** What the rims that were picked say of it. */
  rims: 'for' | 'against' | 'silent';
};
export type LoopCheck = {
  /** None where no belt can run so. */
  path?: Path;
  error?: PathError;
  wantedMm: number;
  /** Path less what the belt is long: positive, the belt is too short for it. */
  offMm?: number;
  u: number;
  closes: boolean;
  /** What would explain it, the likeliest first; none where it closes. */
  reasons: LoopReason[];
};

/** A loop closes within so many standard uncertainties. */
const SIGMAS = 3;
/** A wheel's teeth may be miscounted by so many. */
const MISCOUNT = 6;
/** A scale is wrong by less than this either way, or something else is. */
const [LEAST_SCALE, MOST_SCALE] = [0.8, 1.25];
/** Share by which a scale is changed at a time while a right one is looked for. */
const STEP = 0.01;
/** What speaks this much less for a change than for the best one is not told. χ². */
const FAR = 16;
/** A free factor fits anything a little better (Akaike 1974: two for a parameter). */
const FREE = 2;

/**
 * Does the belt that was counted lie on the wheels that were measured? If not: which single mistake would explain it, each tried in turn
 * and weighed by how well the loop closes and how well the rims that were picked agree. A miscounted belt or wheel, a wheel on the other
 * side of the belt, two wheels in the wrong order, a wrong scale.
 * @param u standard uncertainty of the path's length, mm
 */
export function checkLoop(layout: Layout, u: number, rims: readonly RimSeen[] = []): LoopCheck {
  const wantedMm = nominalLength(layout);
  const solved = solveAsDrawn(layout);
  const offMm = solved.ok ? solved.value.lengthMm - wantedMm : undefined;
  const closes = offMm !== undefined && Math.abs(offMm) <= SIGMAS * u;
  return {
    ...(solved.ok ? { path: solved.value } : { error: solved.error }),
    wantedMm,
    ...(offMm === undefined ? {} : { offMm }),
    u,
    closes,
    reasons: closes ? [] : reasonsFor(layout, u, rims, offMm),
  };
}

const solveAsDrawn = (layout: Layout) => solvePath(circlesOf(layout), senseOf(layout));

/** A tooth's rim lies between the tips of the belt's teeth and its back: nobody picks the pitch line itself. */
const rimU = (layout: Layout, seen: RimSeen): number =>
  Math.hypot(seen.u, (layout.toothMm + layout.backMm) / Math.sqrt(12));

function rimChi2(layout: Layout, rims: readonly RimSeen[], factor = 1): number {
  return rims.reduce((sum, seen) => {
    const w = nth(layout.wheels, seen.wheel);
    if (w.teeth === undefined) return sum;
    return sum + ((seen.mm / factor - pitchRadius(layout, w)) / rimU(layout, seen)) ** 2;
  }, 0);
}

function reasonsFor(
  layout: Layout,
  u: number,
  rims: readonly RimSeen[],
  offMm: number | undefined,
): LoopReason[] {
  const before = rimChi2(layout, rims);
  const tried = changesOf(layout, offMm).flatMap(({ change, after, factor }) => {
    const path = solveAsDrawn(after);
    if (!path.ok) return [];
    const off = path.value.lengthMm - nominalLength(after);
    if (Math.abs(off) > SIGMAS * u) return [];
    const rim = rimChi2(after, rims, factor);
    const chi2 = (off / u) ** 2 + rim + (change.what === 'scale' ? FREE : 0);
    const rimsSay = rim < before - 4 ? 'for' : rim > before + 4 ? 'against' : 'silent';
    return [{ chi2, reason: { ...change, offMm: off, rims: rimsSay } satisfies LoopReason }];
  });
  tried.sort((a, b) => a.chi2 - b.chi2);
  const best = tried[0]?.chi2 ?? 0;
  return tried.filter((t) => t.chi2 <= best + FAR).map((t) => t.reason);
}

type Trial = { change: LoopChange; after: Layout; factor?: number };

function changesOf(layout: Layout, offMm: number | undefined): Trial[] {
  const out: Trial[] = [];
  const withWheel = (i: number, change: Partial<Wheel>): Layout => ({
    ...layout,
    wheels: layout.wheels.map((w, k) => (k === i ? { ...w, ...change } : w)),
  });
  if (offMm !== undefined) {
    const count = Math.round((nominalLength(layout) + offMm) / layout.pitchMm);
    if (count !== layout.count && count > 0)
      out.push({ change: { what: 'count', count }, after: { ...layout, count } });
  }
  layout.wheels.forEach((w, i) => {
    if (w.teeth !== undefined)
      for (let by = -MISCOUNT; by <= MISCOUNT; by++) {
        const teeth = w.teeth + by;
        if (by !== 0 && teeth > 5)
          out.push({ change: { what: 'teeth', wheel: i, teeth }, after: withWheel(i, { teeth }) });
      }
    // The driving wheel gives the sense: it has the toothed side.
    if (i > 0)
      out.push({
        change: { what: 'side', wheel: i },
        after: withWheel(i, { side: w.side === 1 ? -1 : 1 }),
      });
    if (i > 0 && i + 1 < layout.wheels.length)
      out.push({ change: { what: 'order', wheels: [i, i + 1] }, after: swapped(layout, i) });
  });
  const factor = scaleThatCloses(layout);
  if (factor !== undefined)
    out.push({ change: { what: 'scale', factor }, after: scaled(layout, 1 / factor), factor });
  return out;
}

function swapped(layout: Layout, i: number): Layout {
  const wheels = [...layout.wheels];
  [wheels[i], wheels[i + 1]] = [nth(wheels, i + 1), nth(wheels, i)];
  return { ...layout, wheels };
}

/** Everything that was picked, larger by a factor: places, and the radii of what has no teeth. Teeth and pitch stay. */
function scaled(layout: Layout, by: number): Layout {
  return {
    ...layout,
    wheels: layout.wheels.map((w) => ({
      ...w,
      x: w.x * by,
      y: w.y * by,
      ...(w.teeth === undefined && w.outsideMm !== undefined ? { outsideMm: w.outsideMm * by } : {}),
    })),
  };
}

/** The factor by which everything was picked too large, if the loop closes at any: bisection, the path growing with the scale. */
function scaleThatCloses(layout: Layout): number | undefined {
  const off = (factor: number) => {
    const path = solveAsDrawn(scaled(layout, 1 / factor));
    return path.ok ? path.value.lengthMm - nominalLength(layout) : undefined;
  };
  const now = off(1);
  if (now === undefined) return undefined;
  // From here outward, as far as a belt can run at all: a little smaller still and wheels may meet.
  const by = now > 0 ? 1 + STEP : 1 - STEP;
  let [near, far] = [1, by];
  for (;;) {
    const at = far > LEAST_SCALE && far < MOST_SCALE ? off(far) : undefined;
    if (at === undefined) return undefined;
    if (at > 0 !== now > 0) break;
    [near, far] = [far, far * by];
  }
  let [low, high] = [Math.min(near, far), Math.max(near, far)];
  for (let i = 0; i < 50; i++) {
    const mid = (low + high) / 2;
    const at = off(mid);
    if (at === undefined) return undefined;
    if (at > 0) low = mid;
    else high = mid;
  }
  return (low + high) / 2;
}
