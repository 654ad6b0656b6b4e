import type { ExaminedThing } from '@core/answer/examined';
import type { DriveAnswer } from '@core/answer/drive-answer';
import type { State } from '@core/facts/state';
import { appearanceOf } from './appearance';
import { AROUND_DRAWINGS } from './around-pictures';
import { LONG_DRAWINGS } from './long-pictures';
import type { Drawings, ThingPicture } from './picture';
import { ROUND_DRAWINGS } from './round-pictures';
import { TENSIONER_DRAWING } from './tensioner-picture';

const BY_KIND: Drawings = { ...TENSIONER_DRAWING, ...LONG_DRAWINGS, ...ROUND_DRAWINGS, ...AROUND_DRAWINGS };

/** The drawing of a thing with what was found on it; none of a belt or chain, which is shown unrolled, tooth by tooth. */
export function thingPicture(
  thing: ExaminedThing,
  state: State,
  drive: DriveAnswer | undefined,
): ThingPicture | undefined {
  const drawing = BY_KIND[thing.kind];
  return drawing?.draw(appearanceOf(thing, state, drive, drawing.wheel));
}
