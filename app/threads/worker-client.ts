import { type Result, err, ok } from '@core/quantity/result';
import { firstValueFrom, map, Observable, type Subscriber } from 'rxjs';
import { defaultIfEmpty, filter, takeUntil, tap } from 'rxjs/operators';

/** Why a thread gave no answer. `ended`: it was put away or could not be started. */
export type WorkerError = { code: 'cancelled' | 'ended' | 'failed'; detail: string };

/** What a job says: how far it is, as often as it likes, and at its end what came of it. */
export type JobEvent<P, O> =
  | { is: 'progress'; progress: P }
  | { is: 'result'; result: Result<O, WorkerError> };
/** A job of a thread: begun when it is subscribed to, cancelled when nobody listens any more. */
export type Job<J extends Jobs, K extends keyof J> = Observable<JobEvent<J[K]['progress'], J[K]['output']>>;

/** What a thread can be asked: by name, what goes in, what it tells on the way, what comes out. */
export type Jobs = Record<string, { input: unknown; progress: unknown; output: unknown }>;
type Ask = { id: number; job: string; input: unknown } | { id: number; cancel: true };
type Reply = { id: number } & ({ progress: unknown } | { output: unknown } | { failed: string });
type Waiting = Pick<Subscriber<JobEvent<unknown, unknown>>, 'next' | 'complete'>;

/** What the client needs of a worker. */
export type Thread = Pick<Worker, 'postMessage' | 'terminate' | 'onmessage' | 'onerror'>;

/**
 * The one way to talk to a thread. It is started at the first job that is subscribed to; every job has an id, may be
 * cancelled, and ends in a value or an error, never in silence.
 */
export class WorkerClient<J extends Jobs> {
  private thread: Thread | undefined;
  private count = 0;
  private readonly waiting = new Map<number, Waiting>();

  constructor(private readonly start: () => Thread) {}

  job<K extends keyof J & string>(job: K, input: J[K]['input']): Job<J, K> {
    return new Observable<JobEvent<unknown, unknown>>((out) => {
      const id = ++this.count;
      this.waiting.set(id, out);
      try {
        this.opened().postMessage({ id, job, input } satisfies Ask);
      } catch (e) {
        this.end(id, err({ code: 'failed', detail: e instanceof Error ? e.message : String(e) }));
      }
      return () => {
        if (this.waiting.delete(id)) this.thread?.postMessage({ id, cancel: true } satisfies Ask);
      };
    });
  }

  /** Puts the thread away; what is still being asked ends as `ended`. The next question starts a new one. */
  dispose(): void {
    this.thread?.terminate();
    this.thread = undefined;
    this.endAll('put away');
  }

  private opened(): Thread {
    if (this.thread) return this.thread;
    const thread = this.start();
    this.thread = thread;
    thread.onmessage = (e: MessageEvent<Reply>) => this.hear(e.data);
    thread.onerror = (e) => {
      if (this.thread !== thread) return;
      this.thread = undefined;
      thread.terminate();
      this.endAll(e.message);
    };
    return thread;
  }

  private hear(reply: Reply): void {
    if ('progress' in reply) this.waiting.get(reply.id)?.next({ is: 'progress', progress: reply.progress });
    else if ('failed' in reply) this.end(reply.id, err({ code: 'failed', detail: reply.failed }));
    else this.end(reply.id, ok(reply.output));
  }

  private end(id: number, result: Result<unknown, WorkerError>): void {
    const asked = this.waiting.get(id);
    this.waiting.delete(id);
    asked?.next({ is: 'result', result });
    asked?.complete();
  }

  private endAll(detail: string): void {
    for (const id of [...this.waiting.keys()]) this.end(id, err({ code: 'ended', detail }));
  }
}

/** What comes of a job, for whoever waits for it. @param stop$ when it says anything, the job is cancelled */
export function resultOf<P, O>(
  job$: Observable<JobEvent<P, O>>,
  { tell, stop$ }: { tell?: (progress: P) => void; stop$?: Observable<unknown> } = {},
): Promise<Result<O, WorkerError>> {
  const until$ = stop$ ? job$.pipe(takeUntil(stop$)) : job$;
  return firstValueFrom(
    until$.pipe(
      tap((e) => e.is === 'progress' && tell?.(e.progress)),
      filter((e) => e.is === 'result'),
      map((e) => e.result),
      defaultIfEmpty(err<WorkerError>({ code: 'cancelled', detail: '' })),
    ),
  );
}

/** What a job can say and hear while it runs. */
export type JobChannel<P> = { progress: (p: P) => void; cancelled: () => boolean };
export type Served<J extends Jobs> = {
  [K in keyof J]: (input: J[K]['input'], line: JobChannel<J[K]['progress']>) => Promise<J[K]['output']>;
};

/** The thread's side of the client: answers what is asked. @param port the thread's own messages */
export function serveJobs<J extends Jobs>(
  jobs: Served<J>,
  port: {
    postMessage: (reply: Reply) => void;
    addEventListener: (on: 'message', f: (e: MessageEvent<Ask>) => void) => void;
  },
): void {
  const cancelled = new Set<number>();
  const run = async (id: number, name: string, input: unknown): Promise<void> => {
    try {
      const job = jobs[name as keyof J];
      if (!Object.hasOwn(jobs, name) || !job) throw new Error(`no job is called ${name}`);
      const output = await job(input, {
        progress: (p) => port.postMessage({ id, progress: p }),
        cancelled: () => cancelled.has(id),
      });
      port.postMessage({ id, output });
    } catch (e) {
      port.postMessage({ id, failed: e instanceof Error ? e.message : String(e) });
    } finally {
      cancelled.delete(id);
    }
  };
  port.addEventListener('message', ({ data }) => {
    if ('cancel' in data) cancelled.add(data.id);
    else void run(data.id, data.job, data.input);
  });
}
