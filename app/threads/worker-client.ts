import { type Result, err, ok } from '@core/quantity/result';

/** Why a thread gave no answer. `ended`: it was put away or could not be started. */
export type WorkerError = { code: 'cancelled' | 'ended' | 'failed'; detail: string };

/** What a thread can be asked: by name, what goes in, what it tells on the way, what comes out. */
export type Jobs = Record<string, { input: unknown; progress: unknown; output: unknown }>;
type Ask = { id: number; job: string; input: unknown } | { id: number; cancel: true };
type Reply = { id: number } & ({ progress: unknown } | { output: unknown } | { failed: string });
type Waiting = { tell: (p: unknown) => void; end: (r: Result<unknown, WorkerError>) => void };

/** What the client needs of a worker. */
export type Thread = Pick<Worker, 'postMessage' | 'terminate' | 'onmessage' | 'onerror'>;

/**
 * The one way to talk to a thread. It is started at the first question; every question has an id, may be cancelled, and
 * ends in a value or an error, never in silence.
 */
export class WorkerClient<J extends Jobs> {
  private thread: Thread | undefined;
  private count = 0;
  private readonly waiting = new Map<number, Waiting>();

  constructor(private readonly start: () => Thread) {}

  ask<K extends keyof J & string>(
    job: K,
    input: J[K]['input'],
    { progress, signal }: { progress?: (p: J[K]['progress']) => void; signal?: AbortSignal } = {},
  ): Promise<Result<J[K]['output'], WorkerError>> {
    if (signal?.aborted) return Promise.resolve(err({ code: 'cancelled', detail: '' }));
    const id = ++this.count;
    return new Promise((resolve) => {
      const cancel = () => {
        this.thread?.postMessage({ id, cancel: true } satisfies Ask);
        this.end(id, err({ code: 'cancelled', detail: '' }));
      };
      this.waiting.set(id, {
        tell: (p) => progress?.(p),
        end: (result) => {
          signal?.removeEventListener('abort', cancel);
          resolve(result);
        },
      });
      signal?.addEventListener('abort', cancel);
      try {
        this.opened().postMessage({ id, job, input } satisfies Ask);
      } catch (e) {
        this.end(id, err({ code: 'failed', detail: e instanceof Error ? e.message : String(e) }));
      }
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
    if ('progress' in reply) this.waiting.get(reply.id)?.tell(reply.progress);
    else if ('failed' in reply) this.end(reply.id, err({ code: 'failed', detail: reply.failed }));
    else this.end(reply.id, ok(reply.output));
  }

  private end(id: number, result: Result<unknown, WorkerError>): void {
    const asked = this.waiting.get(id);
    this.waiting.delete(id);
    asked?.end(result);
  }

  private endAll(detail: string): void {
    for (const id of [...this.waiting.keys()]) this.end(id, err({ code: 'ended', detail }));
  }
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
