/**
 * What is known of the life of some units: failed at `from` = `to`; failed between the two; still running at `from`, `to` then
 * infinite. `n`: for how many units the row stands, 1 unless given; parts of a unit where it may belong to several populations.
 */
export type LifeRow = { from: number; to: number; n?: number };

/**
 * ln of the likelihood of a Weibull life with ln η = u and ln β = b. Exact rows by their density, intervals by the chance to fail
 * within, running ones by the chance to have lived so long.
 */
export function logLikelihood(rows: readonly LifeRow[], u: number, b: number): number {
  const beta = Math.exp(b);
  let sum = 0;
  for (const r of rows) {
    const n = r.n ?? 1;
    if (n === 0) continue;
    const z1 = beta * (Math.log(r.from) - u);
    if (r.to === Infinity) sum -= n * Math.exp(z1);
    else if (r.to === r.from) sum += n * (b - Math.log(r.from) + z1 - Math.exp(z1));
    else {
      const w1 = r.from > 0 ? Math.exp(z1) : 0;
      const w2 = Math.exp(beta * (Math.log(r.to) - u));
      sum += n * (-w1 + Math.log(-Math.expm1(w1 - w2)));
    }
  }
  return sum;
}

/** First and second derivatives of it in u and b. */
export type Slopes = { u: number; b: number; uu: number; ub: number; bb: number };

/** The same rows' slopes, in closed form. With z = β(ln t − u) and w = e^z: ∂z/∂u = −β, ∂z/∂b = z. */
export function slopes(rows: readonly LifeRow[], u: number, b: number): Slopes {
  const beta = Math.exp(b);
  const s: Slopes = { u: 0, b: 0, uu: 0, ub: 0, bb: 0 };
  for (const r of rows) {
    const n = r.n ?? 1;
    if (n === 0) continue;
    const z1 = r.from > 0 ? beta * (Math.log(r.from) - u) : -Infinity;
    if (r.to === Infinity) {
      if (r.from > 0) add(s, n, beta, z1, -Math.exp(z1), -Math.exp(z1));
    } else if (r.to === r.from) {
      s.b += n;
      add(s, n, beta, z1, 1 - Math.exp(z1), -Math.exp(z1));
    } else between(s, n, beta, z1, beta * (Math.log(r.to) - u));
  }
  return s;
}

/** Adds a term g(z): g' and g'' are its derivatives in z. */
function add(s: Slopes, n: number, beta: number, z: number, g1: number, g2: number): void {
  s.u += n * g1 * -beta;
  s.b += n * g1 * z;
  s.uu += n * g2 * beta * beta;
  s.ub += n * (g2 * -beta * z + g1 * -beta);
  s.bb += n * (g2 * z * z + g1 * z);
}

/** Adds ln(e^−w1 − e^−w2). */
function between(s: Slopes, n: number, beta: number, z1: number, z2: number): void {
  const [w1, w2] = [Math.exp(z1), Math.exp(z2)];
  const a = 1 / Math.expm1(w2 - w1);
  const bend = -a * (1 + a);
  add(s, n, beta, z2, a * w2, bend * w2 * w2 + a * w2);
  if (w1 === 0) return;
  add(s, n, beta, z1, (-1 - a) * w1, bend * w1 * w1 + (-1 - a) * w1);
  // What the two ends share: −bend · w1 · w2.
  const c = -bend * w1 * w2 * n;
  s.uu += 2 * c * beta * beta;
  s.ub += -c * beta * (z1 + z2);
  s.bb += 2 * c * z1 * z2;
}
