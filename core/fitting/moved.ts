import { num } from '@core/quantity/must';

/**
 * Steps whose place has to be told so that the rest may stand in the order of the sheet: as few as can be, each with its
 * place in the order done, from 1.
 * @param sheet ids in the order of the sheet
 */
export function movedIn(sheet: readonly string[], done: readonly string[]): Map<string, number> {
  const at = new Map(sheet.map((id, i) => [id, i]));
  const kept = new Set(longestRising(done.map((id) => at.get(id) ?? 0)));
  return new Map(done.flatMap((id, i): [string, number][] => (kept.has(i) ? [] : [[id, i + 1]])));
}

/** Indices of a longest rising run of values; quadratic, for some sixty of them. */
function longestRising(values: readonly number[]): number[] {
  const best: number[] = [];
  const from: number[] = [];
  values.forEach((v, i) => {
    let [length, back] = [1, -1];
    for (let j = 0; j < i; j++)
      if (num(values, j) < v && num(best, j) + 1 > length) [length, back] = [num(best, j) + 1, j];
    best.push(length);
    from.push(back);
  });
  const out: number[] = [];
  let at = best.indexOf(Math.max(0, ...best));
  while (at >= 0) {
    out.push(at);
    at = num(from, at);
  }
  return out.reverse();
}
