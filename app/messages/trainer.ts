import type { TrapFigure, Sprung, Trap } from '@core/practice/fitting';
import type { Sheet } from '@core/fitting/sheet';
import { formatNumber } from '@core/quantity/format-quantity';
import { counted } from '../language/plural';
import { capital } from '../language/capital';
import { list } from '../language/list';
import { stepName } from './fitting';

const n1 = (v: number): string => formatNumber(v, 1);
const reading = (v: number, unit: '°' | 'mm'): string =>
  unit === 'mm' ? `${n1(v)} mm` : `${formatNumber(v, 0)}°`;

/** A figure that geometry gives of a hand gone wrong. */
function figureWords(f: TrapFigure): string {
  switch (f.is) {
    case 'runs_out':
      return `With nothing to push against it runs out from ${reading(f.from, f.unit)} to its end at ${reading(f.to, f.unit)}.`;
    case 'valves_meet':
      return `The crank alone meets ${f.valve} of cylinder ${f.cylinder} after ${Math.abs(f.crankDeg)}° past its mark, ${f.crankDeg > 0 ? 'in' : 'against'} its running direction. Here it is only computed.`;
    case 'valves_free':
      return 'On this engine no valve meets a piston with every cam at its mark: nothing bends, but the timing is lost.';
    case 'valves_unknown':
      return 'The catalogue gives no valves of this engine: it counts as if they met the pistons.';
    case 'slack_moves':
      return `The strand with the tensioner then pulls: it gives up to ${n1(f.mm)} mm, ${formatNumber(f.teeth, 2)} teeth or ${n1(f.crankDeg)}° of the crank, to the other side.`;
    case 'other_setting':
      return `The length comes out right on both sides: ${reading(f.right, f.unit)} as intended, ${reading(f.other, f.unit)} on the far side${f.roomMm === undefined ? '' : `, with ${n1(f.roomMm)} mm of room left there`}.`;
  }
}

/** What a trap is, as something to press. */
export function trapWords(t: Trap, sheet: Pick<Sheet, 'steps'>): string {
  switch (t.kind) {
    case 'early':
      return `Before ${stepName(sheet, t.gate?.before ?? '')}`;
    case 'tool':
      return 'With another tool';
    case 'against':
      return 'Against the running direction';
    case 'far_side':
      return 'To the far side';
    case 'otherwise':
      return 'Otherwise than it says';
  }
}

/** What follows of a sprung trap, sentence by sentence: why, what the drive computes, how far back it leads. */
export function sprungWords(s: Sprung, sheet: Pick<Sheet, 'steps'>): string[] {
  const why = s.broken.flatMap((b) => [
    `${capital(stepName(sheet, b.gate.before))} comes first. ${b.gate.why}`.trim(),
    ...(b.gate.fault === undefined ? [] : [b.gate.fault]),
  ]);
  const own = s.trap.kind !== 'early' && s.step.fault !== undefined ? [s.step.fault] : [];
  const tool =
    s.trap.kind === 'tool' && s.step.tool
      ? [`It takes: ${s.step.tool.name}.`, ...(s.step.tool.instead ?? []).map((x) => `${x.name}: ${x.risk}`)]
      : [];
  const back = s.lost
    ? ['It cannot be made up for: what was to be seen or kept is gone.']
    : s.undo.length > 0
      ? [
          s.undo.length === 1
            ? 'The way back: it alone is undone.'
            : `The way back: ${counted(s.undo.length, 'step is', 'steps are')} undone, from ${stepName(sheet, s.undo[0] ?? '')} back.`,
        ]
      : ['Nothing is undone for it: put it right now.'];
  const spent = s.spent.length > 0 ? [`New for it: ${list([...new Set(s.spent.map((x) => x.needs))])}.`] : [];
  return [...new Set([...tool, ...why, ...own, ...s.figures.map(figureWords), ...back, ...spent])];
}
