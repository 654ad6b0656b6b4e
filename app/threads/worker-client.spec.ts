import { Subject } from 'rxjs';
import { resultOf, WorkerClient, serveJobs, type Thread } from './worker-client';

type Sums = {
  add: { input: number[]; progress: number; output: number };
  wait: { input: undefined; progress: never; output: string };
  fail: { input: undefined; progress: never; output: never };
};

/** A thread in this one: both ends of a message channel, so that everything passes as it would between two. */
function threadOf(): { thread: Thread; ended: () => boolean; asked: unknown[]; release: () => void } {
  const { port1, port2 } = new MessageChannel();
  let ended = false;
  let release = () => undefined as void;
  const asked: unknown[] = [];
  port2.start();
  port2.addEventListener('message', (e) => asked.push(e.data));
  serveJobs<Sums>(
    {
      add: (xs, line) => {
        let sum = 0;
        for (const x of xs) line.progress((sum += x));
        return Promise.resolve(sum);
      },
      wait: (_, line) =>
        new Promise((done) => (release = () => done(line.cancelled() ? 'was told' : 'was not told'))),
      fail: () => Promise.reject(new Error('no such sum')),
    },
    port2,
  );
  const thread: Thread = {
    postMessage: (m: unknown) => port1.postMessage(m),
    terminate: () => {
      ended = true;
      port1.close();
    },
    onmessage: null,
    onerror: null,
  };
  port1.onmessage = (e) => (thread.onmessage as ((e: MessageEvent) => void) | null)?.(e);
  return { thread, ended: () => ended, asked, release: () => release() };
}

describe('the client to a thread', () => {
  it('answers each question with its own answer, and tells how far it is', async () => {
    const far: number[] = [];
    const client = new WorkerClient<Sums>(() => threadOf().thread);
    const [a, b] = await Promise.all([
      resultOf(client.job('add', [1, 2, 3]), { tell: (n) => far.push(n) }),
      resultOf(client.job('add', [10])),
    ]);
    expect([a, b]).toEqual([
      { ok: true, value: 6 },
      { ok: true, value: 10 },
    ]);
    expect(far).toEqual([1, 3, 6]);
    client.dispose();
  });

  it('gives errors as values: what fails there, a job that nobody knows, what cannot be sent', async () => {
    const client = new WorkerClient<Sums>(() => threadOf().thread);
    expect(await resultOf(client.job('fail', undefined))).toEqual({
      ok: false,
      error: { code: 'failed', detail: 'no such sum' },
    });
    for (const name of ['none', 'constructor', '__proto__'])
      expect(await resultOf(client.job(name as 'wait', undefined))).toEqual(
        jasmine.objectContaining({ ok: false, error: jasmine.objectContaining({ code: 'failed' }) }),
      );
    const unsendable = await resultOf(client.job('add', [(() => 1) as never]));
    expect(unsendable.ok).toBeFalse();
    expect((await resultOf(client.job('add', [4]))).ok).toBeTrue();
    client.dispose();
  });

  it('cancels one question at once, tells the thread, and leaves the others', async () => {
    const t = threadOf();
    const client = new WorkerClient<Sums>(() => t.thread);
    const stop = new Subject<void>();
    const waiting = resultOf(client.job('wait', undefined), { stop$: stop });
    const other = resultOf(client.job('add', [5]));
    await other;
    stop.next();
    expect(await waiting).toEqual({ ok: false, error: { code: 'cancelled', detail: '' } });
    expect(await other).toEqual({ ok: true, value: 5 });
    // Nobody listens: nothing is begun, and what is begun by one who leaves is told to stop.
    client.job('add', [1]);
    client.job('wait', undefined).subscribe().unsubscribe();
    await resultOf(client.job('add', [1]));
    expect(t.asked.filter((m) => (m as { cancel?: true }).cancel)).toEqual([
      { id: 1, cancel: true },
      { id: 3, cancel: true },
    ]);
    // an answer that comes too late is nobody's
    t.release();
    await resultOf(client.job('add', [2]));
    client.dispose();
  });

  it('ends what is being asked when the thread is put away or dies, and starts a new one at the next question', async () => {
    const threads: ReturnType<typeof threadOf>[] = [];
    const client = new WorkerClient<Sums>(() => {
      threads.push(threadOf());
      return threads.at(-1)!.thread;
    });
    const first = resultOf(client.job('wait', undefined));
    client.dispose();
    expect(await first).toEqual({ ok: false, error: { code: 'ended', detail: 'put away' } });
    expect(threads[0]!.ended()).toBeTrue();
    const second = resultOf(client.job('wait', undefined));
    (threads[1]!.thread.onerror as (e: { message: string }) => void)({ message: 'out of memory' });
    expect(await second).toEqual({ ok: false, error: { code: 'ended', detail: 'out of memory' } });
    expect(await resultOf(client.job('add', [7]))).toEqual({ ok: true, value: 7 });
    expect(threads.length).toBe(3);
    client.dispose();
  });
});
