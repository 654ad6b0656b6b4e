import { nth } from '@core/quantity/must';
import { readNumber } from '@core/quantity/parse-quantity';
import type { IntakeContext, MarkedWheel } from './context';
import { wheelsWithMarks } from './context';
import { findPhrases } from './phrases';
import type { Proposal, TextSpan } from './proposal';
import type { Said } from './said';
import type { Token } from './text';
import { GRAMMAR } from './grammar';
import { WORDS } from './words';

const AMOUNTS: Record<string, number> = { a: 1, an: 1, ...GRAMMAR.numbers, ...GRAMMAR.fractions };
/** Word in a wheel's name that a said word means. */
const WHEEL_WORD = new Map(
  Object.entries(WORDS.wheels).flatMap(([word, said]) => said.map((s) => [s, word] as const)),
);
type Mention = { at: number; n: number; wheels: MarkedWheel[] };
type Offset = { teeth: number; at: number; n: number };

/**
 * Marks with wheel, amount and sense: "upper right half a tooth ahead", "left lower minus 0.5 t", "right side is in line, both".
 * Each wheel takes what is said behind it, up to the next wheel.
 */
export function readMarks(
  said: Said,
  ctx: IntakeContext,
  engine: string | undefined,
): Proposal[] {
  const wheels = wheelsWithMarks(ctx.catalogue, engine);
  const out: Proposal[] = [];
  for (const sentence of said.sentences) {
    const mentions = mentionsOf(sentence, wheels);
    mentions.forEach((m, k) => {
      const end = mentions[k + 1]?.at ?? sentence.length;
      const offset = offsetIn(sentence, m.at + m.n, end);
      if (!offset) return;
      const span: TextSpan = {
        from: nth(sentence, m.at).from,
        to: nth(sentence, offset.at + offset.n - 1).to,
      };
      for (const w of m.wheels)
        out.push({
          key: 'mark',
          about: w.id,
          value: offset.teeth,
          how: 'reported',
          sure: m.wheels.length === 1 || offset.teeth === 0 ? 'likely' : 'ask',
          spans: [span],
        });
    });
  }
  return out;
}

/** Runs of words that name a wheel: those of its name that tell it from the others. */
function mentionsOf(sentence: readonly Token[], wheels: readonly MarkedWheel[]): Mention[] {
  const out: Mention[] = [];
  for (let i = 0; i < sentence.length; i++) {
    let n = 0;
    const said: string[] = [];
    while (i + n < sentence.length) {
      const word = WHEEL_WORD.get(nth(sentence, i + n).low);
      if (word === undefined || (n > 0 && nth(sentence, i + n).clause !== nth(sentence, i).clause)) break;
      said.push(word);
      n++;
    }
    if (n === 0) continue;
    const hits = wheels.filter((w) => said.every((s) => w.words.includes(s)));
    const whole = hits.filter((w) =>
      w.words.every((x) => said.includes(x) || x === 'cam' || x === 'sprocket'),
    );
    const meant = whole.length > 0 ? whole : hits;
    const side = /^(side|bank|head)$/.test(sentence[i + n]?.low ?? '');
    const words = n + (/^(one|cam|mark|side|bank|head)$/.test(sentence[i + n]?.low ?? '') ? 1 : 0);
    if (meant.length === 1 || (side && meant.length > 1)) out.push({ at: i, n: words, wheels: meant });
    i += words - 1;
  }
  return out;
}

/** Amount and sense between two places of a sentence; in line counts as nought. */
function offsetIn(sentence: readonly Token[], from: number, to: number): Offset | undefined {
  const part = sentence.slice(from, Math.min(to, from + 14));
  const ahead = findPhrases(part, WORDS.ahead)[0];
  const behind = findPhrases(part, WORDS.behind)[0];
  const level = findPhrases(part, WORDS.inLine)[0];
  const senses = [ahead, behind].filter((x) => x !== undefined).sort((a, b) => a.at - b.at);
  const first = senses[0];
  for (let i = 0; i < part.length; i++) {
    const amount = amountAt(part, i);
    if (!amount) continue;
    const sense = amount.value < 0 ? undefined : (senses.find((s) => s.at >= i - 1) ?? first);
    const signed = /^[-−+]/.test(nth(part, i).text);
    if (!signed && !sense) continue;
    if (sense && Math.abs(sense.at - i) > 8) continue;
    // "good" said before the figure speaks of something else
    const sign = signed ? 1 : sense === behind ? -1 : 1;
    const end = Math.max(i + amount.n, sense ? sense.at + sense.n : 0);
    return { teeth: sign * amount.value, at: from, n: end };
  }
  if (level && (!first || level.at <= first.at)) return { teeth: 0, at: from, n: level.at + level.n };
  return undefined;
}

/** "half a tooth", "a quarter of a tooth", "0.46 teeth", "one late", "1.5 t", "−0.5". */
function amountAt(part: readonly Token[], i: number): { value: number; n: number } | undefined {
  const t = nth(part, i);
  const named = AMOUNTS[t.low];
  const behind = part.slice(i + 1, i + 5);
  const tooth = behind.findIndex((x) => WORDS.tooth.includes(x.low));
  if (named !== undefined) {
    if ((t.low === 'a' || t.low === 'an') && !WORDS.tooth.includes(behind[0]?.low ?? '')) return undefined;
    if (tooth >= 0 && tooth < 4) return { value: named, n: tooth + 2 };
    return t.low === 'one' && WORDS.behind.concat(WORDS.ahead).includes(behind[0]?.low ?? '')
      ? { value: 1, n: 1 }
      : undefined;
  }
  if (!/^[-−+]?\d[\d.,]*$/.test(t.text)) return undefined;
  const value = readNumber(t.text.replace('−', '-'));
  if (value === undefined || Math.abs(value) > 8) return undefined;
  if (tooth === 0) return { value, n: 2 };
  return /^[-−+]/.test(t.text) ? { value, n: 1 } : undefined;
}
