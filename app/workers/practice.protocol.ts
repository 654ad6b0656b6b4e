import type { Change } from '@core/cause/changes';
import type { Fact } from '@core/facts/fact';
import type { Policy } from '@core/policy/policy';
import type { After, Verdict } from '@core/practice/after';
import type { PathScore } from '@core/practice/path-score';
import type { Run } from '@core/practice/record';
import type { KindOfDrive } from '@core/practice/drives';
import type { DeskFigures } from '@core/practice/score';

/** The desk's score at boxes that are complete, and where half of the looks were made. */
export type ScorePair = { complete: DeskFigures; half: DeskFigures; paths: PathScore };

/** What the page asks of the thread that judges virtual returns. */
export type PracticeJobs = {
  /** Judges so many by what ships with these changes; progress: share that is done. */
  score: {
    input: {
      changes: readonly Change[];
      /** Catalogue whose engines whole returns are of. */
      pack: string;
      kinds: readonly KindOfDrive[];
      returns: number;
      policy: Policy;
    };
    progress: number;
    output: ScorePair;
  };
  /** Looks back on a decided run, by a catalogue of this browser. */
  after: {
    input: {
      pack: string;
      changes: readonly Change[];
      policy: Policy;
      run: Run;
      facts: readonly Fact[];
      verdict: Verdict;
    };
    progress: never;
    output: After;
  };
};
