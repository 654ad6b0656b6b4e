import { surelyAbove, surelyBelow } from '@core/quantity/judge';
import { nth } from '@core/quantity/must';
import { type Result, err, ok } from '@core/quantity/result';
import { readingUnit } from './carrier';
import { type Layout, nominalLength, tensionerIndex } from './layout';
import { markPhases, seating } from './phase';
import { solveDrive } from './solve-drive';
import {
  intendedSetting,
  type Setting,
  type SettingsError,
  tensionerSettings,
  travelFrom,
} from './tensioner';
import { zeroBetween } from './roots';

/** Elongation of a chain measured over n links, with its standard uncertainty (JCGM 100, 5.1.2). */
export function elongation(
  lengthMm: number,
  links: number,
  pitchMm: number,
  uMm: number,
): Result<{ e: number; u: number }, { code: 'no_links' }> {
  const nominal = links * pitchMm;
  if (!(nominal > 0)) return err({ code: 'no_links' });
  return ok({ e: (lengthMm - nominal) / nominal, u: uMm / nominal });
}

export type WearState = {
  reading?: { fresh: number; worn: number; unit: '°' | 'mm' };
  /** Change at each driven wheel's mark, advanced positive. */
  cams: { wheel: number; teeth: number; wheelDeg: number; driverDeg: number }[];
  /** Elongation up to which the tensioner can follow. */
  endsAt?: number;
  /** Which comes first as it wears: the end of what the tensioner follows, or the limit of belt or chain. */
  ends?: 'tensioner_first' | 'limit_first';
};

/** What an elongated belt or chain does to the cams and the tensioner of its stage. */
export function wearState(layout: Layout, e: number): Result<WearState, SettingsError> {
  const length = nominalLength(layout);
  const fresh = solveDrive(layout);
  if (!fresh.ok) return fresh;
  const worn = solveDrive(layout, e * length);
  if (!worn.ok) return worn;
  const was = markPhases(layout, fresh.value);
  const now = markPhases(layout, worn.value, e, seating(was));
  const carrier = layout.wheels[tensionerIndex(layout)]?.carrier;
  const [a, b] = [fresh.value.setting, worn.value.setting];
  const endsAt = a ? endOfTravel(layout, a) : undefined;
  const { elongationLimit } = layout;
  const ends =
    endsAt === undefined || elongationLimit === undefined
      ? undefined
      : endsAt < elongationLimit
        ? ('tensioner_first' as const)
        : ('limit_first' as const);
  return ok({
    cams: now.map((p, i) => ({
      wheel: p.wheel,
      teeth: p.teeth - nth(was, i).teeth,
      wheelDeg: p.wheelDeg - nth(was, i).wheelDeg,
      driverDeg: p.driverDeg - nth(was, i).driverDeg,
    })),
    ...(a && b && carrier
      ? { reading: { fresh: a.reading, worn: b.reading, unit: readingUnit(carrier) } }
      : {}),
    ...(endsAt === undefined ? {} : { endsAt }),
    ...(ends === undefined ? {} : { ends }),
  });
}

/** Elongation that the tensioner can follow from this setting. */
function endOfTravel(layout: Layout, setting: Setting): number | undefined {
  const settings = tensionerSettings(layout);
  return settings.ok
    ? travelFrom(layout, settings.value, setting).followsMm / nominalLength(layout)
    : undefined;
}

export type WearReading = { value: number; u: number };
export type Remainder = {
  /** Reading that the elongation alone explains. */
  expected: WearReading;
  /** Measured less expected. */
  remainder: WearReading;
  verdict: 'explained' | 'more' | 'less';
  /** Wear of the guide or shoe surfaces that would explain what is left over, mm, with its standard uncertainty. */
  guideWear?: WearReading;
};
export type RemainderError = SettingsError | { code: 'no_shoe' };

const WEAR_LIMIT_MM = 12;

/**
 * Compares a measured tensioner reading with the one that the measured elongation explains. More than that is guide wear,
 * a wrong part or slipped mounting; less is a ratchet that let go or a plunger that did not follow. "Explained" when the
 * remainder lies within twice its standard uncertainty (JCGM 100: about 95 %).
 */
export function extensionRemainder(
  layout: Layout,
  reading: WearReading,
  e: WearReading,
): Result<Remainder, RemainderError> {
  const length = nominalLength(layout);
  const expectedAt = (x: number) => readingWith(layout, x * length, 0);
  const expected = expectedAt(e.value);
  if (!expected.ok) return expected;
  const step = 1e-5;
  const next = expectedAt(e.value + step);
  const slope = next.ok ? (next.value - expected.value) / step : 0;
  const uExpected = Math.abs(slope) * e.u;
  const value = reading.value - expected.value;
  const u = Math.hypot(reading.u, uExpected);
  const rest = { value, u };
  const verdict = surelyAbove(rest, 0) ? 'more' : surelyBelow(rest, 0) ? 'less' : 'explained';
  const wear = guideWear(layout, e.value * length, reading.value, value);
  return ok({
    expected: { value: expected.value, u: uExpected },
    remainder: rest,
    verdict,
    ...(wear === undefined ? {} : { guideWear: { value: wear.mm, u: u / wear.slope } }),
  });
}

/** Reading with the belt longer by `growthMm` and every shoe's surface worn by `wearMm`. */
function readingWith(layout: Layout, growthMm: number, wearMm: number): Result<number, SettingsError> {
  const carrier = layout.wheels[tensionerIndex(layout)]?.carrier;
  if (!carrier) return err({ code: 'no_tensioner' });
  const worn =
    wearMm === 0
      ? layout
      : {
          ...layout,
          wheels: layout.wheels.map((w) =>
            w.arc && w.outsideMm !== undefined ? { ...w, outsideMm: w.outsideMm - wearMm } : w,
          ),
        };
  const settings = tensionerSettings(worn, growthMm);
  if (!settings.ok) return settings;
  const { right } = intendedSetting(settings.value, carrier);
  return right ? ok(right.reading) : err({ code: 'no_tensioner' });
}

/** Even wear of all shoes that gives the measured reading, and mm of reading per mm of wear there. */
function guideWear(
  layout: Layout,
  growthMm: number,
  reading: number,
  remainder: number,
): { mm: number; slope: number } | undefined {
  if (remainder <= 0 || !layout.wheels.some((w) => w.arc)) return undefined;
  const off = (mm: number): number => {
    const r = readingWith(layout, growthMm, mm);
    return r.ok ? r.value - reading : NaN;
  };
  let [low, high] = [0, 0.5];
  while (high <= WEAR_LIMIT_MM && off(high) < 0) [low, high] = [high, high * 2];
  const [a, b] = [off(low), off(high)];
  if (!(a * b <= 0)) return undefined;
  const mm = zeroBetween(off, low, a, high, b);
  const slope = (off(mm + 0.01) - off(mm)) / 0.01;
  return slope > 0 ? { mm, slope } : undefined;
}
