import { spawn, spawnSync } from 'node:child_process';
import { chownSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A database of its own for a test. */
export type Engine = { database: string | undefined; folder: string; end(): Promise<void> };

export function embeddedEngine(): Promise<Engine> {
  const folder = mkdtempSync(join(tmpdir(), 'hs-shelf-'));
  return Promise.resolve({
    database: undefined,
    folder,
    end: () => {
      rmSync(folder, { recursive: true, force: true });
      return Promise.resolve();
    },
  });
}

const idOf = (what: '-u' | '-g'): number =>
  Number(spawnSync('id', [what, 'postgres'], { encoding: 'utf8' }).stdout);

/** Debian's PostgreSQL, laid out in a folder of its own and listened to there alone; it will not run as root. */
export async function serverEngine(bin: string): Promise<Engine> {
  const folder = mkdtempSync(join(tmpdir(), 'hs-pg-'));
  const data = join(folder, 'data');
  const as = process.getuid?.() === 0 ? { uid: idOf('-u'), gid: idOf('-g') } : {};
  if (as.uid !== undefined) chownSync(folder, as.uid, as.gid);
  const made = spawnSync(
    join(bin, 'initdb'),
    ['-D', data, '-U', 'shelf', '-A', 'trust', '-E', 'UTF8', '--no-sync'],
    as,
  );
  if (made.status !== 0) throw new Error(made.stderr.toString());
  const server = spawn(
    join(bin, 'postgres'),
    ['-D', data, '-k', folder, '-c', 'listen_addresses=', '-c', 'fsync=off'],
    { ...as, stdio: ['ignore', 'ignore', 'pipe'] },
  );
  await new Promise<void>((ready, fail) => {
    let said = '';
    server.stderr.on('data', (chunk: Buffer) => {
      said += chunk.toString();
      if (said.includes('ready to accept connections')) ready();
    });
    server.once('exit', () => fail(new Error(said)));
  });
  return {
    database: `postgresql://shelf@localhost/postgres?host=${encodeURIComponent(folder)}`,
    folder,
    end: async () => {
      const gone = new Promise((done) => server.once('exit', done));
      server.kill('SIGINT');
      await gone;
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
