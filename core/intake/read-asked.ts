import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { must, nth } from '@core/quantity/must';
import data from './data/asked.json';
import { findPhrases, groupBy, hasPhrase } from './phrases';
import type { Proposal, TextSpan } from './proposal';
import type { Speech } from './said';
import { type Token } from './text';
import { gapped, kindNamed } from './lexicon';

const Words = z.array(z.string().min(1));
/** How each thing is asked for: in a question (`says`), without one (`wants`), and by a word or two alone (`bare`). */
const ASKED = z.record(z.string(), z.strictObject({ says: Words, wants: Words, bare: Words })).parse(data);
const KINDS_ASKED = Object.entries(ASKED);
const OPENS = /^(is|are|can|may|should|do|does|must|has|have)$/;
const SUBJECT = /^(i|we|it|he|the|that|this|there)$/;
/** Parts that a question can be about. */
const ABOUT = new Set(['belt', 'chain', 'tensioner', 'roller', 'guide', 'pump']);
/** Words of a question that one or two words make out. */
const SHORT = 4;

/** What they want to know: by how it is put in their questions, and by what they say they need. */
export function readAsked(said: Speech): Proposal[] {
  const found = new Map<string, TextSpan[]>();
  const put = (key: string, tokens: readonly Token[], at: number, n: number) => {
    const span = { from: nth(tokens, at).from, to: nth(tokens, Math.min(at + n, tokens.length) - 1).to };
    found.set(key, [...(found.get(key) ?? []), span]);
  };
  for (const sentence of said.sentences) {
    const question = questionOf(sentence, said);
    for (const [key, how] of KINDS_ASKED) {
      for (const f of gapped(sentence, how.wants)) put(key, sentence, f.at, f.n);
      if (question.length === 0) continue;
      for (const f of gapped(question, how.says)) put(key, question, f.at, f.n);
      const words = groupBy(question, 'clause').at(-1) ?? [];
      if (words.length <= SHORT) for (const f of findPhrases(words, how.bare)) put(key, words, f.at, f.n);
    }
    // A question about a named thing with no word of its own: the marks, the code or the noise that are spoken of.
    if (
      question.length > 0 &&
      ![...found.values()].some((spans) =>
        spans.some((s) => s.from >= nth(question, 0).from && s.to <= must(question.at(-1)).to),
      ) &&
      /^(jumped|slipped)$/.test(question.at(-1)?.low ?? '')
    )
      put('means', question, question.length - 1, 1);
  }
  const about = found.has('reuse') || found.has('why') ? aboutOf(said) : [];
  const keys = [...found.keys()];
  return keys.length === 0
    ? []
    : [
        {
          key: 'call.asked',
          value: keys,
          how: 'reported',
          sure: 'likely',
          spans: [...found.values()].flat(),
        },
        ...about,
      ];
}

/** The part that a question is about, where it names one only: "is the chain still good". */
function aboutOf(said: Speech): Proposal[] {
  const named = said.sentences.flatMap((sentence) => {
    const question = questionOf(sentence, said);
    return question.flatMap((t) => {
      const kind = kindNamed(t);
      return kind !== undefined && ABOUT.has(kind) ? [{ kind, t }] : [];
    });
  });
  const kinds = new Set(named.map((n) => n.kind));
  const [first] = named;
  if (kinds.size !== 1 || !first) return [];
  return [
    {
      key: 'call.about',
      value: first.kind,
      how: 'reported',
      sure: 'likely',
      spans: [{ from: first.t.from, to: first.t.to }],
    },
  ];
}

/** The clauses of a sentence that ask; all of it where its clauses do not part. */
function questionOf(sentence: readonly Token[], said: Speech): readonly Token[] {
  const asks = sentence.filter((t) => said.clauses.get(t.clause)?.mood === 'asked');
  if (asks.length > 0) return asks;
  const end = nth(sentence, sentence.length - 1).to;
  if (/^[^\p{L}\d.\n]*\?/u.test(said.text.slice(end, end + 8))) return sentence;
  // What is dictated has no marks: a question begins where a verb comes before its subject.
  const run = said.text.includes('?')
    ? -1
    : sentence.findIndex(
        (t, i) =>
          i > 0 &&
          OPENS.test(t.low) &&
          SUBJECT.test(sentence[i + 1]?.low ?? '') &&
          !/^(what|which|that|as|so|than|it|this|he|she|they|there|and)$/.test(sentence[i - 1]?.low ?? ''),
      );
  const starts = sentence.findIndex(
    (t, i) =>
      i > 0 &&
      !said.text.includes('?') &&
      /^(should|can|may|do|could)$/.test(t.low) &&
      /^(i|we|he)$/.test(sentence[i + 1]?.low ?? ''),
  );
  const from = run >= 0 ? run : starts;
  if (from >= 0) return sentence.slice(from);
  return hasPhrase(sentence, ['question is', 'or not', 'y n', 'or what', 'please advise']) ? sentence : [];
}
