import { mkdirSync, writeFileSync } from 'node:fs';
import * as z from 'zod';
import { PackSchema } from '@core/catalogue/pack';
import { CaseFileSchema } from '@core/claim/case-file';

mkdirSync('docs/schema', { recursive: true });
for (const [name, schema] of [
  ['case-file', CaseFileSchema],
  ['catalogue-pack', PackSchema],
] as const) {
  writeFileSync(`docs/schema/${name}.schema.json`, `${JSON.stringify(z.toJSONSchema(schema), null, 2)}\n`);
  console.log(`docs/schema/${name}.schema.json written`);
}
