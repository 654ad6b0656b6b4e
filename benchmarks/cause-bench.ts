import { CAUSES, causesFor } from '@core/cause/cause-data';
import { drawReturn } from '@core/cause/draw.fixture';
import { explain } from '@core/cause/explain';
import { checkWorth } from '@core/cause/next-check';
import { rankCauses, type Ranking } from '@core/cause/rank';
import { demoPack } from '../demo/catalogue';
import { stagesOf } from '@core/drive/stages';
import { driveHas } from '@core/drive/drive-has';
import { compare, type Row } from './measure';

const DRAWN = 3000;

/** Ranking, explanation and next check of a return with many findings, and how far shares are from the truth of drawn ones. */
export function causeBench(): Row[] {
  const pack = demoPack();
  const drives = ['TE16-CORM/A', 'QU13-STOA/A'].map((id) => {
    const stages = stagesOf(pack.layouts, pack.variants.find((v) => v.id === id)!.layout!);
    if (!stages.ok) throw new Error(id);
    return causesFor(CAUSES, driveHas(stages.value));
  });
  const { findings } = drawReturn(CAUSES, 5, { noise: 0.5, looked: 0.2 });
  // What it is made of at the least: a walk over every share of the knowledge.
  const base = () => CAUSES.mechanisms.reduce((s, m) => s + Object.values(m.shows).length * m.leak, 0);
  const of = `${CAUSES.causes.length} causes, ${CAUSES.findings.length} findings of which ${findings.length} are known`;
  let brier = 0;
  let prior = 0;
  for (let k = 0; k < DRAWN; k++) {
    const data = drives[k % 2]!;
    const drawn = drawReturn(data, k + 1, { noise: 0.5, looked: 0.15 });
    const off = (r: Ranking) =>
      r.causes.reduce((s, c) => s + (c.probability - (c.cause.key === drawn.cause ? 1 : 0)) ** 2, 0);
    brier += off(rankCauses(data, drawn.findings, 1.5)) / DRAWN;
    prior += off(rankCauses(data, [], 1.5)) / DRAWN;
  }
  return [
    compare(
      `Ranking, ${of}`,
      () => rankCauses(CAUSES, [...findings], 1.5),
      'a walk over its shares',
      base,
      '< 1 ms',
    ),
    compare(
      'Why the leader leads',
      () => explain(CAUSES, [...findings]),
      'a walk over its shares',
      base,
      '< 5 ms',
    ),
    compare('Next check', () => checkWorth(CAUSES, [...findings]), 'a walk over its shares', base, '< 20 ms'),
    {
      name: `Brier score of ${DRAWN} drawn returns, a seventh of the looks made, shares off`,
      value: brier.toFixed(3),
      target: 'below the baseline',
      baseline: `shares at large: ${prior.toFixed(3)}`,
      ratio: `${(brier / prior).toFixed(2)}×`,
    },
  ];
}
