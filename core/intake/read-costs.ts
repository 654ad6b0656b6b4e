import { nth } from '@core/quantity/must';
import { readNumber } from '@core/quantity/parse-quantity';
import { hasPhrase } from './phrases';
import type { Proposal } from './proposal';
import { tokenAt, type Speech } from './said';
import { WORDS } from './words';

const AMOUNT =
  /(?:(?:AC|EUR)\s?)?(\d{1,3}(?:[ .,]\d{3})*[.,]\d{2}|\d+[.,]\d{2})(?!\d)|\b(?:AC|EUR)\s?(\d+)\b/g;
const KEYS = [
  ['claim.cost_part', /\b(?:parts?|material|kit price)\b/gi],
  ['claim.cost_labour', /\b(?:labou?r|wages|hours|lab)\b/gi],
  [
    'claim.cost_other',
    /\b(?:recovery|towing|tow|hire|rental|consequential|other|oth|breakdown service|transport)\b/gi,
  ],
  ['', /\b(?:total|sum|altogether|in all|vat|net|gross)\b/gi],
] as const;
/** Characters before an amount in which what it is for is looked for. */
const BACK = 60;

/** What a claim asks for: parts, labour and what follows from the failure, each by the last amount told for it; sums are left. */
export function readCosts(said: Speech): Proposal[] {
  if (!hasPhrase(said.tokens, WORDS.money)) return [];
  const out: Proposal[] = [];
  const text = said.text;
  for (const m of text.matchAll(AMOUNT)) {
    const typed = m[1] ?? m[2] ?? '';
    const from = m.index + m[0].length - typed.length;
    const token = said.tokens[tokenAt(said, from)];
    if (!token || token.from > from + typed.length) continue;
    const before = text.slice(Math.max(0, m.index - BACK), m.index);
    const line = before.slice(before.lastIndexOf('\n') + 1);
    const hits = KEYS.flatMap(([key, re]) => [...line.matchAll(re)].map((h) => ({ key, at: h.index })));
    // "212.40 for parts"
    const behind = /^[^\d\n]{0,4}\bfor\s+(?:the\s+)?(\w+)/i.exec(
      text.slice(m.index + m[0].length, m.index + m[0].length + 30),
    )?.[1];
    const named =
      behind === undefined ? undefined : KEYS.find(([, re]) => new RegExp(re.source, 'i').test(behind));
    const best = named ? { key: named[0], at: 0 } : hits.sort((a, b) => b.at - a.at)[0];
    const value = readNumber(typed.trim());
    if (best === undefined || best.key === '' || value === undefined) continue;
    // "6.5 hours at 71.00 = 461.50": a rate is no cost, what it comes to is.
    const twin = out.find((p) => p.key === best.key);
    const labour = best.key === 'claim.cost_labour' || /=\s*(?:AC|EUR)?\s*$/.test(line);
    const made: Proposal = {
      key: best.key,
      value:
        twin && !labour && typeof twin.value === 'number' && best.key === 'claim.cost_other'
          ? twin.value + value
          : value,
      how: 'document',
      sure: 'likely',
      spans: [{ from, to: from + typed.length }],
    };
    if (twin) out[out.indexOf(twin)] = made;
    else out.push(made);
  }
  return out;
}

/** Grade of the oil, as it is printed: "5W-30". */
export function readGrade(said: Speech): Proposal[] {
  const m = /\b(\d{1,2}W-?\d{2})\b/i.exec(said.text);
  return m
    ? [
        {
          key: 'oil.grade',
          value: nth(m, 1).toUpperCase(),
          how: 'reported',
          sure: 'likely',
          spans: [{ from: m.index, to: m.index + m[0].length }],
        },
      ]
    : [];
}
