import type { DateOrder } from '@core/quantity/dates';
import type { Result } from '@core/quantity/result';
import type { Life, Looked } from '@core/patterns/look';
import type { Assumed, Return, SoldRow } from '@core/patterns/population';
import type { SoldForm, SoldTable } from '@core/patterns/read-sold';
import type { ToCome } from '@core/patterns/to-come';
import type { TableTrouble } from './claims.protocol';

/** What is looked at: what was sold and came back at this desk, or an invented population by its seed. */
export type PatternSource = { invented: number } | { sold: readonly SoldRow[]; returns: readonly Return[] };

/** What the page asks of the thread that looks for patterns. It keeps the population that it looked at last. */
export type PatternJobs = {
  /** Looks at everything; progress: share that is done. */
  look: {
    input: { source: PatternSource; today: string; assumed: Assumed };
    progress: number;
    output: Looked;
  };
  /** The life of a kit, or of one lot of it, in the population that was looked at last. */
  life: { input: { kit: string; lot?: string }; progress: never; output: Life | undefined };
  /** What is still to come of a lot of it. */
  toCome: {
    input: { kit: string; lot: string; months: number };
    progress: never;
    output: ToCome | undefined;
  };
  /** Reads a table of what was sold. Nothing is kept. */
  readSold: {
    input: { name: string; blob: Blob; today: string; order: DateOrder; form?: SoldForm };
    progress: never;
    output: Result<SoldTable, TableTrouble>;
  };
};
