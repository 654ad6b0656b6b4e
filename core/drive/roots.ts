const PHI = (Math.sqrt(5) - 1) / 2;
export type Sample = { t: number; v: number };

/** Samples of f over [from, from + sweep], both ends included. */
export function sample(f: (t: number) => number, from: number, sweep: number, steps: number): Sample[] {
  const out: Sample[] = [];
  for (let k = 0; k <= steps; k++) {
    const t = from + (sweep * k) / steps;
    out.push({ t, v: f(t) });
  }
  return out;
}

/** Largest (sign 1) or smallest (−1) value: best sample, then golden section between its neighbours. */
export function extremum(f: (t: number) => number, at: readonly Sample[], sign: 1 | -1): Sample {
  let k = -1;
  for (let i = 0; i < at.length; i++) {
    const { v } = at[i]!;
    if (!Number.isNaN(v) && (k < 0 || sign * v > sign * at[k]!.v)) k = i;
  }
  if (k < 0) return { t: NaN, v: NaN };
  const best = at[k]!;
  let a = (at[k - 1] ?? best).t;
  let b = (at[k + 1] ?? best).t;
  for (let i = 0; i < 40; i++) {
    const c = b - PHI * (b - a);
    const d = a + PHI * (b - a);
    const fc = sign * f(c);
    const fd = sign * f(d);
    if (Number.isNaN(fd) || fc > fd) b = d;
    else a = c;
  }
  const t = (a + b) / 2;
  const v = f(t);
  return Number.isNaN(v) || sign * v < sign * best.v ? best : { t, v };
}

/**
 * Where f passes `target` along the samples, in their order. Extra samples, such as the extrema, let two crossings that lie
 * closer together than a step both be found. A jump of f is no crossing.
 */
export function crossings(
  f: (t: number) => number,
  target: number,
  at: readonly Sample[],
  extra: readonly Sample[],
): number[] {
  const up = (at.at(-1)?.t ?? 0) >= (at[0]?.t ?? 0) ? 1 : -1;
  const points = [...at, ...extra.filter((e) => !Number.isNaN(e.t))].sort((p, q) => up * (p.t - q.t));
  const zeros: number[] = [];
  const g = (t: number) => f(t) - target;
  for (let i = 0; i + 1 < points.length; i++) {
    const a = points[i]!;
    const b = points[i + 1]!;
    const ga = a.v - target;
    const gb = b.v - target;
    if (Math.abs(ga) < 1e-12) zeros.push(a.t);
    else if (ga * gb < 0) zeros.push(zeroBetween(g, a.t, ga, b.t, gb));
  }
  const last = points.at(-1);
  if (last && Math.abs(last.v - target) < 1e-12) zeros.push(last.t);
  return zeros.filter((t, i) => Math.abs(g(t)) < 1e-6 && (i === 0 || Math.abs(t - zeros[i - 1]!) > 1e-9));
}

/** Zero of f between a and b with f(a)·f(b) < 0: regula falsi, Illinois variant (Dowell & Jarratt 1971). */
export function zeroBetween(f: (t: number) => number, a: number, fa: number, b: number, fb: number): number {
  let side = 0;
  for (let n = 0; n < 80 && Math.abs(b - a) > 1e-13; n++) {
    const m = (fa * b - fb * a) / (fa - fb);
    const fm = f(m);
    if (Math.abs(fm) < 1e-11) return m;
    if (fm * fb > 0) {
      b = m;
      fb = fm;
      if (side === -1) fa /= 2;
      side = -1;
    } else {
      a = m;
      fa = fm;
      if (side === 1) fb /= 2;
      side = 1;
    }
  }
  return (a + b) / 2;
}
