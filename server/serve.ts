import { createServer, type Server } from 'node:http';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import compression from 'compression';
import express, { type ErrorRequestHandler, type Express, type Request, type Response } from 'express';
import helmet from 'helmet';
import { captures } from './captures';
import { instruments } from './instruments';

export type ServeOptions = { root: string; port: number; host: string; demo: boolean };
export type ServeError =
  | { code: 'not_built'; root: string }
  | { code: 'port_taken'; port: number }
  | { code: 'no_access'; port: number }
  | { code: 'other'; detail: string };

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
function isOwnHost(header: string | undefined, listensAt: string): boolean {
  const name = /^(\[[0-9a-f:.]+\]|[^:]+)(?::\d+)?$/i.exec(header ?? '')?.[1]?.toLowerCase();
  if (name === undefined) return false;
  return (
    name === 'localhost' ||
    name === listensAt.toLowerCase() ||
    name.startsWith('[') ||
    /^\d+(?:\.\d+){3}$/.test(name)
  );
}

/** The built app with safe headers: no inline script, nothing from elsewhere. */
function makeApp(options: Pick<ServeOptions, 'root' | 'demo' | 'host'>): Express {
  const app = express();
  app.set('env', 'production');
  app.disable('x-powered-by');
  app.use((req, res, next) => {
    if (isOwnHost(req.headers.host, options.host)) next();
    else res.status(421).type('text/plain').send('This server does not answer under that name.');
  });
  app.use((req, res, next) => {
    if (PART.test(req.path) && !req.path.includes('worker')) partHeaders(req, res, next);
    else documentHeaders(req, res, next);
  });
  app.use(compression());
  app.get('/health', (_req, res) => void res.json({ ok: true }));
  app.get(
    '/setup.json',
    (_req, res) => void res.set('Cache-Control', 'no-store').json({ demo: options.demo }),
  );
  app.use('/instruments', instruments());
  app.use('/captures', captures());
  app.use(
    express.static(options.root, {
      index: false,
      setHeaders: (res, path) => {
        const hashed = /-[A-Z0-9]{8}\.(js|css|woff2?)$/.test(path);
        res.setHeader('Cache-Control', hashed ? 'public, max-age=31536000, immutable' : 'no-cache');
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
export function stop(server: Server, graceMs = 5000): Promise<void> {
  return new Promise((done) => {
    const last = setTimeout(() => server.closeAllConnections(), graceMs);
    server.close(() => {
      clearTimeout(last);
      done();
    });
    server.closeIdleConnections();
  });
}

/** Starts listening; a port in use or forbidden is a value, not a crash. */
export function serve(
  options: ServeOptions,
): Promise<{ ok: true; server: Server } | { ok: false; error: ServeError }> {
  if (!existsSync(join(options.root, 'index.html')))
    return Promise.resolve({ ok: false, error: { code: 'not_built', root: options.root } });
  return new Promise((resolve) => {
    const server = createServer(makeApp(options));
    server.once('error', (e: NodeJS.ErrnoException) => {
      if (e.code === 'EADDRINUSE') resolve({ ok: false, error: { code: 'port_taken', port: options.port } });
      else if (e.code === 'EACCES') resolve({ ok: false, error: { code: 'no_access', port: options.port } });
      else resolve({ ok: false, error: { code: 'other', detail: e.message } });
    });
    server.listen(options.port, options.host, () => resolve({ ok: true, server }));
  });
}
