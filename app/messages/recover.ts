import type { GoesOn, Move, RecoverError } from '@core/fitting/recover';
import { formatNumber } from '@core/quantity/format-quantity';

/** One move, with the room that valves and pistons keep on it. */
export function moveWords(m: Move, name: string, free = false): string {
  const deg = m.turn === 'cam' ? m.byDeg / 2 : m.byDeg;
  const what =
    m.turn === 'cam'
      ? free
        ? `the shaft of the ${name} by itself (its sprocket may be loose on it)`
        : `the ${name} by itself`
      : 'the crank by itself';
  const way = deg > 0 ? 'in running direction' : 'against the running direction';
  const room = Number.isFinite(m.gapMm)
    ? ` Least room on the way: ${formatNumber(m.gapMm, 1)} mm.`
    : ' No valve is open on the way.';
  return `Turn ${what} ${formatNumber(Math.abs(deg), 0)}° ${way}.${room}`;
}

export function recoverErrorWords(e: RecoverError): string {
  switch (e.code) {
    case 'touching':
      return `Where the shafts stand now, the ${e.valve} valve and the piston of cylinder ${e.cylinder} would touch: either the position was read wrongly, or they have met already. Turn nothing; look through the plug hole, test the compression.`;
    case 'too_close':
      return `Where the shafts stand now, the ${e.valve} valve in cylinder ${e.cylinder} has ${formatNumber(e.mm, 1)} mm of room, less than the ${formatNumber(e.leastMm, 1)} mm that the house asks for: turn nothing by computation; look through the plug hole, and take the cams out of load as the vehicle maker says.`;
    case 'no_safe_range':
      return 'On this engine there is no position of the crank that is free of every valve: no cam may be turned by itself. Take the way from the vehicle maker’s information.';
    case 'no_way':
      return 'No way back is free of contact from here by turning one shaft after the other. Turn nothing; take the cams out of load as the vehicle maker says.';
  }
}

/** What comes before the first move: with the drive on, no shaft turns by itself. */
export const beforeWords = (at: GoesOn, loop: string): string =>
  `First take the ${loop} off${at.off === undefined ? '' : ` (from step ${at.off}; what is locked stays locked until it is off)`}, plugs out, every stop and lock out.`;

/** What comes after the last move, by the numbers of the sheet. */
export const goesOnWords = (at: GoesOn): string[] => [
  ...(at.stop === undefined ? [] : [`Put the stop of the crank in (step ${at.stop}).`]),
  ...(at.lock === undefined ? [] : [`Lock the shafts (step ${at.lock}).`]),
  ...(at.build === undefined
    ? []
    : [`Build the drive up again from the innermost stage (from step ${at.build}).`]),
  ...(at.turn === undefined ? [] : [`Turn by hand and look at every mark (from step ${at.turn}).`]),
];
