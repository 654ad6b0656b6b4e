import { nth } from '@core/quantity/must';
import { KINDS } from '@core/facts/kinds';
import { type Observable, optionsOf } from '@core/facts/observable';
import type { IntakeContext } from './context';
import { GRAMMAR } from './grammar';
import { type PhraseHit, hitsIn, kindNamed, lexiconOf, STATES } from './lexicon';
import { spanOf } from './phrases';
import type { Proposal } from './proposal';
import { tokenAt, type Speech } from './said';
import type { Token } from './text';
import { WORDS } from './words';

/** Words between a subject and what is said of it at most. */
const REACH = 9;
/** The same where the subject comes behind. */
const BEHIND = 4;
const PARTS = new Set(Object.keys(WORDS.nouns));

/** What is seen of a part: a state beside its subject, negations understood; asked, planned and earlier states are left open. */
export function readChoices(said: Speech, used: ReadonlySet<number>, ctx: IntakeContext): Proposal[] {
  const { tokens } = said;
  const lexicon = lexiconOf(ctx.registry, ctx.taught);
  const byKey = new Map<string, PhraseHit[]>();
  for (const h of hitsIn(tokens, lexicon)) {
    // "Pickup" in a vehicle's name is no strainer.
    if (used.has(h.at)) continue;
    const own = byKey.get(h.key);
    if (own) own.push(h);
    else byKey.set(h.key, [h]);
  }
  const topics = topicsOf(tokens);
  const out: Found[] = [];
  for (const [key, hits] of byKey) {
    const o = lexicon.observables.get(key);
    if (o) out.push(...readChoice(o, hits, said, topics));
  }
  return contested(out, tokens).map((f) => f.p);
}

/** A reading with the state that it stands on, and the subject of which it was taken. */
type Found = { p: Proposal; o: Observable; state: PhraseHit; subject: PhraseHit; own: boolean };

/**
 * Of readings of one state the one whose subject stands before it, and of overlapping states the longer: "frayed the rear one"
 * speaks of what was named before; "burnt the back of the belt shiny" is no burnt break.
 */
function contested(list: readonly Found[], tokens: readonly Token[]): Found[] {
  const end = (h: PhraseHit) => h.at + h.n;
  const before = (f: Found) => f.subject.at < f.state.at;
  return list.filter((f) => {
    for (const g of list) {
      if (g === f || g.o === f.o) continue;
      if (
        g.state.at <= f.state.at &&
        end(g.state) >= end(f.state) &&
        g.state.n > f.state.n &&
        f.o.part === g.o.part
      )
        return false;
      const same = g.state.at < end(f.state) && f.state.at < end(g.state);
      if (
        same &&
        PARTS.has(f.o.part) &&
        PARTS.has(g.o.part) &&
        !before(f) &&
        before(g) &&
        !f.own &&
        nth(tokens, g.subject.at).clause === nth(tokens, g.state.at).clause
      )
        return false;
      // What lies nearer takes it, unless both are named together: "front and rear edge frayed".
      if (
        same &&
        before(f) &&
        before(g) &&
        !f.own &&
        !g.own &&
        end(f.subject) < g.subject.at &&
        !together(tokens, end(f.subject), g.subject.at) &&
        f.state.n <= g.state.n
      )
        return false;
    }
    return true;
  });
}

const together = (tokens: readonly Token[], from: number, to: number): boolean =>
  tokens.slice(from, to).every((t) => /^(and|the|both|edge|edges|of|a)$/.test(t.low));

/** Kind of part that was named last before each token. */
function topicsOf(tokens: readonly Token[]): (string | undefined)[] {
  let topic: string | undefined;
  return tokens.map((t) => {
    const kind = kindNamed(t);
    if (kind !== undefined && KINDS.has(kind)) topic = kind;
    return topic;
  });
}

function readChoice(
  o: Observable,
  hits: readonly PhraseHit[],
  said: Speech,
  topics: readonly (string | undefined)[],
): Found[] {
  const { tokens } = said;
  const own = STATES[o.key];
  const subjects = hits.filter(
    (h) => h.as === 'of' && (ownName(o, h, tokens) || topicSuits(o, topics[h.at])),
  );
  const near = hits.filter((h) => h.as === 'near');
  const found: Found[] = [];
  for (const h of hits) {
    if (h.option === undefined) continue;
    const sentence = nth(tokens, h.at).sentence;
    const around =
      own?.near === undefined || near.some((x) => Math.abs(nth(tokens, x.at).sentence - sentence) <= 1);
    if (!around) continue;
    const subject = h.as === 'alone' ? h : subjectOf(o, h, subjects, hits, tokens);
    if (!subject) continue;
    const value = meant(o, h, tokens, own?.denied);
    if (value === undefined) continue;
    const from = Math.min(h.at, subject.at);
    const to = Math.max(h.at + h.n, subject.at + subject.n);
    found.push({
      p: moodOf(
        { key: o.key, value, how: 'reported', sure: 'likely', spans: [spanOf(tokens, from, to - from)] },
        said,
      ),
      o,
      state: h,
      subject,
      own: h.as === 'alone',
    });
  }
  return longestOnly(found);
}

/** A subject that names its part itself needs no other. */
const ownName = (o: Observable, h: PhraseHit, tokens: readonly Token[]): boolean => {
  if (!PARTS.has(o.part)) return true;
  for (let i = h.at; i < h.at + h.n; i++) {
    const kind = kindNamed(nth(tokens, i));
    // A key or a spring belongs to whatever speaks of it.
    if (kind !== undefined && (kind === o.part || !KINDS.has(kind))) return true;
  }
  return STATES[o.key]?.near !== undefined;
};
const topicSuits = (o: Observable, topic: string | undefined): boolean =>
  topic === o.part || (topic === undefined && o.part === 'tensioner');

/** The subject nearest to a state: before it in its clause or carried from the one before, or right behind; with no other part between. */
function subjectOf(
  o: Observable,
  state: PhraseHit,
  subjects: readonly PhraseHit[],
  hits: readonly PhraseHit[],
  tokens: readonly Token[],
): PhraseHit | undefined {
  const at = nth(tokens, state.at);
  const inside = subjects.find((s) => s.at >= state.at && s.at + s.n <= state.at + state.n);
  if (inside && state.n > 1) return inside;
  let best: { s: PhraseHit; away: number } | undefined;
  for (const s of subjects) {
    const t = nth(tokens, s.at);
    if (t.sentence !== at.sentence) continue;
    if (s.n > state.n && s.at <= state.at && s.at + s.n >= state.at + state.n) return s;
    const before = s.at + s.n <= state.at;
    if (!before && s.at < state.at + state.n) continue;
    const gap = before ? state.at - s.at - s.n : s.at - state.at - state.n;
    const clauses = Math.abs(at.clause - t.clause);
    if (before ? gap > REACH || clauses > 2 : gap > BEHIND || clauses > 0) continue;
    if (otherBetween(tokens, before ? s.at + s.n : state.at + state.n, before ? state.at : s.at, o.part))
      continue;
    if (compound(tokens, s, state)) continue;
    // A subject of which something was said already has had its say.
    if (
      before &&
      clauses > 0 &&
      hits.some(
        (h) =>
          h.option !== undefined && h.option !== state.option && h.at >= s.at + s.n && h.at + h.n <= state.at,
      )
    )
      continue;
    // What stands before a subject of its own is said of that one.
    const away = before ? gap + 2 * clauses : gap * 2 + 1;
    if (!best || away < best.away || (away === best.away && s.n > best.s.n)) best = { s, away };
  }
  if (!best) return undefined;
  // "pump bearing" is no bearing of something else
  const lead = tokens[best.s.at - 1];
  if (
    lead &&
    best.s.n === 1 &&
    lead.sentence === at.sentence &&
    lead.clause === nth(tokens, best.s.at).clause &&
    kindNamed(lead) !== undefined &&
    kindNamed(lead) !== o.part &&
    PARTS.has(o.part)
  )
    return undefined;
  return best.s;
}

/** "Oil cap" is no oil, "belt kit" no belt. */
const compound = (tokens: readonly Token[], s: PhraseHit, state: PhraseHit): boolean => {
  const next = tokens[s.at + s.n];
  return (
    s.n === 1 &&
    next !== undefined &&
    s.at + s.n !== state.at &&
    next.clause === nth(tokens, s.at).clause &&
    next.from - nth(tokens, s.at).to < 3 &&
    WORDS.partOf.includes(next.low)
  );
};

/** Another part named between takes what is said. */
const otherBetween = (tokens: readonly Token[], from: number, to: number, part: string): boolean => {
  for (let i = from; i < to; i++) {
    const kind = kindNamed(nth(tokens, i));
    // How the tensioner was set is a matter of the fitting.
    if (
      kind !== undefined &&
      kind !== part &&
      !(part === 'fitting' && (kind === 'tensioner' || kind === 'bolt'))
    )
      return true;
  }
  return false;
};

/** What is meant by an option where it may be denied; undefined where a denial says nothing. */
function meant(
  o: Observable,
  h: PhraseHit,
  tokens: readonly Token[],
  denied: Readonly<Record<string, string>> | undefined,
): string | undefined {
  const words = tokens.slice(h.at, h.at + h.n);
  // "not broken" is itself what an option says.
  const denies = words.some((t) => GRAMMAR.negation.includes(t.low));
  // "Engine not started yet": it is not due.
  if (denies && tokens[h.at + h.n]?.low === 'yet') return undefined;
  if (denies || h.option === undefined) return h.option;
  if (!negatedAt(tokens, h.at, h.n)) return h.option;
  const turned = denied?.[h.option];
  if (turned !== undefined && optionsOf(o).some((x) => x.key === turned)) return turned;
  const two = optionsOf(o).filter((x) => x.key !== 'unknown');
  return o.key.startsWith('claim.') && two.length === 2
    ? two.find((x) => x.key !== h.option)?.key
    : undefined;
}

/** A negation up to four words before, in the same clause, or right behind at its end: "no noise", "belt is not broken", "oil no". */
export function negatedAt(tokens: readonly Token[], at: number, n: number): boolean {
  const { clause } = nth(tokens, at);
  const says = (t: Token) => GRAMMAR.negation.includes(t.low);
  for (let i = at - 1; i >= Math.max(0, at - 4); i--) {
    const t = nth(tokens, i);
    if (t.clause !== clause) break;
    if (says(t) && !(t.low === 'no' && /^(sorry|hang|wait)$/.test(tokens[i + 1]?.low ?? ''))) return true;
  }
  const [behind, next] = [tokens[at + n], tokens[at + n + 1]];
  return behind?.clause === clause && says(behind) && next?.clause !== clause;
}

/** What is asked, planned or of before is offered open; what somebody else says bears their name. */
export function moodOf(p: Proposal, said: Speech): Proposal {
  const from = nth(p.spans, 0).from;
  const clause = said.tokens[tokenAt(said, from)]?.clause;
  const mood = clause === undefined ? undefined : said.clauses.get(clause);
  if (!mood) return p;
  return {
    ...p,
    ...(mood.mood !== 'stated' || mood.earlier ? { sure: 'ask' as const, doubt: 'asked' as const } : {}),
    ...(mood.theirs === undefined ? {} : { hearsay: mood.theirs }),
  };
}

/** Of readings of one place the one with more words, "rubbed through" before "rubbed". */
function longestOnly(list: readonly Found[]): Found[] {
  const overlap = (a: PhraseHit, b: PhraseHit) => b.at < a.at + a.n && a.at < b.at + b.n;
  return list.filter(
    (x, i) =>
      !list.some(
        (y, k) =>
          k !== i &&
          x.p.value !== y.p.value &&
          overlap(x.state, y.state) &&
          (y.state.n > x.state.n || (y.state.n === x.state.n && k < i)),
      ),
  );
}
