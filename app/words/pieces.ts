import type { MassBalance } from '@core/bench/mass-balance';
import { formatNumber } from '@core/quantity/format-quantity';

const g = (v: number): string => `${formatNumber(v, 1)} g`;

/** What the scale says of the pieces. */
export function balanceWords(b: MassBalance): string {
  const figures = `${b.pieces} ${b.pieces === 1 ? 'piece weighs' : 'pieces weigh'} ${g(b.returnedG)}, ${formatNumber(b.missingG, 1)} ± ${g(2 * b.u)} less than a new one`;
  switch (b.verdict) {
    case 'missing':
      return `▲ A piece is missing: ${figures}.`;
    case 'complete':
      return `✓ Complete: ${figures}.`;
    case 'cannot_tell':
      return `? Cannot tell whether it is complete: ${figures}. Clean and dry the pieces and weigh them again, or weigh another new one.`;
  }
}

/** What the workshop has to do before the engine runs, where material is missing. */
export const OBLIGATION =
  'What is missing is in the sump, the oil pickup or the drive: open the sump and clean the pickup before the engine runs.';
