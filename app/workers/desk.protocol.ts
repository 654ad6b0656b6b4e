import type { Rebuilt } from '../data/rebuild-heads';

/** What the page asks of the thread that works on all cases at once. */
export type DeskJobs = {
  /** Makes the heads of all cases anew; progress: cases done. */
  rebuild: { input: undefined; progress: number; output: Rebuilt };
};
