import { expect, test } from '@playwright/test';
import { build } from 'esbuild';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';

const ROOT = join(import.meta.dirname, '..');
const read = (file: string) => readFileSync(join(ROOT, file), 'utf8');
/** A file with one piece put before another; the piece has to be there, once. */
function before(file: string, mark: string, piece: string): [string, string] {
  const text = read(file);
  expect(text.split(mark).length, `${mark} in ${file}`).toBe(2);
  return [file, text.replace(mark, () => piece + mark)];
}

/** Runs a script over the sources with some files changed or added, and returns what it gives out. */
async function with_<T>(files: Readonly<Record<string, string>>, script: string): Promise<T> {
  const made = await build({
    stdin: { contents: script, resolveDir: ROOT, loader: 'ts' },
    bundle: true,
    write: false,
    platform: 'node',
    format: 'esm',
    mainFields: ['module', 'main'],
    tsconfig: join(ROOT, 'tsconfig.json'),
    logLevel: 'error',
    plugins: [
      {
        name: 'grown',
        setup(b) {
          b.onResolve({ filter: /\.json$/ }, (args) => {
            const path = join(args.resolveDir, args.path);
            return Object.keys(files).some((f) => join(ROOT, f) === path) ? { path } : undefined;
          });
          b.onLoad({ filter: /\.(ts|json)$/ }, (args) => {
            const own = Object.entries(files).find(([f]) => join(ROOT, f) === args.path);
            return own && { contents: own[1], loader: own[0].endsWith('.json') ? 'json' : 'ts' };
          });
        },
      },
    ],
  });
  const code = `data:text/javascript;base64,${Buffer.from(made.outputFiles[0]!.contents).toString('base64')}`;
  return ((await import(code)) as { found: T }).found;
}

const grade = (key: string, wording: string, abnormal = false) => ({
  key,
  wording,
  ...(abnormal ? { abnormal } : {}),
});
const mesh = {
  key: 'strainer.mesh',
  wording: 'Mesh of the strainer',
  aliases: ['strainer mesh'],
  part: 'strainer',
  station: 'examine',
  type: {
    kind: 'choice',
    options: [grade('clear', 'Clear'), grade('torn', 'Torn', true)],
  },
  how: 'seen',
  minutes: 1,
};

test('a kind of part is added in three files: its own, a line in the list, and its drawing', async () => {
  const files = Object.fromEntries([
    [
      'core/facts/kinds/strainer.json',
      JSON.stringify({
        kind: 'strainer',
        wording: 'Strainer',
        part: true,
        without: 'Without the strainer nothing is said of what went round with the oil.',
        observables: [mesh],
        inspections: [{ key: mesh.key, zone: 'mesh' }],
        tiles: { [mesh.key]: { clear: 'edge', torn: 'edge frayed' } },
      }),
    ],
    ((): [string, string] => {
      const [file, text] = before(
        'core/facts/kinds/all.ts',
        "import cover from './cover.json';",
        "import strainer from './strainer.json';\n",
      );
      return [file, text.replace('  cover,\n', '  strainer,\n  cover,\n')];
    })(),
    ((): [string, string] => {
      const [file, text] = before(
        'app/part-drawings/round-pictures.ts',
        '  ring: {',
        '  strainer: { draw: ringPicture },\n',
      );
      return [file, text];
    })(),
  ]);
  expect(Object.keys(files).length).toBeLessThanOrEqual(3);
  const found = await with_<{
    came: string;
    zones: string[];
    status: string;
    sent: string[];
    read: unknown;
    drawn: number;
    tile: string;
    letters: string[];
  }>(
    files,
    `
    import { answersFor } from '@core/answer/answers';
    import { registryFor, worldOf } from '@core/answer/world';
    import { catalogueOf } from '@core/catalogue/find-records';
    import { readFactLine } from '@core/facts/fact-line';
    import { optionsOf } from '@core/facts/observable';
    import { fileFact } from '@core/facts/change';
    import { reduce } from '@core/facts/state';
    import { demoPack } from './demo/catalogue';
    import { demoFacts } from './demo/cases';
    import { SEED } from './demo/scenario';
    import { thingPicture } from './app/part-drawings/thing-picture';
    import { tilePicture } from './app/part-drawings/tile-picture';
    import { lettersOf } from './app/ui/letters';
    const world = worldOf(catalogueOf(demoPack()));
    const own = demoFacts(SEED).filter((f) => f.case === 'demo-2036');
    let n = 0;
    const author = { by: 'T', now: () => new Date(Date.UTC(2027, 0, 1)).toISOString(), newId: () => 'g' + ++n };
    const facts = [...own, fileFact(reduce(own), 'demo-2036', { key: 'parts.sent', value: ['strainer'], how: 'reported' }, author)];
    facts.push(fileFact(reduce(facts), 'demo-2036', { key: 'strainer.mesh', value: 'torn', how: 'seen' }, author));
    const state = reduce(facts);
    const a = answersFor(world, state);
    const thing = a.examination.things.find((t) => t.kind === 'strainer');
    const registry = registryFor(world);
    const line = readFactLine('strainer mesh torn', registry, { notation: { dateOrder: 'dmy', units: {} }, today: '2026-11-29', wheels: [], findRef: () => undefined, nearestRefs: () => [] });
    export const found = {
      came: thing?.came,
      zones: thing?.inspections.map((i) => i.inspection.zone),
      status: thing?.inspections[0]?.status,
      sent: optionsOf(registry.get('parts.sent')).map((o) => o.key),
      read: line.ok && line.value.read.ok && line.value.read.value.value,
      drawn: thing && thingPicture(thing, state, a.drive)?.shapes.length,
      tile: tilePicture('strainer.mesh', 'torn')?.base,
      letters: lettersOf(optionsOf(registry.get('strainer.mesh'))).map((l) => l.letter),
    };
  `,
  );
  expect(found).toEqual(
    expect.objectContaining({ came: 'sent', zones: ['mesh'], status: 'done', read: 'torn' }),
  );
  expect(found.sent).toContain('strainer');
  expect(new Set(found.letters).size).toBe(2);
  expect(found.drawn).toBeGreaterThan(0);
  expect(found.tile).toBeTruthy();
});

test('an observable is added in one file', async () => {
  const file = 'core/facts/kinds/cover.json';
  const cover = JSON.parse(read(file)) as { observables: unknown[]; inspections: unknown[]; tiles: object };
  const seal = {
    ...mesh,
    key: 'cover.lip',
    wording: 'Lip of the cover',
    aliases: ['cover lip'],
    part: 'cover',
  };
  const grown = {
    ...cover,
    observables: [...cover.observables, seal],
    inspections: [...cover.inspections, { key: seal.key, zone: 'rim' }],
    tiles: { ...cover.tiles, [seal.key]: { clear: 'edge', torn: 'edge frayed' } },
  };
  const found = await with_<{ asked: string[]; zone: string; tile: string }>(
    { [file]: JSON.stringify(grown) },
    `
    import { EXAMINATIONS } from '@core/examination/examination-data';
    import { OBSERVABLES } from '@core/facts/registry';
    import { tilePicture } from './app/part-drawings/tile-picture';
    export const found = {
      asked: OBSERVABLES.filter((o) => o.part === 'cover').map((o) => o.key),
      zone: EXAMINATIONS.get('cover').inspections.find((i) => i.key === 'cover.lip')?.zone,
      tile: tilePicture('cover.lip', 'torn')?.base,
    };
  `,
  );
  expect(found.asked).toContain('cover.lip');
  expect(found.zone).toBe('rim');
  expect(found.tile).toBeTruthy();
});

test('a station is added by its folder and two lines; without the line of its page nothing compiles', () => {
  const files = Object.fromEntries([
    before('core/facts/stations.ts', "  settle: 'Settle',", "  weigh: 'Weigh',\n"),
    before(
      'app/stations.ts',
      "  settle: () => import('./stations/settle/settle-page')",
      "  weigh: () => import('./stations/cause/cause-page').then((m) => m.CausePage),\n",
    ),
  ]);
  expect(Object.keys(files).length).toBeLessThanOrEqual(2);
  const config = ts.parseJsonConfigFileContent(
    ts.readConfigFile(join(ROOT, 'tsconfig.app.json'), (f) => ts.sys.readFile(f)).config,
    ts.sys,
    ROOT,
  );
  let before_: ts.Program | undefined;
  /** What the compiler has against these sources, or one of them, with some files changed. */
  const against = (changed: Readonly<Record<string, string>>, only?: string): string[] => {
    const host = ts.createCompilerHost(config.options);
    const plain = host.getSourceFile.bind(host);
    host.getSourceFile = (f, version, ...rest) => {
      const own = Object.entries(changed).find(([name]) => join(ROOT, name) === f)?.[1];
      if (own !== undefined) return ts.createSourceFile(f, own, version);
      return before_?.getSourceFile(f) ?? plain(f, version, ...rest);
    };
    const program = ts.createProgram(config.fileNames, config.options, host, before_);
    before_ = program;
    return program
      .getSourceFiles()
      .filter((f) => f.fileName.startsWith(`${join(ROOT, only ?? 'app')}`))
      .flatMap((f) => program.getSemanticDiagnostics(f))
      .map((d) => ts.flattenDiagnosticMessageText(d.messageText, ' '));
  };
  expect(against(files)).toEqual([]);
  const [list] = Object.entries(files).map(([f, t]) => ({ [f]: t }));
  // The list alone: what stands on the disk has no page for it.
  before_ = undefined;
  expect(against(list!, 'app/stations.ts').join()).toContain('weigh');
});

test('a form in which a case leaves is one file of its folder and its line in the list, and no screen knows it by name', () => {
  const list = read('app/commands/case-exports.ts');
  const listed = /CASE_FORMATS[^=]*= \[([^\]]*)\]/
    .exec(list)![1]!
    .split(',')
    .map((l) => l.trim());
  const files = readdirSync(join(ROOT, 'app/commands/formats')).filter((f) => f !== 'format.ts');
  expect(files.length).toBeGreaterThan(1);
  const home = (name: string) =>
    new RegExp(`import \\{ ${name} \\} from '\\./formats/([^']+)'`).exec(list)?.[1];
  expect(listed.map((l) => `${home(l)}.ts`).sort()).toEqual(files.sort());
  for (const name of listed) expect(read('app/stations/settle/papers-card.ts')).not.toContain(name);
});
