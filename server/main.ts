import { parseArgs } from 'node:util';
import { isMainThread, workerData } from 'node:worker_threads';
import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { CAPTURE_THREAD, serveCaptures } from './capture-threads';
import { serve, type ServeError, stop } from './serve';

const SENTENCES: Record<ServeError['code'], (e: ServeError) => string> = {
  not_built: () => 'The app is not built. Run: npm run build',
  port_taken: (e) =>
    `Port ${'port' in e ? e.port : ''} is taken by another program. Close it, or run: npm start -- --port 4180`,
  no_access: (e) =>
    `Port ${'port' in e ? e.port : ''} may not be used by this account. Take one above 1024: npm start -- --port 4180`,
  no_shelf: (e) =>
    `The shelf could not be opened: ${'detail' in e ? e.detail : ''}. Nothing of it was changed.`,
  other: (e) => `The server could not start: ${'detail' in e ? e.detail : ''}`,
};

/** Addresses of this machine alone. */
const HERE = new Set(['127.0.0.1', 'localhost', '::1']);

if (!isMainThread && workerData === CAPTURE_THREAD) serveCaptures();
else await start();

function fail(sentence: string): never {
  console.error(sentence);
  process.exit(1);
}

function optionsGiven() {
  const text = { type: 'string' } as const;
  const flag = { type: 'boolean', default: false } as const;
  return parseArgs({
    options: {
      port: { ...text, default: '4173' },
      host: { ...text, default: '127.0.0.1' },
      empty: flag,
      name: text,
      shelf: flag,
      folder: { ...text, default: 'shelf' },
      database: text,
      cert: text,
      key: text,
      proxy: flag,
      open: flag,
    },
  }).values;
}

function tlsOf(cert: string | undefined, key: string | undefined): { cert: string; key: string } | undefined {
  if (cert === undefined && key === undefined) return undefined;
  if (cert === undefined || key === undefined) fail('--cert and --key go together: both name a PEM file.');
  try {
    return { cert: readFileSync(cert, 'utf8'), key: readFileSync(key, 'utf8') };
  } catch (e) {
    fail(`The certificate could not be read: ${e instanceof Error ? e.message : String(e)}`);
  }
}

async function start(): Promise<void> {
  const values = optionsGiven();
  const { host } = values;
  const port = Number(values.port);
  if (!Number.isInteger(port) || port < 1 || port > 65535)
    fail(`--port takes a number from 1 to 65535, not “${values.port}”.`);
  const tls = tlsOf(values.cert, values.key);
  if (values.shelf && !HERE.has(host) && !tls && !values.proxy && !values.open)
    fail(
      `With a shelf, ${host} would be listened at without encryption: whoever is on that network could read every case. Give --cert and --key (PEM files), or --proxy where a proxy on this machine encrypts, or --open where you want it all the same. Browsers keep no keys for pages that came so: other machines then cannot join.`,
    );
  const started = await serve({
    root: resolve('dist/app'),
    port,
    host,
    demo: !values.empty,
    name: values.name,
    tls,
    shelf: values.shelf
      ? {
          folder: resolve(values.folder),
          database: values.database,
          now: () => new Date(Date.now()).toISOString(),
        }
      : undefined,
  });
  if (!started.ok) fail(SENTENCES[started.error.code](started.error));
  const shown = values.name ?? (host === '127.0.0.1' ? 'localhost' : host);
  const at = `${tls ? 'https' : 'http'}://${shown}:${port}`;
  console.log(
    `Hollow Sprocket is at ${at}${values.empty ? ' (started without the demo data)' : ''}. Stop it with Ctrl+C.`,
  );
  if (values.shelf)
    console.log(
      `The shelf is in ${values.database === undefined ? resolve(values.folder) : 'the database given'}.`,
    );
  if (started.invitation !== undefined)
    console.log(`Invitation for the first desk, for once: ${at}/together?invitation=${started.invitation}`);
  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    process.on(signal, () => void stop(started).then(() => process.exit(0)));
  }
}
