import { nth } from '@core/quantity/must';
import { kindNamed } from './lexicon';
import { groupBy } from './phrases';
import type { Proposal, TextSpan } from './proposal';
import { type Speech, tokenAt } from './said';
import { WORDS } from './words';

/** Words that a piece has to have to be worth a look, and at most of one. */
const [LEAST, MOST] = [3, 24];

/**
 * Pieces of a message that carry meaning and of which nothing is filed: a part, a figure with its unit or a noise in a clause of
 * its own, stated. By them a house sees which observables it lacks.
 */
export function unfiledOf(said: Speech, proposals: readonly Proposal[]): TextSpan[] {
  const covered = new Set<number>();
  for (const p of proposals)
    for (const s of p.spans) {
      for (
        let i = tokenAt(said, s.from);
        i >= 0 && i < said.tokens.length && nth(said.tokens, i).from < s.to;
        i++
      )
        covered.add(nth(said.tokens, i).clause);
    }
  const out: TextSpan[] = [];
  let at = 0;
  for (const clause of groupBy(said.tokens, 'clause')) {
    const first = at;
    at += clause.length;
    const { clause: no } = nth(clause, 0);
    const mood = said.clauses.get(no)?.mood ?? 'stated';
    if (covered.has(no) || mood === 'asked' || mood === 'if' || clause.length < LEAST) continue;
    const measured = clause.some((_, i) => {
      const f = said.figureAt.get(first + i);
      return f?.unit !== undefined && !f.spelled;
    });
    const speaks =
      clause.some((t) => kindNamed(t) !== undefined) ||
      measured ||
      clause.some((t) => WORDS.telling.includes(t.stem));
    if (!speaks) continue;
    out.push({ from: nth(clause, 0).from, to: nth(clause, Math.min(clause.length, MOST) - 1).to });
  }
  return out;
}
