import { readingAt } from '@core/drive/carrier';
import type { Layout } from '@core/drive/layout';
import { nth } from '@core/quantity/must';
import type { StepMotion } from '@core/fitting/step-motion';
import { viewedSense } from '@core/fitting/viewed-sense';
import { counted } from '../language/plural';
import { readingWords } from './drive';

const LOOPS = {
  on: (part: string) => `${part} is laid on, slack`,
  slack: (part: string) => `${part} goes slack`,
  taut: (part: string) => `${part} goes taut`,
  fitted: (part: string) => `${part} goes taut`,
};

/** What moves at a step, in words: senses, turns and readings are those of the drive. */
export function motionWords(layout: Layout, m: StepMotion): string[] {
  const out: string[] = [];
  const part = layout.kind === 'chain' ? 'Chain' : 'Belt';
  if (m.tensioner) out.push(`Tensioner ${m.tensioner === 'on' ? 'goes on' : 'comes off'}`);
  if (m.loop)
    out.push(
      m.loop.to === 'off' ? `${part} comes off` : LOOPS[m.loop.from === 'off' ? 'on' : m.loop.to](part),
    );
  if (m.driver) {
    const first = nth(layout.wheels, 0);
    const way = viewedSense(layout.runs, layout, first.role === 'crank');
    const crank = first.role === 'crank';
    const far =
      m.turns !== undefined && crank
        ? counted(m.turns, 'turn', 'turns')
        : m.turns !== undefined
          ? `${counted(m.turns, 'turn', 'turns')} of the crank`
          : 'on to its mark';
    out.push(`${first.name}: ${far}, ${way}`);
  }
  const carrier = m.carrier && layout.wheels[m.carrier.wheel]?.carrier;
  if (m.carrier && carrier)
    out.push(
      `${nth(layout.wheels, m.carrier.wheel).name}: ${readingWords(carrier, readingAt(carrier, m.carrier.fromDeg))} to ${readingWords(carrier, readingAt(carrier, m.carrier.toDeg))}`,
    );
  return out;
}
