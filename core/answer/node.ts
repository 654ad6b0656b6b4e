import type { State } from '@core/facts/state';
import { type Reads, watched } from '@core/facts/watch';
import type { World } from './world';

/** One answer: what it is computed from, and how. Its inputs are other answers, the world, and what it reads of the facts. */
export type Node<T> = {
  readonly inputs: Inputs;
  readonly compute: (inputs: never, world: World, state: State) => T;
  /** Whether a value computed anew says the same as the one before, which is then kept, so that nothing behind it is computed again. */
  readonly same?: (before: never, now: never) => boolean;
  /** What stands in its place where it throws: the rest of the case goes on. Without it nothing can. */
  readonly failed?: () => T;
};
/** An answer that could not be computed: which, and why. */
export type Failure = { node: Node<unknown>; why: string };
type Inputs = Readonly<Record<string, Node<unknown>>>;
export type ValueOf<N> = N extends Node<infer T> ? T : never;
type ValuesOf<I extends Inputs> = { readonly [K in keyof I]: ValueOf<I[K]> };

export const node = <const I extends Inputs, T>(
  inputs: I,
  compute: (inputs: ValuesOf<I>, world: World, state: State) => T,
  same?: (before: T, now: T) => boolean,
): Node<T> => ({ inputs, compute, ...(same ? { same } : {}) });

/** The same node with what stands in its place where it throws. */
export const orElse = <T>(n: Node<T>, failed: () => T): Node<T> => ({ ...n, failed });

type Cell = { inputs: Record<string, unknown>; reads: Reads; value: unknown };

/**
 * Answers of one state of a case. Each node is computed when it is first asked for; what an earlier state of the case
 * computed is kept where its inputs and what it read of the facts are the same.
 */
export class Answering {
  private readonly cells = new Map<Node<unknown>, Cell>();
  private readonly kept: ReadonlyMap<Node<unknown>, Cell>;
  /** Answers of this state that threw. */
  readonly failures: Failure[] = [];

  constructor(
    readonly world: World,
    readonly state: State,
    before?: Answering,
  ) {
    this.kept = before?.world === world ? new Map([...before.kept, ...before.cells]) : new Map();
  }

  ask<T>(node: Node<T>): T {
    const known = this.cells.get(node);
    if (known) return known.value as T;
    const inputs: Record<string, unknown> = {};
    for (const [name, input] of Object.entries(node.inputs)) inputs[name] = this.ask(input);
    const kept = this.kept.get(node);
    const cell = kept && this.holds(kept, inputs) ? kept : this.compute(node, inputs);
    if (kept && cell !== kept && node.same?.(kept.value as never, cell.value as never))
      cell.value = kept.value;
    this.cells.set(node, cell);
    return cell.value as T;
  }

  private holds(cell: Cell, inputs: Record<string, unknown>): boolean {
    return Object.keys(inputs).every((k) => cell.inputs[k] === inputs[k]) && cell.reads.holdsIn(this.state);
  }

  private compute(node: Node<unknown>, inputs: Record<string, unknown>): Cell {
    const { state, reads } = watched(this.state);
    try {
      return { inputs, reads, value: node.compute(inputs as never, this.world, state) };
    } catch (e) {
      if (!node.failed) throw e;
      this.failures.push({ node, why: e instanceof Error ? e.message : String(e) });
      return { inputs, reads, value: node.failed() };
    }
  }
}
