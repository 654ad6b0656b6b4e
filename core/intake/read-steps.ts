import { stemOf } from '@core/quantity/stem';
import { nth } from '@core/quantity/must';
import type { IntakeContext, NamedStep } from './context';
import { findPhrases, groupBy } from './phrases';
import type { Proposal } from './proposal';
import { sentenceOf, type Speech, tokenAt } from './said';
import { stemsOf, type Token } from './text';
import { WORDS } from './words';

/** Share of a clause's weight that a step has to hold, and by how much more than the next. */
const LEAST = 2.6;
const LEAD = 1.15;

/** Words that say how it went are none of the step's. */
const CUES = new Set([...WORDS.leftOut, ...WORDS.otherwise].flatMap((w) => stemsOf(w)));

type Weighed = { step: NamedStep; words: ReadonlySet<string> };

/**
 * Steps that were left out or done otherwise, by the words of an engine's fitting sheet. A guess by likeness: it is always asked,
 * never ticked.
 */
export function readSteps(said: Speech, ctx: IntakeContext, engine: string | undefined): Proposal[] {
  const steps = engine === undefined ? [] : (ctx.steps?.(engine) ?? []);
  if (steps.length === 0) return [];
  const { weighed, weights } = weigh(steps);
  const out: Proposal[] = [];
  for (const clause of groupBy(said.tokens, 'clause')) {
    const [skipped, wrong] = [findPhrases(clause, WORDS.leftOut)[0], findPhrases(clause, WORDS.otherwise)[0]];
    const cue = wrong ?? skipped;
    if (!cue) continue;
    const mood = said.clauses.get(nth(clause, 0).clause);
    if (mood && mood.mood !== 'stated') continue;
    const step = bestOf(clause, weighed, weights);
    if (!step) continue;
    out.push({
      key: 'step.done',
      about: `step:${step.id}`,
      value: wrong ? 'wrong' : 'skipped',
      how: 'reported',
      sure: 'ask',
      doubt: 'not_sure',
      spans: [{ from: nth(clause, 0).from, to: nth(clause, clause.length - 1).to }],
    });
  }
  return out;
}

/** A pointer read again after the turns is the sheet's figure, and not how the part was found. */
export function afterTurns(
  p: Proposal,
  said: Speech,
  ctx: IntakeContext,
  engine: string | undefined,
): Proposal {
  if (
    p.key !== 'tensioner.pointer' ||
    engine === undefined ||
    !ctx.steps?.(engine).some((s) => s.id === AGAIN)
  )
    return p;
  const at = tokenAt(said, nth(p.spans, 0).from);
  const { clause } = nth(said.tokens, at);
  const own = sentenceOf(said, at).filter((t) => t.clause === clause);
  return findPhrases(own, WORDS.afterTurns).length === 0
    ? p
    : { ...p, key: 'step.angle', about: `step:${AGAIN}` };
}
/** The step in which the setting is read once more. */
const AGAIN = 'again';

/** Words of the steps, the rarer the heavier. */
function weigh(steps: readonly NamedStep[]): { weighed: Weighed[]; weights: ReadonlyMap<string, number> } {
  const weighed = steps.map((step) => ({
    step,
    words: new Set(
      `${step.text} ${step.fastener ?? ''} ${step.id.replace(/[.]/g, ' ')}`
        .toLowerCase()
        .split(/[^a-z]+/)
        .filter((w) => w.length > 2 && !WORDS.common.includes(w))
        .map(stemOf),
    ),
  }));
  const weights = new Map<string, number>();
  for (const { words } of weighed) for (const w of words) weights.set(w, (weights.get(w) ?? 0) + 1);
  for (const [w, n] of weights) weights.set(w, Math.log((1 + steps.length) / n));
  return { weighed, weights };
}

function bestOf(
  clause: readonly Token[],
  weighed: readonly Weighed[],
  weights: ReadonlyMap<string, number>,
): NamedStep | undefined {
  const stems = new Set(clause.filter((t) => t.low.length > 3 && !CUES.has(t.stem)).map((t) => t.stem));
  const scored = weighed
    // One word alone is no likeness.
    .filter(({ words }) => [...stems].filter((s) => words.has(s)).length > 1)
    .map(({ step, words }) => ({
      step,
      score:
        [...stems].filter((s) => words.has(s)).reduce((n, s) => n + (weights.get(s) ?? 0), 0) /
        Math.sqrt(1 + words.size / 12),
    }))
    .sort((a, b) => b.score - a.score);
  const [first, second] = scored;
  return first && first.score >= LEAST && first.score >= LEAD * (second?.score ?? 0) ? first.step : undefined;
}
