import { Observable } from 'rxjs';
import type * as z from 'zod';
import type { Fact } from '@core/facts/fact';
import { type Entry, type Heads, readEntry } from '@core/shelf/entry';
import type { Shelf, ShelfError, ShelfNews } from '@core/shelf/exchange';
import {
  DesksSchema,
  IdsSchema,
  InvitationSchema,
  MOST_ASKED,
  type HouseOffer,
  OffersSchema,
  CaseFactsSchema,
  requestText,
  type ShelvedSummary,
  SummariesSchema,
  SIGNED_HEADERS,
  SinceAnswerSchema,
} from '@core/shelf/protocol';
import { err, ok, type Result } from '@core/quantity/result';
import { hashOf } from '../records/hash';
import {
  eventsIn,
  fetched,
  type NoSession,
  openSession,
  plainError,
  SHELF_BASE,
  type ShelfSays,
  type ShelfSigner,
} from './shelf-requests';

const utf8 = new TextEncoder();
type Asked = {
  method: 'GET' | 'POST' | 'PUT';
  path: string;
  body?: BodyInit & (string | Uint8Array<ArrayBuffer>);
  signal?: AbortSignal;
};

/** A shelf that a server keeps: the one that this page came from. */
export class HttpShelf implements Shelf {
  private session: Promise<Result<string, ShelfError>> | undefined;
  private count = 0;
  /** Entries of others that this program cannot read, by their log: a newer one wrote them. */
  readonly unread = new Map<string, string>();

  constructor(
    private readonly signer: ShelfSigner,
    private readonly base = SHELF_BASE,
    /** How an entry is checked. */
    private readonly read = readEntry,
  ) {}

  async since(positions: Heads): Promise<Result<ShelfNews, ShelfError>> {
    const came = await this.ask(SinceAnswerSchema, 'POST', '/since', { positions });
    if (!came.ok) return came;
    const entries: Entry[] = [];
    const stopped = new Set<string>();
    for (const one of came.value.entries) {
      const read = this.read(one);
      if (!read.ok) {
        // of its log nothing more is read; the others go on
        const log = String((one as { log?: unknown } | null)?.log);
        this.unread.set(log, read.error.code);
        stopped.add(log);
      } else if (!stopped.has(read.value.log)) entries.push(read.value);
    }
    return ok({ heads: came.value.heads, entries });
  }

  async append(entry: Entry): Promise<Result<true, ShelfError>> {
    const done = await this.send('POST', '/entries', JSON.stringify(entry));
    return done.ok ? ok(true) : done;
  }

  async missing(ids: readonly string[]): Promise<Result<readonly string[], ShelfError>> {
    return this.missingAt('/missing', ids);
  }

  async missingFiles(hashes: readonly string[]): Promise<Result<readonly string[], ShelfError>> {
    return this.missingAt('/files-missing', hashes);
  }

  async putFile(sha256: string, content: Uint8Array<ArrayBuffer>): Promise<Result<true, ShelfError>> {
    const done = await this.send('PUT', `/files/${sha256}`, content);
    return done.ok ? ok(true) : done;
  }

  async file(sha256: string): Promise<Result<Uint8Array<ArrayBuffer>, ShelfError>> {
    const came = await this.send('GET', `/files/${sha256}`);
    return came.ok ? ok(new Uint8Array(await came.value.arrayBuffer())) : came;
  }

  desks(): Promise<Result<z.infer<typeof DesksSchema>, ShelfError>> {
    return this.ask(DesksSchema, 'GET', '/desks');
  }

  async invite(): Promise<Result<string, ShelfError>> {
    const made = await this.ask(InvitationSchema, 'POST', '/invitations', {});
    return made.ok ? ok(made.value.code) : made;
  }

  async change(desk: string, change: { name?: string; out?: boolean }): Promise<Result<true, ShelfError>> {
    const done = await this.send('PUT', `/desks/${desk}`, JSON.stringify(change));
    return done.ok ? ok(true) : done;
  }

  /** Summaries of all cases on the shelf, the one touched last first, so many after the one named. */
  summaries(after?: ShelvedSummary): Promise<Result<z.infer<typeof SummariesSchema>, ShelfError>> {
    const from = after
      ? `?touched=${encodeURIComponent(after.touched)}&after=${encodeURIComponent(after.case)}`
      : '';
    return this.ask(SummariesSchema, 'GET', `/summaries${from}`);
  }

  summariesOf(ids: readonly string[]): Promise<Result<z.infer<typeof SummariesSchema>, ShelfError>> {
    return this.ask(SummariesSchema, 'POST', '/summaries-of', { ids });
  }

  async putSummaries(summaries: readonly ShelvedSummary[]): Promise<Result<true, ShelfError>> {
    const done = await this.send('PUT', '/summaries', JSON.stringify({ summaries }));
    return done.ok ? ok(true) : done;
  }

  /** All facts of a case. */
  async caseFacts(id: string): Promise<Result<readonly Fact[], ShelfError>> {
    const came = await this.ask(CaseFactsSchema, 'GET', `/cases/${encodeURIComponent(id)}`);
    return came.ok ? ok(came.value.facts) : came;
  }

  /** Puts something of the house on the shelf; its file has to be there. */
  async offer(o: HouseOffer): Promise<Result<true, ShelfError>> {
    const done = await this.send('POST', '/offers', JSON.stringify(o));
    return done.ok ? ok(true) : done;
  }

  offers(): Promise<Result<z.infer<typeof OffersSchema>, ShelfError>> {
    return this.ask(OffersSchema, 'GET', '/offers');
  }

  /** Says in which case this desk is now. */
  async isHere(caseId: string | null): Promise<void> {
    await this.send('POST', '/here', JSON.stringify({ case: caseId }));
  }

  /** What the shelf says as it happens; ends with an error when the line breaks. */
  listen(): Observable<ShelfSays> {
    return new Observable((to) => {
      const cut = new AbortController();
      const run = async () => {
        const line = await this.send('GET', '/news', undefined, cut.signal);
        if (!line.ok) throw new Error(line.error.code);
        for await (const said of eventsIn(line.value)) to.next(said);
        throw new Error('cut');
      };
      run().catch((e: unknown) => to.error(e));
      return () => {
        cut.abort();
      };
    });
  }

  private async missingAt(path: string, ids: readonly string[]): Promise<Result<string[], ShelfError>> {
    const gone: string[] = [];
    for (let i = 0; i < ids.length; i += MOST_ASKED) {
      const came = await this.ask(IdsSchema, 'POST', path, { ids: ids.slice(i, i + MOST_ASKED) });
      if (!came.ok) return came;
      gone.push(...came.value.ids);
    }
    return ok(gone);
  }

  private async ask<T>(
    schema: z.ZodType<T>,
    method: Asked['method'],
    path: string,
    body?: unknown,
  ): Promise<Result<T, ShelfError>> {
    const came = await this.send(method, path, body === undefined ? undefined : JSON.stringify(body));
    if (!came.ok) return came;
    const read = schema.safeParse(await came.value.json().catch(() => undefined));
    return read.success
      ? ok(read.data)
      : err({ code: 'refused', detail: `${path}: ${read.error.issues[0]?.message}` });
  }

  private async send(
    method: Asked['method'],
    path: string,
    body?: Asked['body'],
    signal?: AbortSignal,
  ): Promise<Result<Response, ShelfError>> {
    const asked = {
      method,
      path: this.base + path,
      ...(body === undefined ? {} : { body }),
      ...(signal ? { signal } : {}),
    };
    const first = await this.once(asked);
    if (first.ok || first.error.code !== 'session') return first.ok ? first : err(plainError(first.error));
    // the server was started anew and knows the session no more
    this.session = undefined;
    const second = await this.once(asked);
    return second.ok ? second : err(plainError(second.error));
  }

  private async once({
    method,
    path,
    body,
    signal,
  }: Asked): Promise<Result<Response, ShelfError | NoSession>> {
    this.session ??= openSession(this.base, this.signer.desk);
    const session = await this.session;
    if (!session.ok) {
      this.session = undefined;
      return session;
    }
    const count = ++this.count;
    const bytes = typeof body === 'string' ? utf8.encode(body) : (body ?? new Uint8Array());
    const signed = path.replace(/^https?:\/\/[^/]+/, '');
    const text = requestText({
      session: session.value,
      count,
      method,
      path: signed,
      body: await hashOf(bytes),
    });
    const signature = await this.signer.sign(text);
    if (signature === undefined) return err({ code: 'refused', detail: 'this desk has no key' });
    return fetched(path, {
      method,
      cache: 'no-store',
      headers: {
        [SIGNED_HEADERS.session]: session.value,
        [SIGNED_HEADERS.count]: String(count),
        [SIGNED_HEADERS.signature]: signature,
      },
      ...(body === undefined ? {} : { body }),
      ...(signal ? { signal } : {}),
    });
  }
}
