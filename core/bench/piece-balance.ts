import type { Registry } from '@core/facts/observable';
import { measuredOf, placedOf, spreadOf, thingsWith } from '@core/facts/read';
import type { State } from '@core/facts/state';
import type { Rules } from '@core/house/rules';
import { COVERAGE } from '@core/quantity/judge';

export type MassBalance = {
  about: string;
  pieces: number;
  returnedG: number;
  /** What is not there, with its standard uncertainty, g. */
  missingG: number;
  u: number;
  verdict: 'complete' | 'missing' | 'cannot_tell';
  facts: string[];
};

/**
 * What is missing of a part: new mass less all pieces. u² = u_new² + n·u_r² + (n·b)², the scale's repeatability u_r and a bias b that it
 * has on every piece alike (JCGM 100, 5.1.2 and F.1.2.3: what is common adds up). Missing when even the least that may be missing
 * is a piece that matters; complete when not even the most is; else it cannot be told.
 * @param leastG smallest piece that matters
 */
export function balanceOf(
  fresh: { value: number; u: number },
  pieces: readonly { value: number; u: number }[],
  biasG: number,
  leastG: number,
): Pick<MassBalance, 'returnedG' | 'missingG' | 'u' | 'verdict'> {
  const returnedG = pieces.reduce((sum, p) => sum + p.value, 0);
  const missingG = fresh.value - returnedG;
  const u = Math.hypot(fresh.u, Math.hypot(...pieces.map((p) => p.u)), pieces.length * biasG);
  const [low, high] = [missingG - COVERAGE * u, missingG + COVERAGE * u];
  return {
    returnedG,
    missingG,
    u,
    verdict: low >= leastG ? 'missing' : high < leastG ? 'complete' : 'cannot_tell',
  };
}

const [NEW, PIECE] = ['guide.new_mass', 'guide.piece_mass'];

/** Every guide of which a new one was weighed, and pieces were. */
export function massBalances(
  state: State,
  registry: Registry,
  house: Pick<Rules, 'scaleBiasG' | 'leastPieceG'>,
): MassBalance[] {
  return thingsWith(state, NEW).flatMap((about): MassBalance[] => {
    const thing = about === '' ? undefined : about;
    const fresh = measuredOf(state, registry, NEW, thing);
    const pieces = placedOf(state, PIECE, thing).filter((p) => typeof p.value === 'number');
    if (!fresh || pieces.length === 0) return [];
    const weighed = pieces.map((p) => ({ value: Number(p.value), u: spreadOf(p.fact, registry, PIECE) }));
    return [
      {
        about,
        pieces: pieces.length,
        ...balanceOf(fresh, weighed, house.scaleBiasG, house.leastPieceG),
        facts: [...fresh.facts.map((f) => f.id), ...pieces.map((p) => p.fact.id)],
      },
    ];
  });
}
