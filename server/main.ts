import { parseArgs } from 'node:util';
import { isMainThread, workerData } from 'node:worker_threads';
import { resolve } from 'node:path';
import { CAPTURE_THREAD, serveCaptures } from './capture-threads';
import { serve, type ServeError, stop } from './serve';

const SENTENCES: Record<ServeError['code'], (e: ServeError) => string> = {
  not_built: () => 'The app is not built. Run: npm run build',
  port_taken: (e) =>
    `Port ${'port' in e ? e.port : ''} is taken by another program. Close it, or run: npm start -- --port 4180`,
  no_access: (e) =>
    `Port ${'port' in e ? e.port : ''} may not be used by this account. Take one above 1024: npm start -- --port 4180`,
  other: (e) => `The server could not start: ${'detail' in e ? e.detail : ''}`,
};

if (!isMainThread && workerData === CAPTURE_THREAD) serveCaptures();
else await start();

async function start(): Promise<void> {
  const { values } = parseArgs({
    options: {
      port: { type: 'string', default: '4173' },
      host: { type: 'string', default: '127.0.0.1' },
      empty: { type: 'boolean', default: false },
    },
  });
  const port = Number(values.port);
  if (!Number.isInteger(port) || port < 1 || port > 65535) {
    console.error(`--port takes a number from 1 to 65535, not “${values.port}”.`);
    process.exit(1);
  }
  const started = await serve({ root: resolve('dist/app'), port, host: values.host, demo: !values.empty });
  if (!started.ok) {
    console.error(SENTENCES[started.error.code](started.error));
    process.exit(1);
  }
  const shown = values.host === '127.0.0.1' ? 'localhost' : values.host;
  console.log(
    `Hollow Sprocket is at http://${shown}:${port}${values.empty ? ' (started without the demo data)' : ''}. Stop it with Ctrl+C.`,
  );
  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    process.on(signal, () => void stop(started.server).then(() => process.exit(0)));
  }
}
