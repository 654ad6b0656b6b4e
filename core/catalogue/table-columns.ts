import { isDay } from '@core/quantity/dates';
import { readAttribute } from './attributes';
import { JOB_KINDS, WAYS_TO_SEE, MEASURES, PART_KINDS } from './pack';
import { COST_KINDS, DOCUMENTS, type Plan, STARTS } from './plan';
import type { IssueReason, TableName } from './pack-issue';

type StepOfShare = NonNullable<Plan['shares']>[number];
type Excluded = NonNullable<Plan['excludes']>[number];

/** A cell that could not be read. */
export class Bad {
  constructor(readonly reason: IssueReason) {}
}
export type Column = {
  name: string;
  /** Where the value goes in the row, "built.from" for nested ones. */
  field: string;
  optional?: boolean;
  /** The words that it may hold, where it holds one of so many. */
  allowed?: readonly string[];
  read: (text: string) => unknown;
  write?: (value: never) => string | number;
};

/** Cells that are taken as they stand. */
export const asText = (t: string) => t;
const id = (name: string, field = name): Column => ({ name, field, read: asText });
const text = id;
const optional = (c: Column): Column => ({ ...c, optional: true });

function number(name: string, field: string, whole: boolean, min: number): Column {
  return {
    name,
    field,
    read: (t) => {
      const v = Number(t.replace(',', '.'));
      if (!/^[-+]?\d+(?:[.,]\d+)?$/.test(t)) return new Bad({ code: 'not_a_number', typed: t });
      if (v < min) return new Bad({ code: 'not_positive', typed: t });
      return whole && !Number.isInteger(v) ? new Bad({ code: 'not_whole', typed: t }) : v;
    },
    write: (v: number) => v,
  };
}
function choice(name: string, allowed: readonly string[]): Column {
  return {
    name,
    field: name,
    allowed,
    read: (t) => (allowed.includes(t) ? t : new Bad({ code: 'not_allowed', typed: t, allowed })),
  };
}
function day(name: string, field: string): Column {
  return {
    name,
    field,
    optional: true,
    read: (t) => (isDay(t) ? t : new Bad({ code: 'not_a_day', typed: t })),
  };
}
const pieces = (t: string) =>
  t
    .split(';')
    .map((p) => p.trim())
    .filter(Boolean);
const listOf = (name: string): Column => ({
  name,
  field: name,
  optional: true,
  read: pieces,
  write: (v: string[]) => v.join(';'),
});

/** "a=1;b=2" read pair by pair. */
function pairs<T>(t: string, shape: string, take: (key: string, value: string) => T | Bad): T[] | Bad {
  const out: T[] = [];
  for (const piece of pieces(t)) {
    const at = piece.indexOf('=');
    if (at < 1) return new Bad({ code: 'bad_pair', typed: piece, shape });
    const taken = take(piece.slice(0, at).trim(), piece.slice(at + 1).trim());
    if (taken instanceof Bad) return taken;
    out.push(taken);
  }
  return out;
}
const record = (read: [string, unknown][] | Bad) => (read instanceof Bad ? read : Object.fromEntries(read));

const featureOptions: Column = {
  name: 'options',
  field: 'options',
  read: (t) => pairs(t, 'key=wording', (key, wording) => ({ key, wording })),
  write: (v: { key: string; wording: string }[]) => v.map((o) => `${o.key}=${o.wording}`).join(';'),
};
const variantFeatures: Column = {
  name: 'features',
  field: 'features',
  optional: true,
  read: (t) => record(pairs(t, 'feature=value|value', (k, v) => [k, v.split('|').map((x) => x.trim())])),
  write: (v: Record<string, string[]>) =>
    Object.entries(v)
      .map(([k, x]) => `${k}=${x.join('|')}`)
      .join(';'),
};
const partAttributes: Column = {
  name: 'attributes',
  field: 'attributes',
  optional: true,
  read: (t) =>
    record(
      pairs(t, 'attribute=value', (k, v) => {
        const read = readAttribute(k, v);
        return 'fault' in read ? new Bad(read.fault) : ([k, read.value] as [string, unknown]);
      }),
    ),
  write: (v: Record<string, unknown>) =>
    Object.entries(v)
      .map(([k, x]) => `${k}=${String(x)}`)
      .join(';'),
};
const kitContents: Column = {
  name: 'contents',
  field: 'contents',
  read: (t) => {
    const out: { part: string; quantity: number }[] = [];
    for (const piece of pieces(t)) {
      const m = /^(.+?)\s*\*\s*(\d+)$/.exec(piece);
      if (!m || Number(m[2]) < 1) return new Bad({ code: 'bad_pair', typed: piece, shape: 'part*quantity' });
      out.push({ part: m[1] ?? '', quantity: Number(m[2]) });
    }
    return out;
  },
  write: (v: { part: string; quantity: number }[]) => v.map((c) => `${c.part}*${c.quantity}`).join(';'),
};

/** A list in which each is one of so many words. */
const wordsOf = (name: string, field: string, allowed: readonly string[]): Column => ({
  name,
  field,
  optional: true,
  read: (t) => {
    const found = pieces(t);
    const bad = found.find((d) => !allowed.includes(d));
    return bad === undefined ? found : new Bad({ code: 'not_allowed', typed: bad, allowed });
  },
  write: (v: string[]) => v.join(';'),
});
const termsShares: Column = {
  name: 'terms_shares',
  field: 'terms.shares',
  optional: true,
  read: (t) =>
    pairs(t, 'months=share', (k, v) => {
      const [after, share] = [Number(k), Number(v)];
      if (!Number.isInteger(after) || after < 1) return new Bad({ code: 'not_whole', typed: k });
      return share >= 0 && share <= 1 ? { after, share } : new Bad({ code: 'not_a_number', typed: v });
    }),
  write: (v: StepOfShare[]) => v.map((s) => `${String(s.after)}=${String(s.share)}`).join(';'),
};
const termsExcludes: Column = {
  name: 'terms_excludes',
  field: 'terms.excludes',
  optional: true,
  read: (t) =>
    pairs(t, 'observation=answer|answer: why', (key, v) => {
      const at = v.indexOf(':');
      if (at < 1) return new Bad({ code: 'bad_pair', typed: v, shape: 'answer|answer: why' });
      const is = v
        .slice(0, at)
        .split('|')
        .map((x) => x.trim());
      return { key, is, why: v.slice(at + 1).trim() };
    }),
  write: (v: Excluded[]) => v.map((e) => `${e.key}=${e.is.join('|')}: ${e.why}`).join(';'),
};

/** Columns of every CSV table, in the order in which they are written. */
export const COLUMNS: Record<TableName, readonly Column[]> = {
  engines: [
    id('code'),
    text('maker'),
    text('family'),
    listOf('vehicles'),
    choice('interference', ['yes', 'no', 'unknown']),
  ],
  features: [
    id('id'),
    text('wording'),
    text('say'),
    choice('look', WAYS_TO_SEE),
    featureOptions,
    optional(choice('measures', MEASURES)),
  ],
  variants: [
    id('id'),
    id('engine'),
    text('name'),
    number('share', 'share', false, 1e-9),
    day('built_from', 'built.from'),
    day('built_to', 'built.to'),
    number('built_slack_days', 'built.slackDays', true, 0),
    listOf('markets'),
    variantFeatures,
    optional(id('layout')),
    optional(id('procedure')),
  ],
  parts: [
    id('number'),
    choice('kind', PART_KINDS),
    text('name'),
    partAttributes,
    optional(text('as')),
    optional(id('superseded_by', 'supersededBy')),
  ],
  kits: [
    id('number'),
    text('name'),
    number('revision', 'revision', true, 1),
    listOf('options'),
    choice('status', ['current', 'discontinued']),
    optional(id('superseded_by', 'supersededBy')),
    kitContents,
    optional({ ...text('terms_name'), field: 'terms.name' }),
    optional(number('terms_months', 'terms.months', true, 1)),
    optional(number('terms_km', 'terms.km', false, 1)),
    optional({ ...choice('terms_from', STARTS), field: 'terms.from' }),
    wordsOf('terms_bears', 'terms.bears', COST_KINDS),
    termsShares,
    termsExcludes,
    wordsOf('terms_documents', 'terms.documents', DOCUMENTS),
  ],
  applications: [id('kit'), id('variant')],
  jobs: [
    id('variant'),
    text('item'),
    choice('kind', JOB_KINDS),
    optional(id('part')),
    number('quantity', 'quantity', true, 1),
    text('why'),
    optional(text('as')),
    optional(text('check')),
    number('cost_now', 'costNow', false, 0),
    number('cost_later', 'costLater', false, 0),
  ],
  intervals: [
    id('engine'),
    text('vehicle'),
    number('km', 'km', false, 1),
    number('months', 'months', true, 1),
  ],
  cross: [id('number'), id('names')],
};

/** Lists and maps that stand empty in the file are empty in the row, not missing. */
export const EMPTY: Record<string, () => unknown> = {
  vehicles: () => [],
  markets: () => [],
  options: () => [],
  features: () => ({}),
  attributes: () => ({}),
};
