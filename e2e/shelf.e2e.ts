import { spawn, type ChildProcess } from 'node:child_process';
import { resolve } from 'node:path';
import { expect, test } from '@playwright/test';
import { joinShelf } from '../app/shelves/shelf-requests';
import { factsDigest } from '@core/facts/digest';
import type { Fact } from '@core/facts/fact';
import { type Entry, nextEntry, readEntry } from '@core/shelf/entry';
import { exchange, type Shelf } from '@core/shelf/exchange';
import { PlainDesk, runCourse } from '@core/shelf/many-desks.fixture';
import { requestText, SIGNED_HEADERS } from '@core/shelf/protocol';
import { ok } from '@core/quantity/result';
import { serve, type Serving, stop } from '../server/serve';
import { KeptShelf } from '../server/shelf/shelf';
import { joinedDesk, keyed, readOnly } from './shelf-desk';
import { embeddedEngine, type Engine, serverEngine } from './engines';

const port = 4296;
const origin = `http://127.0.0.1:${port}`;
const now = () => '2026-12-01T08:00:00.000Z';
const fact = (id: string, value = 1, more: Partial<Fact> = {}): Fact => ({
  id,
  case: 'c1',
  key: 'vehicle.distance',
  value,
  how: 'reported',
  by: 'T',
  at: '2026-11-30T10:00:00.000Z',
  ...more,
});

const ENGINES: readonly [string, () => Promise<Engine> | undefined][] = [
  ['the embedded engine', embeddedEngine],
  [
    'PostgreSQL of its own',
    () => {
      const bin = process.env['POSTGRES_BIN'];
      return bin === undefined ? undefined : serverEngine(bin);
    },
  ],
];

for (const [name, start] of ENGINES) {
  test.describe(`a shelf on ${name}`, () => {
    let engine: Engine;
    test.beforeEach(async () => {
      const started = start();
      test.skip(!started, 'PostgreSQL is not installed here');
      engine = await started!;
    });
    test.afterEach(() => engine.end());

    test('many desks over a bad network, killed between any two writes, come to the same', async () => {
      const kept = await KeptShelf.open({ folder: engine.folder, database: engine.database, now });
      const shelf: Shelf = {
        since: async (positions) => {
          const { heads, entries } = await kept.facts.since(positions);
          return ok({
            heads,
            entries: entries.map((e) => (readEntry(JSON.parse(e)) as { value: Entry }).value),
          });
        },
        append: (e) => kept.facts.append(e),
        missing: async (ids) => ok(await kept.facts.missing(ids)),
      };
      const done = await runCourse({ seed: 7, desks: 6, facts: 400 }, shelf);
      expect(new Set(done.digests)).toEqual(new Set([done.filed]));
      expect(done.crashes).toBeGreaterThan(0);
      // of what lies there, nothing is there twice, and a case is found whole
      const all = (
        await Promise.all(Array.from({ length: 40 }, (_, i) => kept.facts.ofCase(`case-${i}`)))
      ).flat();
      expect(factsDigest(all.map((b) => JSON.parse(b) as Fact))).toBe(done.filed);
      await kept.end();
    });

    test('entries that come at once are written together, each answered for itself', async () => {
      const kept = await KeptShelf.open({ folder: engine.folder, database: engine.database, now });
      const log = (n: number) => `${n}`.padStart(20, 'a');
      await kept.facts.append(nextEntry(log(1), undefined, [fact('f1')]));
      const [head] = Object.values(await kept.facts.heads());
      const good = nextEntry(log(2), undefined, [fact('f2'), fact('f1')]);
      const after = nextEntry(good.log, { seq: 1, hash: good.hash }, [fact('f3')]);
      const done = await Promise.all(
        [
          good,
          after,
          nextEntry(log(3), undefined, [fact('f4'), fact('f2', 2)]),
          nextEntry(log(1), undefined, [fact('f5')]),
          nextEntry(log(1), head, [fact('f6')]),
          nextEntry(log(4), undefined, [fact('f6')]),
        ].map((e) => kept.facts.append(e)),
      );
      expect(done.map((d) => (d.ok ? 'there' : d.error.code))).toEqual([
        'there',
        'there',
        'other_content',
        'behind',
        'there',
        'there',
      ]);
      expect(await kept.facts.missing(['f1', 'f2', 'f3', 'f4', 'f5', 'f6'])).toEqual(['f4', 'f5']);
      const { heads, entries } = await kept.facts.since({});
      expect(Object.fromEntries(Object.entries(heads).map(([l, h]) => [l, h.seq]))).toEqual({
        [log(1)]: 2,
        [log(2)]: 2,
        [log(4)]: 1,
      });
      expect(entries.map((e) => readEntry(JSON.parse(e)).ok)).toEqual([true, true, true, true, true]);
      await kept.end();
    });

    test('two servers at one database: of two entries at one place one stands, and the others beside it', async () => {
      test.skip(engine.database === undefined, 'the embedded engine is of one process');
      const open = () => KeptShelf.open({ folder: engine.folder, database: engine.database, now });
      const [one, two] = [await open(), await open()];
      const log = (n: number) => `${n}`.padStart(20, 'b');
      for (let round = 0; round < 20; round++) {
        const end = (await one.facts.heads())[log(0)];
        const done = await Promise.all([
          one.facts.append(nextEntry(log(0), end, [fact(`one-${round}`)])),
          one.facts.append(nextEntry(log(100 + round), undefined, [fact(`x-${round}`)])),
          two.facts.append(nextEntry(log(0), end, [fact(`two-${round}`)])),
          two.facts.append(nextEntry(log(200 + round), undefined, [fact(`x-${round}`)])),
        ]);
        expect([done[0].ok, done[2].ok].sort()).toEqual([false, true]);
        expect([done[1].ok, done[3].ok]).toEqual([true, true]);
        expect(await two.facts.heads()).toEqual(await one.facts.heads());
      }
      expect((await two.facts.heads())[log(0)]?.seq).toBe(20);
      await one.end();
      await two.end();
    });

    test('what stands there stands there after the server was stopped and started', async () => {
      const first = await KeptShelf.open({ folder: engine.folder, database: engine.database, now });
      const entry = nextEntry('a'.repeat(20), undefined, [fact('f1'), fact('f2', 2)]);
      expect(await first.facts.append(entry)).toEqual({ ok: true, value: true });
      await first.end();
      const again = await KeptShelf.open({ folder: engine.folder, database: engine.database, now });
      const came = await again.facts.since({});
      expect(came.entries.map((e) => JSON.parse(e) as Entry)).toEqual([entry]);
      // the same again, or another at its place, is refused; a fact that says another thing too
      expect(await again.facts.append(entry)).toEqual({ ok: false, error: { code: 'behind' } });
      const end = { seq: entry.seq, hash: entry.hash };
      expect(await again.facts.append(nextEntry(entry.log, end, [fact('f1', 9)]))).toEqual({
        ok: false,
        error: { code: 'other_content', id: 'f1' },
      });
      expect((await again.facts.since({})).heads).toEqual({ [entry.log]: end });
      await again.end();
    });
  });
}

test.describe('who is let in', () => {
  let engine: Engine;
  let serving: Serving;
  let invitation = '';
  test.beforeEach(async () => {
    engine = await embeddedEngine();
    const started = await serve({
      root: resolve('dist/app'),
      port,
      host: '127.0.0.1',
      demo: false,
      shelf: { folder: engine.folder, now },
    });
    if (!started.ok) throw new Error(JSON.stringify(started.error));
    serving = started;
    invitation = started.invitation ?? '';
  });
  test.afterEach(async () => {
    await stop(serving, 0);
    await engine.end();
  });

  test('requests that are unsigned, altered, sent again or signed by another are refused, and nothing is done', async () => {
    const one = await joinedDesk(origin, invitation, 'One');
    expect((await fetch(`${origin}/shelf/since`, { method: 'POST', body: '{"positions":{}}' })).status).toBe(
      401,
    );
    const opened = await fetch(`${origin}/shelf/session`, {
      method: 'POST',
      body: JSON.stringify({ desk: one.desk.id }),
    });
    const { session } = (await opened.json()) as { session: string };
    const body = JSON.stringify(nextEntry(one.desk.id, undefined, [fact('f1')]));
    const hash = async (text: string) =>
      Buffer.from(await crypto.subtle.digest('SHA-256', new TextEncoder().encode(text))).toString('hex');
    const signature = await one.sign(
      requestText({ session, count: 1, method: 'POST', path: '/shelf/entries', body: await hash(body) }),
    );
    const send = (path: string, sent: string, count = 1) =>
      fetch(`${origin}${path}`, {
        method: 'POST',
        body: sent,
        headers: {
          [SIGNED_HEADERS.session]: session,
          [SIGNED_HEADERS.count]: String(count),
          [SIGNED_HEADERS.signature]: signature,
        },
      }).then((r) => r.status);
    expect(await send('/shelf/entries', body.replace('"value":1', '"value":2'))).toBe(401);
    expect(await send('/shelf/missing', body)).toBe(401);
    expect(await send('/shelf/entries', body, 2)).toBe(401);
    expect((await one.shelf.since({})).ok && (await one.shelf.since({}))).toEqual({
      ok: true,
      value: { heads: {}, entries: [] },
    });
    expect(await send('/shelf/entries', body)).toBe(200);
    expect(await send('/shelf/entries', body)).toBe(401);
    // a key that is not theirs who ask
    const other = await keyed();
    const stolen = await joinShelf(
      { code: invitation, key: one.key, name: 'Thief' },
      other.sign,
      `${origin}/shelf`,
    );
    expect(stolen.ok).toBe(false);
  });

  test('a desk writes its own log alone, changes nothing of others, invites and shuts out only as a steward', async () => {
    const one = await joinedDesk(origin, invitation, 'One');
    const code = await one.shelf.invite();
    if (!code.ok) throw new Error(code.error.code);
    const two = await joinedDesk(origin, code.value, 'Two');
    await expect(joinedDesk(origin, code.value, 'Three')).rejects.toThrow('code_used');
    const refused = (r: { ok: boolean; error?: unknown }) => JSON.stringify(r);
    expect(refused(await two.shelf.append(nextEntry(one.desk.id, undefined, [fact('x')])))).toContain('log');
    expect(refused(await two.shelf.invite())).toContain('not_steward');
    expect(refused(await two.shelf.change(one.desk.id, { out: true }))).toContain('not_steward');
    expect(refused(await one.shelf.change(one.desk.id, { out: true }))).toContain('wrong');
    // practice never goes there, whoever sends it; nor a file under another's hash
    const practice = nextEntry(two.desk.id, undefined, [fact('p', 1, { case: 'practice-1' })]);
    expect(refused(await two.shelf.append(practice))).toContain('practice');
    expect(refused(await two.shelf.putFile('a'.repeat(64), new Uint8Array([1])))).toContain('hash');
    const a = new PlainDesk(one.desk.id);
    a.facts.set('f1', fact('f1'));
    expect((await exchange(a, one.shelf)).ok).toBe(true);
    const forged = nextEntry(two.desk.id, undefined, [fact('f1', 2)]);
    expect(await two.shelf.append(forged)).toEqual({ ok: false, error: { code: 'other_content', id: 'f1' } });
    expect((await one.shelf.change(two.desk.id, { out: true })).ok).toBe(true);
    expect(await two.shelf.since({})).toEqual({ ok: false, error: { code: 'shut_out' } });
    expect((await one.shelf.change(two.desk.id, { out: false, name: 'Bench' })).ok).toBe(true);
    const came = await two.shelf.since({});
    expect(came.ok && came.value.entries.flatMap((e) => e.facts)).toEqual([fact('f1')]);
    const desks = await two.shelf.desks();
    expect(desks.ok && new Set(desks.value.desks.map((d) => `${d.name} ${d.steward} ${d.out}`))).toEqual(
      new Set(['One true false', 'Bench false false']),
    );
  });
});

test('a server that is killed in the middle, again and again, loses nothing that it said it has', async () => {
  const engine = await embeddedEngine();
  let child: ChildProcess | undefined;
  const begin = (): Promise<string> =>
    new Promise((ready, fail) => {
      const args = [
        'dist/node/server-main.mjs',
        '--port',
        String(port),
        '--shelf',
        '--folder',
        engine.folder,
      ];
      child = spawn(process.execPath, args, { stdio: ['ignore', 'pipe', 'pipe'] });
      let said = '';
      child.stdout?.on('data', (chunk: Buffer) => {
        said += chunk.toString();
        if (said.includes('The shelf is in')) ready(said);
      });
      child.once('exit', () => fail(new Error(said)));
    });
  const kill = () => new Promise((gone) => (child?.once('exit', gone), child?.kill('SIGKILL')));
  const kills = Number(process.env['SHELF_KILLS'] ?? 4);
  test.setTimeout(120_000 + kills * 20_000);
  let said = await begin();
  for (let i = 0; i < 50 && !said.includes('invitation='); i++)
    said += await new Promise<string>((d) => child?.stdout?.once('data', (c: Buffer) => d(c.toString())));
  const one = await joinedDesk(origin, /invitation=(\w+)/.exec(said)![1]!, 'One');
  const desk = new PlainDesk(one.desk.id);
  let n = 0;
  for (let k = 0; k < kills; k++) {
    for (let i = 0; i < 300; i++) desk.facts.set(`f${++n}`, fact(`f${n}`, n));
    // entries follow each other while the server goes down under them
    const going = exchange(desk, one.shelf, 7);
    await expect
      .poll(async () => (await desk.waiting(1000)).length < 250 || (await going).ok, { intervals: [5] })
      .toBe(true);
    await kill();
    await going.catch(() => undefined);
    await begin();
  }
  expect((await exchange(desk, one.shelf)).ok).toBe(true);
  const other = new PlainDesk('log-reader');
  expect((await exchange(readOnly(other), one.shelf)).ok).toBe(true);
  expect(factsDigest([...other.facts.values()])).toBe(factsDigest([...desk.facts.values()]));
  await kill();
  await engine.end();
});
