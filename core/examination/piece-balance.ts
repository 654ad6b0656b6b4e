import type { Registry } from '@core/facts/observable';
import { measuredOf, placedOf, spreadOf, thingsWith } from '@core/facts/read';
import type { State } from '@core/facts/state';
import type { Policy } from '@core/policy/policy';
import { chancesOf, judgedAbove } from '@core/quantity/judge';

/** By the scale, g, or by outlines on a picture that gives their scale, mm². */
type BalanceBy = 'mass' | 'area';

export type PieceBalance = {
  about: string;
  by: BalanceBy;
  pieces: number;
  returned: number;
  /** What is not there, with its standard uncertainty. */
  missing: number;
  u: number;
  verdict: 'complete' | 'missing' | 'cannot_tell';
  /** How likely a piece that matters is missing, and that none is. */
  chances: Readonly<Partial<Record<'complete' | 'missing', number>>>;
  facts: string[];
};

/** What all pieces share: the bias b of a scale on each, or the share by which a picture's scale is off on all of them. */
export type Common = { bias: number; share: number };

/**
 * What is missing of a part: new one less all pieces. u² = u_new² + Σu_r² + (n·b)² + (q·Σ)², u_r the spread of one reading; what all pieces
 * share adds up as it is (JCGM 100, 5.1.2 and F.1.2.3). Missing when even the least that may be missing
 * is a piece that matters; complete when not even the most is; else it cannot be told.
 * @param least smallest piece that matters
 */
export function balanceOf(
  fresh: { value: number; u: number },
  pieces: readonly { value: number; u: number }[],
  { bias, share }: Common,
  least: number,
): Pick<PieceBalance, 'returned' | 'missing' | 'u' | 'verdict' | 'chances'> {
  const returned = pieces.reduce((sum, p) => sum + p.value, 0);
  const missing = fresh.value - returned;
  const u = Math.hypot(fresh.u, ...pieces.map((p) => p.u), pieces.length * bias, share * returned);
  return {
    returned,
    missing,
    u,
    verdict: judgedAbove({ value: missing, u }, least, { above: 'missing', below: 'complete' }),
    chances: chancesOf({ value: missing, u }, (v) => (v >= least ? 'missing' : 'complete')),
  };
}

type PieceLimits = Pick<Policy, 'scaleBiasG' | 'leastPieceG' | 'areaShare' | 'leastPieceMm2'>;
const WAYS: readonly {
  by: BalanceBy;
  fresh: string;
  piece: string;
  common: (h: PieceLimits) => Common;
  least: (h: PieceLimits) => number;
}[] = [
  {
    by: 'mass',
    fresh: 'guide.new_mass',
    piece: 'guide.piece_mass',
    common: (h) => ({ bias: h.scaleBiasG, share: 0 }),
    least: (h) => h.leastPieceG,
  },
  {
    by: 'area',
    fresh: 'guide.new_area',
    piece: 'guide.piece_area',
    common: (h) => ({ bias: 0, share: h.areaShare }),
    least: (h) => h.leastPieceMm2,
  },
];

/** Every guide of which a new one was weighed or outlined, and its pieces were. */
export function pieceBalances(state: State, registry: Registry, policy: PieceLimits): PieceBalance[] {
  return WAYS.flatMap((way) =>
    thingsWith(state, way.fresh).flatMap((about): PieceBalance[] => {
      const thing = about === '' ? undefined : about;
      const fresh = measuredOf(state, registry, way.fresh, thing);
      const pieces = placedOf(state, way.piece, thing).filter((p) => typeof p.value === 'number');
      if (!fresh || pieces.length === 0) return [];
      const read = pieces.map((p) => ({ value: Number(p.value), u: spreadOf(p.fact, registry, way.piece) }));
      return [
        {
          about,
          by: way.by,
          pieces: pieces.length,
          ...balanceOf(fresh, read, way.common(policy), way.least(policy)),
          facts: [...fresh.facts.map((f) => f.id), ...pieces.map((p) => p.fact.id)],
        },
      ];
    }),
  );
}
