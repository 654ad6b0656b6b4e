import { capital } from '../language/capital';
import { nth } from '@core/quantity/must';
import type { ReuseOf } from '@core/advice/advice';
import type { ElongationAnswer } from '@core/examination/extension';
import { formatNumber } from '@core/quantity/format-quantity';
import { leakWords } from './leak';

/** "0.41 ± 0.02 % longer than new, limit 0.50 %", wherever it stands. */
export function elongationWords({ elongation: { value, u }, limit }: ElongationAnswer): string {
  const percent = (v: number) => formatNumber(v * 100, 2);
  const against = limit === undefined ? '' : `, limit ${percent(limit)} %`;
  return `${percent(value)} ± ${percent(u)} % longer than new${against}`;
}

/** One used part, whether it may run on, in a sentence. */
export function reuseWords(p: ReuseOf): string {
  const where = p.part === 'belt' || p.stage === '' ? '' : ` (${p.stage})`;
  return capital(`${p.some ? 'where the design has one, ' : ''}${said(p, where)}`);
}

function said(p: ReuseOf, where: string): string {
  switch (p.part) {
    case 'belt':
      return p.by === 'never'
        ? 'no: a belt that was run is never refitted on our word.'
        : 'the belt only if its edges are straight, no tooth and no part of the back is cracked, it is as thick as new, and it runs in its old direction.';
    case 'chain': {
      if (!p.length) return `the chain${where} by its length over counted links; it was not measured yet.`;
      if (p.length.limit === undefined)
        return `cannot tell: the catalogue gives no limit for the chain${where}: ${elongationWords(p.length)}.`;
      const verdict = {
        past: `no: the chain${where} is past its limit`,
        within: `yes: the chain${where} is within its limit`,
        unsure: `cannot tell: the chain${where} is too near its limit`,
      }[p.length.long ?? 'unsure'];
      return `${verdict}: ${elongationWords(p.length)}.`;
    }
    case 'plunger': {
      if (p.by === 'replaced') return `no: an old hydraulic tensioner${where} is replaced, by policy.`;
      if (!p.leak)
        return `the old hydraulic tensioner${where} only after a slow press and a recorded leak check; none is recorded.`;
      const verdict = {
        within: `yes: the old hydraulic tensioner${where} holds`,
        above: `no: the old hydraulic tensioner${where} leaks down`,
        cannot_tell: `cannot tell: the old hydraulic tensioner${where} is too near its limit`,
      }[p.leak.verdict ?? 'cannot_tell'];
      return `${p.leak.verdict ? `${verdict}. ` : ''}${nth(leakWords(p.leak), 0)}`;
    }
  }
}
