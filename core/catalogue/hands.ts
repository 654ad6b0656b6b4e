import { must, nth } from '@core/quantity/must';
import { backOf } from '@core/drive/carrier';
import { driveHas, type Has } from '@core/drive/drive-has';
import { isFree, rowOf, tensionerIndex } from '@core/drive/layout';
import type { Stage } from '@core/drive/stages';
import { type Effect, isThere, type StepThing, thingOf } from './effects';
import type { StepSpot } from './expand-procedure';

/** What stands where while hands are in the engine, by the key of a thing on this drive ("loop@1", "idler@0.3", "cover"). */
export type Hands = {
  off: Set<string>;
  loose: Set<string>;
  empty: Set<string>;
  unlevelled: Set<string>;
  apart: Set<string>;
  /** Aids that are in place: a support. */
  aids: Set<string>;
  clean: Set<string>;
  /** Stages whose oil feed was filled. */
  primed: Set<number>;
  sealed: Set<string>;
  cured: Set<string>;
  crank: 'any' | 'mark' | 'clear';
  stop: boolean;
  lockedCrank: boolean;
  cams?: 'shafts' | 'sprockets';
  /** Stages whose tensioner is held by a pin; those whose belt or chain is taut. */
  pinned: Set<number>;
  taut: Set<number>;
  /** How often a thing was taken off and put on. */
  times: Map<string, { removed: number; fitted: number }>;
};

export const asFoundByHands = (stages: number): Hands => ({
  off: new Set(),
  loose: new Set(),
  empty: new Set(),
  unlevelled: new Set(),
  apart: new Set(),
  aids: new Set(),
  clean: new Set(),
  primed: new Set(),
  sealed: new Set(),
  cured: new Set(),
  crank: 'any',
  stop: false,
  lockedCrank: false,
  pinned: new Set(),
  taut: new Set(Array.from({ length: stages }, (_, i) => i)),
  times: new Map(),
});

/** A drive as hands find it: what each stage has, and how its tensioner is held and set back. */
export type DriveForHands = {
  has: ReadonlySet<Has>;
  stages: readonly {
    has: ReadonlySet<Has>;
    row: number;
    /** Its tensioner is fed with oil by the engine: on a chain. */
    oilFed: boolean;
    back?: 'pressed' | 'ratchet' | 'screwed' | 'never';
    manual: boolean;
    tensioned: boolean;
  }[];
  freeSeat: boolean;
};

export function driveForHands(stages: readonly Stage[]): DriveForHands {
  return {
    has: driveHas(stages),
    stages: stages.map((s) => {
      const carrier = s.layout.wheels[tensionerIndex(s.layout)]?.carrier;
      const plunger = carrier?.kind === 'arm' ? carrier.plunger : undefined;
      return {
        has: driveHas([s]),
        row: rowOf(s.layout),
        oilFed: plunger !== undefined && s.layout.kind === 'chain',
        ...(plunger ? { back: backOf(plunger) } : {}),
        manual: carrier?.kind === 'eccentric' && carrier.manual === true,
        tensioned: carrier !== undefined,
      };
    }),
    freeSeat: stages.some((s) => s.layout.wheels.some((w) => w.role === 'cam' && isFree(w))),
  };
}

const keyOf = (t: StepThing, stage: number, wheel?: number): string =>
  t.scope === 'engine' ? t.id : t.scope === 'stage' ? `${t.id}@${stage}` : `${t.id}@${stage}.${wheel ?? ''}`;

/** The things that an effect touches on a drive, by key, with their stage; empty where the drive has none. */
export function touched(
  effect: Effect,
  spot: StepSpot,
  drive: DriveForHands,
): { thing: StepThing; key: string; stage: number }[] {
  const thing = thingOf(effect[1]);
  if (!thing) return [];
  const all = effect[2] === 'all';
  const stages = all ? drive.stages.map((_, i) => i) : [spot.stage];
  return stages.flatMap((stage) => {
    const has = thing.scope === 'engine' ? drive.has : nth(drive.stages, stage).has;
    return isThere(thing, has) ? [{ thing, key: keyOf(thing, stage, spot.wheel), stage }] : [];
  });
}

/** Keys of what has to be off before a thing is reached, on this drive; to be read it may lie behind other rows. */
export function inFront(thing: StepThing, stage: number, drive: DriveForHands, read = false): string[] {
  const out: string[] = [];
  for (const name of thing.behind ?? []) {
    const every = name.endsWith('*');
    const other = must(thingOf(every ? name.slice(0, -1) : name));
    const at = other.scope === 'engine' ? [0] : every ? drive.stages.map((_, i) => i) : [stage];
    for (const i of at) {
      const has = other.scope === 'engine' ? drive.has : nth(drive.stages, i).has;
      if (isThere(other, has)) out.push(keyOf(other, i));
    }
  }
  if (thing.depth && !read)
    drive.stages.forEach((s, i) => {
      if (s.row < nth(drive.stages, stage).row) out.push(`loop@${i}`);
    });
  return out;
}
