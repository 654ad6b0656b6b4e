export type Row = { name: string; value: string; target: string; baseline: string; ratio: string };

/** The value that this share of them stays below. */
export const quantile = (xs: readonly number[], q: number): number =>
  [...xs].sort((a, b) => a - b)[Math.min(xs.length - 1, Math.floor(xs.length * q))]!;

/** Median milliseconds of one call; enough calls a sample that the clock's grain does not matter. */
export function medianMs(run: () => unknown, samples = 41): number {
  // The engine compiles hot code late; a fifth of a second of warm-up lets it.
  const warm = performance.now();
  while (performance.now() - warm < 200) run();
  let calls = 1;
  for (;;) {
    const t = performance.now();
    for (let i = 0; i < calls; i++) run();
    if (performance.now() - t > 4 || calls > 1e6) break;
    calls *= 2;
  }
  const times = Array.from({ length: samples }, () => {
    const t = performance.now();
    for (let i = 0; i < calls; i++) run();
    return (performance.now() - t) / calls;
  }).sort((a, b) => a - b);
  return times[Math.floor(samples / 2)]!;
}

const show = (ms: number) => (ms < 0.1 ? `${(ms * 1000).toFixed(1)} µs` : `${ms.toFixed(2)} ms`);

/** Times a thing and its baseline in the same run. */
export function compare(
  name: string,
  run: () => unknown,
  baseName: string,
  base: () => unknown,
  target: string,
): Row {
  const mine = medianMs(run);
  const theirs = medianMs(base);
  return {
    name,
    value: show(mine),
    target,
    baseline: `${baseName}: ${show(theirs)}`,
    ratio: `${(mine / theirs).toPrecision(2)}×`,
  };
}

export function print(rows: readonly Row[]): void {
  for (const r of rows)
    console.log(
      `${r.name.padEnd(46)} ${r.value.padStart(10)}  target ${r.target.padEnd(12)} ${r.ratio.padStart(8)} of ${r.baseline}`,
    );
}
