import type { Layout } from '@core/drive/layout';
import { tensionerIndex } from '@core/drive/layout';
import { limitsOf, readingUnit } from '@core/drive/carrier';
import { heatEffect } from '@core/drive/heat';
import { isMarked } from '@core/drive/judge-marks';
import { markPhases } from '@core/drive/phase';
import { settingsOf } from '@core/drive/settings-of';
import { solveDrive } from '@core/drive/solve-drive';
import { intendedSetting } from '@core/drive/tensioner';
import { wearState } from '@core/drive/wear';
import { nth } from '@core/quantity/must';

/** What is wrong with a drive, in figures: the rest is as it should be. */
export type Amiss = {
  /** By what a tensioner stands away from its right setting. */
  setting?: 'wrong_way' | 'slack' | 'beyond' | 'end' | undefined;
  /** Temperature at which it was set, °C. */
  setAtC?: number | undefined;
  /** Elongation of the chain. */
  e?: number | undefined;
  /** Millimetres by which a plunger stands out more (less: minus) than its chain explains. */
  restMm?: number | undefined;
  /** Teeth that wheels are out by, advanced positive. */
  teeth?: Readonly<Record<string, number>> | undefined;
};
/** How a stage then stands: what an instrument without error would read. */
export type StandsAt = {
  /** The tensioner's reading, and its unit; none where the stage has no tensioner. */
  reading?: { value: number; unit: '°' | 'mm' };
  /** Offset of each marked wheel, teeth, advanced positive. */
  marks: { wheel: string; teeth: number; crankDeg: number }[];
  /** Wheels beside the tensioner, whose rims are touched where it stands on the far side. */
  beside: string[];
};

/** How far beyond or short of its window a wrong reading stands, in widths of the window. */
const BY = { beyond: 0.4, slack: 0.8, end: 0.05 };

/**
 * Where geometry puts a drive with which something is wrong: the other root of the path's length for a setting on the far side, the
 * warm setting carried into the cold, the length of a worn chain, whole teeth at the marks. Undefined where it cannot be solved.
 */
export function standsAt(layout: Layout, amiss: Amiss): StandsAt | undefined {
  const solved = solveDrive(layout);
  if (!solved.ok) return undefined;
  const at = tensionerIndex(layout);
  const carrier = layout.wheels[at]?.carrier;
  const e = amiss.e ?? 0;
  const worn = e > 0 ? wearState(layout, e) : undefined;
  const out: StandsAt = { marks: [], beside: [] };
  const right = solved.value.setting?.reading;
  if (carrier && right !== undefined) {
    const { window, end } = limitsOf(carrier);
    const width = window.to - window.from;
    const settings = settingsOf(layout);
    const other = settings.ok ? intendedSetting(settings.value, carrier).other?.reading : undefined;
    const warm = amiss.setAtC === undefined ? undefined : heatEffect(layout, amiss.setAtC);
    const by: Record<NonNullable<Amiss['setting']>, number | undefined> = {
      wrong_way: other,
      slack: window.from - BY.slack * width,
      beyond: window.to + BY.beyond * Math.min(width, end - window.to),
      end: end + BY.end * width,
    };
    const set = amiss.setting === undefined ? undefined : by[amiss.setting];
    const follows = worn?.ok ? (worn.value.reading?.worn ?? right) : right;
    const cold = warm?.ok ? warm.value.reading.drawn - warm.value.reading.warm : 0;
    out.reading = {
      value: (set ?? follows + cold) + (amiss.restMm ?? 0),
      unit: readingUnit(carrier),
    };
    const n = layout.wheels.length;
    out.beside = [nth(layout.wheels, (at + n - 1) % n).id, nth(layout.wheels, (at + 1) % n).id];
  }
  const z0 = nth(layout.wheels, 0).teeth;
  for (const p of markPhases(layout, solved.value)) {
    const wheel = nth(layout.wheels, p.wheel);
    if (!isMarked(wheel) || z0 === undefined) continue;
    const stretched = worn?.ok ? (worn.value.cams.find((c) => c.wheel === p.wheel)?.teeth ?? 0) : 0;
    const off = stretched + (amiss.teeth?.[wheel.id] ?? 0);
    out.marks.push({ wheel: wheel.id, teeth: p.teeth + off, crankDeg: (off * 360) / z0 });
  }
  return out;
}
