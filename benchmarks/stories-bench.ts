import { readFileSync } from 'node:fs';
import * as z from 'zod';
import { type Answers, answersFor } from '@core/answer/answers';
import { worldOf } from '@core/answer/world';
import { CAUSES } from '@core/cause/cause-data';
import { explain } from '@core/cause/explain';
import { catalogueOf } from '@core/catalogue/find-records';
import type { Variant } from '@core/catalogue/pack';
import { type Fact, PROVENANCES } from '@core/facts/fact';
import { PLACED_ON } from '@core/facts/place';
import { reduce } from '@core/facts/state';
import { demoPack } from '../demo/catalogue';
import type { Row } from './measure';

/** A story of a return or a claim, written by another hand: facts as filed, and what a specialist would hold of them. */
const StorySchema = z.object({
  id: z.string(),
  engine: z.string(),
  variant: z.string(),
  kind: z.enum(['return', 'claim']),
  facts: z.array(
    z.object({
      key: z.string(),
      value: z.union([z.string(), z.number(), z.array(z.string())]),
      how: z.enum(PROVENANCES),
      u: z.number().optional(),
      thing: z.string().optional(),
      place: z.object({ on: z.enum(PLACED_ON), from: z.number() }).optional(),
    }),
  ),
  expect: z.object({
    /** Any of these leads; none named: not asked. */
    first: z.array(z.string()),
    /** One of these or of the first is among the first three. */
    within3: z.array(z.string()).default([]),
    /** Of each group one is among the first three. */
    both: z.array(z.array(z.string())).default([]),
    mustNot: z.array(z.string()).default([]),
    max: z.record(z.string(), z.number()).default({}),
    min: z.record(z.string(), z.number()).default({}),
    /** Sensible next checks; none: not asked. */
    next: z.array(z.string()).default([]),
  }),
});
const FileSchema = z.object({ stories: z.array(StorySchema) });
type Story = z.infer<typeof StorySchema>;

/** Readings that a story has to leave true, as the corpus states them. */
type Check = {
  what: 'first' | 'within3' | 'both' | 'mustNot' | 'bounds' | 'next' | 'next3';
  ok: boolean;
  told: string;
};

const cat = catalogueOf(demoPack());
const world = worldOf(cat);
const known = new Set(CAUSES.causes.map((c) => c.key));
/** Names that a story gives to causes; one that did not exist when it was written bears "new:" before its name. */
const named = (keys: readonly string[]): string[] => keys.map((k) => k.replace(/^new:/, ''));

/** A fact at its place in the day on which a case is filed. */
const filed = (k: number, fact: Omit<Fact, 'id' | 'case' | 'by' | 'at'>): Fact => ({
  id: `f${k}`,
  case: 'story',
  by: 'T',
  at: new Date(Date.UTC(2026, 0, 1, 8) + k * 1000).toISOString(),
  ...fact,
});

/** Facts that leave just one design. */
const identifying = (v: Variant): Omit<Fact, 'id' | 'case' | 'by' | 'at'>[] => [
  { key: 'engine.code', value: v.engine, how: 'document' },
  ...Object.entries(v.features).flatMap(([f, [value]]) =>
    value === undefined ? [] : [{ key: `feature.${f}`, value, how: 'seen' as const }],
  ),
];

/** What our answers say of a story. */
function answersTo(story: Story): Answers {
  const variant = cat.variants.get(`${story.engine}/${story.variant}`);
  if (!variant) throw new Error(`${story.id}: no design ${story.engine}/${story.variant}`);
  const own = story.facts.map(({ thing, u, place, ...f }) => ({
    ...f,
    ...(u === undefined ? {} : { u }),
    ...(thing === undefined ? {} : { about: thing }),
    ...(place === undefined ? {} : { place }),
  }));
  const built = story.facts.some((f) => f.key === 'vehicle.built');
  const day = variant.built.from ?? variant.built.to;
  const when =
    built || day === undefined ? [] : [{ key: 'vehicle.built', value: day, how: 'document' as const }];
  const facts = [
    { key: 'case.kind', value: story.kind, how: 'document' as const },
    ...identifying(variant),
    ...when,
    ...own,
  ].map((f, k) => filed(k, f));
  return answersFor(world, reduce(facts));
}

function checksOf({ expect }: Story, a: Answers): Check[] {
  const { causes } = a.ranking;
  const percent = (p: number) => `${(100 * p).toFixed(0)} %`;
  const top = causes.slice(0, 3).map((c) => c.cause.key);
  const told = causes
    .slice(0, 4)
    .map((c) => `${c.cause.key} ${percent(c.probability)}`)
    .join(', ');
  const leader = top[0] ?? '';
  const out: Check[] = [];
  const put = (what: Check['what'], ok: boolean, said = told) => out.push({ what, ok, told: said });
  const pair = explain(a.causes, a.findings)?.pair?.causes.map((c) => c.key) ?? [];
  const front = [...top, ...pair];
  if (expect.first.length > 0) put('first', named(expect.first).includes(leader));
  const within = named([...expect.first, ...expect.within3]);
  if (within.length > 0)
    put(
      'within3',
      within.some((k) => top.includes(k)),
    );
  for (const group of expect.both)
    put(
      'both',
      named(group).some((k) => front.includes(k)),
    );
  if (expect.mustNot.length > 0) put('mustNot', !named(expect.mustNot).includes(leader));
  const share = (key: string) =>
    key === '*'
      ? Math.max(...causes.map((c) => c.probability))
      : (causes.find((c) => c.cause.key === key)?.probability ?? 0);
  for (const [key, most] of Object.entries(expect.max))
    put('bounds', share(key) <= most, `${key} ${percent(share(key))} > ${percent(most)}`);
  for (const [key, least] of Object.entries(expect.min))
    put('bounds', share(key) >= least, `${key} ${percent(share(key))} < ${percent(least)}`);
  const [next] = a.conclude.possible;
  if (expect.next.length > 0) {
    const keys = next ? [next.finding, ...next.inspections.map((i) => i.key)] : [];
    const among = a.conclude.possible.slice(0, 3);
    const sensible = among.some((c) =>
      [c.finding, ...c.inspections.map((x) => x.key)].some((k) => expect.next.includes(k)),
    );
    const said = among.map((c) => c.finding).join(', ');
    put(
      'next',
      keys.some((k) => expect.next.includes(k)),
      said,
    );
    put('next3', sensible, said);
  }
  return out;
}

/** Stories by another hand: how many are read as a specialist would. @param path a file of them, or a folder that holds stories.json */
export function storiesBench(path: string): Row[] {
  const { stories } = FileSchema.parse(JSON.parse(readFileSync(path, 'utf8')));
  const counts = new Map<Check['what'], { ok: number; of: number }>();
  let missing = 0;
  for (const story of stories) {
    missing += named(story.expect.first).filter((k) => !known.has(k)).length;
    for (const check of checksOf(story, answersTo(story))) {
      const c = counts.get(check.what) ?? { ok: 0, of: 0 };
      counts.set(check.what, { ok: c.ok + (check.ok ? 1 : 0), of: c.of + 1 });
      if (!check.ok) console.log(`${story.id} ${check.what}: ${check.told}`);
    }
  }
  return [
    ...[...counts].map(
      ([what, { ok, of }]): Row => ({
        name: `Stories by another hand: ${what}`,
        value: `${ok} of ${of}`,
        target: '',
        baseline: '',
        ratio: `${((100 * ok) / of).toFixed(0)} %`,
      }),
    ),
    {
      name: 'Causes that lead in a story and do not exist',
      value: String(missing),
      target: '0',
      baseline: '',
      ratio: '',
    },
  ];
}
