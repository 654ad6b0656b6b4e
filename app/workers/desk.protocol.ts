import type { Rebuilt } from './rebuild-summaries';
import type { RejudgeAnswer, RejudgeAsk } from './rejudge-all';

/** What the page asks of the thread that works on all cases at once. */
export type DeskJobs = {
  /** Makes the summaries of these cases anew, else of all; progress: cases done. */
  rebuild: { input: readonly string[] | undefined; progress: number; output: Rebuilt };
  /** Judges every case under two bodies of knowledge; progress: cases done. */
  rejudge: { input: RejudgeAsk; progress: number; output: RejudgeAnswer };
};
