import { isQuiet } from '@core/cause/model';
import { rankCauses } from '@core/cause/rank';
import type { Policy } from '@core/policy/policy';
import { drawVirtual, type PracticeDrive } from './draw-return';

/** What a desk comes to on virtual returns of one kind. */
export type DeskFigures = {
  returns: number;
  /** Something of the cause was to be seen, or nothing was wrong; the leader was right of these. */
  decidable: number;
  right: number;
  /** Of them the family was right at least. */
  family: number;
  /** Mean over the decidable of Σ(p − is)² over all causes and none of these: 0 is perfect, 2 is sure and wrong. */
  brier: number;
  /** Nothing of the cause was to be seen; no cause was told as likely of these. */
  hidden: number;
  told: number;
  /** Stated chance of the leader in tenths: how many, how many of them right, mean of what was stated. */
  stated: { n: number; right: number; mean: number }[];
  /** Right of the decidable by family of the true cause. */
  families: Record<string, { n: number; right: number }>;
  /** The same by the design that stands for its kind of drive. */
  drives: Record<string, { n: number; right: number }>;
};
const TENTHS = 10;

const emptyScore = (): DeskFigures => ({
  returns: 0,
  decidable: 0,
  right: 0,
  family: 0,
  brier: 0,
  hidden: 0,
  told: 0,
  stated: Array.from({ length: TENTHS }, () => ({ n: 0, right: 0, mean: 0 })),
  families: {},
  drives: {},
});

/**
 * Judges virtual returns without a person, and counts how often the desk was right.
 * @param complete share of the looks that are made
 * @param tell share that is done
 */
export function scoreDesk(
  drives: readonly PracticeDrive[],
  policy: Pick<Policy, 'explainedFactor' | 'weakLeader'>,
  { returns, complete, seed }: { returns: number; complete: number; seed: number },
  tell: (share: number) => void = () => undefined,
): DeskFigures {
  const out = emptyScore();
  const byId = new Map(drives.map((d) => [d.id, d.data]));
  for (let i = 0; i < returns; i++) {
    const drawn = drawVirtual(drives, seed + i, complete);
    const data = byId.get(drawn.drive);
    const truth = data?.causes.find((c) => c.key === drawn.truth.cause);
    if (!data || !truth) continue;
    out.returns++;
    const ranking = rankCauses(data, drawn.findings, policy.explainedFactor);
    const leader = ranking.causes[0];
    const named = leader && leader.probability > ranking.none ? leader : undefined;
    const stated = Math.max(leader?.probability ?? 0, ranking.none);
    if (!drawn.visible && !isQuiet(truth)) {
      out.hidden++;
      if (!named || named.probability < policy.weakLeader) out.told++;
      continue;
    }
    out.decidable++;
    const right = named?.cause.key === truth.key;
    if (right) out.right++;
    if (named?.cause.family === truth.family) out.family++;
    out.brier += brierOf(ranking, truth.key);
    const bin = out.stated[Math.min(TENTHS - 1, Math.floor(stated * TENTHS))];
    if (bin) {
      bin.mean = (bin.mean * bin.n + stated) / (bin.n + 1);
      bin.n++;
      if (right) bin.right++;
    }
    for (const of of [
      (out.families[truth.family] ??= { n: 0, right: 0 }),
      (out.drives[drawn.drive] ??= { n: 0, right: 0 }),
    ]) {
      of.n++;
      if (right) of.right++;
    }
    if (i % 20 === 0) tell(i / returns);
  }
  out.brier /= Math.max(1, out.decidable);
  return out;
}

const brierOf = (r: ReturnType<typeof rankCauses>, truth: string): number =>
  r.causes.reduce((s, c) => s + (c.probability - (c.cause.key === truth ? 1 : 0)) ** 2, r.none ** 2);
