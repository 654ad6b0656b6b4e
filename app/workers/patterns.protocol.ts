import type { DateOrder } from '@core/quantity/dates';
import type { Result } from '@core/quantity/result';
import type { Bulletin, BulletinEffect } from '@core/patterns/bulletin';
import type { ChartSpan, Watch } from '@core/patterns/charts';
import type { Life, Looked } from '@core/patterns/look';
import type { Assumed, Return, SoldRow } from '@core/patterns/population';
import type { SoldForm, SoldTable } from '@core/patterns/read-sold';
import type { ToCome } from '@core/patterns/to-come';
import type { WhoHas } from '@core/patterns/who-has';
import type { TableTrouble } from './claims.protocol';

/** What is looked at: what was sold and came back at this desk, or an invented population by its seed. */
export type PatternSource = { invented: number } | { sold: readonly SoldRow[]; returns: readonly Return[] };

/** A fault of a workshop's returns, or of a kit's, and its share elsewhere. */
export type FaultAsked = { shop?: string; kit?: string; code: string; step: string; share: number };
/** A lot month by month, and the watch over it. */
export type LotMonths = { months: ChartSpan[]; watch: Watch };

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
  /** Who has units of a lot. */
  whoHas: { input: { kit: string; lot: string }; progress: never; output: WhoHas | undefined };
  /** What came back of a lot month by month. */
  lotMonths: { input: { kit: string; lot: string }; progress: never; output: LotMonths | undefined };
  /** The share of a fault by quarters. */
  quarters: { input: FaultAsked; progress: never; output: ChartSpan[] };
  /** What bulletins about a kit's step did. */
  effect: {
    input: { all: readonly Bulletin[]; of: Pick<Bulletin, 'kit' | 'step' | 'code'> };
    progress: never;
    output: BulletinEffect | undefined;
  };
  /** Reads a table of what was sold. Nothing is kept. */
  readSold: {
    input: { name: string; blob: Blob; today: string; order: DateOrder; form?: SoldForm };
    progress: never;
    output: Result<SoldTable, TableTrouble>;
  };
};
