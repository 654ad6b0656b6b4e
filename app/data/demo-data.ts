import * as z from 'zod';
import { headOf } from '@core/answer/head';
import { worldOf } from '@core/answer/world';
import { catalogueOf } from '@core/catalogue/find-records';
import { PackSchema } from '@core/catalogue/pack';
import { FactSchema } from '@core/facts/fact';
import type { FactRepository } from './fact-repository';

const DemoSchema = z.strictObject({
  format: z.literal('hollow-sprocket-demo'),
  pack: PackSchema,
  facts: z.array(FactSchema),
});

/** Puts the demo scenario into the records. @param content the file that ships, as read */
export function addDemo(repository: FactRepository, content: unknown) {
  const { pack, facts } = DemoSchema.parse(content);
  const world = worldOf(catalogueOf(pack));
  return repository.add({ facts, packs: [pack] }, (id, all) => headOf(id, all, world));
}
