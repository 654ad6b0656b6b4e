import type { CatalogueLimit } from '@core/examination/catalogue-limit';
import type { DriveAnswer } from '@core/answer/drive-answer';
import type { Possible } from '@core/answer/applies';
import type { NewFact } from '@core/facts/change';
import type { Fact, FactValue } from '@core/facts/fact';
import type { Observable } from '@core/facts/observable';
import type { ReadContext } from '@core/facts/read-value';
import type { State } from '@core/facts/state';
import type { Filed } from '../data/case-desk';
import type { ToLook } from '../data/practice-bench';

/**
 * The case that a field belongs to, as far as a field needs it: what stands, how values are read and shown, and how a
 * value is filed. A field knows nothing else, so that it shows another case, or a report that nobody may change, alike.
 */
export type Session = {
  /** Nothing is filed here: values are shown as they stand. */
  readonly readOnly: boolean;
  observable(key: string): Observable | undefined;
  /** None before the case is read. */
  state(): State | undefined;
  /** What drives are still possible: options that none of them can show are left out. */
  possible(): Pick<Possible, 'has'>;
  /** The drive as computed, once one design is left: what a reading is held against. */
  drive(): DriveAnswer | undefined;
  /** The dimension of the new part that a reading is held against, where the catalogue gives one. */
  limit?(key: string, about: string | undefined): CatalogueLimit | undefined;
  readContext(): ReadContext;
  /** A value as this house reads it, with its unit. */
  show(o: Observable, value: FactValue, u?: number): string;
  /** Unit in which it is typed; empty where there is none. */
  unit(o: Observable): string;
  /** A thing in words; empty for the only one of its kind. */
  thing(about: string | undefined): string;
  /** Codes of records, or names known already, that can be meant. */
  codes(o: Observable): readonly string[];
  draft(slot: string): string;
  keepDraft(slot: string, text: string): void;
  file(entry: NewFact | ((state: State) => NewFact | undefined)): Promise<Filed>;
  strike(fact: Fact): Promise<Filed>;
  /** On a return for practice: a look at it has its cost, and may still have to be made; undefined elsewhere. */
  toLook?(o: Observable, about: string | undefined): ToLook | undefined;
};
