import { agreedMarks, marksAnswer, type MarksAnswer } from '@core/bench/marks';
import type { Stage } from '@core/drive/stages';
import { type Fitted, fittedAs } from '@core/fitting/fitted';
import { type Sheet, sheetFor } from '@core/fitting/sheet';
import { driveAnswer, driveGeometry } from '../drive-answer';
import { node } from '../node';
import { possible, registry, rules, variant } from './identification';

/** Stages of the one design that is left; none while it is open. */
const stages = node({ variant, possible }, ({ variant, possible }): readonly Stage[] =>
  variant ? (possible.designs[0] ?? []) : [],
);

const geometry = node({ stages }, ({ stages }) => driveGeometry(stages));

/** The drive, when one design is left, and what the facts show of it. */
export const drive = node(
  { geometry, registry },
  ({ geometry, registry }, _, state) => geometry && driveAnswer(geometry, state, registry),
);

/** The procedure for this drive, written from its layout; none of its kind is told apart from none at all. */
export const sheet = node(
  { variant, stages, rules },
  ({ variant, stages, rules }, { catalogue }): Sheet | undefined =>
    variant && sheetFor(catalogue, variant, stages, rules),
);

/** What was told or came back of the fitting, step by step: order, faults, what was left out, the way back. */
export const fitted = node({ sheet, rules }, ({ sheet, rules }, _, state): Fitted | undefined =>
  sheet?.status === 'ready' ? fittedAs(sheet, state, rules) : undefined,
);

/** Marks as every possible design judges them, while several are left. */
export const openMarks = node(
  { drive, possible, registry },
  ({ drive, possible, registry }, _, state): MarksAnswer | undefined =>
    drive || possible.designs.length < 2
      ? undefined
      : agreedMarks(possible.designs.map((d) => marksAnswer(d, state, registry))),
);
