import type { Finding } from '@core/examination/finding';
import { normalFrom, randomFrom } from '@core/quantity/random';
import type { CauseData } from './cause-data';
import { modelOf } from './model';

/** A return drawn from the knowledge: the cause it truly has (none: none of these), and what was found of it. */
export type Drawn = { cause: string | undefined; findings: Finding[] };

/**
 * How far the truth is from the knowledge: noise on the log-odds of every share; share of the inspections that are made, and
 * by how much likelier what is abnormal is filed, since it strikes the eye.
 */
export type Drift = { noise: number; looked: number; strikes?: number };

/** Draws a return: its cause by the priors, its mechanisms and findings by shares that are off by chance, some inspections made and others not. */
export function drawReturn(data: CauseData, seed: number, drift: Drift): Drawn {
  const random = randomFrom(seed);
  const model = modelOf(data);
  const off = (p: number) => {
    const l = Math.log(p / (1 - p)) + drift.noise * normalFrom(random);
    return 1 / (1 + Math.exp(-l));
  };
  const all = data.causes.reduce((s, c) => s + c.prior, data.none.prior);
  let pick = random() * all;
  const at = data.causes.findIndex((c) => (pick -= c.prior) < 0);
  const shares = Float64Array.from(model.leaks);
  if (at >= 0) for (const t of model.touches[at]!) shares[t.mechanism] = t.p;
  const on = shares.map((p) => (random() < off(p) ? 1 : 0));
  const findings: Finding[] = [];
  for (const [finding, node] of model.findings) {
    if (node.parents.length === 0) continue;
    const eye = random();
    if (eye >= drift.looked * (drift.strikes ?? 1)) continue;
    const states = node.states[node.parents.reduce((s, x, i) => s | (on[x.mechanism]! << i), 0)]!.map(off);
    let left = random() * states.reduce((a, b) => a + b, 0);
    const state = states.findIndex((p) => (left -= p) < 0);
    if (state <= 0 && eye >= drift.looked) continue;
    const grade = state <= 0 ? node.spec.sound[0]! : node.grades[state - 1]!;
    const band = node.spec.grades?.indexOf(grade) ?? -1;
    const edges = node.spec.edges;
    findings.push({
      finding,
      value: band >= 0 && edges ? { from: edges[band]!, to: edges[band + 1]! } : grade,
      facts: [finding],
    });
  }
  const cause = data.causes[at];
  const profile = data.symptoms[cause?.symptoms ?? 'nff']!;
  let left = random();
  const symptom = Object.keys(profile).find((s) => (left -= profile[s]!) < 0) ?? 'noise';
  findings.push({ finding: 'symptom', value: symptom, facts: ['symptom'] });
  if (cause) {
    const { shape, scale } = cause.life;
    const km = scale * (-Math.log(1 - random())) ** (1 / shape) * Math.exp(0.2 * normalFrom(random));
    findings.push({ finding: 'distance.run', value: { x: Math.max(1, km), u: 700 }, facts: ['km'] });
  }
  return { cause: cause?.key, findings };
}
