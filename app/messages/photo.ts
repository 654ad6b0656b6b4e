import { nth } from '@core/quantity/must';
import type { PhotoError } from '@core/examination/photo';
import {
  hasEnough,
  MARKS,
  type OnPhoto,
  type PhotoOverlay,
  takesMore,
} from '@core/examination/photo-overlay';

/** Why nothing can be read off a picture yet, and what to do. */
export const PHOTO_TROUBLE: Readonly<Record<PhotoError['code'], string>> = {
  too_few_spots: '',
  no_scale: 'Both marks are one spot, or their distance is nothing.',
  flat_rectangle: 'The corners do not go around a rectangle. Take them back and go around it in order.',
  behind: 'A spot lies beyond the horizon of the rectangle’s plane.',
};

/** What the next press on the picture sets; nothing once all is set. */
export function nextSpot(o: Pick<PhotoOverlay, 'scale' | 'marks' | 'spots'>, what: OnPhoto): string {
  const mark = o.marks.length;
  if (mark < MARKS[o.scale])
    return o.scale === 'ruler'
      ? `${mark === 0 ? 'One' : 'The other'} mark of the ruler`
      : `Corner ${mark + 1} of the rectangle${mark === 0 ? ', going around; the first side is its width' : ''}`;
  if (!takesMore(o, what)) return '';
  const spot = o.spots.length;
  switch (what) {
    case 'angle':
      return nth(['One leg', 'The corner of the angle', 'The other leg'], spot);
    case 'length':
      return spot === 0 ? 'Where the length begins' : 'Where it ends';
    case 'area':
      return `Point ${spot + 1} of the outline, going around${hasEnough(o, what) ? ', or file it' : ''}`;
    case 'count':
      return `Number ${spot + 1}${hasEnough(o, what) ? ', or file the count' : ''}`;
  }
}
