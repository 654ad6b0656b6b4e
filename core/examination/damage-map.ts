import { num } from '@core/quantity/must';
import type { Stage } from '@core/drive/stages';
import { solveDrive } from '@core/drive/solve-drive';
import { teethInMesh } from '@core/drive/strands';
import { optionsOf, type Registry } from '@core/facts/observable';
import { placedOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { damageSpacing, type SpacedWheel, type SpacingAnswer, type TornRun, tornRuns } from './spacing';
import { stageOf } from './stage-of';
import { plainText } from '@core/facts/value';

/** Loops whose damage is mapped: what is observed at their teeth or links. */
export const MAPPED = { belt: 'belt.tooth_damage', chain: 'chain.link_damage' } as const;
export type MappedKind = keyof typeof MAPPED;
/** What torn teeth are called. */
const TORN = 'sheared';

export type DamageMap = {
  about: string;
  kind: MappedKind;
  /** Teeth or links of it. */
  count: number;
  wheels: SpacedWheel[];
  spacing: SpacingAnswer;
  runs: TornRun[];
  facts: string[];
};

/** Toothed wheels of a stage, by which damage can repeat. */
const toothed = ({ layout }: Stage): SpacedWheel[] =>
  layout.wheels.flatMap(({ id, name, teeth }) => (teeth === undefined ? [] : [{ id, name, teeth }]));

/** Teeth of the loop that lie in each toothed wheel. */
function meshOf({ layout }: Stage): Map<string, number> {
  const solved = solveDrive(layout);
  return new Map(
    layout.wheels.flatMap((w, i): [string, number][] =>
      solved.ok && w.teeth !== undefined
        ? [[w.id, teethInMesh(w.teeth, num(solved.value.path.wraps, i))]]
        : [],
    ),
  );
}

/** Stage that a loop of the case belongs to, by its kind. @param about the thing; '' for the first of its kind */
export const stageOfLoop = (
  state: State,
  kind: MappedKind,
  about: string,
  stages: readonly Stage[],
): Stage | undefined => stages[stageOf(state, about, kind, stages, (l) => l.kind === kind)];

/** Numbers from one to another that the loop has; what lies beyond is a contradiction of its own. */
const upTo = (count: number, from: number, to: number): number[] => {
  const first = Math.max(1, from);
  return Array.from({ length: Math.max(0, Math.min(count, to) - first + 1) }, (_, i) => first + i);
};

/** Every loop with damage at places, on the drive that it ran on: which wheel the damage repeats with, and torn runs. */
export function damageMaps(
  state: State,
  registry: Registry,
  stages: readonly Stage[],
  things: readonly string[],
): DamageMap[] {
  return (Object.keys(MAPPED) as MappedKind[]).flatMap((kind) =>
    ['', ...things].flatMap((about): DamageMap[] => {
      const key = MAPPED[kind];
      const o = registry.get(key);
      const seen = o ? placedOf(state, key, about === '' ? undefined : about) : [];
      const stage = seen.length > 0 ? stageOfLoop(state, kind, about, stages) : undefined;
      if (!o || !stage) return [];
      const bad = new Set(optionsOf(o).flatMap((x) => (x.abnormal ? [x.key] : [])));
      const { count } = stage.layout;
      const marks = seen.filter((s) => bad.has(plainText(s.value)));
      const torn = marks
        .filter((s) => s.value === TORN)
        .flatMap(({ place: { from, to } }) => (from === undefined ? [] : upTo(count, from, to ?? from)));
      const wheels = toothed(stage);
      const at = marks.flatMap((s) =>
        s.place.from === undefined ? [] : upTo(count, s.place.from, s.place.from),
      );
      return [
        {
          about,
          kind,
          count,
          wheels,
          spacing: damageSpacing(at, count, wheels),
          runs: tornRuns(torn, count, meshOf(stage)),
          facts: marks.map((s) => s.fact.id),
        },
      ];
    }),
  );
}
