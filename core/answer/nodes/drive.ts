import { builtStages } from '@core/examination/found-drive';
import { agreedMarks, marksAnswer, type MarksAnswer } from '@core/examination/marks';
import type { Stage } from '@core/drive/stages';
import { type Fitted, fittedAs } from '@core/fitting/fitted';
import { makeSheet, type Sheet, sheetFor } from '@core/fitting/sheet';
import { driveAnswer, driveGeometry } from '../drive-answer';
import { node, orElse } from '../node';
import { possible, registry, policy, variant } from './identification';

/** Stages of the one design that is left; none while it is open. */
const stages = node({ variant, possible }, ({ variant, possible }): readonly Stage[] =>
  variant ? (possible.designs[0] ?? []) : [],
);

const geometry = node({ stages }, ({ stages }) => driveGeometry(stages));

/** The drive, when one design is left, and what the facts show of it. */
export const drive = orElse(
  node(
    { geometry, registry },
    ({ geometry, registry }, _, state) => geometry && driveAnswer(geometry, state, registry),
  ),
  () => undefined,
);

/** The procedure for this drive, written from its layout; none of its kind is told apart from none at all. */
export const sheet = node(
  { variant, stages, policy },
  ({ variant, stages, policy }, { catalogue }, state): Sheet | undefined => {
    if (!variant) return undefined;
    const built = builtStages(state, stages);
    return built === stages
      ? sheetFor(catalogue, variant, stages, policy)
      : makeSheet(catalogue, variant, built, policy);
  },
);

/** What was told or came back of the fitting, step by step: order, faults, what was left out, the way back. */
export const fitted = orElse(
  node({ sheet, policy }, ({ sheet, policy }, _, state): Fitted | undefined =>
    sheet?.status === 'ready' ? fittedAs(sheet, state, policy) : undefined,
  ),
  () => undefined,
);

/** Marks as every possible design judges them, while several are left. */
export const openMarks = orElse(
  node({ drive, possible, registry }, ({ drive, possible, registry }, _, state): MarksAnswer | undefined =>
    drive || possible.designs.length < 2
      ? undefined
      : agreedMarks(possible.designs.map((d) => marksAnswer(d, state, registry))),
  ),
  () => undefined,
);
