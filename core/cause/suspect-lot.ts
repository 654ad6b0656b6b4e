import { type CauseData, MOST_COMMON } from './cause-data';

/** However much more often a lot comes back, what its supplier bears becomes at most so many times as common. */
const MOST_TIMES = 10;

/**
 * How much commoner what the supplier bears is in a lot that comes back so many times as often as others, where all that comes
 * back beyond the usual is laid to the product: of R returns where one was usual, s + R − 1 are the supplier's and 1 − s are not,
 * s being its usual share; their odds by the usual ones are (s + R − 1) / s.
 * @param share the supplier's usual share, of 1
 */
export const suspectTimes = (share: number, times: number): number =>
  times <= 1 || share <= 0 ? 1 : Math.min(MOST_TIMES, (share + times - 1) / share);

/** The supplier's share among causes as common as they are here. */
export function supplierShare({ causes }: Pick<CauseData, 'causes'>): number {
  const all = causes.reduce((s, c) => s + c.prior, 0);
  return causes.reduce((s, c) => s + (c.bears === 'supplier' ? c.prior : 0), 0) / all;
}

/** The same causes for a part of a lot that comes back so many times as often as the others of its kit. */
export function suspectLot(data: CauseData, times: number | undefined): CauseData {
  const by = times === undefined ? 1 : suspectTimes(supplierShare(data), times);
  if (by === 1) return data;
  return {
    ...data,
    causes: data.causes.map((c) =>
      c.bears === 'supplier' ? { ...c, prior: Math.min(MOST_COMMON, c.prior * by) } : c,
    ),
  };
}
