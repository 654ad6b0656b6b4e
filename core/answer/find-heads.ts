import type { Head } from './head';

/** Heads whose text holds every word typed, in the order given. */
export function findHeads(heads: readonly Head[], typed: string): readonly Head[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  return words.length === 0 ? heads : heads.filter((h) => words.every((w) => h.text.includes(w)));
}
