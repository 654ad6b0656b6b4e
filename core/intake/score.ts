import { canonical } from '@core/facts/canonical';
import type { FactValue } from '@core/facts/fact';
import type { Proposal } from './proposal';

/** What a message holds, as a person labelled it. */
export type Labelled = { key: string; about?: string | undefined; value: FactValue };
export type Score = { right: number; proposed: number; wanted: number };

/** One entry of a list counts as one fact; numbers agree within a thousandth, texts by their letters. */
function units(list: readonly { key: string; about?: string | undefined; value: FactValue }[]): string[] {
  return list.flatMap(({ key, about, value }) => {
    const one = (v: unknown) =>
      `${key} ${about ?? ''} ${
        typeof v === 'number'
          ? Number(v.toPrecision(4))
          : canonical(v)
              .toLowerCase()
              .replace(/[^\p{L}\d]/gu, '')
      }`;
    return Array.isArray(value) ? value.map((v) => one(v)) : [one(value)];
  });
}

/** Proposals against labels. Precision is right / proposed, recall right / wanted. */
export function scoreOf(
  proposals: readonly Proposal[],
  labels: readonly Labelled[],
): Score & { missed: string[]; extra: string[] } {
  const [got, want] = [units(proposals), units(labels)];
  const right = got.filter((u) => want.includes(u)).length;
  return {
    right,
    proposed: got.length,
    wanted: want.length,
    missed: want.filter((u) => !got.includes(u)),
    extra: got.filter((u) => !want.includes(u)),
  };
}
