import { generateKeyPairSync, sign } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { fileURLToPath } from 'node:url';
import { parentPort, Worker } from 'node:worker_threads';
import { HttpShelf } from '../app/shelves/http-shelf';
import { joinShelf } from '../app/shelves/shelf-requests';
import type { Fact } from '@core/facts/fact';
import { readEntry } from '@core/shelf/entry';
import { exchange, putThere } from '@core/shelf/exchange';
import { PlainDesk } from '@core/shelf/many-desks.fixture';
import { serve, stop } from '../server/serve';
import { quantile, type Row } from './measure';

const PORT = 4312;
/** Desks that file at once, filings a second of each, and for how long, s; before that so long without counting. */
const DESKS = Number(process.env['SHELF_DESKS'] ?? 50);
const A_SECOND = 5;
const SECONDS = 10;
const WARM = 4;

type Asked = { codes: readonly string[]; base: string };
type Told = { late: number[]; filed: number };

const checked = new Map<string, ReturnType<typeof readEntry>>();
/** Each entry is checked once: fifty desks have fifty machines for that, and not one thread. */
function readOnce(one: unknown): ReturnType<typeof readEntry> {
  const hash = String((one as { hash?: unknown } | null)?.hash);
  const read = checked.get(hash) ?? readEntry(one);
  checked.set(hash, read);
  return read;
}

/** A desk with a key of its own, signed by Node's own code. */
async function benchDesk(code: string, base: string) {
  const { publicKey, privateKey } = generateKeyPairSync('ec', { namedCurve: 'P-256' });
  const { x, y } = publicKey.export({ format: 'jwk' });
  const hex = (part: string | undefined) => Buffer.from(part ?? '', 'base64url').toString('hex');
  const signs = (text: string) =>
    Promise.resolve(
      sign('sha256', Buffer.from(text), { key: privateKey, dsaEncoding: 'ieee-p1363' }).toString('hex'),
    );
  const joined = await joinShelf({ code, key: `04${hex(x)}${hex(y)}`, name: 'Bench' }, signs, base);
  if (!joined.ok) throw new Error(JSON.stringify(joined.error));
  return {
    id: joined.value.id,
    shelf: new HttpShelf({ desk: joined.value.id, sign: signs }, base, readOnce),
  };
}

/** The machine's clock, the same in every thread, ms. */
const now = () => performance.timeOrigin + performance.now();

/** A desk at work: it files, and reads what the others filed; each filing carries the time of it. */
function atWork(
  { id, shelf }: Awaited<ReturnType<typeof benchDesk>>,
  at: number,
  told: Told,
  counts: () => boolean,
) {
  const own = new PlainDesk(id);
  const take = own.take.bind(own);
  own.take = (facts, positions) => {
    const came = now();
    for (const f of facts)
      if (f.by !== id && typeof f.value === 'number' && f.value > 0) told.late.push(came - f.value);
    // a desk has a database for what came; this one only notes how far it read
    return take([], positions);
  };
  let [running, made] = [false, 0];
  let again: 'no' | 'put' | 'all' = 'no';
  const kick = async (what: 'put' | 'all') => {
    if (again !== 'all') again = what;
    if (running) return;
    running = true;
    for (let now = takeTurn(); now !== 'no'; now = takeTurn())
      await (now === 'all' ? exchange(own, shelf) : putThere(own, shelf));
    running = false;
  };
  const takeTurn = () => {
    const now = again;
    again = 'no';
    return now;
  };
  const heard = shelf.listen().subscribe({ next: () => void kick('all'), error: () => undefined });
  const file = () => {
    const fact: Fact = {
      id: `${id}-${++made}`,
      case: `case-of-${id}`,
      key: 'vehicle.distance',
      // what does not count yet says so by its sign
      value: counts() ? now() : -now(),
      how: 'reported',
      by: id,
      at: '2026-12-01T08:00:00.000Z',
      seen: 1,
    };
    own.facts.set(fact.id, fact);
    if (counts()) told.filed++;
    void kick('put');
  };
  // desks do not file in step
  let timer: NodeJS.Timeout | undefined;
  const start = setTimeout(() => (timer = setInterval(file, 1000 / A_SECOND)), at);
  return () => {
    clearTimeout(start);
    clearInterval(timer);
    heard.unsubscribe();
  };
}

/** A thread with many desks: none of them runs on the server's. */
export const NEWS_THREAD = 'shelf-news';
export function serveDesks(): void {
  parentPort?.once('message', (asked: Asked) => void manyDesks(asked));
}
async function manyDesks({ codes, base }: Asked): Promise<void> {
  const told: Told = { late: [], filed: 0 };
  const desks: Awaited<ReturnType<typeof benchDesk>>[] = [];
  for (const code of codes) desks.push(await benchDesk(code, base));
  parentPort?.postMessage('ready');
  parentPort?.once('message', () => {
    let counting = false;
    const ends = desks.map((d, i) => atWork(d, (i * 1000) / A_SECOND / desks.length, told, () => counting));
    setTimeout(() => (counting = true), WARM * 1000);
    // what was filed last has to arrive too, or to be counted as missing
    setTimeout(() => (counting = false), (WARM + SECONDS) * 1000);
    setTimeout(
      () => {
        for (const end of ends) end();
        parentPort?.postMessage(told);
      },
      (WARM + SECONDS + 2) * 1000,
    );
  });
}

/** How long a filed fact takes to every other desk, with all of them filing. */
export async function newsRow(root: string): Promise<Row> {
  const folder = mkdtempSync(join(tmpdir(), 'hs-bench-'));
  const started = await serve({
    root,
    port: PORT,
    host: '127.0.0.1',
    demo: false,
    shelf: { folder, now: () => '2026-12-01T08:00:00.000Z' },
  });
  if (!started.ok) throw new Error(started.error.code);
  const base = `http://127.0.0.1:${PORT}/shelf`;
  const first = await benchDesk(started.invitation ?? '', base);
  const codes: string[] = [];
  while (codes.length < DESKS) {
    const code = await first.shelf.invite();
    if (!code.ok) throw new Error(code.error.code);
    codes.push(code.value);
  }
  const thread = new Worker(fileURLToPath(import.meta.url), { workerData: NEWS_THREAD });
  const said = () =>
    new Promise<unknown>((tell, fail) => {
      thread.once('message', tell);
      thread.once('error', fail);
    });
  thread.postMessage({ codes, base } satisfies Asked);
  await said();
  const busy = process.cpuUsage();
  const idle = performance.eventLoopUtilization();
  thread.postMessage('go');
  const { late, filed } = (await said()) as Told;
  const used = process.cpuUsage(busy);
  const own = performance.eventLoopUtilization(idle).utilization;
  await thread.terminate();
  await stop(started, 0);
  rmSync(folder, { recursive: true, force: true });
  const cores = (used.user + used.system) / 1e6 / (WARM + SECONDS + 2);
  return {
    name: `a filed fact at another desk, p95 (${DESKS} desks, ${A_SECOND}/s each)`,
    value: `${quantile(late, 0.95).toFixed(0)} ms`,
    target: '1000 ms',
    baseline: `median ${quantile(late, 0.5).toFixed(0)} ms, ${late.length} arrivals of ${filed * (DESKS - 1)}; server's thread busy ${(own * 100).toFixed(0)} %, all of it ${cores.toFixed(1)} cores`,
    ratio: '',
  };
}
