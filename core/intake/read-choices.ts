import { oncePer } from '@core/quantity/keep';
import { nth } from '@core/quantity/must';
import type { Observable } from '@core/facts/observable';
import { optionsOf } from '@core/facts/observable';
import type { IntakeContext } from './context';
import { type FoundPhrase, findPhrases, spanOf } from './phrases';
import type { Proposal } from './proposal';
import type { Said } from './said';
import type { Token } from './text';
import { GRAMMAR } from './grammar';
import { namesOfSubject, WORDS } from './words';

type Hit = { option: string; at: number; n: number; negated: boolean };

/** Words of an option's wording that stand for it: up to the first comma, colon or "or". */
const heads = (wording: string): string[] => {
  const first = nth(wording.split(/[,:;(]| or /), 0).trim();
  return first.split(' ').length <= 4 ? [first] : [];
};

/** What is seen of a part, from the registry's options: a state beside its subject, negations understood. */
export function readChoices(said: Said, ctx: IntakeContext): Proposal[] {
  const out: Proposal[] = [];
  for (const o of ctx.registry.values()) {
    if (o.type.kind !== 'choice' || o.key.startsWith('feature.') || o.part === 'old' || o.part === 'drive')
      continue;
    if (
      (o.hidden && !o.line) ||
      o.place !== undefined ||
      (o.station === 'settle' && o.key === 'claim.decision')
    )
      continue;
    if (o.key === 'case.kind' || o.key === 'claim.decision') continue;
    out.push(...readChoice(o, said));
  }
  return out;
}

type States = readonly { option: string; words: readonly string[]; alone: readonly string[] }[];

/** What says each option of an observable; made once. */
const statesOf = oncePer(
  (o: Observable): States =>
    optionsOf(o)
      .filter((x) => x.key !== 'unknown')
      .map((x) => ({
        option: x.key,
        words: [...(WORDS.states[o.key]?.[x.key] ?? []), ...(x.also ?? []), ...heads(x.wording)].filter(
          (w) => !/^(yes|no|none|never)$/i.test(w),
        ),
        alone: WORDS.alone[o.key]?.[x.key] ?? [],
      })),
);

function readChoice(o: Observable, said: Said): Proposal[] {
  const states = statesOf(o);
  const out: Proposal[] = [];
  for (const sentence of said.sentences) {
    const named = findPhrases(sentence, namesOfSubject(o));
    for (const s of states) {
      for (const f of findPhrases(sentence, s.words)) {
        const subject = subjectOf(sentence, named, f, o);
        if (!subject) continue;
        out.push(...asProposal(o, s.option, sentence, hitOf(sentence, f, s.option), subject));
      }
      for (const f of findPhrases(sentence, s.alone))
        out.push(...asProposal(o, s.option, sentence, hitOf(sentence, f, s.option), f));
    }
  }
  return longestOnly(out).map((p) => moodOf(p, said));
}

const hitOf = (sentence: readonly Token[], f: FoundPhrase, option: string): Hit => ({
  option,
  at: f.at,
  n: f.n,
  negated: negatedAt(sentence, f.at, f.n),
});

/** A negation up to three words before, in the same clause, or right behind at its end: "no noise", "belt is not broken", "oil no". */
export function negatedAt(sentence: readonly Token[], at: number, n: number): boolean {
  const clause = nth(sentence, at).clause;
  const before = sentence.slice(Math.max(0, at - 3), at).filter((t) => t.clause === clause);
  const behind = sentence[at + n];
  const next = sentence[at + n + 1];
  const says = (t: Token) => GRAMMAR.negation.includes(t.low);
  if (before.some(says)) return true;
  return behind?.clause === clause && says(behind) && next?.clause !== clause;
}

/** The subject nearest to a state, in its clause or carried from before in its sentence, with no other thing between. */
function subjectOf(
  sentence: readonly Token[],
  named: readonly FoundPhrase[],
  state: FoundPhrase,
  o: Observable,
): FoundPhrase | undefined {
  const clause = nth(sentence, state.at).clause;
  // A state that holds its own subject needs no other.
  const inside = named.find((s) => s.at >= state.at && s.at + s.n <= state.at + state.n);
  if (inside && state.n > 1) return inside;
  const own = new Set(subjectWords(o));
  const around = named.find((s) => s.n > state.n && s.at <= state.at && s.at + s.n >= state.at + state.n);
  if (around) return around;
  const same = named
    // "pump bearing" is no bearing of something else
    .filter(
      (s) =>
        s.at === 0 ||
        own.has(nth(sentence, s.at - 1).stem) ||
        !WORDS.things.includes(nth(sentence, s.at - 1).stem),
    )
    .filter((s) => nth(sentence, s.at).clause === clause || clause - nth(sentence, s.at).clause === 1)
    .filter((s) => s.at + s.n <= state.at || s.at >= state.at + state.n)
    .map((s) => ({ s, away: s.at < state.at ? state.at - s.at - s.n : s.at - state.at - state.n + 1 }))
    .filter((x) => x.away <= 6 && !otherBetween(sentence, x.s, state, o))
    .sort((a, b) => a.away - b.away);
  return same[0]?.s;
}

const subjectWords = (o: Observable): string[] =>
  [...(WORDS.subjects[o.key] ?? []), o.wording].flatMap((w) => w.toLowerCase().split(' '));

/** Another part named between subject and state, or nearer to the state, takes it. */
function otherBetween(
  sentence: readonly Token[],
  s: FoundPhrase,
  state: FoundPhrase,
  o: Observable,
): boolean {
  const [from, to] = s.at < state.at ? [s.at + s.n, state.at] : [state.at + state.n, s.at];
  const own = new Set(subjectWords(o));
  return sentence
    .slice(from, to)
    .some((t) => WORDS.things.includes(t.stem) && !own.has(t.low) && !own.has(t.stem));
}

function asProposal(
  o: Observable,
  option: string,
  sentence: readonly Token[],
  hit: Hit,
  subject: FoundPhrase,
): Proposal[] {
  const words = sentence.slice(hit.at, hit.at + hit.n);
  // "not broken" is itself what an option says.
  const own = words.some((t) => GRAMMAR.negation.includes(t.low));
  if (hit.negated && !own) {
    const two = optionsOf(o).filter((x) => x.key !== 'unknown');
    const other =
      o.key.startsWith('claim.') && two.length === 2 ? two.find((x) => x.key !== option) : undefined;
    if (!other) return [];
    return [proposal(o.key, other.key, sentence, hit, subject)];
  }
  return [proposal(o.key, option, sentence, hit, subject)];
}

function proposal(
  key: string,
  value: string,
  sentence: readonly Token[],
  hit: Hit,
  subject: FoundPhrase,
): Proposal {
  const from = Math.min(hit.at, subject.at);
  const to = Math.max(hit.at + hit.n, subject.at + subject.n);
  return { key, value, how: 'reported', sure: 'likely', spans: [spanOf(sentence, from, to - from)] };
}

/** What is asked, planned or of before is offered open; what somebody else says bears their name. */
export function moodOf(p: Proposal, said: Said): Proposal {
  const from = nth(p.spans, 0).from;
  const clause = said.tokens.find((t) => t.to > from)?.clause;
  const mood = clause === undefined ? undefined : said.clauses.get(clause);
  if (!mood) return p;
  return {
    ...p,
    ...(mood.mood !== 'stated' || mood.earlier ? { sure: 'ask' as const, doubt: 'asked' as const } : {}),
    ...(mood.theirs === undefined ? {} : { hearsay: mood.theirs }),
  };
}

/** Of readings of one place the one with more words, "rubbed through" before "rubbed". */
function longestOnly(list: readonly Proposal[]): Proposal[] {
  const length = (p: Proposal) => nth(p.spans, 0).to - nth(p.spans, 0).from;
  return list.filter((p, i) => {
    const rival = list.findIndex(
      (q, k) =>
        k !== i &&
        nth(q.spans, 0).from < nth(p.spans, 0).to &&
        nth(p.spans, 0).from < nth(q.spans, 0).to &&
        (length(q) > length(p) || (length(q) === length(p) && k < i)),
    );
    return rival < 0;
  });
}
