import type { Change } from '@core/cause/changes';
import type { KindOfDrive } from '@core/practice/drives';
import type { DeskFigures } from '@core/practice/score';

/** The desk's score at boxes that are complete, and where half of the looks were made. */
export type ScorePair = { complete: DeskFigures; half: DeskFigures };

/** What the page asks of the thread that judges virtual returns. */
export type PracticeJobs = {
  /** Judges so many by what ships with these changes; progress: share that is done. */
  score: {
    input: {
      changes: readonly Change[];
      kinds: readonly KindOfDrive[];
      returns: number;
      explainedFactor: number;
      weakLeader: number;
    };
    progress: number;
    output: ScorePair;
  };
};
