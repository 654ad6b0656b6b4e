import type { CauseEntry } from './cause-data';
import type { RankedCause, Ranking } from './rank';

/** What is held of a side, and its likeliest cause. */
type Side = { share: number; best: number; cause: CauseEntry };
/** The likeliest cause of a side is a rival from this share on. */
const LEAST = 0.1;
/** Supplier and fitter, where what is known does not part them: the doubt is nobody's fault. */
export type SidesTie = { supplier: Side; fitter: Side };

/**
 * Whether the leading cause lies with supplier or fitter and the other side is close.
 * @param apart one side has so many times the share of the other, or they are not told apart
 */
export function sidesTie(causes: readonly RankedCause[], apart: number): SidesTie | undefined {
  const bears = causes[0]?.cause.bears;
  if (bears !== 'supplier' && bears !== 'fitter') return undefined;
  const side = (who: 'supplier' | 'fitter'): Side | undefined => {
    const mine = causes.filter((c) => c.cause.bears === who);
    const [first] = mine;
    return (
      first && {
        share: mine.reduce((s, c) => s + c.probability, 0),
        best: first.probability,
        cause: first.cause,
      }
    );
  };
  const [supplier, fitter] = [side('supplier'), side('fitter')];
  if (!supplier || !fitter) return undefined;
  // nothing is held of a side whose likeliest cause is one of many
  if (Math.min(supplier.best, fitter.best) < LEAST) return undefined;
  const [more, less] = [Math.max(supplier.share, fitter.share), Math.min(supplier.share, fitter.share)];
  return more < apart * less ? { supplier, fitter } : undefined;
}

/** The tie of a whole ranking: none where the leading cause was seen itself, whatever its share. */
export const tieOf = (
  { causes, faults }: Pick<Ranking, 'causes' | 'faults'>,
  apart: number,
): SidesTie | undefined =>
  faults.some((f) => f.cause.key === causes[0]?.cause.key) ? undefined : sidesTie(causes, apart);
