// Plants errors in rooms of core and counts those that the room's own specs tell: npm run mutate -- claim drive
// A large room is sampled by lines, alike each time. Texts are left alone: no test pins wording.
// MUTANTS=n about so many a room (60); MUTATE_SEED another sample; MUTATE_AT_ONCE processes (2). --table writes docs/mutation.md of all rooms run so far.
import { Stryker } from '@stryker-mutator/core';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensurePackages, fail, root } from './ensure.mjs';
import { writeTable } from './mutation-table.mjs';

ensurePackages();
const rooms = process.argv.slice(2).filter((a) => !a.startsWith('--'));
const wanted = Number(process.env.MUTANTS ?? 60);
const seed = process.env.MUTATE_SEED ?? '1';
const reports = join(root, 'dist', 'mutation');
mkdirSync(reports, { recursive: true });
for (const room of rooms) {
  if (!existsSync(join(root, 'core', room))) fail(`core/${room} is no room.`);
  await mutate(room);
}
if (process.argv.includes('--table')) writeTable(reports);

/** Lines with something to plant, in an order that only the seed decides. */
function linesOf(room) {
  return readdirSync(join(root, 'core', room))
    .filter((f) => f.endsWith('.ts') && !/\.(spec|fixture)\.ts$/.test(f))
    .flatMap((f) => {
      const path = `core/${room}/${f}`;
      return readFileSync(join(root, path), 'utf8')
        .split('\n')
        .flatMap((line, i) =>
          /[-+*/<>=!?&|(]/.test(line) && !/^\s*(\*|\/|import|export type|type )/.test(line)
            ? [{ place: `${path}:${i + 1}-${i + 1}`, rank: hash(`${seed} ${path} ${i}`) }]
            : [],
        );
    })
    .sort((a, b) => (a.rank < b.rank ? -1 : 1))
    .map((l) => l.place);
}

function hash(text) {
  return createHash('sha256').update(text).digest('hex');
}

async function mutate(room) {
  // A line holds about one error that can be planted.
  const lines = linesOf(room).slice(0, wanted);
  const report = join(reports, `${room}.json`);
  const stryker = new Stryker({
    mutate: lines,
    mutator: { excludedMutations: ['StringLiteral', 'Regex'] },
    testRunner: 'command',
    buildCommand: `node scripts/mutant-specs.mjs bundle ${room}/`,
    commandRunner: { command: 'node scripts/mutant-specs.mjs run' },
    coverageAnalysis: 'off',
    concurrency: Number(process.env.MUTATE_AT_ONCE ?? 2),
    timeoutMS: 10_000,
    disableTypeChecks: false,
    allowConsoleColors: false,
    tempDirName: join('dist', 'mutants'),
    ignorePatterns: ['/app/*', '!/app/workers', '/docs', '/e2e', '/dist', '/test-results', '/.angular'],
    reporters: ['json'],
    jsonReporter: { fileName: report },
    logLevel: 'error',
    fileLogLevel: 'off',
  });
  const results = await stryker.runMutationTest();
  const of = (...status) => results.filter((r) => status.includes(r.status));
  const survived = of('Survived', 'NoCoverage');
  for (const s of survived)
    console.log(
      `survived ${s.fileName}:${s.location.start.line}:${s.location.start.column} ${s.mutatorName} -> ${s.replacement}`,
    );
  writeFileSync(
    join(reports, `${room}.summary.json`),
    JSON.stringify({
      room,
      planted: results.length - of('Ignored', 'CompileError').length,
      told: of('Killed', 'Timeout').length,
      survived: survived.map((s) => `${s.fileName}:${s.location.start.line} ${s.mutatorName}`),
    }),
  );
  console.log(
    `${room}: ${of('Killed', 'Timeout').length} of ${results.length} told, ${survived.length} survived`,
  );
}
