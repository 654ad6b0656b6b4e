import { must, nth } from '@core/quantity/must';
import { type Result, err, ok } from '@core/quantity/result';
import {
  angleAtReading,
  type Carrier,
  carriedCentre,
  limitsOf,
  pointerAt,
  carrierRange,
  readingAt,
} from './carrier';
import { type Clearance, smallestClearance } from './clearance';
import { type Layout, nominalLength, senseOf, tensionerIndex } from './layout';
import { lengthByAngle, tangentRanges } from './length-by-angle';
import { type Circle, circlesOf, type Path, type PathError, type Point, solvePath } from './path';
import { crossings, extreme, type Bracket, profile, type Sample } from './roots';

/** One carrier angle at which the path is as long as the belt. */
export type Setting = {
  carrierDeg: number;
  /** Degrees from the start mark, positive in the carrier's proper sense, in (−180, 180]. */
  pointerDeg: number;
  /** What stands on the part: pointer degrees, or the plunger's extension in mm. */
  reading: number;
  centre: Point;
  circles: Circle[];
  path: Path;
  clearance: Clearance | undefined;
  /** Carrier sense that takes up slack here. */
  takeUp: 'cw' | 'ccw';
  inWindow: boolean;
};
type ImpossibleSetting = { carrierDeg: number; pointerDeg: number; why: PathError };
export type Settings = {
  tensioner: number;
  targetMm: number;
  found: Setting[];
  impossible: ImpossibleSetting[];
  /** Path lengths that the carrier can reach, mm. */
  reach: { minMm: number; maxMm: number };
};
export type SettingsError =
  | { code: 'no_tensioner' }
  | { code: 'no_geometry'; why: PathError }
  | { code: 'belt_too_long' | 'belt_too_short'; byMm: number };

const RAD = Math.PI / 180;
/** Samples of a whole turn, and of an arm's sweep. */
const STEPS = { whole: 180, arm: 60 };

/** Path length along each stretch of carrier angles where the drive has its tangents. */
function stretches(layout: Layout, index: number, carrier: Carrier) {
  const lengthAt = lengthByAngle(layout, index, carrier);
  const { fromDeg, sweepDeg, whole } = carrierRange(carrier);
  const [a, b] = [fromDeg * RAD, (fromDeg + sweepDeg) * RAD];
  const range = { from: Math.min(a, b), to: Math.max(a, b) };
  const width = range.to - range.from;
  const all = whole ? STEPS.whole : STEPS.arm;
  return {
    lengthAt,
    whole,
    pieces: tangentRanges(layout, index, carrier, range).map((piece) => {
      const closed = whole && piece.to - piece.from > 2 * Math.PI - 1e-9;
      const steps = Math.max(8, Math.ceil((all * (piece.to - piece.from)) / width));
      return { piece, points: profile(lengthAt, nudged(piece, range, closed), steps, closed) };
    }),
  };
}

/** A tangent's own end is no safe place to compute at: rounding may lose it. A billionth of a degree inside it is. */
function nudged(piece: Bracket, range: Bracket, closed: boolean): Bracket {
  if (closed) return piece;
  return {
    from: piece.from === range.from ? piece.from : piece.from + 1e-11,
    to: piece.to === range.to ? piece.to : piece.to - 1e-11,
  };
}

/**
 * All carrier angles at which the path has the length `count · pitch` (plus `growthMm`), each with what follows from
 * it. On an eccentric commonly two: the intended one and the one reached by turning the wrong way. Angles at which the
 * drive cannot exist are listed as impossible and not offered. Scan with every extremum, then regula falsi to 1e-11 mm.
 */
export function tensionerSettings(layout: Layout, growthMm = 0): Result<Settings, SettingsError> {
  const index = tensionerIndex(layout);
  const carrier = layout.wheels[index]?.carrier;
  if (carrier === undefined) return err({ code: 'no_tensioner' });
  const targetMm = nominalLength(layout) + growthMm;
  const { lengthAt, whole, pieces } = stretches(layout, index, carrier);
  const points = pieces.flatMap((p) => p.points);
  const [top, bottom] = [extreme(points, 1), extreme(points, -1)];
  if (!top || !bottom) {
    const tried = solvePath(circlesOf(layout), senseOf(layout));
    return err({
      code: 'no_geometry',
      why: tried.ok ? { code: 'no_tangent', wheels: [index] } : tried.error,
    });
  }
  if (targetMm > top.v + 1e-9) return err({ code: 'belt_too_long', byMm: targetMm - top.v });
  if (targetMm < bottom.v - 1e-9) return err({ code: 'belt_too_short', byMm: bottom.v - targetMm });

  const { window } = limitsOf(carrier);
  const found: Setting[] = [];
  const impossible: ImpossibleSetting[] = [];
  for (const t of zerosOf(lengthAt, targetMm, pieces)) {
    const carrierDeg = whole ? (((t / RAD) % 360) + 360) % 360 : t / RAD;
    const pointerDeg = pointerAt(carrier, carrierDeg);
    const circles = circlesOf(layout, [{ wheel: index, carrierDeg }]);
    const path = solvePath(circles, senseOf(layout));
    if (!path.ok) {
      impossible.push({ carrierDeg, pointerDeg, why: path.error });
      continue;
    }
    const reading = readingAt(carrier, carrierDeg);
    found.push({
      carrierDeg,
      pointerDeg,
      reading,
      centre: carriedCentre(carrier, t),
      circles,
      path: path.value,
      clearance: smallestClearance(layout, circles, path.value),
      takeUp: lengthAt(t + 1e-5) > lengthAt(t - 1e-5) ? 'ccw' : 'cw',
      inWindow: reading >= window.from && reading <= window.to,
    });
  }
  return ok({
    tensioner: index,
    targetMm,
    found,
    impossible,
    reach: { minMm: bottom.v, maxMm: top.v },
  });
}

function zerosOf(
  lengthAt: (t: number) => number,
  targetMm: number,
  pieces: readonly { points: Sample[] }[],
): number[] {
  const zeros = pieces.flatMap(({ points }) => crossings(lengthAt, targetMm, points));
  // Over a whole turn the end is the beginning: a setting that lies just there is one setting.
  return zeros.filter((t, i) => !zeros.some((other, j) => j < i && Math.abs(t - other - 2 * Math.PI) < 1e-8));
}

export type Travel = {
  /** Growth that it follows from here, mm; nothing where its end of travel is passed. */
  followsMm: number;
  /** What ends it: its end of travel, the longest path or a wheel that lets go, or that the end is passed. */
  until: 'end' | 'longest' | 'past';
  /** Shortening down to its start, mm; negative when passed. */
  toStartMm: number | undefined;
};

/** Samples between a setting and the furthest carrier angle, to see whether the drive holds together on the way. */
const WAY = 24;

/** How far a tensioner can follow growth and shortening from one of its settings. */
export function travelFrom(layout: Layout, settings: Settings, setting: Setting): Travel {
  const index = settings.tensioner;
  const carrier = must(nth(layout.wheels, index).carrier);
  const { lengthAt, pieces } = stretches(layout, index, carrier);
  const dir = setting.takeUp === 'ccw' ? 1 : -1;
  const from = setting.carrierDeg * RAD;
  const last = furthest(pieces, from, dir);
  const holds = (t: number) =>
    solvePath(circlesOf(layout, [{ wheel: index, carrierDeg: t / RAD }]), senseOf(layout)).ok;
  let [good, bad] = [from, last];
  for (let k = 1; k <= WAY; k++) {
    const t = from + ((last - from) * k) / WAY;
    bad = t;
    if (!holds(t)) break;
    good = t;
  }
  while (good !== last && Math.abs(bad - good) > 1e-9) {
    const m = (good + bad) / 2;
    if (holds(m)) good = m;
    else bad = m;
  }
  const reserveMm = Math.max(0, lengthAt(good) - settings.targetMm);
  const growthTo = (reading: number) => {
    const deg = angleAtReading(carrier, reading);
    const length = deg === undefined ? NaN : lengthAt(deg * RAD);
    return Number.isNaN(length) ? undefined : length - settings.targetMm;
  };
  const toStart = growthTo(startReading(carrier));
  const toStartMm = toStart === undefined ? undefined : -toStart;
  const ahead = endLies(carrier, setting, dir);
  if (ahead < 0) return { followsMm: 0, until: 'past', toStartMm };
  const toEnd = ahead <= dir * (good - from) ? growthTo(limitsOf(carrier).end) : undefined;
  return toEnd === undefined
    ? { followsMm: reserveMm, until: 'longest', toStartMm }
    : { followsMm: toEnd, until: 'end', toStartMm };
}

/** How far the carrier must turn to its end, radians; negative when it is passed, infinite when it takes up slack away from it. */
function endLies(carrier: Carrier, setting: Setting, dir: 1 | -1): number {
  if (setting.takeUp !== carrier.turn) return Infinity;
  const { end } = limitsOf(carrier);
  if (carrier.kind === 'eccentric') return (end - setting.reading) * RAD;
  const deg = angleAtReading(carrier, end);
  return deg === undefined ? Infinity : dir * (deg - setting.carrierDeg) * RAD;
}

/** Carrier angle up to which the path gets longer from `from` on in that direction, radians. */
function furthest(
  pieces: readonly { piece: Bracket; points: Sample[] }[],
  from: number,
  dir: 1 | -1,
): number {
  const tau = 2 * Math.PI;
  for (const { piece, points } of pieces) {
    const at = [from, from + tau, from - tau].find((t) => t >= piece.from - 1e-9 && t <= piece.to + 1e-9);
    if (at === undefined) continue;
    const closed = piece.to - piece.from > tau - 1e-9;
    const ahead = points.filter((p) => dir * (p.t - at) > 0);
    const again = closed ? points.filter((p) => dir * (p.t - at) <= 0) : [];
    const way = [...ahead, ...again.map((p) => ({ t: p.t + dir * tau, v: p.v }))].sort(
      (a, b) => dir * (a.t - b.t),
    );
    let best: Sample | undefined;
    for (const p of way) {
      if (best && p.v < best.v) break;
      best = p;
    }
    return from + (best ? best.t - at : 0);
  }
  return from;
}

/** Reading before any slack is taken up: the start mark, or the collapsed plunger. */
const startReading = (carrier: Carrier): number =>
  carrier.kind === 'arm' && carrier.plunger ? carrier.plunger.minMm : 0;

/** Intended setting (reading in its window, else nearest to nominal) and the other one. */
export function intendedSetting(settings: Settings, carrier: Carrier): { right?: Setting; other?: Setting } {
  const { nominal } = limitsOf(carrier).window;
  const far = (s: Setting) => Math.abs(s.reading - nominal);
  const sorted = [...settings.found].sort(
    (a, b) => Number(b.inWindow) - Number(a.inWindow) || far(a) - far(b),
  );
  const [right, other] = sorted;
  return { ...(right ? { right } : {}), ...(other ? { other } : {}) };
}
