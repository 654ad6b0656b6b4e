// docs/mutation.md from what was planted and told, room by room.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './ensure.mjs';

export function writeTable(reports) {
  const rooms = readdirSync(reports)
    .filter((f) => f.endsWith('.summary.json'))
    .map((f) => JSON.parse(readFileSync(join(reports, f), 'utf8')))
    .sort((a, b) => (a.room < b.room ? -1 : 1));
  const rows = rooms.map(
    ({ room, planted, told }) =>
      `| ${room} | ${planted} | ${told} | ${Math.round((100 * told) / planted)} % |`,
  );
  writeFileSync(
    join(root, 'docs', 'mutation.md'),
    `# Errors planted in core, and told by the room's own specs

Made by \`npm run mutate -- <rooms> --table\`: lines are drawn alike each time (\`MUTATE_SEED\`), every operator of the mutation
tester but those that change texts. What survives is printed with its place; what changes nothing that can be told apart
(a shortcut, an order of equal things) stays in the count.

| room | planted | told | share |
| ---- | ------: | ---: | ----: |
${rows.join('\n')}
`,
  );
}
