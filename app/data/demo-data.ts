import * as z from 'zod';
import type { Head } from '@core/answer/head';
import { PackSchema } from '@core/catalogue/pack';
import { mergeFacts } from '@core/facts/change';
import { checkFacts } from '@core/facts/consistent';
import { FactSchema, FileRefSchema } from '@core/facts/fact';
import type { FactRepository } from './fact-repository';

z.config({ jitless: true });
/** Heads ship with the demo, so that what computes them is not fetched before the first rack; they may be made anew like any. */
const DemoSchema = z.strictObject({
  format: z.literal('hollow-sprocket-demo'),
  pack: PackSchema,
  facts: z.array(FactSchema),
  heads: z.array(z.custom<Head>((h) => typeof (h as { id?: unknown }).id === 'string')),
});

const CallsSchema = z.strictObject({
  format: z.literal('hollow-sprocket-demo-calls'),
  facts: DemoSchema.shape.facts,
  heads: DemoSchema.shape.heads,
});

const BoxesSchema = z.strictObject({
  format: z.literal('hollow-sprocket-demo-boxes'),
  facts: DemoSchema.shape.facts,
  heads: DemoSchema.shape.heads,
  files: z.array(FileRefSchema),
});

/** Puts the boxes of the demo's earlier months into the records, with their photographs. True once all of it is there. */
export async function addBoxes(
  repository: FactRepository,
  content: unknown,
  fetchFile: (file: { hash: string; type: string }) => Promise<Blob | undefined>,
): Promise<boolean> {
  const { facts, heads, files } = BoxesSchema.parse(content);
  for (const { hash, name, type } of files) {
    const blob = await fetchFile({ hash, type });
    if (!blob || !(await repository.keepFile({ sha256: hash, name, type, blob })).ok) return false;
  }
  return (await repository.add({ facts, heads })).ok;
}

/** Puts the calls and messages of the demo's earlier weeks into the records. */
export function addCalls(repository: FactRepository, content: unknown) {
  const { facts, heads } = CallsSchema.parse(content);
  return repository.add({ facts, heads });
}

/** Puts the demo scenario into the records. A case that is here already with other facts stays as it is. @param content the file that ships, as read */
export async function addDemo(repository: FactRepository, content: unknown) {
  const { pack, facts, heads } = DemoSchema.parse(content);
  const other = new Set<string>();
  for (const id of new Set(facts.map((f) => f.case))) {
    const own = facts.filter((f) => f.case === id);
    const merged = mergeFacts(await repository.factsOf(id), own);
    if (!merged.ok || checkFacts(merged.value)) other.add(id);
  }
  return repository.add({
    facts: facts.filter((f) => !other.has(f.case)),
    packs: [pack],
    heads: heads.filter((h) => !other.has(h.id)),
  });
}
