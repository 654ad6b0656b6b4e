import type { ExaminedThing } from '@core/answer/examined';
import type { DriveAnswer } from '@core/answer/drive-answer';
import type { Carrier } from '@core/drive/carrier';
import type { Wheel } from '@core/drive/layout';
import { textOf, numberOf, placedOf } from '@core/facts/read';
import type { State } from '@core/facts/state';

/** What a picture of a thing is drawn from: its kind, the new part's dimensions, the drive's wheel, and what was found. */
export type PartAppearance = {
  kind: string;
  carrier: Carrier | undefined;
  wheel: Wheel | undefined;
  /** Places that its inspections are made at. */
  zones: readonly string[];
  /** A dimension of the new part, mm or a count; none where the catalogue does not say. */
  size: (attribute: string) => number | undefined;
  word: (attribute: string) => string | undefined;
  number: (key: string) => number | undefined;
  text: (key: string) => string | undefined;
  placed: (key: string) => { from: number; value: number | string }[];
};

/** Gathers what is known of a thing for its picture. @param on the wheel of the drive that it is on */
export function appearanceOf(
  thing: ExaminedThing,
  state: State,
  drive: DriveAnswer | undefined,
  on?: (w: Wheel) => boolean,
): PartAppearance {
  const attribute = (key: string) => thing.part?.attributes[key];
  const { about } = thing;
  return {
    kind: thing.kind,
    carrier: thing.kind === 'tensioner' ? drive?.carrier : undefined,
    wheel: on && drive?.stages.flatMap((s) => s.layout.wheels).find(on),
    zones: thing.inspections.map((l) => l.inspection.zone),
    size: (key) => {
      const v = attribute(key);
      return typeof v === 'number' ? v : undefined;
    },
    word: (key) => {
      const v = attribute(key);
      return typeof v === 'string' ? v : undefined;
    },
    number: (key) => numberOf(state, key, about),
    text: (key) => textOf(state, key, about),
    placed: (key) =>
      placedOf(state, key, about).flatMap((p) =>
        p.place.from !== undefined && (typeof p.value === 'number' || typeof p.value === 'string')
          ? [{ from: p.place.from, value: p.value }]
          : [],
      ),
  };
}
