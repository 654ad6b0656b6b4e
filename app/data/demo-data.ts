import * as z from 'zod';
import '@core/quantity/plain-schemas';
import type { CaseSummary } from '@core/answer/case-summary';
import { PackSchema } from '@core/catalogue/pack';
import { mergeCase } from '@core/facts/consistent';
import { type Fact, FactSchema, FileRefSchema } from '@core/facts/fact';
import type { Addition, FactRepository } from './fact-repository';

/** Heads ship with the demo, so that what computes them is not fetched before the first rack; they may be made anew like any. */
const DemoSchema = z.strictObject({
  format: z.literal('hollow-sprocket-demo'),
  pack: PackSchema,
  facts: z.array(FactSchema),
  summaries: z.array(z.custom<CaseSummary>((h) => typeof (h as { id?: unknown }).id === 'string')),
});

const CallsSchema = z.strictObject({
  format: z.literal('hollow-sprocket-demo-calls'),
  facts: DemoSchema.shape.facts,
  summaries: DemoSchema.shape.summaries,
});

const BoxesSchema = z.strictObject({
  format: z.literal('hollow-sprocket-demo-boxes'),
  facts: DemoSchema.shape.facts,
  summaries: DemoSchema.shape.summaries,
  files: z.array(FileRefSchema),
});

/** Puts the boxes of the demo's earlier months into the records, with their photographs. True once all of it is there. */
export async function addBoxes(
  repository: FactRepository,
  content: unknown,
  fetchFile: (file: { hash: string; type: string }) => Promise<Blob | undefined>,
): Promise<boolean> {
  const { facts, summaries, files } = BoxesSchema.parse(content);
  for (const { hash, name, type } of files) {
    const blob = await fetchFile({ hash, type });
    if (!blob || !(await repository.keepFile({ sha256: hash, name, type, blob })).ok) return false;
  }
  return (await repository.add(await joining(repository, facts, summaries))).ok;
}

/** Puts the calls and messages of the demo's earlier weeks into the records. */
export async function addCalls(repository: FactRepository, content: unknown) {
  const { facts, summaries } = CallsSchema.parse(content);
  return repository.add(await joining(repository, facts, summaries));
}

/** Puts the demo scenario into the records. @param content the file that ships, as read */
export async function addDemo(repository: FactRepository, content: unknown) {
  const { pack, facts, summaries } = DemoSchema.parse(content);
  return repository.add({ ...(await joining(repository, facts, summaries)), packs: [pack] });
}

/** What of the demo can join what is here: a case of it that an earlier make left with other facts stays as it is. */
async function joining(
  repository: FactRepository,
  facts: readonly Fact[],
  summaries: readonly CaseSummary[],
): Promise<Pick<Addition, 'facts' | 'summaries'>> {
  const byCase = new Map<string, Fact[]>();
  for (const f of facts) byCase.set(f.case, [...(byCase.get(f.case) ?? []), f]);
  const joins = new Set<string>();
  for (const [id, own] of byCase) if (mergeCase(await repository.factsOf(id), own).ok) joins.add(id);
  return {
    facts: facts.filter((f) => joins.has(f.case)),
    summaries: summaries.filter((h) => joins.has(h.id)),
  };
}
