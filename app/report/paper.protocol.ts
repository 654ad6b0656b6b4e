import type { Paper, PaperPhoto } from './paper';
import type { SheetPaper } from './sheet-paper';

/** A paper with its photographs, and as what it leaves. */
export type PaperAsk = { paper: Paper; photos: PaperPhoto[]; as: 'pdf' | 'html' };

/** What the page asks of the thread that sets long papers. Progress: share of it, 0 to 1. */
export type PaperJobs = {
  /** A fitting sheet as PDF. */
  sheet: { input: SheetPaper; progress: number; output: Blob };
  /** A letter or report. */
  paper: { input: PaperAsk; progress: number; output: Blob };
};
