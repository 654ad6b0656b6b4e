import { oncePer } from '@core/quantity/keep';
import { nth } from '@core/quantity/must';
import { backOf, carrierKind, readingUnit } from './carrier';
import { isMarked } from './judge-marks';
import { isFree, type Layout, rowOf, tensionerIndex, type Wheel } from './layout';
import { safeCrankRanges } from './valve-safety';
import type { ValveGeometry } from './valves-schema';

/** What a drive can have that observables, causes, sentences and cautions depend on. */
export const HAS = [
  'belt',
  /** A belt that runs in oil, and one that does not. */
  'wet_belt',
  'dry_belt',
  'chain',
  'automatic_eccentric',
  'manual_eccentric',
  'eccentric',
  'plunger',
  'ratchet',
  'lever',
  /** Its reading is an angle: of a pointer, an eccentric or a lever. */
  'pointer',
  'sprung',
  'roller_tensioner',
  'shoe',
  'guide_roller',
  'belt_pump',
  'bank',
  'mark',
  'slots',
  'stages',
  /** What valves and pistons do is known, so that a safe position can be computed. */
  'valves',
  'pump',
  /** Idlers on an eccentric of their own, beside the tensioner. */
  'idler_eccentric',
  'rims',
  /** A stage without a tensioner. */
  'untensioned',
  /** A cam on a phaser. */
  'phaser',
  /** How its plunger is set back; `settable`: it can be at all. */
  'plunger_pressed',
  'plunger_ratchet',
  'plunger_screwed',
  'plunger_never',
  'settable',
  /** Rollers that are bolted fast, without an eccentric. */
  'fixed_roller',
  /** A rail that stands still. */
  'rail',
  /** Cam wheels that turn without their shaft once they are freed, and those that cannot. */
  'free_seat',
  'keyed_seat',
  'taper',
  'friction',
  /** A driven wheel whose mark is looked at. */
  'timed',
  /** Somewhere in a turn of the crank a valve can meet a piston. */
  'valves_meet',
  /** The timing side is the end of the gearbox, or the other one. */
  'rear_end',
  'front_end',
  /** More than one stage lies in a row of its own. */
  'rows',
  /** A stage that runs in oil; and where none does. */
  'oiled',
  'dry',
  /** A shaft that turns against vibration. */
  'balance',
] as const;
export type Has = (typeof HAS)[number];

/** What the stages of one drive have. */
export function driveHas(stages: readonly { layout: Layout }[]): ReadonlySet<Has> {
  const has = new Set<Has>();
  if (stages.length > 1) has.add('stages');
  has.add(stages.some(({ layout }) => layout.kind === 'chain' || layout.inOil) ? 'oiled' : 'dry');
  if (new Set(stages.map((s) => rowOf(s.layout))).size > 1) has.add('rows');
  for (const { layout } of stages) {
    has.add(layout.kind);
    if (layout.kind === 'belt') has.add(layout.inOil ? 'wet_belt' : 'dry_belt');
    if (layout.banks?.length) has.add('bank');
    if (layout.valves) has.add('valves');
    if (layout.valves && canMeet(layout.valves)) has.add('valves_meet');
    has.add(layout.end === 'rear' ? 'rear_end' : 'front_end');
    const t = layout.wheels[tensionerIndex(layout)];
    if (!t) has.add('untensioned');
    if (t?.carrier) addCarrier(has, t.carrier, t.arc === undefined);
    for (const w of layout.wheels) {
      if (w.arc) has.add('shoe');
      else if (w.role === 'idler' && w.teeth === undefined) has.add('guide_roller');
      if (w.role === 'pump' && layout.kind === 'belt') has.add('belt_pump');
      if (w.markDeg !== undefined) has.add('mark');
      if (w.slots) has.add('slots');
      if (w.role === 'cam' && w.phaser !== false) has.add('phaser');
      if (w.role === 'pump') has.add('pump');
      if (w.role === 'idler' && w.carrier) has.add('idler_eccentric');
      if (w.rimMm > 0) has.add('rims');
      if (w.role === 'balance') has.add('balance');
      addSeat(has, w);
    }
  }
  return has;
}

function addSeat(has: Set<Has>, w: Wheel): void {
  if (w.arc && !w.carrier) has.add('rail');
  if (w.role === 'idler' && w.teeth === undefined && !w.carrier && !w.arc) has.add('fixed_roller');
  if (isMarked(w)) has.add('timed');
  if (w.role !== 'cam') return;
  has.add(isFree(w) ? 'free_seat' : 'keyed_seat');
  if (w.seat === 'taper' || w.seat === 'friction') has.add(w.seat);
}

/** True when no whole turn of the crank is free of every valve. */
const canMeet = oncePer((g: ValveGeometry): boolean => safeCrankRanges(g).roomMm.some((mm) => mm <= 0));

function addCarrier(
  has: Set<Has>,
  carrier: NonNullable<Layout['wheels'][number]['carrier']>,
  roller: boolean,
): void {
  const kind = carrierKind(carrier);
  has.add(kind);
  if (carrier.kind === 'eccentric') has.add('eccentric');
  if (readingUnit(carrier) === '°') has.add('pointer');
  if (kind === 'automatic_eccentric' || kind === 'lever') has.add('sprung');
  if (carrier.kind === 'arm' && carrier.plunger) {
    const back = backOf(carrier.plunger);
    has.add(`plunger_${back}`);
    if (back !== 'never') has.add('settable');
    if (carrier.plunger.ratcheted) has.add('ratchet');
  }
  if (roller) has.add('roller_tensioner');
  // A roller on an arm is a lever, whatever presses it: a spring or a damper.
  if (roller && carrier.kind === 'arm') has.add('lever');
}

/** What any of several possible drives has; undefined while one of them is not known, since it may have anything. */
export function anyHas(drives: readonly (readonly { layout: Layout }[])[]): ReadonlySet<Has> | undefined {
  if (drives.length === 0 || drives.some((d) => d.length === 0)) return undefined;
  return new Set(drives.flatMap((stages) => [...driveHas(stages)]));
}

/** True when a drive has all that is needed; what is not known may have it. */
export const hasAll = (needs: readonly string[] | undefined, has: ReadonlySet<string> | undefined): boolean =>
  has === undefined || (needs ?? []).every((n) => has.has(n));

/** "belt", "chain", or "belt or chain" while it is not known or there are both. */
export function kindWord(has: ReadonlySet<string> | undefined): string {
  const kinds = (['belt', 'chain'] as const).filter((k) => has === undefined || has.has(k));
  return kinds.length === 1 ? nth(kinds, 0) : 'belt or chain';
}
