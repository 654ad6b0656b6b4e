import type { PicturePoint } from '@core/examination/photo';

/** Lengths mm, spots pixels of the original. */
type FlattenAsk = { blob: Blob; corners: readonly PicturePoint[]; sides: { width: number; height: number } };
/** `sourcePx`: pixels of the picture that was laid flat per pixel of the original; one unless that one was too large. */
export type Flattened = {
  blob: Blob;
  width: number;
  height: number;
  back: readonly number[];
  sourcePx: number;
};

/** What is asked of the thread for pictures; a picture that cannot be read fails. */
export type PhotoJobs = {
  /** Size of a picture, and something of it that is not too large to be shown. */
  look: { input: Blob; progress: never; output: { width: number; height: number; shown: Blob } };
  flatten: { input: FlattenAsk; progress: never; output: Flattened };
};
