import { nth, num } from '@core/quantity/must';

/** A question reduced to what planning needs: minutes, and for each possible variant the values it may show. */
export type PlanQuestion = { id: string; minutes: number; values: readonly (readonly string[])[] };
export type QuestionPlan = { first?: string; expectedMinutes: number; exact: boolean };

/** Above this many variants or questions the best tree is not searched for; the greedy order serves. */
const LIMIT = { variants: 10, questions: 7 };

/**
 * The question to ask first so that the expected minutes until one variant is left, or nothing splits further, are
 * least. Exact by recursion over what is still possible (memoised) for small sets; beyond them bits per minute, greedily,
 * which is within a logarithmic factor of the best tree (Kosaraju, Przytycka & Borgstrom 1999).
 * @param shares weight of each variant, any positive scale
 */
export function planQuestions(shares: readonly number[], questions: readonly PlanQuestion[]): QuestionPlan {
  if (shares.length > LIMIT.variants || questions.length > LIMIT.questions) {
    const best = [...questions]
      .map((q) => ({ q, worth: gain(shares, q) / q.minutes }))
      .sort((a, b) => b.worth - a.worth)[0];
    return {
      ...(best && best.worth > 1e-12 ? { first: best.q.id } : {}),
      expectedMinutes: NaN,
      exact: false,
    };
  }
  const memo = new Map<string, { minutes: number; first?: string }>();
  const solve = (weights: readonly number[], asked: number): { minutes: number; first?: string } => {
    const total = weights.reduce((a, b) => a + b, 0);
    if (weights.filter((w) => w > 0).length < 2) return { minutes: 0 };
    const key = `${asked}:${weights.map((w) => (w / total).toPrecision(9)).join()}`;
    const known = memo.get(key);
    if (known) return known;
    let best: { minutes: number; first?: string } | undefined;
    questions.forEach((q, i) => {
      if (asked & (1 << i)) return;
      const split = splits(weights, q);
      if (split.length < 2 || !parts(weights, split)) return;
      let minutes = q.minutes;
      for (const s of split) {
        const p = s.reduce((a, b) => a + b, 0) / total;
        minutes += p * solve(s, asked | (1 << i)).minutes;
      }
      if (!best || minutes < best.minutes - 1e-12) best = { minutes, first: q.id };
    });
    // Nothing splits further: what is left stays, at the cost of reading the old parts.
    const answer = best ?? { minutes: 0 };
    memo.set(key, answer);
    return answer;
  };
  const { minutes, first } = solve(shares, 0);
  return { ...(first === undefined ? {} : { first }), expectedMinutes: minutes, exact: true };
}

/** Weights after each answer that can be given; a variant that may show several values is shared evenly. */
export function splits(weights: readonly number[], q: PlanQuestion): number[][] {
  const answers = new Set(q.values.flatMap((values, i) => (num(weights, i) > 0 ? values : [])));
  return [...answers].map((a) =>
    weights.map((w, i) => (nth(q.values, i).includes(a) ? w / nth(q.values, i).length : 0)),
  );
}

/** True when at least one answer changes the relative weights. */
function parts(weights: readonly number[], split: readonly number[][]): boolean {
  const total = weights.reduce((a, b) => a + b, 0);
  return split.some((s) => {
    const sum = s.reduce((a, b) => a + b, 0);
    return s.some((w, i) => Math.abs(w / sum - num(weights, i) / total) > 1e-12);
  });
}

function gain(weights: readonly number[], q: PlanQuestion): number {
  const h = (ws: readonly number[]) => {
    const t = ws.reduce((a, b) => a + b, 0);
    return ws.reduce((x, w) => (w > 0 ? x - (w / t) * Math.log2(w / t) : x), 0);
  };
  const total = weights.reduce((a, b) => a + b, 0);
  return splits(weights, q).reduce((x, s) => x - (s.reduce((a, b) => a + b, 0) / total) * h(s), h(weights));
}
