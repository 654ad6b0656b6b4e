import { nth } from '@core/quantity/must';
import { stagesFor } from '@core/catalogue/find-records';
import { bankThing } from '@core/facts/thing';
import type { IntakeContext } from './context';
import type { Figure } from './figures';
import { findPhrases, hasPhrase } from './phrases';
import type { Proposal } from './proposal';
import { moodOf } from './read-choices';
import { beginOf, figuresIn, type Speech } from './said';
import type { Token } from './text';
import { WORDS } from './words';

/** A thousandth of an inch, mm. */
const THOU = 0.0254;

type Bank = { id: string; words: readonly string[] };

/** How much heads were machined, by bank: "R head skim 0.3", "three tenths off the left one"; a thicker gasket takes from it. */
export function readBanks(said: Speech, ctx: IntakeContext, engine: string | undefined): Proposal[] {
  const banks = banksOf(ctx, engine);
  if (banks.length === 0) return [];
  const out: Proposal[] = [];
  const thou = hasPhrase(said.tokens, ['thousandths of an inch', 'thou']);
  let topic = false;
  for (const sentence of said.sentences) {
    const first = beginOf(said, sentence);
    const asked = said.topics.some(
      (t) =>
        t.at < nth(sentence, 0).from &&
        hasPhrase(t.tokens, ['head', 'machined']) &&
        nth(sentence, 0).from - t.at < 220,
    );
    const speaks = hasPhrase(sentence, WORDS.machined);
    const nobody = hasPhrase(sentence, WORDS.unmachined);
    if (!speaks && !nobody && !(topic && asked)) continue;
    topic = true;
    const figures = figuresIn(said, sentence);
    const own = figures.flatMap((f) => cutOf(f, sentence, first, thou));
    if (own.length > 0) {
      const removed = own.filter((c) => c.what === 'head');
      const gasket = own.filter((c) => c.what === 'gasket').reduce((n, c) => n + c.mm, 0);
      for (const c of removed) {
        const bank = bankAt(banks, sentence, c.at - first);
        if (bank === undefined) continue;
        out.push(proposal(bank.id, Number((c.mm - gasket).toFixed(3)), sentence, c.at - first, c.n, said));
      }
    }
    if (nobody) {
      const hit = findPhrases(sentence, WORDS.unmachined)[0];
      const side =
        hit && banks.length > 1 && !hasPhrase(sentence, ['both', 'nobody', 'neither', 'anything'])
          ? bankAt(banks, sentence, hit.at)
          : undefined;
      for (const b of side ? [side] : banks)
        if (hit && !out.some((p) => p.about === b.id))
          out.push(proposal(b.id, 0, sentence, hit.at, hit.n, said));
    }
  }
  return out;
}

function proposal(
  about: string,
  value: number,
  sentence: readonly Token[],
  at: number,
  n: number,
  said: Speech,
): Proposal {
  const span = { from: nth(sentence, at).from, to: nth(sentence, Math.min(at + n, sentence.length) - 1).to };
  return moodOf({ key: 'bank.nearer', about, value, how: 'reported', sure: 'likely', spans: [span] }, said);
}

function banksOf(ctx: IntakeContext, engine: string | undefined): Bank[] {
  const out = new Map<string, Bank>();
  for (const v of engine === undefined ? [] : (ctx.catalogue.variantsOf.get(engine) ?? []))
    for (const s of v.layout === undefined ? [] : stagesFor(ctx.catalogue, v.layout))
      for (const b of s.layout.banks ?? [])
        out.set(b.id, { id: bankThing(b.id), words: b.name.toLowerCase().split(/\s+/) });
  return [...out.values()];
}

/** The bank named nearest before, else behind; the only one where there is but one. */
function bankAt(banks: readonly Bank[], sentence: readonly Token[], at: number): Bank | undefined {
  if (banks.length === 1) return banks[0];
  const sides = sentence.flatMap((t, i) => {
    const word = /^(r|rh|right)$/.test(t.low) ? 'right' : /^(l|lh|left)$/.test(t.low) ? 'left' : undefined;
    const bank = word === undefined ? undefined : banks.find((b) => b.words.includes(word));
    const own = t.clause === nth(sentence, at).clause ? 0 : 20;
    return bank ? [{ bank, away: own + (i <= at ? at - i : 2 * (i - at)) }] : [];
  });
  return sides.sort((a, b) => a.away - b.away)[0]?.bank;
}

/** What a figure took off a head, or what a gasket is thicker, mm. */
function cutOf(
  f: Figure,
  sentence: readonly Token[],
  first: number,
  thou: boolean,
): { what: 'head' | 'gasket'; mm: number; at: number; n: number }[] {
  const at = f.at - first;
  const clause = nth(sentence, at).clause;
  const own = sentence.filter((t) => t.clause === clause);
  const before = sentence.slice(Math.max(0, at - 6), at);
  const behind = sentence.slice(at + f.n, at + f.n + 6);
  const spoken = f.unit === undefined && f.part ? f.value : f.value;
  let mm = Math.abs(spoken);
  if (f.unit !== undefined && /^(in|inch|inches|")$/.test(f.unit)) mm *= 25.4;
  else if (f.unit === 'thou') mm *= THOU;
  else if (thou && mm < 0.2) mm *= 25.4;
  else if (f.unit !== undefined && !/^mm$/.test(f.unit)) return [];
  if (mm > 3 || mm === 0) return [];
  const gasket = hasPhrase(before, ['gasket']) || hasPhrase(own, ['gasket', 'thicker']);
  if (gasket && !hasPhrase(before.slice(-3), ['head']))
    return mm < 1 && !f.spelled && (hasPhrase([...own, ...before, ...behind], ['thicker']) || f.signed)
      ? [{ what: 'gasket', mm, at: f.at, n: f.n }]
      : [];
  const head =
    hasPhrase([...before, ...behind, ...own], WORDS.machined) || hasPhrase(before, ['head']) || f.part;
  return head ? [{ what: 'head', mm, at: f.at, n: f.n }] : [];
}
