import type { Layout } from '@core/drive/layout';
import { senseWord } from '@core/drive/sense';
import { phrase, PHRASES } from './phrases';

/**
 * A sense with where it is seen from: the side that the drive is on; and where the crank is turned from the other end, how
 * it looks from there.
 */
export function viewedSense(sense: 'cw' | 'ccw', layout: Pick<Layout, 'end'>, crank = false): string {
  if (layout.end !== 'rear') return phrase(PHRASES.seen.front, { sense: senseWord(sense) });
  const other = senseWord(sense === 'cw' ? 'ccw' : 'cw');
  return crank
    ? phrase(PHRASES.seen.across, { sense: senseWord(sense), other })
    : phrase(PHRASES.seen.rear, { sense: senseWord(sense) });
}
