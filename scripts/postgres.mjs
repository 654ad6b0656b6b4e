// Debian's PostgreSQL for the tests of the shelf: found, installed when this is root, or left out with a plain line.
import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

const HOME = '/usr/lib/postgresql';

function found() {
  if (!existsSync(HOME)) return undefined;
  const newest = readdirSync(HOME)
    .sort((a, b) => Number(b) - Number(a))
    .map((v) => join(HOME, v, 'bin'))
    .find((bin) => existsSync(join(bin, 'initdb')) && existsSync(join(bin, 'postgres')));
  return newest;
}

/** Names the folder of its programs in POSTGRES_BIN; without one the tests of that engine are skipped. */
export function ensurePostgres() {
  let bin = found();
  if (!bin && process.getuid?.() === 0) {
    console.log('Installing PostgreSQL from Debian’s packages (once)…');
    const line = 'apt-get update && apt-get install -y --no-install-recommends postgresql';
    spawnSync('sh', ['-c', line], {
      stdio: ['ignore', 'inherit', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
    bin = found();
  }
  if (bin) process.env.POSTGRES_BIN = bin;
  else console.log('No PostgreSQL here: the shelf is tested on its embedded engine alone.');
}
