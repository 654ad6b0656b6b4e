import type { Finding } from '@core/examination/finding';
import { findingsOf } from '@core/examination/findings';
import { intervalFor } from '@core/catalogue/interval';
import { causesFor, numberedFindings, weighedFindings } from '@core/cause/cause-data';
import { suspectLot } from '@core/cause/suspect-lot';
import { rankCauses, type Ranking } from '@core/cause/rank';
import { standing, textOf, thingsOf } from '@core/facts/read';
import { THING } from '@core/facts/thing';
import type { ExaminationContext } from '@core/examination/context';
import { applies } from '../applies';
import { type CheckAnswer, checkList } from '../checks';
import { type CodeAnswer, codesAnswer } from '../codes-answer';
import { toConclude, type ToConclude } from '../conclude';
import { lotTimes } from '../lot-times';
import { node, orElse } from '../node';
import { usageSinceFitting } from '../usage';
import { suspects, type Suspect } from '../why';
import { balances, damage, examination, leaks, trace } from './examination';
import { kind } from './case';
import { drive, fitted, openMarks, sheet } from './drive';
import { engine, kit, kits, possible, registry, policy } from './identification';

export const usage = node({ registry }, ({ registry }, _, state) => usageSinceFitting(state, registry));

/** The causes that can occur on a drive that is still possible, in its words, each as common as it is there and in what comes so. */
export const causes = node({ possible, kind }, ({ possible, kind }, { knowledge }, state) =>
  suspectLot(causesFor(knowledge.causes, possible.has, kind), lotTimes(state)),
);

const interval = node(
  { engine },
  ({ engine }, { catalogue }, state) =>
    engine && intervalFor(catalogue.pack.intervals, engine.code, textOf(state, 'vehicle.name')),
);

const kitFits = node({ kits }, ({ kits }, _, state): boolean | undefined => {
  const named = textOf(state, 'kit.number');
  const match = kits.find((k) => k.kit.number === named);
  return match === undefined || match.verdict === 'fits_if' ? undefined : match.verdict === 'fits';
});

const alike = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** Readings that were held against the new part's dimension, with what came of it. */
const limits = node(
  { examination },
  ({ examination }): ExaminationContext['limits'] =>
    examination.things.flatMap((t) =>
      t.inspections.flatMap(({ inspection: look, limit }) =>
        limit?.chance === undefined
          ? []
          : [{ key: look.key, ...(t.about === undefined ? {} : { about: t.about }), within: limit.chance }],
      ),
    ),
  alike,
);

/** Damage that was mapped, where it is enough to say whether it repeats. */
const repeats = node(
  { damage },
  ({ damage }): ExaminationContext['repeats'] =>
    damage.flatMap(({ about, spacing, facts }) =>
      spacing.verdict === 'too_few' ? [] : [{ about, wheel: spacing.verdict === 'wheel', facts }],
    ),
  alike,
);

/** Numbers read off returned parts, against what the kit of the case holds. */
const partNumbers = node(
  { registry, kit },
  ({ registry, kit }, { catalogue }, state): ExaminationContext['partNumbers'] =>
    thingsOf(state, registry).flatMap(({ id, first, number }) => {
      const fact = standing(state, THING.number, id);
      const other = number === undefined ? undefined : catalogue.parts.get(number);
      // a number that the catalogue has not says nothing
      if (!kit || !fact || !other) return [];
      const fits = kit.contents.some((c) => c.part === other.number);
      return [{ about: first ? '' : id, fits, facts: [fact.id] }];
    }),
  alike,
);

export const findings = node(
  {
    registry,
    possible,
    drive,
    openMarks,
    kitFits,
    interval,
    usage,
    fitted,
    balances,
    leaks,
    trace,
    limits,
    repeats,
    partNumbers,
    policy,
  },
  ({ registry, possible, drive, openMarks, fitted, policy, ...known }, { knowledge }, state): Finding[] =>
    findingsOf(weighedFindings(knowledge.causes), {
      ...known,
      oilKm: policy.oilKm,
      numbers: numberedFindings(knowledge.causes),
      state,
      registry,
      applies: (key) => {
        const o = registry.get(key);
        return o !== undefined && applies(o, possible);
      },
      drive: {
        layout: drive?.layout,
        settings: drive?.settings.ok ? drive.settings.value : undefined,
        carrier: drive?.carrier,
        tensioners: drive?.tensioners ?? [],
        elongations: drive?.elongations ?? [],
        extensions: drive?.extensions ?? [],
      },
      marks: drive?.marks ?? openMarks,
      sheetFaults: fitted?.faults ?? [],
    }),
);

/** Fault codes of the cam and crank families, with what they accuse. */
export const codes = orElse(
  node({ causes }, ({ causes }, _, state): CodeAnswer[] => codesAnswer(state, causes)),
  () => [],
);

export const ranking = node(
  { causes, findings, policy },
  ({ causes, findings, policy }): Ranking => rankCauses(causes, findings, policy.explainedFactor),
);

/** Checks worth making, by bits per minute. */
export const checks = orElse(
  node(
    { causes, registry, findings, possible, policy },
    ({ causes, registry, findings, possible, policy }, _, state): CheckAnswer[] =>
      checkList(causes, registry, findings, state, possible, policy),
  ),
  () => [],
);

/** What of the examination would settle most, and what cannot be had since it did not come. */
export const conclude = node(
  { checks, examination, registry, policy },
  ({ checks, examination, registry, policy }): ToConclude =>
    toConclude(checks, examination, registry, policy.minutesTo.begin),
);

/** Steps of the fitting that could have led to what is seen, most likely first. */
export const why = orElse(
  node({ causes, sheet, ranking, fitted, policy }, ({ causes, sheet, ranking, fitted, policy }): Suspect[] =>
    sheet?.status === 'ready' ? suspects(sheet, ranking, causes, fitted, policy.suspicion) : [],
  ),
  () => [],
);
