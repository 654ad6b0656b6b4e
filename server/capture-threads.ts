import { parentPort, Worker } from 'node:worker_threads';
import { fileURLToPath } from 'node:url';
import { boxCapture } from '@core/simulate/capture-box';

type Ask = Parameters<typeof boxCapture>[0];

/** Captures that are made at once, and that wait for their turn; more are told to come back. */
const AT_ONCE = 1;
const WAITING = 4;

/** A thread of this very program that makes captures: what takes a second of arithmetic holds no page up. */
export const CAPTURE_THREAD = 'captures';
export function serveCaptures(): void {
  parentPort?.on('message', (ask: Ask) => parentPort?.postMessage(boxCapture(ask)));
}

/** Makes captures one after the other in a thread, so many and no more. */
export class CaptureThreads {
  private running = 0;
  private readonly queue: (() => void)[] = [];

  /** A capture, or undefined where too many wait already. */
  async make(ask: Ask): Promise<string | undefined> {
    if (this.running >= AT_ONCE) {
      if (this.queue.length >= WAITING) return undefined;
      await new Promise<void>((go) => this.queue.push(go));
    }
    this.running++;
    try {
      return await inThread(ask);
    } finally {
      this.running--;
      this.queue.shift()?.();
    }
  }
}

function inThread(ask: Ask): Promise<string> {
  return new Promise((resolve, reject) => {
    const thread = new Worker(fileURLToPath(import.meta.url), { workerData: CAPTURE_THREAD });
    const end = () => void thread.terminate();
    thread.once('message', (text: string) => {
      resolve(text);
      end();
    });
    thread.once('error', (e) => {
      reject(e);
      end();
    });
    thread.postMessage(ask);
  });
}
