/** One shape of a picture, in millimetres, y downwards, with the class that says what it is. */
export type StepShape =
  | { tag: 'circle'; is: string; x: number; y: number; r: number }
  | { tag: 'path'; is: string; d: string }
  | { tag: 'text'; is: string; x: number; y: number; text: string };
/** The drive at one step: what stands still in every picture of its stage, belt or chain, and what is of this step. */
export type StepPicture = {
  box: { x: number; y: number; width: number; height: number };
  textMm: number;
  base: readonly StepShape[];
  loop: readonly StepShape[];
  over: readonly StepShape[];
  /** Name of the stage's still part: pictures of one stage share it. */
  baseId: string;
  /** In words, for those who do not see it. */
  title: string;
};
