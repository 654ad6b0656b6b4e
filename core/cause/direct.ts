import { must } from '@core/quantity/must';
import type { Finding, NumberFound } from '@core/examination/finding';
import { own } from '@core/quantity/own';
import { APART, type CauseData, type CauseEntry } from './cause-data';
import { logDistance, logTime } from './life';
import type { CauseModel } from './model';

/** A finding that speaks of causes themselves: natural log of how much likelier each makes it than returns at large. */
export type Direct = { finding: Finding; nats: Float64Array };

/** What speaks of causes themselves: what was noticed, and how far or how long it ran. */
export function directEvidence(
  model: CauseModel,
  findings: readonly Finding[],
): { direct: Direct[]; odd: Finding[] } {
  const { causes, data } = model;
  const odd: Finding[] = [];
  const known = findings.some((f) => f.finding === APART.distance.finding && isRun(f.value));
  const weigh = (finding: Finding): ((c: CauseEntry) => number) | undefined => {
    const { value } = finding;
    switch (finding.finding) {
      case APART.symptom.finding:
        return typeof value === 'string' ? noticed(data, value) : undefined;
      case APART.distance.finding:
        if (!isRun(value)) return undefined;
        return against(model, finding, (life) => logDistance(value, life));
      case APART.time.finding:
        if (!isRun(value) || known) return undefined;
        return against(model, finding, (life) => logTime(value, life, data.yearly));
      default:
        return undefined;
    }
  };
  const direct = findings.flatMap((finding) => {
    const of = weigh(finding);
    if (!of) return [];
    const nats = Float64Array.from(causes, of);
    return nats.every(Number.isFinite) ? [{ finding, nats }] : (odd.push(finding), []);
  });
  return { direct, odd };
}

const isRun = (value: Finding['value']): value is NumberFound =>
  typeof value !== 'string' && !('grades' in value);

/** How much likelier each life makes a run than returns at large have it; kept of the last run, which most facts leave as it was. */
function against(
  model: CauseModel,
  { finding, value }: Finding,
  log: (life: CauseEntry['life']) => number,
): (c: CauseEntry) => number {
  const { atLarge, sure } = model.data.lives;
  const run = JSON.stringify(value);
  let known = model.runs.get(finding);
  if (known?.run !== run) model.runs.set(finding, (known = { run, base: log(atLarge), nats: new Map() }));
  const { base, nats } = known;
  return ({ life }) => {
    // many causes have one and the same life
    const key = `${life.shape} ${life.scale}`;
    let mine = nats.get(key);
    if (mine === undefined) nats.set(key, (mine = Math.log(sure * Math.exp(log(life) - base) + 1 - sure)));
    return mine;
  };
}

/** How much likelier each cause makes a symptom than returns at large, which have the causes' own mixture. */
function noticed(data: CauseData, symptom: string): ((c: CauseEntry) => number) | undefined {
  const of = (c: CauseEntry) => own(data.symptoms[c.symptoms], symptom);
  if (data.causes.length === 0 || data.causes.some((c) => of(c) === undefined)) return undefined;
  const all = data.causes.reduce((s, c) => s + c.prior, 0);
  const base = data.causes.reduce((s, c) => s + c.prior * must(of(c)), 0) / all;
  return (c) => Math.log(must(of(c)) / base);
}
