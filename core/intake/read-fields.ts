import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { nth } from '@core/quantity/must';
import { oncePer } from '@core/quantity/keep';
import { readNumber } from '@core/quantity/parse-quantity';
import { parseDay } from '@core/quantity/dates';
import { foldCode } from '@core/catalogue/find-records';
import { readValue, type ReadContext } from '@core/facts/read-value';
import { needsThing } from '@core/facts/registry';
import type { Observable, Registry } from '@core/facts/observable';
import { findCode, nearestCodes } from '@core/catalogue/find-records';
import { type IntakeContext, knownOf } from './context';
import data from './data/fields.json';
import type { Proposal, TextSpan } from './proposal';
import { WORDS } from './words';

/** Names of the fields of forms and tables, by observable; those without one are left to the words behind them. */
const FIELDS = z.record(z.string(), z.array(z.string().min(1))).parse(data);
const BY_NAME = new Map(
  Object.entries(FIELDS).flatMap(([key, names]) => names.map((n) => [n, key] as const)),
);

/** A form or table of a message: its facts, and what was read of it and is not to be read again. */
export type FieldsRead = { proposals: Proposal[]; spans: TextSpan[]; rows: number };

const nameOf = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[_./]+/g, ' ')
    .replace(/\d{1,2}\s\d{1,2}$/, '')
    .replace(/\s+/g, ' ')
    .trim();

/** Reads forms: "name: value" lines, "NAME value | NAME value", and tables with a heading. */
export function readFields(text: string, ctx: IntakeContext): FieldsRead {
  const table = tableRead(text, ctx);
  if (table.proposals.length > 0) return table;
  const out: FieldsRead = { proposals: [], spans: [], rows: 1 };
  for (const m of text.matchAll(
    /(?:^|[\n;]|\.\s)[ \t]*(\p{L}[\p{L} .,’'-]{0,40}?)[ \t]*:[ \t]*([^\n;]+?)(?=$|\n|;|\.\s+\p{L}[\p{L} ]{1,30}:|\.\s+\p{Lu}|\.$)/gu,
  ))
    put(out, nth(m, 1), nth(m, 2), m.index + m[0].lastIndexOf(nth(m, 2)), ctx);
  if ((text.match(/\|/g) ?? []).length > 3)
    for (const m of text.matchAll(/(?:^|\|)\s*([A-Z]{2,10})\s+([^|\n]+?)\s*(?=\||$|\n)/g)) {
      // One field may hold several: "PART 644.00 LAB 1210.00 OTH 0".
      const whole = `${nth(m, 1)} ${nth(m, 2)}`;
      const from = m.index + m[0].indexOf(nth(m, 1));
      const several = [...whole.matchAll(/([A-Z]{3,6})\s+(\d+(?:[.,]\d{2})?)(?=\s|$)/g)];
      if (several.length > 1)
        for (const s of several)
          put(
            out,
            nth(s, 1) === 'PART' ? 'cost part' : nth(s, 1),
            nth(s, 2),
            from + s.index + s[0].lastIndexOf(nth(s, 2)),
            ctx,
          );
      else put(out, nth(m, 1), nth(m, 2), m.index + m[0].lastIndexOf(nth(m, 2)), ctx);
    }
  return out;
}

function put(
  out: FieldsRead,
  name: string,
  typed: string,
  from: number,
  ctx: IntakeContext,
  of?: number,
): void {
  const key = BY_NAME.get(nameOf(name)) ?? namesOf(ctx.registry).get(name.trim().toLowerCase())?.key;
  if (key === undefined || key === '') return;
  const o = ctx.registry.get(key);
  if (!o) return;
  const span = { from, to: from + typed.length };
  for (const p of fieldValue(o, typed, ctx)) {
    out.proposals.push({
      ...p,
      how: 'document',
      sure: 'sure',
      spans: [span],
      ...(of === undefined ? {} : { of }),
    });
    out.spans.push(span);
  }
}

type Value = Pick<Proposal, 'key' | 'value' | 'u'>;

/** A field's value by the type of its observable; several where it holds a kit and a distance. */
function fieldValue(o: Observable, typed: string, ctx: IntakeContext): Value[] {
  const text = typed.trim().replace(/[.,]$/, '');
  if (o.key === 'parts.sent') return sentOf(text);
  if (o.key === 'claim.invoice' || o.key === 'claim.sheet') {
    const said = text.toLowerCase();
    if (/^(y|yes|encl|enclosed|attached|ok)/.test(said)) return [{ key: o.key, value: 'yes' }];
    return /^(n|no|none|to follow|missing|later)/.test(said) ? [{ key: o.key, value: 'no' }] : [];
  }
  if (o.type.kind === 'codes') {
    const found = text.toUpperCase().match(/[PCBU][0-3O][0-9A-FO]{3}/g);
    return found ? [{ key: o.key, value: found.map((c) => c.replace(/O/g, '0')) }] : [];
  }
  if (o.type.kind === 'ref') {
    const { codes } = knownOf(ctx.catalogue);
    const words = text.split(/[\s@]+/);
    const hit = codes.get(foldCode(nth(words, 0))) ?? codes.get(foldCode(words.slice(0, 2).join('')));
    const at = /@\s*([\d .,]+)/.exec(text)?.[1];
    const km = at === undefined ? undefined : readNumber(at.trim(), true);
    return [
      ...(hit ? [{ key: o.key, value: hit.means }] : []),
      ...(km === undefined ? [] : [{ key: 'kit.fitted_odometer', value: km }]),
    ];
  }
  if (o.type.kind === 'date') {
    const compact = /^(\d{4})(\d\d)(\d\d)$/.exec(text);
    const day = parseDay(
      compact ? `${compact[1]}-${compact[2]}-${compact[3]}` : text,
      ctx.notation.dateOrder,
      ctx.today,
    );
    return day.ok ? [{ key: o.key, value: day.value }] : [];
  }
  if (o.type.kind === 'number' && (o.type.dimension === 'distance' || o.type.dimension === 'money')) {
    const m = /^(?:AC|EUR)?\s*([\d .,]+)(km|k|mi|miles)?/i.exec(text);
    const n = m ? readNumber(nth(m, 1).trim(), o.type.dimension === 'distance') : undefined;
    if (n === undefined || n < o.type.min || n > o.type.max) return [];
    return [{ key: o.key, value: /^mi/i.test(m?.[2] ?? '') ? Math.round(n * 1.609344) : n }];
  }
  if (o.key === 'vehicle.name') {
    const folded = text.toLowerCase();
    const hit = knownOf(ctx.catalogue).vehicles.find(
      (v) => v.name.toLowerCase().includes(folded) || folded.includes(v.name.toLowerCase()),
    );
    return hit ? [{ key: o.key, value: hit.name }] : [];
  }
  if (o.key === 'claim.number' && !/\d/.test(text)) return [];
  if (o.key === 'kit.lot' && !/^[A-Z]{0,3}\d/i.test(text)) return [];
  const read = readValue(o, text, contextOf(ctx));
  return read.ok ? [{ key: o.key, ...read.value }] : [];
}

/** "1 x tens. / 1 x blt / 0 x rllr", "belt+tensioner+pump": what there is none of is not there. */
function sentOf(text: string): Value[] {
  const parts = text.toLowerCase().split(/[+/,;]|\band\b|\s(?=[a-z]{4,}\s+\d)/);
  const keys = parts.flatMap((p) => {
    if (/\b0\b|\bno\b/.test(p)) return [];
    const words = p
      .replace(/[^a-z ]/g, ' ')
      .split(/\s+/)
      .map((w) => SHORT_PARTS[w] ?? w);
    return Object.entries(WORDS.parts).flatMap(([key, names]) =>
      names.some((n) => words.join(' ').includes(n)) ? [key] : [],
    );
  });
  const own = [...new Set(keys)].filter(
    (k) => !(k === 'guide' && keys.includes('rail') && !text.includes('roller')),
  );
  return own.length > 0 ? [{ key: 'parts.sent', value: own }] : [];
}
const SHORT_PARTS: Readonly<Record<string, string>> = {
  tens: 'tensioner',
  blt: 'belt',
  rllr: 'roller',
  chn: 'chain',
};

/** A table: a heading of field names and rows under it, parted by tabs, semicolons or bars. */
function tableRead(text: string, ctx: IntakeContext): FieldsRead {
  const none: FieldsRead = { proposals: [], spans: [], rows: 0 };
  const lines = text.split('\n');
  for (const mark of ['\t', ';', '|', ',']) {
    const at = lines.findIndex((l) => {
      const cells = l.split(mark);
      return cells.length >= 4 && cells.filter((c) => BY_NAME.has(nameOf(c))).length >= 3;
    });
    if (at < 0) continue;
    const heads = nth(lines, at).split(mark);
    let from = lines.slice(0, at + 1).reduce((n, l) => n + l.length + 1, 0);
    const out: FieldsRead = { proposals: [], spans: [], rows: 0 };
    const rows = lines.slice(at + 1).filter((l) => l.split(mark).length >= heads.length - 1);
    for (const line of lines.slice(at + 1)) {
      if (line.split(mark).length < heads.length - 1) break;
      out.rows++;
      let cell = from;
      line.split(mark).forEach((c, i) => {
        const head = heads[i];
        if (head !== undefined && c.trim() !== '')
          put(out, head, c, cell, ctx, rows.length > 1 ? out.rows : undefined);
        cell += c.length + 1;
      });
      from += line.length + 1;
    }
    return out;
  }
  return none;
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
