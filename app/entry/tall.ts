import { type Observable, optionsOf } from '@core/facts/observable';

/** Tiles that stand in one row, about; and rows that the heading and the buttons of a card take. */
const IN_A_ROW = 3;
const FRAME = 2;

/** How tall a card of such fields is about, in rows of a field. */
export function rowsOf(fields: readonly Observable[]): number {
  const rows = (o: Observable) => {
    if (o.type.kind === 'text' && o.type.long) return 2;
    return 1 + Math.ceil(optionsOf(o).length / IN_A_ROW);
  };
  return fields.reduce((sum, o) => sum + rows(o), FRAME);
}
