import type { PhotoError } from '@core/bench/photo';

/** Why nothing can be read off a picture yet, and what to do. */
export const PHOTO_TROUBLE: Readonly<Record<PhotoError['code'], string>> = {
  too_few_spots: '',
  no_scale: 'Both marks are one spot, or their distance is nothing.',
  flat_rectangle: 'The corners do not go around a rectangle. Take them back and go around it in order.',
  behind: 'A spot lies beyond the horizon of the rectangle’s plane.',
};
