// What every command needs first: a fitting Node, packages that match the lock file, a build that matches the sources.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
  accessSync,
  constants,
  existsSync,
  readdirSync,
  readFileSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { join, resolve } from 'node:path';

export const root = resolve(import.meta.dirname, '..');
const stampFile = join(root, 'node_modules', '.hollow-sprocket-stamp');

export function fail(sentence) {
  console.error(sentence);
  process.exit(1);
}

export function ensureNode() {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
  if (!((major === 20 && minor >= 19) || (major === 22 && minor >= 12) || major > 22)) {
    fail(
      `Node ${process.versions.node} is not enough: Hollow Sprocket needs Node 20.19 or newer (20 or 22). Install it and run the command again.`,
    );
  }
}

function npm(args) {
  const cli = process.env.npm_execpath;
  const env = { ...process.env, NG_CLI_ANALYTICS: 'false', PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD: '1' };
  return cli && /\.c?js$/.test(cli)
    ? spawnSync(process.execPath, [cli, ...args], { cwd: root, stdio: ['ignore', 'inherit', 'inherit'], env })
    : spawnSync('npm', args, {
        cwd: root,
        stdio: ['ignore', 'inherit', 'inherit'],
        env,
        shell: process.platform === 'win32',
      });
}

export function ensurePackages() {
  ensureNode();
  const lock = readFileSync(join(root, 'package-lock.json'));
  const stamp = createHash('sha256').update(lock).update(process.version).digest('hex');
  if (existsSync(stampFile) && readFileSync(stampFile, 'utf8') === stamp) return;
  try {
    accessSync(root, constants.W_OK);
  } catch {
    fail(
      `This account may not write in ${root}. Clone the project into a folder of your own and run the command there.`,
    );
  }
  console.log('Installing packages (once, about a minute)…');
  const run = npm(['ci', '--no-progress']);
  if (run.status !== 0) {
    fail(
      'The packages could not be installed. Is the package registry reachable from here? Connect to the network and run the command again; nothing else was changed.',
    );
  }
  writeFileSync(stampFile, stamp);
}

function newest(path) {
  const info = statSync(path);
  if (!info.isDirectory()) return info.mtimeMs;
  return Math.max(0, ...readdirSync(path).map((name) => newest(join(path, name))));
}

export function ensureBuild() {
  const built = join(root, 'dist', 'app', 'index.html');
  const sources = [
    'app',
    'core',
    'demo',
    'server',
    'angular.json',
    'tsconfig.json',
    'ngsw-config.json',
    'package-lock.json',
  ].map((p) => join(root, p));
  if (
    existsSync(built) &&
    existsSync(join(root, 'dist', 'node', 'server-main.mjs')) &&
    statSync(built).mtimeMs >= Math.max(...sources.map(newest))
  )
    return;
  console.log('Building…');
  node('scripts/build.mjs', [], 'The build failed; the lines above say where.');
}

/** Runs a Node script of the project and stops with the sentence when it fails. */
export function node(script, args, sentence) {
  const run = spawnSync(process.execPath, [join(root, script), ...args], { cwd: root, stdio: 'inherit' });
  if (run.status !== 0) fail(sentence);
}
