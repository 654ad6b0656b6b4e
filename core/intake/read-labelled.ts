import { oncePer } from '@core/quantity/keep';
import { nth } from '@core/quantity/must';
import { readValue, type ReadContext } from '@core/facts/read-value';
import { needsThing } from '@core/facts/registry';
import type { Observable, Registry } from '@core/facts/observable';
import { findCode, nearestCodes } from '@core/catalogue/find-records';
import type { IntakeContext } from './context';
import type { Proposal } from './proposal';

/** "Distance when fitted: 90 120 km": a name of an observable at the beginning of a line or sentence, a colon, its value. */
const LABELLED = /(?:^|[\n;]|\.\s)\s*([\p{L}][\p{L} ,’'-]{1,40}?)\s*:\s*([^\n;]+?)(?=$|\n|;|\.\s|\.$)/gu;

/** What a form says, by the names of its fields as the registry has them. */
export function readLabelled(text: string, ctx: IntakeContext): Proposal[] {
  const out: Proposal[] = [];
  const names = namesOf(ctx.registry);
  const values = contextOf(ctx);
  for (const m of text.matchAll(LABELLED)) {
    const o = names.get(nth(m, 1).trim().toLowerCase());
    if (!o) continue;
    const read = readValue(o, nth(m, 2), values);
    if (!read.ok) continue;
    const from = m.index + m[0].lastIndexOf(nth(m, 2));
    out.push({
      key: o.key,
      ...read.value,
      how: 'reported',
      sure: 'sure',
      spans: [{ from, to: from + nth(m, 2).length }],
    });
  }
  return out;
}

const namesOf = oncePer((registry: Registry): ReadonlyMap<string, Observable> => {
  const names = new Map<string, Observable>();
  for (const o of registry.values())
    if ((!o.hidden || o.line) && !needsThing(o) && o.place === undefined)
      for (const n of [o.wording, ...o.aliases])
        if (!names.has(n.toLowerCase())) names.set(n.toLowerCase(), o);
  return names;
});

function contextOf({ catalogue, notation, today }: IntakeContext): ReadContext {
  const codes = (table: string): Iterable<string> =>
    table === 'engine' ? catalogue.engines.keys() : table === 'kit' ? catalogue.kits.keys() : [];
  return {
    notation,
    today,
    wheels: [],
    findRef: (table, typed) => findCode(codes(table), typed),
    nearestRefs: (table, typed) => nearestCodes(codes(table), typed),
  };
}
