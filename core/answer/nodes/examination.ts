import { nth } from '@core/quantity/must';
import { damageMaps, type DamageMap } from '@core/examination/damage-map';
import { possibleInspections } from '@core/examination/examination';
import { EXAMINATIONS } from '@core/examination/examination-data';
import { leakAnswers } from '@core/examination/leak-answer';
import { pieceBalances } from '@core/examination/piece-balance';
import { spreadAnswers } from '@core/examination/spread-answer';
import { type StackUp, stackUps } from '@core/examination/stack-ups';
import { thingsOf } from '@core/facts/read';
import { applies, type Possible } from '../applies';
import { type Examined, examined } from '../examined';
import { type InspectionCount, countInspections } from '../inspection-count';
import { node, orElse } from '../node';
import { traceAnswer } from '../trace-answer';
import { things } from './case';
import { drive } from './drive';
import { kit, possible, registry, policy } from './identification';

/** Inspections that can be made, whatever was found. */
const possibleToInspect = node({ registry, possible }, ({ registry, possible }) =>
  possibleInspections(EXAMINATIONS, registry, (o) => applies(o, possible)),
);

/** The box as things on the bench, each with its inspections in the order of the work. */
export const examination = node(
  { registry, possibleToInspect, things, kit },
  ({ registry, possibleToInspect, things, kit }, { catalogue }, state): Examined =>
    examined(state, registry, possibleToInspect, things, catalogue, kit),
);

/** How much of what can be looked at was, at the stations that look. */
export const inspections = node(
  { registry, possible, things },
  ({ registry, possible, things }, _, state): Record<'fit' | 'examine', InspectionCount> => ({
    fit: countInspections(registry, state, possible, 'fit', things),
    examine: countInspections(registry, state, possible, 'examine', things),
  }),
);

/** Lengths that come of others, each against its window. */
export const stacks = orElse(
  node({ registry, possible }, ({ registry, possible }, _, state): StackUp[] => {
    const further = thingsOf(state, registry).flatMap((t) => (t.first ? [] : [t.id]));
    const layouts = possible.designs.length === 1 ? nth(possible.designs, 0).map((s) => s.layout) : [];
    return stackUps(state, registry, layouts, further);
  }),
  () => [],
);

/** What of guides came back, by mass and by outline. */
export const balances = orElse(
  node({ registry, policy }, ({ registry, policy }, _, state) => pieceBalances(state, registry, policy)),
  () => [],
);

/** Where on a sprocket or along a guide its damage lies. */
export const spreads = orElse(
  node({ registry, policy, examination, drive }, ({ registry, policy, examination, drive }, _, state) => {
    const cams =
      drive?.stages.flatMap((s) => s.layout.wheels.flatMap((w) => (w.role === 'cam' ? [w.teeth] : []))) ?? [];
    const alike = new Set(cams).size === 1 ? cams[0] : undefined;
    return spreadAnswers(state, registry, policy, (about) => {
      const part = examination.things.find((t) => t.kind === 'sprocket' && (t.about ?? '') === about)?.part;
      const teeth = part?.attributes['teeth'];
      return typeof teeth === 'number' ? teeth : alike;
    });
  }),
  () => [],
);

const layoutsOf = ({ designs }: Possible) => designs.map((stages) => stages.map((s) => s.layout));

/** What a capture of crank and cam said of this drive. */
export const trace = orElse(
  node({ registry, policy, possible }, ({ registry, policy, possible }, _, state) =>
    traceAnswer(state, registry, layoutsOf(possible), policy),
  ),
  () => undefined,
);

/** What one after the repair said: another state of the engine, and no evidence of what was wrong. */
export const traceAfter = orElse(
  node({ registry, policy, possible }, ({ registry, policy, possible }, _, state) =>
    traceAnswer(state, registry, layoutsOf(possible), policy, 'repaired'),
  ),
  () => undefined,
);

/** How plungers sank under a constant load. */
export const leaks = orElse(
  node({ policy }, ({ policy }, _, state) => leakAnswers(state, policy)),
  () => [],
);

/** Damage at teeth and links on the one design that is left: which wheel it repeats with. */
export const damage = orElse(
  node({ drive, registry }, ({ drive, registry }, _, state): DamageMap[] => {
    const things = thingsOf(state, registry).flatMap((t) => (t.first ? [] : [t.id]));
    return drive ? damageMaps(state, registry, drive.stages, things) : [];
  }),
  () => [],
);
