import { stagesOf } from '@core/drive/stages';
import { driveHas } from '@core/drive/drive-has';
import type { Finding } from '@core/examination/finding';
import { demoPack } from '../../demo/catalogue';
import { APART, type CauseData, CAUSES, causesFor } from './cause-data';
import { rankCauses, type Ranking } from './rank';

const pack = demoPack();
/** Every design of the demo, with the causes that it can have. */
export const every = pack.variants.flatMap((v) => {
  const stages = v.layout === undefined ? undefined : stagesOf(pack.layouts, v.layout);
  return stages?.ok ? [{ id: v.id, data: causesFor(CAUSES, driveHas(stages.value)) }] : [];
});
/** Drives that between them can have every cause, the one that adds most first. */
export const drives = (() => {
  const [left, out] = [new Set(CAUSES.causes.map((c) => c.key)), [] as typeof every];
  for (;;) {
    const adds = (d: (typeof every)[number]) => d.data.causes.filter((c) => left.has(c.key)).length;
    const best = every.reduce((a, b) => (adds(b) > adds(a) ? b : a));
    if (adds(best) === 0) return out;
    out.push(best);
    for (const c of best.data.causes) left.delete(c.key);
  }
})();
export const found = (finding: string, value: Finding['value'], about?: string): Finding => ({
  finding,
  value,
  facts: [`${finding} ${about ?? ''}`],
  ...(about === undefined ? {} : { about }),
});
export const rank = (data: CauseData, findings: readonly Finding[]): Ranking =>
  rankCauses(data, findings, 1.2);
export const shareOf = (r: Ranking, key: string): number =>
  r.causes.find((c) => c.cause.key === key)!.probability;
export const leaderOf = (r: Ranking): string => r.causes[0]!.cause.key;
export const run = (km: number) => found(APART.distance.finding, { x: km, u: 100 });
export const soundOf = (data: CauseData, finding: string): Finding =>
  found(finding, data.findings.find((f) => f.finding === finding)!.sound[0]!);

/** Everything that shows a cause itself on a drive, with the causes that it shows. */
export const sights = (data: CauseData) => {
  const out = new Map<string, { finding: string; grade: string; by: string[] }>();
  for (const c of data.causes)
    for (const [finding, grades] of Object.entries(c.seen ?? {}))
      for (const grade of grades) {
        const key = `${finding} ${grade}`;
        out.set(key, { finding, grade, by: [...(out.get(key)?.by ?? []), c.key] });
      }
  return [...out.values()];
};
