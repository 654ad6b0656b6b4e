import { nth } from '@core/quantity/must';
import type { Printed, TorquePair, TorqueStage } from '@core/catalogue/torque-plan';
import { fromBase } from '@core/quantity/units';
import { formatNumber } from '@core/quantity/format-quantity';

/** "42 N·m" as it was printed. */
const printedWords = (p: Printed): string =>
  `${formatNumber(p.value, p.half < 0.1 ? 2 : p.half < 0.5 ? 1 : 0)} ${p.unit}`;

const inUnit = (value: number, unit: string): string => `${formatNumber(value, value < 20 ? 1 : 0)} ${unit}`;

/** A printed pair held against itself, with the one that governs. */
export function torquePairWords(p: TorquePair): string {
  const [first, second] = [printedWords(p.first), printedWords(p.second)];
  const governing = p.governs === 'first' ? first : second;
  if (p.agree) return `${first} and ${second} are one and the same; ${governing} governs.`;
  return `${first} is ${inUnit(p.firstInSecond, p.second.unit)}, and ${second} is ${inUnit(p.secondInFirst, p.first.unit)}: they are ${formatNumber(Math.abs(p.off) * 100, 0)} % apart. ${governing} governs until the vehicle maker’s table says otherwise.`;
}

/** One stage of tightening: "42 N·m (31 lbf·ft)", "on by 90°", "back by 360°". */
function stageWords(s: TorqueStage): string {
  if (s.kind === 'angle') return `on by ${s.deg}°`;
  if (s.kind === 'back') return s.deg === 360 ? 'back a full turn' : `back by ${s.deg}°`;
  return s.also ? `${printedWords(s.printed)} (${printedWords(s.also)})` : printedWords(s.printed);
}

/** All stages of a fastener in one line. */
export const torqueStagesWords = (stages: readonly TorqueStage[]): string =>
  stages.map(stageWords).join(', then ');

export const WRENCH_WORDS = {
  fits: '✓ Within the range of the wrench.',
  low: '▲ In the lowest fifth of its range, where a wrench means little: take a smaller one.',
  below: '✕ Below the range of the wrench: take a smaller one.',
  above: '✕ Above the range of the wrench: take a larger one.',
} as const;

/** Nobody knows which wrench is in the hand at the other end: read out, a torque has both units. */
function spokenStage(s: TorqueStage): string {
  if (s.kind !== 'torque' || s.also) return stageWords(s);
  const other = s.printed.unit === 'N·m' ? ('lbf·ft' as const) : ('N·m' as const);
  return `${stageWords(s)} (${inUnit(fromBase('torque', s.nm, other), other)})`;
}

/** A plan as it is read out on the telephone, stage by stage. */
export function spokenPlan(t: {
  fastener: string;
  count?: number | undefined;
  stages: readonly TorqueStage[];
  leftHand?: boolean | undefined;
  singleUse?: boolean | undefined;
}): string {
  const what = `${t.count !== undefined && t.count > 1 ? `${t.count} ` : ''}${t.singleUse ? 'new ' : ''}${t.fastener}`;
  const stages = t.stages.map(
    (s, i) => `${i === 0 ? 'first' : i === t.stages.length - 1 ? 'last' : 'then'} ${spokenStage(s)}`,
  );
  const order = t.stages.length === 1 ? spokenStage(nth(t.stages, 0)) : stages.join(', ');
  const hand = t.leftHand
    ? ' The thread is left-hand: it goes the other way, and the wrench has to click that way.'
    : '';
  return `${nth(what, 0).toUpperCase()}${what.slice(1)}: ${order}.${t.singleUse ? ' Never the old ones again.' : ''}${hand}`;
}
