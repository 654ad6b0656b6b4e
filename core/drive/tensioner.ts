import { type Result, err, ok } from '@core/quantity/result';
import {
  angleAtReading,
  type Carrier,
  carriedCentre,
  limitsOf,
  pointerAt,
  rangeOf,
  readingAt,
} from './carrier';
import { type Clearance, smallestClearance } from './clearance';
import { type Layout, nominalLength, senseOf, tensionerIndex } from './layout';
import { lengthByAngle } from './length-by-angle';
import { type Circle, circlesOf, type Path, type PathError, type Point, solvePath } from './path';
import { crossings, extremum, sample } from './roots';

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
  /** Growth of the belt that the carrier can still follow before the path stops getting longer, mm. */
  reserveMm: number;
  /** Growth up to the end mark or end of travel, and shortening down to the start, mm; negative when passed. */
  toEndMm: number | undefined;
  toStartMm: number | undefined;
  /** Carrier sense that takes up slack here. */
  takeUp: 'cw' | 'ccw';
  inWindow: boolean;
};
export type ImpossibleSetting = { carrierDeg: number; pointerDeg: number; why: PathError };
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

/**
 * All carrier angles at which the path has the length `count · pitch` (plus `growthMm`), each with what follows from
 * it. On an eccentric commonly two: the intended one and the one reached by turning the wrong way. Angles at which the
 * drive cannot exist are listed as impossible and not offered. Dense scan, then regula falsi to 1e-11 mm.
 */
export function tensionerSettings(layout: Layout, growthMm = 0): Result<Settings, SettingsError> {
  const index = tensionerIndex(layout);
  const carrier = layout.wheels[index]?.carrier;
  if (carrier === undefined) return err({ code: 'no_tensioner' });
  const targetMm = nominalLength(layout) + growthMm;
  const lengthAt = lengthByAngle(layout, index, carrier);
  const { fromDeg, sweepDeg, whole } = rangeOf(carrier);
  const at = sample(lengthAt, fromDeg * RAD, sweepDeg * RAD, whole ? STEPS.whole : STEPS.arm);
  const top = extremum(lengthAt, at, 1);
  const bottom = extremum(lengthAt, at, -1);
  if (Number.isNaN(top.v)) {
    const tried = solvePath(circlesOf(layout), senseOf(layout));
    return err({
      code: 'no_geometry',
      why: tried.ok ? { code: 'no_tangent', wheels: [index] } : tried.error,
    });
  }
  if (targetMm > top.v) return err({ code: 'belt_too_long', byMm: targetMm - top.v });
  if (targetMm < bottom.v) return err({ code: 'belt_too_short', byMm: bottom.v - targetMm });

  const { window, end } = limitsOf(carrier);
  const lengthAtReading = (reading: number) => {
    const deg = angleAtReading(carrier, reading);
    const length = deg === undefined ? NaN : lengthAt(deg * RAD);
    return Number.isNaN(length) ? undefined : length;
  };
  const endMm = lengthAtReading(end);
  const startMm = lengthAtReading(startReading(carrier));
  const found: Setting[] = [];
  const impossible: ImpossibleSetting[] = [];
  const zeros = crossings(lengthAt, targetMm, at, [top, bottom]);
  // Over a whole turn the end is the beginning: a setting that lies just there is one setting.
  if (whole && zeros.length > 1 && zeros.at(-1)! - zeros[0]! > 2 * Math.PI - 1e-9) zeros.pop();
  for (const t of zeros) {
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
      reserveMm: top.v - targetMm,
      toEndMm: endMm === undefined ? undefined : endMm - targetMm,
      toStartMm: startMm === undefined ? undefined : targetMm - startMm,
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
