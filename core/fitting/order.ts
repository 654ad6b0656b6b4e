import { must, nth } from '@core/quantity/must';
import type { Gate } from '@core/catalogue/expand-procedure';
import { successors } from '@core/catalogue/step-order';

/** Steps done, in the order in which they were, and those that are known not to have been done. The rest is unknown. */
export type Performed = { done: readonly string[]; skipped: ReadonlySet<string> };
/** `skipped`: the step before was left out; `reversed`: it came after the one that had to wait for it. */
export type Broken = { gate: Gate; how: 'skipped' | 'reversed' };

/**
 * Gates that an order breaks: the later step was done, and the earlier one was left out or came after it. What nobody said
 * of a step breaks nothing. Linear in steps and gates.
 */
export function brokenGates({ done, skipped }: Performed, gates: readonly Gate[]): Broken[] {
  const at = new Map(done.map((id, i) => [id, i]));
  return gates.flatMap((gate): Broken[] => {
    const [a, b] = [at.get(gate.before), at.get(gate.after)];
    if (b === undefined) return [];
    if (a === undefined) return skipped.has(gate.before) ? [{ gate, how: 'skipped' }] : [];
    return a > b ? [{ gate, how: 'reversed' }] : [];
  });
}

type WayBack = {
  /** What has to be undone, the last done first. */
  undo: string[];
  /** What is then done, in the order of the sheet: what was left out in time, and what was undone. */
  redo: string[];
  /** Step at which the work begins again: "take it down to step 14 and start again there". */
  startAt: string;
  /** Steps undone for which something has to be new. */
  spent: { step: string; needs: string }[];
};
export type BackAnswer = {
  /** Nothing to undo: every broken gate is one that cannot be made up for, or there is none. */
  way?: WayBack;
  /** Steps before others that cannot be made up for any more. */
  lost: Broken[];
};

/** What of a step the way back needs to know. `undo`: what must be new; "never": it cannot be made up for. */
export type Undoable = { id: string; undo?: string | undefined };

/**
 * The shortest way back from broken gates to an order that keeps them all. A step that was done too early has to be undone,
 * and with it everything done that waited for it; nothing else has to, so that set is the smallest. Undone in the reverse
 * of the order done; then done in the order of the sheet.
 * @param steps in the order of the sheet
 * @param wrong steps that were done otherwise and left something that has to come out again: they are undone with all that waited for them
 */
export function wayBack(
  steps: readonly Undoable[],
  gates: readonly Gate[],
  performed: Performed,
  broken: readonly Broken[] = brokenGates(performed, gates),
  wrong: ReadonlySet<string> = new Set(),
): BackAnswer {
  const byId = new Map(steps.map((s) => [s.id, s]));
  const never = (b: Broken) => byId.get(b.gate.before)?.undo === 'never';
  const lost = broken.filter(never);
  const bad = broken.filter((b) => !never(b));
  const amiss = [...wrong].filter((id) => byId.get(id)?.undo !== 'never');
  if (bad.length === 0 && amiss.length === 0) return { lost };
  const done = new Set(performed.done);
  const next = successors(gates);
  const undone = new Set<string>();
  const stack = [...bad.map((b) => b.gate.after), ...amiss];
  while (stack.length > 0) {
    const id = must(stack.pop());
    if (undone.has(id) || !done.has(id)) continue;
    undone.add(id);
    stack.push(...(next.get(id) ?? []));
  }
  const again = new Set(undone);
  // What was left out is done now, with what it itself waits for and nobody did.
  const before = successors(gates.map((g) => ({ ...g, before: g.after, after: g.before })));
  const wanted = bad.filter((b) => b.how === 'skipped').map((b) => b.gate.before);
  while (wanted.length > 0) {
    const id = must(wanted.pop());
    if (again.has(id) || done.has(id)) continue;
    again.add(id);
    wanted.push(
      ...(before.get(id) ?? []).filter((x) => performed.skipped.has(x) && byId.get(x)?.undo !== 'never'),
    );
  }
  const redo = steps.map((s) => s.id).filter((id) => again.has(id));
  const undo = [...performed.done].reverse().filter((id) => undone.has(id));
  return {
    way: {
      undo,
      redo,
      startAt: nth(redo, 0),
      spent: undo.flatMap((step) => {
        const needs = byId.get(step)?.undo;
        return needs === undefined || needs === 'never' ? [] : [{ step, needs }];
      }),
    },
    lost,
  };
}
