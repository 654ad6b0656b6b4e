import { counted } from '../language/plural';
import { halfOf } from '@core/quantity/judge';
import type { PieceBalance } from '@core/examination/piece-balance';
import { formatNumber } from '@core/quantity/format-quantity';

const UNIT = { mass: 'g', area: 'mm²' } as const;
const VERB = { mass: ['weighs', 'weigh'], area: ['covers', 'cover'] } as const;
const AGAIN = {
  mass: 'Clean and dry the pieces and weigh them again, or weigh another new one.',
  area: 'Outline them again on a picture that shows them larger, or weigh them.',
} as const;

/** What the scale, or outlines on a picture, say of the pieces. */
export function balanceWords(b: PieceBalance): string {
  const places = b.by === 'mass' ? 1 : 0;
  const verb = VERB[b.by][b.pieces === 1 ? 0 : 1];
  const show = (v: number) => formatNumber(v, places);
  const figures = `${counted(b.pieces, 'piece', 'pieces')} ${verb} ${show(b.returned)} ${UNIT[b.by]}, ${show(b.missing)} ± ${show(halfOf(b.u))} ${UNIT[b.by]} less than a new one`;
  switch (b.verdict) {
    case 'missing':
      return `▲ A piece is missing: ${figures}.`;
    case 'complete':
      return `✓ Complete: ${figures}.`;
    case 'cannot_tell':
      return `? Cannot tell whether it is complete: ${figures}. ${AGAIN[b.by]}`;
  }
}

/** What the workshop has to do before the engine runs, where material is missing. */
export const OBLIGATION =
  'What is missing is in the sump, the oil pickup or the drive: open the sump and clean the pickup before the engine runs.';
