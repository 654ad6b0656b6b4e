import { agreedMarks, marksAnswer, type MarksAnswer } from '@core/bench/marks';
import type { Stage } from '@core/drive/stages';
import { type Sheet, sheetFor } from '@core/fitting/sheet';
import { driveAnswer, driveGeometry } from '../drive-answer';
import { node } from '../node';
import { possible, registry, variant } from './identification';

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
  { variant, stages },
  ({ variant, stages }, { catalogue }): Sheet | undefined => variant && sheetFor(catalogue, variant, stages),
);

/** Marks as every possible design judges them, while several are left. */
export const openMarks = node(
  { drive, possible, registry },
  ({ drive, possible, registry }, _, state): MarksAnswer | undefined =>
    drive || possible.designs.length < 2
      ? undefined
      : agreedMarks(possible.designs.map((d) => marksAnswer(d, state, registry))),
);
