import type { PressNow, PressPlan } from '@core/examination/slow-press';
import { formatNumber } from '@core/quantity/format-quantity';

/** Minutes and seconds as on a clock. */
const clock = (s: number): string => {
  const whole = Math.ceil(s);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')} min`;
};

export const pressPlanWords = ({ strokeMm, turns, pressS, waitS }: PressPlan): string =>
  `${formatNumber(strokeMm, 1)} mm are ${formatNumber(turns, 1)} turns of the screw in ${clock(pressS)}, then ${clock(waitS)} for the oil.`;

/** What to do now. */
export function pressWords(n: PressNow): string {
  switch (n.phase) {
    case 'press':
      return `Turn ${n.turn}; now ${formatNumber(n.inMm, 1)} mm in. ${clock(n.leftS)} to go.`;
    case 'wait':
      return `Hold it there. ${clock(n.leftS)} to go.`;
    case 'look':
      return 'Look for oil at the feed and the seal, and say how it went.';
  }
}
