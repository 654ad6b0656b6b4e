import { type Layout } from './layout';

/** Tight: pulled by the driving wheel. Slack: between it and the first driven wheel. Between: from driven to driven. */
export type StrandKind = 'tight' | 'slack' | 'between';

const DRIVEN = new Set(['cam', 'injection', 'intermediate', 'balance', 'pump']);

/** Indices of toothed wheels that take power from the belt, in belt order. */
export function drivenWheels(layout: Layout): number[] {
  return layout.wheels.flatMap((w, i) => (i > 0 && w.teeth !== undefined && DRIVEN.has(w.role) ? [i] : []));
}

/**
 * Kind of each strand; strand k runs from wheel k to the next. The driving wheel pulls what arrives at it, so strands after
 * the last driven wheel are tight and those before the first are slack.
 */
export function strandKinds(layout: Layout): StrandKind[] {
  const driven = drivenWheels(layout);
  const first = driven[0] ?? layout.wheels.length;
  const last = driven.at(-1) ?? layout.wheels.length;
  return layout.wheels.map((_, k) => (k < first ? 'slack' : k >= last ? 'tight' : 'between'));
}

/** Teeth of a wheel that lie in the belt at a given wrap, radians. */
export const teethInMesh = (teeth: number, wrap: number): number => (wrap / (2 * Math.PI)) * teeth;
