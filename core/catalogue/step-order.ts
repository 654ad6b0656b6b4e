import { must } from '@core/quantity/must';
import type { Gate } from './expand-procedure';
import { STEP_PHASES, type StepPhase } from './procedure';

/**
 * Steps in an order that keeps every gate: heading by heading where every step names its own, and as written within one.
 * Undefined where gates go in a circle.
 */
export function orderSteps<T extends { id: string; phase?: StepPhase | undefined }>(
  steps: readonly T[],
  gates: readonly Gate[],
): T[] | undefined {
  const named = steps.every((s) => s.phase !== undefined);
  const at = (s: T) => STEP_PHASES.indexOf(must(s.phase));
  return stepsInOrder(named ? [...steps].sort((a, b) => at(a) - at(b)) : steps, gates);
}

/** Steps in an order that keeps every gate and otherwise the order given; undefined where gates go in a circle. */
export function stepsInOrder<T extends { id: string }>(
  steps: readonly T[],
  gates: readonly Gate[],
): T[] | undefined {
  const waits = new Map(steps.map((s) => [s.id, 0]));
  const next = successors(gates);
  for (const g of gates)
    if (waits.has(g.before) && waits.has(g.after)) waits.set(g.after, must(waits.get(g.after)) + 1);
  const out: T[] = [];
  const left = [...steps];
  while (left.length > 0) {
    const i = left.findIndex((s) => waits.get(s.id) === 0);
    if (i < 0) return undefined;
    const [s] = left.splice(i, 1) as [T];
    out.push(s);
    for (const n of next.get(s.id) ?? []) if (waits.has(n)) waits.set(n, must(waits.get(n)) - 1);
  }
  return out;
}

/** Steps that wait for each step. */
export function successors(gates: readonly Gate[]): Map<string, string[]> {
  const out = new Map<string, string[]>();
  for (const g of gates) {
    const list = out.get(g.before);
    if (list) list.push(g.after);
    else out.set(g.before, [g.after]);
  }
  return out;
}
