import * as z from 'zod';
import '@core/quantity/plain-schemas';
import type { CaseSummary } from '@core/answer/case-summary';
import { daysUntil, laterBy } from '@core/answer/moved-days';
import { PackSchema } from '@core/catalogue/pack';
import { mergeCase } from '@core/facts/consistent';
import { type Fact, FactSchema, FileRefSchema } from '@core/facts/fact';
import { ok, type Result } from '@core/quantity/result';
import type { Addition, FactRepository } from './fact-repository';
import { MADE_WITH } from './made-with';
import type { StoreTrouble } from './store-trouble';

const Facts = z.array(FactSchema);
const DemoSchema = z.strictObject({
  format: z.literal('hollow-sprocket-demo'),
  /** Who sends the letters of this scenario, a line each. */
  house: z.string(),
  pack: PackSchema,
  facts: Facts,
});
/** What the knowledge makes of the demo's facts. It ships, so that what computes it is not fetched before the first rack. */
const JudgedSchema = z.strictObject({
  format: z.literal('hollow-sprocket-demo-judged'),
  knowledge: z.string(),
  facts: Facts,
  summaries: z.array(z.custom<CaseSummary>((h) => typeof (h as { id?: unknown }).id === 'string')),
});

type Judged = z.infer<typeof JudgedSchema>;

const CallsSchema = z.strictObject({
  format: z.literal('hollow-sprocket-demo-calls'),
  facts: Facts,
});

const BoxesSchema = z.strictObject({
  format: z.literal('hollow-sprocket-demo-boxes'),
  facts: Facts,
  files: z.array(FileRefSchema),
});

/** Puts the boxes of the demo's earlier months into the records, with their photographs. True once all of it is there. */
export async function addBoxes(
  repository: FactRepository,
  content: unknown,
  judged: unknown,
  now: number,
  fetchFile: (file: { hash: string; type: string }) => Promise<Blob | undefined>,
): Promise<boolean> {
  const { facts, files } = BoxesSchema.parse(content);
  for (const { hash, name, type } of files) {
    const blob = await fetchFile({ hash, type });
    if (!blob || !(await repository.keepFile({ sha256: hash, name, type, blob })).ok) return false;
  }
  return (await repository.add(await joining(repository, facts, JudgedSchema.parse(judged), now))).ok;
}

/** Puts the calls and messages of the demo's earlier weeks into the records. */
export async function addCalls(repository: FactRepository, content: unknown, judged: unknown, now: number) {
  const { facts } = CallsSchema.parse(content);
  return repository.add(await joining(repository, facts, JudgedSchema.parse(judged), now));
}

/** Puts the demo scenario into the records. Its value is who sends its letters. @param content the file that ships, as read @param judged the one beside it @param now ms since 1970: the demo's days are counted back from it */
export async function addDemo(
  repository: FactRepository,
  content: unknown,
  judged: unknown,
  now: number,
): Promise<Result<string, StoreTrouble>> {
  const { house, pack, facts } = DemoSchema.parse(content);
  const made = JudgedSchema.parse(judged);
  const { facts: joined, summaries = [] } = await joining(repository, facts, made, now);
  // What comes a moment later, its calls and boxes, stands in the lists from the start: nothing moves after it was shown.
  const later = await stillToCome(repository, facts, made, now);
  const filed = await repository.add({
    facts: joined,
    summaries: [...summaries, ...later],
    packs: [pack],
  });
  // Where nothing was ever judged here, the summaries that came along were judged by this.
  if (filed.ok && (await repository.setting(MADE_WITH)) === undefined)
    await repository.keepSetting(MADE_WITH, made.knowledge);
  return filed.ok ? ok(house) : filed;
}

/** Summaries of the demo's other cases than these, where no fact of them is here yet. */
async function stillToCome(
  repository: FactRepository,
  own: readonly Fact[],
  judged: Judged,
  now: number,
): Promise<CaseSummary[]> {
  const mine = new Set(own.map((f) => f.case));
  const { summaries } = laterBy(daysUntil(judged.summaries, now), {
    facts: judged.facts,
    summaries: judged.summaries,
  });
  const none = await Promise.all(
    summaries.map(async (h) => mine.has(h.id) || (await repository.factsOf(h.id)).length > 0),
  );
  return summaries.filter((_, i) => none[i] !== true);
}

/** What of the demo can join what is here: a case of it that an earlier make left with other facts stays as it is. */
async function joining(
  repository: FactRepository,
  own: readonly Fact[],
  judged: Judged,
  now: number,
): Promise<Pick<Addition, 'facts' | 'summaries'>> {
  const mine = new Set(own.map((f) => f.case));
  // The desk looks as if it was left yesterday, whenever it is opened first.
  const { facts, summaries } = laterBy(daysUntil(judged.summaries, now), {
    facts: [...own, ...judged.facts.filter((f) => mine.has(f.case))],
    summaries: judged.summaries,
  });
  const byCase = new Map<string, Fact[]>();
  for (const f of facts) byCase.set(f.case, [...(byCase.get(f.case) ?? []), f]);
  const joins = new Set<string>();
  for (const [id, all] of byCase) if (mergeCase(await repository.factsOf(id), all).ok) joins.add(id);
  return {
    facts: facts.filter((f) => joins.has(f.case)),
    summaries: summaries.filter((h) => joins.has(h.id)),
  };
}
