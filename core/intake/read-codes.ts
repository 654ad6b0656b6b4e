import { must, nth } from '@core/quantity/must';
import { foldCode } from '@core/catalogue/find-records';
import { distance } from 'fastest-levenshtein';
import type { IntakeContext } from './context';
import { knownOf, type VehicleEntry } from './context';
import type { Proposal, TextSpan } from './proposal';
import type { Token } from './text';

/** Words joined into one code at most. */
const JOINED = 4;

export type CodesRead = {
  proposals: Proposal[];
  used: Set<number>;
  parts: { number: string; span: TextSpan }[];
};

/** Engines, kits, parts and cross numbers, however they are spaced or dashed; fault codes, claim numbers, lots. */
export function readCodes(text: string, tokens: readonly Token[], ctx: IntakeContext): CodesRead {
  const { codes, longest } = knownOf(ctx.catalogue);
  const proposals: Proposal[] = [];
  const used = new Set<number>();
  const parts: CodesRead['parts'] = [];
  for (let i = 0; i < tokens.length; i++) {
    if (used.has(i)) continue;
    for (let n = Math.min(JOINED, tokens.length - i); n > 0; n--) {
      const run = tokens.slice(i, i + n);
      // Codes hold no blanks of their own wider than one sign.
      if (run.some((t, k) => k > 0 && t.from - nth(run, k - 1).to > 2)) continue;
      const folded = foldCode(run.map((t) => t.text).join(''));
      if (folded.length < 5 || folded.length > longest + 1 || !/\d/.test(folded)) continue;
      const entry = codes.get(folded);
      if (!entry) continue;
      const span = { from: nth(run, 0).from, to: must(run.at(-1)).to };
      for (let k = i; k < i + n; k++) used.add(k);
      if (entry.kind === 'part') parts.push({ number: entry.code, span });
      else
        proposals.push({
          key: entry.kind === 'engine' ? 'engine.code' : 'kit.number',
          value: entry.means,
          how: 'reported',
          sure: 'sure',
          spans: [span],
        });
      break;
    }
  }
  for (const read of [faultCodes(text), claimNumber(text)]) if (read) proposals.push(read);
  if (!proposals.some((p) => p.key === 'engine.code' || p.key === 'kit.number'))
    proposals.push(...nearCodes(tokens, used, codes));
  return { proposals, used, parts };
}

/** A code with one stroke wrong: asked, not guessed. */
function nearCodes(
  tokens: readonly Token[],
  used: ReadonlySet<number>,
  codes: ReturnType<typeof knownOf>['codes'],
): Proposal[] {
  const out: Proposal[] = [];
  tokens.forEach((t, i) => {
    const next = tokens[i + 1];
    const joined = next !== undefined && next.from - t.to <= 1 ? [t.text, t.text + next.text] : [t.text];
    for (const typed of joined) {
      const folded = foldCode(typed);
      if (used.has(i) || folded.length < 7 || !/\d/.test(typed) || !/[a-z]/i.test(typed)) continue;
      for (const [code, e] of codes)
        if (e.kind !== 'part' && Math.abs(code.length - folded.length) < 2 && distance(code, folded) === 1)
          out.push({
            key: e.kind === 'engine' ? 'engine.code' : 'kit.number',
            value: e.means,
            how: 'reported',
            sure: 'ask',
            doubt: 'near_code',
            spans: [{ from: t.from, to: typed === t.text ? t.to : must(next).to }],
          });
    }
  });
  return out;
}

function faultCodes(text: string): Proposal | undefined {
  const found = [...text.matchAll(/\b([PCBU][0-3O][0-9A-FO]{3})\b/gi)].filter((m) => /\d/.test(nth(m, 1)));
  if (found.length === 0) return undefined;
  const codes = found.map((m) => nth(m, 1).toUpperCase().replace(/O/g, '0'));
  return {
    key: 'fault.codes',
    value: [...new Set(codes)],
    how: 'reported',
    sure: 'sure',
    spans: found.map((m) => ({ from: m.index, to: m.index + nth(m, 1).length })),
  };
}

function claimNumber(text: string): Proposal | undefined {
  const m = /\bclaim(?:\s+(?:number|no|nr|ref))?[.:\s]+([A-Z]{0,3}-?\d[\w/-]{2,15})/i.exec(text);
  if (!m) return undefined;
  const from = m.index + m[0].length - nth(m, 1).length;
  return {
    key: 'claim.number',
    value: nth(m, 1),
    how: 'reported',
    sure: 'sure',
    spans: [{ from, to: from + nth(m, 1).length }],
  };
}

/** Vehicles by their names, whole or in part, and what engine follows where none is named by its code. */
export function readVehicle(
  text: string,
  tokens: readonly Token[],
  ctx: IntakeContext,
): { proposals: Proposal[]; engines: Set<string> } {
  const { vehicles } = knownOf(ctx.catalogue);
  let best: { v: VehicleEntry; i: number; n: number; score: number } | undefined;
  for (const v of vehicles)
    for (let i = 0; i < tokens.length; i++) {
      const hit = vehicleAt(v, tokens, i);
      if (hit && (!best || hit.score > best.score)) best = { v, i, ...hit };
    }
  if (!best) return { proposals: [], engines: new Set() };
  const { v, i, n, score } = best;
  const span = { from: nth(tokens, i).from, to: nth(tokens, i + n - 1).to };
  return {
    proposals: [
      {
        key: 'vehicle.name',
        value: v.name,
        how: 'reported',
        sure: score >= 100 ? 'sure' : 'likely',
        spans: [span],
      },
    ],
    engines: v.engines,
  };
}

/** How well a vehicle's name begins here: whole name, maker and first word of the model, or the whole model called by its article. */
function vehicleAt(
  v: VehicleEntry,
  tokens: readonly Token[],
  i: number,
): { n: number; score: number } | undefined {
  const run = (stems: readonly string[], at: number) =>
    stems.every((s, k) => tokens[at + k]?.stem === s) ? stems.length : 0;
  if (run(v.stems, i)) return { n: v.stems.length, score: 100 + v.stems.length };
  const maker = v.stems.length - v.model.length;
  const begun = v.stems.slice(0, maker + 1);
  if (maker > 0 && run(begun, i)) return { n: begun.length, score: 50 + begun.length / v.stems.length };
  if (maker > 0 && run(v.model, i)) {
    const before = tokens[i - 1]?.low ?? '';
    const named = /^[A-Z]/.test(nth(tokens, i).text) || /^(the|my|our|a|his|her)$/.test(before);
    const after = tokens[i + v.model.length];
    // "Highmoor Bus Depot" is a place, not a Highmoor.
    const longer =
      after !== undefined && after.from - nth(tokens, i).to < 3 && /^[A-Z][a-z]/.test(after.text);
    if (named && !longer && v.model.join('').length > 4)
      return { n: v.model.length, score: 40 + v.model.length };
  }
  return undefined;
}

/** Engines by the name of their family, told apart by the capacity in their codes. */
export function readFamily(
  tokens: readonly Token[],
  ctx: IntakeContext,
): { engines: Set<string>; span: TextSpan } | undefined {
  const { families } = knownOf(ctx.catalogue);
  for (const t of tokens) {
    const engines = families.get(t.low);
    if (!engines) continue;
    const capacities = tokens.filter((x) => /^\d[.,]\d$/.test(x.text)).map((x) => x.text.replace(/[.,]/, ''));
    const told = engines.filter((e) => capacities.some((c) => e.code.includes(c)));
    return {
      engines: new Set((told.length > 0 ? told : engines).map((e) => e.code)),
      span: { from: t.from, to: t.to },
    };
  }
  return undefined;
}
