import { createServer, type Server } from 'node:http';
import { createServer as createSafeServer } from 'node:https';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import compression from 'compression';
import express, { type ErrorRequestHandler, type Express, type Request, type Response } from 'express';
import pressed from 'express-static-gzip';
import helmet from 'helmet';
import { captures } from './captures';
import { instruments } from './instruments';
import { shelfRoutes } from './shelf/routes';
import { KeptShelf, type ShelfOptions } from './shelf/shelf';

export type ServeOptions = {
  root: string;
  port: number;
  host: string;
  demo: boolean;
  /** A further name under which this server is asked. */
  name?: string | undefined;
  /** Certificate and key, PEM: what goes over the network is closed to others. */
  tls?: { cert: string; key: string } | undefined;
  /** Several desks meet here. */
  shelf?: ShelfOptions | undefined;
};
export type ServeError =
  | { code: 'not_built'; root: string }
  | { code: 'port_taken'; port: number }
  | { code: 'no_access'; port: number }
  | { code: 'no_shelf'; detail: string }
  | { code: 'other'; detail: string };

/** A server that listens, and the shelf that it keeps. */
export type Serving = { server: Server; shelf?: KeptShelf | undefined };

/** Same nonce in every build: a nonce per request would break any cached page, and nothing here is user content. */
const NONCE = "'nonce-hollow-sprocket-styles'";

/** For whatever a browser may open as a page or run as a worker of its own. */
const documentHeaders = helmet({
  strictTransportSecurity: false,
  contentSecurityPolicy: {
    useDefaults: false,
    directives: {
      defaultSrc: ["'self'"],
      baseUri: ["'self'"],
      objectSrc: ["'none'"],
      frameAncestors: ["'none'"],
      formAction: ["'self'"],
      scriptSrc: ["'self'"],
      scriptSrcAttr: ["'none'"],
      workerSrc: ["'self'"],
      connectSrc: ["'self'"],
      imgSrc: ["'self'", 'data:', 'blob:'],
      fontSrc: ["'self'", 'data:'],
      styleSrc: ["'self'", NONCE],
      styleSrcAttr: ["'unsafe-inline'"],
      requireTrustedTypesFor: ["'script'"],
      trustedTypes: ['angular', 'angular#bundler', 'default'],
    },
  },
});

/** Parts of a page: the page's own policy governs them, so they carry what matters for them alone, and few bytes. */
const PART = /\.(js|css|woff2?|json)$/;
const partHeaders = helmet({
  contentSecurityPolicy: false,
  crossOriginOpenerPolicy: false,
  originAgentCluster: false,
  referrerPolicy: false,
  strictTransportSecurity: false,
  xDnsPrefetchControl: false,
  xDownloadOptions: false,
  xFrameOptions: false,
  xPermittedCrossDomainPolicies: false,
  xXssProtection: false,
});

/**
 * True for a name under which this server is asked rightly: this machine by its own names, an address in figures, or the
 * name it was told to listen at. A name elsewhere that was pointed at this machine is none: a page from there could read
 * what is served here.
 */
function isOwnHost(header: string | undefined, listensAt: string, named = listensAt): boolean {
  const name = /^(\[[0-9a-f:.]+\]|[^:]+)(?::\d+)?$/i.exec(header ?? '')?.[1]?.toLowerCase();
  if (name === undefined) return false;
  return (
    name === 'localhost' ||
    name === listensAt.toLowerCase() ||
    name === named.toLowerCase() ||
    name.startsWith('[') ||
    /^\d+(?:\.\d+){3}$/.test(name)
  );
}

/** The built app with safe headers: no inline script, nothing from elsewhere. */
function makeApp(options: Pick<ServeOptions, 'root' | 'demo' | 'host' | 'name'>, shelf?: KeptShelf): Express {
  const app = express();
  app.set('env', 'production');
  app.disable('x-powered-by');
  app.use((req, res, next) => {
    if (isOwnHost(req.headers.host, options.host, options.name)) next();
    else res.status(421).type('text/plain').send('This server does not answer under that name.');
  });
  app.use((req, res, next) => {
    if (PART.test(req.path) && !req.path.includes('worker')) partHeaders(req, res, next);
    else documentHeaders(req, res, next);
  });
  // answers of the shelf are never kept; files have marks of their own
  app.disable('etag');
  app.use(compression());
  app.get('/health', (_req, res) => void res.json({ ok: true }));
  app.get(
    '/setup.json',
    (_req, res) => void res.set('Cache-Control', 'no-store').json({ demo: options.demo }),
  );
  app.use('/instruments', instruments());
  app.use('/captures', captures());
  if (shelf) app.use('/shelf', shelfRoutes(shelf));
  else app.use('/shelf', (_req, res) => void res.status(404).json({ code: 'unknown', detail: 'no shelf' }));
  app.use(
    // what the build pressed is handed out as it is
    pressed(options.root, {
      enableBrotli: true,
      orderPreference: ['br'],
      index: false,
      serveStatic: {
        setHeaders: (res, path) => {
          const hashed = /-[A-Za-z0-9_-]{8}\.(js|css|woff2?)(\.br)?$/.test(path);
          res.setHeader('Cache-Control', hashed ? 'public, max-age=31536000, immutable' : 'no-cache');
        },
      },
    }),
  );
  app.get('/{*any}', (req, res, next) => {
    if (/\.[a-z0-9]+$/i.test(req.path)) {
      next();
      return;
    }
    res.set('Cache-Control', 'no-cache').sendFile(join(options.root, 'index.html'));
  });
  app.use((_req: Request, res: Response) => void res.status(404).type('text/plain').send('Not found.'));
  app.use(failed);
  return app;
}

/** A request that cannot be answered gets its status and a sentence; what went wrong inside stays inside. */
const failed: ErrorRequestHandler = (e: unknown, _req, res, next) => {
  if (res.headersSent) {
    next(e);
    return;
  }
  const status = typeof e === 'object' && e !== null && 'status' in e ? Number(e.status) : 500;
  const known = status >= 400 && status < 500;
  res
    .status(known ? status : 500)
    .type('text/plain')
    .send(known ? 'This request cannot be understood.' : 'The server could not answer this request.');
};

/** Stops taking requests, lets those under way finish within the time given, then ends the rest. */
export async function stop({ server, shelf }: Serving, graceMs = 5000): Promise<void> {
  shelf?.news.end();
  await new Promise<void>((done) => {
    const last = setTimeout(() => server.closeAllConnections(), graceMs);
    server.close(() => {
      clearTimeout(last);
      done();
    });
    server.closeIdleConnections();
  });
  await shelf?.end();
}

/** Starts listening; a port in use or forbidden is a value, not a crash. `invitation`: for the first desk of a shelf that has none. */
export async function serve(
  options: ServeOptions,
): Promise<({ ok: true; invitation?: string | undefined } & Serving) | { ok: false; error: ServeError }> {
  if (!existsSync(join(options.root, 'index.html')))
    return { ok: false, error: { code: 'not_built', root: options.root } };
  let shelf: KeptShelf | undefined;
  try {
    shelf = options.shelf && (await KeptShelf.open(options.shelf));
  } catch (e) {
    return { ok: false, error: { code: 'no_shelf', detail: e instanceof Error ? e.message : String(e) } };
  }
  const app = makeApp(options, shelf);
  const server = options.tls ? createSafeServer(options.tls, app) : createServer(app);
  const error = await listening(server, options);
  if (error) {
    await shelf?.end();
    return { ok: false, error };
  }
  return { ok: true, server, shelf, invitation: await shelf?.firstInvitation() };
}

function listening(server: Server, { port, host }: ServeOptions): Promise<ServeError | undefined> {
  return new Promise((resolve) => {
    server.once('error', (e: NodeJS.ErrnoException) => {
      if (e.code === 'EADDRINUSE') resolve({ code: 'port_taken', port });
      else if (e.code === 'EACCES') resolve({ code: 'no_access', port });
      else resolve({ code: 'other', detail: e.message });
    });
    server.listen(port, host, () => resolve(undefined));
  });
}
