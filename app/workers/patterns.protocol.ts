import type { DateOrder } from '@core/quantity/dates';
import type { Result } from '@core/quantity/result';
import type { Bulletin, BulletinEffect } from '@core/patterns/bulletin';
import type { ChartSpan, LotMonths } from '@core/patterns/charts';
import type { Life, Looked } from '@core/patterns/look';
import type { Assumed, Return, SoldRow } from '@core/patterns/population';
import type { ComparedRates } from '@core/patterns/rates';
import type { SoldForm, SoldTable } from '@core/patterns/read-sold';
import type { ToCome } from '@core/patterns/to-come';
import type { WhoHas } from '@core/patterns/who-has';
import type { TableTrouble } from './claims.protocol';

/** What is looked at: what was sold and came back at this desk, or an invented population by its seed. */
export type PatternSource = { invented: number } | { sold: readonly SoldRow[]; returns: readonly Return[] };

/** A fault of a workshop's returns, or of a kit's, and its share elsewhere. */
export type FaultAsked = { shop?: string; kit?: string; code: string; step: string; share: number };

/** How a case's lot comes back: counts, and how many times as often as the others. */
export type LotOfCase = { returns: number; expected: number; sold: number } & Pick<
  ComparedRates,
  'ratio' | 'interval'
>;

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
  /** One lot of this desk against the others of its kit, without the case that asks; what was looked at last stays as it is. */
  lotOfCase: {
    input: {
      sold: readonly SoldRow[];
      returns: readonly Return[];
      today: string;
      assumed: Assumed;
      kit: string;
      lot: string;
      case: string;
    };
    progress: never;
    output: LotOfCase | undefined;
  };
  /** Reads a table of what was sold. Nothing is kept. */
  readSold: {
    input: { name: string; blob: Blob; today: string; order: DateOrder; form?: SoldForm };
    progress: never;
    output: Result<SoldTable, TableTrouble>;
  };
};
