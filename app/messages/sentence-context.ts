import type { Catalogue } from '@core/catalogue/find-records';
import type { Registry } from '@core/facts/observable';
import type { Notation } from '@core/facts/read-value';

/** What the sentences need to know about how this house writes. */
export type SentenceContext = {
  notation: Notation;
  cat?: Catalogue | undefined;
  registry: Registry;
  /** Step to which a label rounds its distance down, in the house's unit. */
  labelStep?: number;
  /** Words that tell a thing from others of its kind. */
  thing?: (id: string) => string;
};
