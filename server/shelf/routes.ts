import { createHash } from 'node:crypto';
import express, {
  type NextFunction,
  type Request,
  type RequestHandler,
  type Response,
  Router,
} from 'express';
import type * as z from 'zod';
import { readEntry } from '@core/shelf/entry';
import {
  DeskChangeSchema,
  HereSchema,
  IdsSchema,
  JoinSchema,
  MOST_BYTES,
  MOST_FILE_BYTES,
  MOST_SUMMARIES,
  OfferSchema,
  type ShelfRefusal,
  SessionAskSchema,
  type ShelvedDesk,
  SIGNED_HEADERS,
  SinceSchema,
  SummariesSchema,
} from '@core/shelf/protocol';
import { ownsKey } from './let-in';
import type { KeptShelf } from './shelf';

const STATUS: Record<ShelfRefusal['code'], number> = {
  session: 401,
  shut_out: 403,
  not_steward: 403,
  code_used: 403,
  unknown: 404,
  behind: 409,
  other_content: 409,
  wrong: 422,
  too_much: 429,
};
/** News that are longer are pressed on their way, characters: for short ones that costs more than it saves. */
const PRESSED = 64_000;
const EMPTY = createHash('sha256').update('').digest('hex');
const HASH = /^[0-9a-f]{64}$/;

function refuse(res: Response, why: ShelfRefusal): void {
  res.status(STATUS[why.code]).set('Cache-Control', 'no-store').json(why);
}
const answer = (res: Response, body: unknown): void => void res.set('Cache-Control', 'no-store').json(body);

/** What was asked, read through its schema; undefined where it was refused, which is said. */
function readBody<T>(schema: z.ZodType<T>, req: Request, res: Response): T | undefined {
  const read = schema.safeParse(bodyIn(req));
  if (read.success) return read.data;
  const at = read.error.issues[0];
  refuse(res, { code: 'wrong', detail: `${at?.path.join('.') ?? ''}: ${at?.message ?? ''}` });
  return undefined;
}
const bytesOf = (req: Request): Buffer | undefined =>
  Buffer.isBuffer(req.body) && req.body.length > 0 ? req.body : undefined;
function bodyIn(req: Request): unknown {
  try {
    return JSON.parse(bytesOf(req)?.toString('utf8') ?? '') as unknown;
  } catch {
    return undefined;
  }
}
const header = (req: Request, name: string): string => String(req.headers[name] ?? '');

/** The desk that signed what is answered. */
const me = (res: Response): ShelvedDesk => (res.locals as { desk: ShelvedDesk }).desk;

/** A shelf over the network: each request signed by the desk that makes it, each body checked before anything is done. */
export function shelfRoutes(shelf: KeptShelf): Router {
  const router = Router();
  // who is not known yet has little to say
  const tiny = express.raw({ type: () => true, limit: 16 * 1024 });
  const small = express.raw({ type: () => true, limit: MOST_BYTES });
  const large = express.raw({ type: () => true, limit: MOST_FILE_BYTES });
  const signed: RequestHandler = (req, res, next) => {
    const body = bytesOf(req);
    const count = Number(header(req, SIGNED_HEADERS.count));
    shelf.letIn
      .check({
        session: header(req, SIGNED_HEADERS.session),
        count,
        method: req.method,
        path: req.originalUrl,
        body: body ? createHash('sha256').update(body).digest('hex') : EMPTY,
        signature: header(req, SIGNED_HEADERS.signature),
      })
      .then((checked) => {
        if (!checked.ok) return refuse(res, checked.error);
        res.locals['desk'] = checked.value;
        next();
      }, next);
  };
  const steward: RequestHandler = (_req, res, next) => {
    if (me(res).steward) next();
    else refuse(res, { code: 'not_steward', detail: '' });
  };
  const asked =
    (job: (req: Request, res: Response) => Promise<void>) =>
    (req: Request, res: Response, next: NextFunction) => {
      job(req, res).catch(next);
    };

  // without a signature: whether there is a shelf, joining, and opening a session
  router.get('/', (_req, res) => answer(res, { format: 'hollow-sprocket-shelf', version: 1 }));
  router.post(
    '/join',
    tiny,
    asked(async (req, res) => {
      const ask = readBody(JoinSchema, req, res);
      if (!ask) return;
      if (!ownsKey(ask)) return refuse(res, { code: 'wrong', detail: 'signature' });
      const joined = await shelf.desks.join(ask.code, ask.key, ask.name);
      if (joined.ok) answer(res, joined.value);
      else refuse(res, joined.error);
    }),
  );
  router.post(
    '/session',
    tiny,
    asked(async (req, res) => {
      const ask = readBody(SessionAskSchema, req, res);
      if (!ask) return;
      const opened = await shelf.letIn.open(ask.desk);
      if (opened.ok) answer(res, { session: opened.value });
      else refuse(res, opened.error);
    }),
  );

  router.put(
    '/files/:sha256',
    large,
    signed,
    asked(async (req, res) => {
      const sha256 = String(req.params['sha256']);
      const content = bytesOf(req) ?? Buffer.alloc(0);
      if (!HASH.test(sha256) || !(await shelf.files.keep(sha256, content)))
        return refuse(res, { code: 'wrong', detail: 'hash' });
      shelf.news.tell();
      answer(res, {});
    }),
  );
  router.use(small, signed);
  router.get(
    '/files/:sha256',
    asked(async (req, res) => {
      const sha256 = String(req.params['sha256']);
      const content = HASH.test(sha256) ? await shelf.files.read(sha256) : undefined;
      if (!content) return refuse(res, { code: 'unknown', detail: '' });
      res.set('Cache-Control', 'no-store').type('application/octet-stream').send(content);
    }),
  );
  router.post(
    '/files-missing',
    asked(async (req, res) => {
      const ask = readBody(IdsSchema, req, res);
      if (!ask) return;
      const gone: string[] = [];
      for (const id of ask.ids) if (!HASH.test(id) || !(await shelf.files.has(id))) gone.push(id);
      answer(res, { ids: gone });
    }),
  );

  router.post(
    '/since',
    asked(async (req, res) => {
      const ask = readBody(SinceSchema, req, res);
      if (!ask) return;
      const { heads, entries } = await shelf.facts.since(ask.positions);
      const said = `{"heads":${JSON.stringify(heads)},"entries":[${entries.join(',')}]}`;
      res
        .set('Cache-Control', said.length < PRESSED ? 'no-store, no-transform' : 'no-store')
        .type('application/json')
        .send(said);
    }),
  );
  router.post(
    '/entries',
    asked(async (req, res) => {
      const entry = readEntry(bodyIn(req));
      if (!entry.ok)
        return refuse(res, {
          code: 'wrong',
          detail: entry.error.code === 'wrong' ? `${entry.error.at}: ${entry.error.why}` : 'hash',
        });
      // nobody writes into the log of another
      if (entry.value.log !== me(res).id) return refuse(res, { code: 'wrong', detail: 'log' });
      const done = await shelf.facts.append(entry.value);
      if (!done.ok) {
        const { error } = done;
        return error.code === 'other_content'
          ? refuse(res, { code: 'other_content', detail: error.id })
          : refuse(res, { code: 'behind', detail: '' });
      }
      shelf.news.tell();
      answer(res, {});
    }),
  );
  router.post(
    '/missing',
    asked(async (req, res) => {
      const ask = readBody(IdsSchema, req, res);
      if (ask) answer(res, { ids: await shelf.facts.missing(ask.ids) });
    }),
  );
  router.get(
    '/cases/:id',
    asked(async (req, res) => {
      const bodies = await shelf.facts.ofCase(String(req.params['id']));
      res
        .set('Cache-Control', 'no-store')
        .type('application/json')
        .send(`{"facts":[${bodies.join(',')}]}`);
    }),
  );
  router.put(
    '/summaries',
    asked(async (req, res) => {
      const ask = readBody(SummariesSchema, req, res);
      if (!ask) return;
      await shelf.facts.keepSummaries(ask.summaries);
      shelf.news.tell();
      answer(res, {});
    }),
  );
  router.post(
    '/summaries-of',
    asked(async (req, res) => {
      const ask = readBody(IdsSchema, req, res);
      if (ask) answer(res, { summaries: await shelf.facts.summariesOf(ask.ids.slice(0, MOST_SUMMARIES)) });
    }),
  );
  router.get(
    '/summaries',
    asked(async (req, res) => {
      const { touched, after } = req.query;
      const from =
        typeof touched === 'string' && typeof after === 'string' ? { touched, case: after } : undefined;
      answer(res, { summaries: await shelf.facts.summaries(MOST_SUMMARIES, from) });
    }),
  );
  router.get('/news', (_req, res) => shelf.news.listen(me(res).id, res));
  router.post('/here', (req, res) => {
    const ask = readBody(HereSchema, req, res);
    if (!ask) return;
    shelf.news.isHere(me(res).id, me(res).name, ask.case);
    answer(res, {});
  });
  router.post(
    '/offers',
    asked(async (req, res) => {
      const offer = readBody(OfferSchema, req, res);
      if (!offer) return;
      if (!(await shelf.files.has(offer.sha256))) return refuse(res, { code: 'unknown', detail: 'file' });
      await shelf.facts.offer(offer, me(res).id);
      shelf.news.tell();
      answer(res, {});
    }),
  );
  router.get(
    '/offers',
    asked(async (_req, res) => answer(res, { offers: await shelf.facts.offers() })),
  );

  router.get(
    '/desks',
    asked(async (_req, res) => answer(res, { desks: await shelf.desks.all(), me: me(res).id })),
  );
  router.post(
    '/invitations',
    steward,
    asked(async (req, res) => {
      const made = await shelf.desks.invite(me(res).id, false);
      if (made.ok) answer(res, { code: made.value });
      else refuse(res, made.error);
    }),
  );
  router.put(
    '/desks/:id',
    asked(async (req, res) => {
      const change = readBody(DeskChangeSchema, req, res);
      const id = String(req.params['id']);
      if (!change) return;
      const ownName = id === me(res).id && change.out === undefined;
      if (!me(res).steward && !ownName) return refuse(res, { code: 'not_steward', detail: '' });
      if (change.out === true && id === me(res).id)
        return refuse(res, { code: 'wrong', detail: 'a desk does not shut itself out' });
      if (!(await shelf.desks.change(id, change))) return refuse(res, { code: 'unknown', detail: id });
      if (change.out === true) shelf.news.shutOut(id);
      shelf.news.tell();
      answer(res, {});
    }),
  );
  return router;
}
