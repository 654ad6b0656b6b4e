import type { SheetPaper } from './sheet-paper';

/** What the page asks of the thread that sets long papers. */
export type PaperJobs = {
  /** A fitting sheet as PDF; progress: share of it, 0 to 1. */
  sheet: { input: SheetPaper; progress: number; output: Blob };
};
