import { mkdirSync, writeFileSync } from 'node:fs';
import * as z from 'zod';
import { PackSchema } from '@core/catalogue/pack';
import { CaseFileSchema } from '@core/claim/case-file';
import { ReturnSchema } from '@core/fitting/sheet-return';
import { GLOSSARY, type Term } from '../app/messages/glossary';

mkdirSync('docs/schema', { recursive: true });
for (const [name, schema] of [
  ['case-file', CaseFileSchema],
  ['catalogue-pack', PackSchema],
  ['filled-sheet', ReturnSchema],
] as const) {
  writeFileSync(`docs/schema/${name}.schema.json`, `${JSON.stringify(z.toJSONSchema(schema), null, 2)}\n`);
  console.log(`docs/schema/${name}.schema.json written`);
}

const GLOSSARY_HEAD = `# Glossary

What the words of the field and of this desk mean. The program shows the same on its key \`g\`, and at a field whose name
holds one. Written from \`app/messages/glossary.json\` by \`npm run docs:schema\`; no word has two meanings.
`;
const part = (of: Term['of'], heading: string): string => {
  const lines = GLOSSARY.filter((t) => t.of === of).map(
    (t) => `- **${t.term}**${t.also ? ` (${t.also.join(', ')})` : ''}: ${t.means}`,
  );
  return `## ${heading}\n\n${lines.join('\n')}\n`;
};
writeFileSync(
  'docs/glossary.md',
  [GLOSSARY_HEAD, part('field', 'Of the field'), part('desk', 'Of this desk')].join('\n'),
);
console.log('docs/glossary.md written');
