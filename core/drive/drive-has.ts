import { carrierKind, readingUnit } from './carrier';
import type { Layout } from './layout';
import { tensionerIndex } from './layout';

/** What a drive can have that observables, causes, sentences and cautions depend on. */
export const HAS = [
  'belt',
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
] as const;
export type Has = (typeof HAS)[number];

/** What the stages of one drive have. */
export function driveHas(stages: readonly { layout: Layout }[]): ReadonlySet<Has> {
  const has = new Set<Has>();
  if (stages.length > 1) has.add('stages');
  for (const { layout } of stages) {
    has.add(layout.kind);
    if (layout.banks?.length) has.add('bank');
    if (layout.valves) has.add('valves');
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
    }
  }
  return has;
}

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
  if (carrier.kind === 'arm' && carrier.plunger?.ratcheted) has.add('ratchet');
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
  return kinds.length === 1 ? kinds[0]! : 'belt or chain';
}
