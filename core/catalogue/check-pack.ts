import { nth, num } from '@core/quantity/must';
import { own } from '@core/quantity/own';
import { circlesOf, solvePath } from '@core/drive/path';
import { stagesOf } from '@core/drive/stages';
import { readAttribute } from './attributes';
import type { Pack, Variant } from './pack';
import type { AnyTable, IssueReason, PackIssue } from './pack-issue';

/** Row numbers of a pack's entries as the user sees them; JSON entries count from 1. */
export type RowOf = (table: AnyTable, index: number) => number;
export const countFromOne: RowOf = (_table, index) => index + 1;
/** True for a key whose own row was refused already: what refers to it is no second fault. */
export type Refused = (table: AnyTable, key: string) => boolean;

/**
 * What the schema of single rows cannot see: duplicates, dangling references, supersession loops, impossible or
 * indistinguishable build windows, values outside a feature, attributes out of shape, layouts that cannot exist.
 */
export function checkPack(
  pack: Pack,
  rowOf: RowOf = countFromOne,
  refused: Refused = () => false,
): PackIssue[] {
  const issues: PackIssue[] = [];
  const report = (table: AnyTable, index: number, column: string, reason: IssueReason) =>
    issues.push({ table, row: rowOf(table, index), column, reason });
  const engines = keys('engines', pack.engines, (e) => e.code, 'code');
  const features = keys('features', pack.features, (f) => f.id, 'id');
  const variants = keys('variants', pack.variants, (v) => v.id, 'id');
  const layouts = keys('layouts', pack.layouts, (l) => l.id, 'id');
  const procedures = keys('procedures', pack.procedures, (p) => p.id, 'id');
  const parts = keys('parts', pack.parts, (p) => p.number, 'number');
  const kits = keys('kits', pack.kits, (k) => k.number, 'number');

  function keys<T>(
    table: AnyTable,
    rows: readonly T[],
    key: (row: T) => string,
    column: string,
  ): ReadonlyMap<string, number> {
    const seen = new Map<string, number>();
    for (let i = 0; i < rows.length; i++) {
      const k = key(nth(rows, i));
      const first = seen.get(k);
      if (first === undefined) seen.set(k, i);
      else report(table, i, column, { code: 'duplicate', key: k, firstRow: rowOf(table, first) });
    }
    return seen;
  }
  const refer = (
    table: AnyTable,
    i: number,
    column: string,
    key: string | undefined,
    to: ReadonlyMap<string, number>,
    other: AnyTable,
  ) => {
    if (key !== undefined && !to.has(key) && !refused(other, key))
      report(table, i, column, { code: 'dangling', key, table: other });
  };

  pack.variants.forEach((v, i) => {
    refer('variants', i, 'engine', v.engine, engines, 'engines');
    refer('variants', i, 'layout', v.layout, layouts, 'layouts');
    refer('variants', i, 'procedure', v.procedure, procedures, 'procedures');
    const { from, to } = v.built;
    if (from !== undefined && to !== undefined && from > to)
      report('variants', i, 'built_from', { code: 'window_impossible', from, to });
    for (const [feature, values] of Object.entries(v.features)) {
      const at = features.get(feature);
      if (at === undefined) {
        if (refused('features', feature)) continue;
        report('variants', i, 'features', { code: 'dangling', key: feature, table: 'features' });
        continue;
      }
      const allowed = nth(pack.features, at).options.map((o) => o.key);
      for (const value of values) {
        if (!allowed.includes(value))
          report('variants', i, 'features', { code: 'value_not_of_feature', feature, value, allowed });
      }
    }
  });
  twins(pack.variants).forEach(([i, other]) =>
    report('variants', i, 'built_from', { code: 'windows_overlap', other: other.id }),
  );

  pack.parts.forEach((p, i) => {
    refer('parts', i, 'superseded_by', p.supersededBy, parts, 'parts');
    for (const [key, value] of Object.entries(p.attributes)) {
      const read = readAttribute(key, String(value));
      if ('fault' in read) report('parts', i, 'attributes', read.fault);
    }
  });
  pack.kits.forEach((k, i) => {
    refer('kits', i, 'superseded_by', k.supersededBy, kits, 'kits');
    for (const c of k.contents) refer('kits', i, 'contents', c.part, parts, 'parts');
  });
  for (const { index, chain } of loops(pack.kits))
    report('kits', index, 'superseded_by', { code: 'supersession_loop', chain });
  for (const { index, chain } of loops(pack.parts))
    report('parts', index, 'superseded_by', { code: 'supersession_loop', chain });

  keys('applications', pack.applications, (a) => `${a.kit} → ${a.variant}`, 'kit');
  for (let i = 0; i < pack.applications.length; i++) {
    const a = nth(pack.applications, i);
    refer('applications', i, 'kit', a.kit, kits, 'kits');
    refer('applications', i, 'variant', a.variant, variants, 'variants');
  }
  pack.jobs.forEach((j, i) => {
    refer('jobs', i, 'variant', j.variant, variants, 'variants');
    refer('jobs', i, 'part', j.part, parts, 'parts');
  });
  pack.intervals.forEach((v, i) => refer('intervals', i, 'engine', v.engine, engines, 'engines'));
  keys('cross', pack.cross, (c) => c.number, 'number');
  pack.cross.forEach((c, i) => {
    const known = kits.has(c.names) || parts.has(c.names) || engines.has(c.names);
    if (!known && !(['kits', 'parts', 'engines'] as const).some((t) => refused(t, c.names)))
      report('cross', i, 'names', { code: 'dangling', key: c.names, table: 'kits' });
  });
  pack.layouts.forEach((l, i) => {
    const path = solvePath(circlesOf(l), l.runs === 'ccw' ? 1 : -1);
    const names = path.ok ? '' : path.error.wheels.map((w) => l.wheels[w]?.name ?? String(w)).join(', ');
    if (!path.ok)
      report('layouts', i, 'wheels', {
        code: 'layout_impossible',
        detail: `${path.error.code.replace(/_/g, ' ')}: ${names}`,
      });
  });
  pack.layouts.forEach((l, i) => {
    if (l.follows === undefined) {
      const stages = stagesOf(pack.layouts, l.id);
      if (!stages.ok)
        report('layouts', i, 'follows', {
          code: 'layout_impossible',
          detail: `${stages.error.code.replace(/_/g, ' ')}: ${stages.error.layout}`,
        });
    } else refer('layouts', i, 'follows', l.follows.layout, layouts, 'layouts');
  });
  return issues;
}

/**
 * Variants of one engine whose build windows overlap and which no feature or market tells apart; each with the first such.
 * Variants are parted by the features that all of them name before any two are compared, so that thousands stay quick.
 */
function twins(variants: readonly Variant[]): [number, Variant][] {
  const found = new Map<number, number>();
  const byEngine = new Map<string, number[]>();
  variants.forEach((v, i) => {
    const list = byEngine.get(v.engine);
    if (list) list.push(i);
    else byEngine.set(v.engine, [i]);
  });
  const compare = (group: readonly number[]) => {
    const ends = group.map((i) => ({
      i,
      from: nth(variants, i).built.from ?? '0000',
      to: nth(variants, i).built.to ?? '9999',
    }));
    for (let k = 1; k < ends.length; k++) {
      const b = nth(ends, k);
      for (let j = 0; j < k; j++) {
        const a = nth(ends, j);
        if (a.to < b.from || b.to < a.from || !alike(nth(variants, a.i), nth(variants, b.i))) continue;
        found.set(b.i, Math.min(a.i, found.get(b.i) ?? a.i));
        break;
      }
    }
  };
  for (const group of byEngine.values()) for (const part of parted(variants, group, new Set())) compare(part);
  return [...found].sort(([i], [j]) => i - j).map(([i, j]) => [i, nth(variants, j)]);
}

/** Groups within which no feature that all name tells any two surely apart. */
function parted(
  variants: readonly Variant[],
  group: readonly number[],
  used: ReadonlySet<string>,
): (readonly number[])[] {
  if (group.length < 3) return [group];
  const feature = Object.keys(nth(variants, num(group, 0)).features).find(
    (f) => !used.has(f) && group.every((i) => own(nth(variants, i).features, f) !== undefined),
  );
  if (feature === undefined) return [group];
  const buckets = new Map<string, number[]>();
  for (const i of group)
    for (const value of new Set(nth(variants, i).features[feature])) {
      const list = buckets.get(value);
      if (list) list.push(i);
      else buckets.set(value, [i]);
    }
  const next = new Set(used).add(feature);
  return [...buckets.values()].flatMap((b) => parted(variants, b, next));
}

function alike(a: Variant, b: Variant): boolean {
  if (a.markets.length && b.markets.length && !a.markets.some((m) => b.markets.includes(m))) return false;
  return !Object.entries(a.features).some(([f, values]) => {
    const theirs = own(b.features, f);
    return theirs !== undefined && !values.some((v) => theirs.includes(v));
  });
}

/** Follows supersession to its end. Undefined chain end means a loop. @example chainOf(kits, 'K1') // ['K1', 'K2'] */
export function supersessionChain(
  rows: ReadonlyMap<string, { supersededBy?: string | undefined }>,
  number: string,
): { chain: string[]; loop: boolean } {
  const chain = [number];
  const seen = new Set(chain);
  let next = rows.get(number)?.supersededBy;
  while (next !== undefined) {
    chain.push(next);
    if (seen.has(next)) return { chain, loop: true };
    seen.add(next);
    next = rows.get(next)?.supersededBy;
  }
  return { chain, loop: false };
}

/** Each loop once, at the row that comes first in the file. Every row is walked over once. */
function loops(
  rows: readonly { number: string; supersededBy?: string | undefined }[],
): { index: number; chain: string[] }[] {
  const at = new Map(rows.map((r, i) => [r.number, i]));
  const next = (i: number) => at.get(nth(rows, i).supersededBy ?? '');
  const walked = new Uint8Array(rows.length);
  const out: { index: number; chain: string[] }[] = [];
  for (let start = 0; start < rows.length; start++) {
    const way: number[] = [];
    const here = new Set<number>();
    let i: number | undefined = start;
    while (i !== undefined && walked[i] === 0) {
      walked[i] = 1;
      way.push(i);
      here.add(i);
      i = next(i);
    }
    if (i === undefined || !here.has(i)) continue;
    const ring = way.slice(way.indexOf(i));
    const first = ring.indexOf(Math.min(...ring));
    const turned = [...ring.slice(first), ...ring.slice(0, first)].map((k) => nth(rows, k).number);
    out.push({ index: num(ring, first), chain: [...turned, nth(turned, 0)] });
  }
  return out;
}
