import {
  joinText,
  type Presence,
  PresenceSchema,
  RefusalSchema,
  SessionSchema,
  ShelfDeskSchema,
  type ShelvedDesk,
} from '@core/shelf/protocol';
import type { ShelfError } from '@core/shelf/exchange';
import { err, ok, type Result } from '@core/quantity/result';

/** Where the server that this page came from keeps its shelf. */
export const SHELF_BASE = '/shelf';
/** Who signs, and how: the secret itself stays where it is. */
export type ShelfSigner = { desk: string; sign(text: string): Promise<string | undefined> };

/** What a listening desk hears. */
export type ShelfSays = { is: 'new' } | { is: 'here'; here: readonly Presence[] };

/** The server knows the session no more, or never did. */
export type NoSession = { code: 'session' };

/** As whoever asked is told. */
export const plainError = (e: ShelfError | NoSession): ShelfError =>
  e.code === 'session' ? { code: 'away', detail: 'session' } : e;

/** Opens a session for a desk; what is asked within it is signed. */
export async function openSession(base: string, desk: string): Promise<Result<string, ShelfError>> {
  const came = await fetched(`${base}/session`, { method: 'POST', body: JSON.stringify({ desk }) });
  if (!came.ok) return err(plainError(came.error));
  const read = SessionSchema.safeParse(await came.value.json().catch(() => undefined));
  return read.success ? ok(read.data.session) : err({ code: 'refused', detail: 'session' });
}

/** What a request comes to; a refusal is a value. */
export async function fetched(
  path: string,
  init: RequestInit,
): Promise<Result<Response, ShelfError | NoSession>> {
  let answer: Response;
  try {
    answer = await fetch(path, init);
  } catch (e) {
    return err({ code: 'away', detail: e instanceof Error ? e.message : String(e) });
  }
  if (answer.ok) return ok(answer);
  const why = RefusalSchema.safeParse(await answer.json().catch(() => undefined)).data;
  switch (why?.code) {
    case 'session':
      return err({ code: 'session' });
    case 'shut_out':
    case 'unknown':
      return err(
        path.endsWith('/session') || why.code === 'shut_out'
          ? { code: 'shut_out' }
          : { code: 'refused', detail: why.detail },
      );
    case 'behind':
      return err({ code: 'behind' });
    case 'other_content':
      return err({ code: 'other_content', id: why.detail });
    case undefined:
      return err(
        answer.status >= 500 || answer.status === 404
          ? { code: 'away', detail: String(answer.status) }
          : { code: 'refused', detail: String(answer.status) },
      );
    case 'too_much':
      return err({ code: 'away', detail: why.detail });
    default:
      return err({ code: 'refused', detail: [why?.code, why?.detail].filter(Boolean).join(' ') });
  }
}

/** Joins a shelf by an invitation. @param sign signs with this desk's key */
export async function joinShelf(
  ask: { code: string; key: string; name: string },
  sign: ShelfSigner['sign'],
  base = SHELF_BASE,
): Promise<Result<ShelvedDesk, ShelfError>> {
  const signature = await sign(joinText(ask));
  if (signature === undefined) return err({ code: 'refused', detail: 'this desk has no key' });
  const came = await fetched(`${base}/join`, { method: 'POST', body: JSON.stringify({ ...ask, signature }) });
  if (!came.ok) return err(plainError(came.error));
  const read = ShelfDeskSchema.safeParse(await came.value.json().catch(() => undefined));
  return read.success ? ok(read.data) : err({ code: 'refused', detail: 'join' });
}

/** Whether the server that this page came from keeps a shelf. */
export async function hasShelf(): Promise<boolean> {
  return (await fetched(SHELF_BASE, { cache: 'no-store' })).ok;
}

/** Server-sent events of an answer (WHATWG HTML, 9.2), those of ours. */
export async function* eventsIn(answer: Response): AsyncGenerator<ShelfSays> {
  const reader = answer.body?.pipeThrough(new TextDecoderStream()).getReader();
  let text = '';
  for (;;) {
    const piece = await reader?.read();
    if (!piece || piece.done) return;
    text += piece.value;
    const whole = text.split('\n\n');
    text = whole.pop() ?? '';
    for (const event of whole) {
      const kind = /^event: (\w+)$/m.exec(event)?.[1];
      const data = /^data: (.*)$/m.exec(event)?.[1] ?? '';
      if (kind === 'new') yield { is: 'new' };
      const here = kind === 'here' ? PresenceSchema.safeParse(JSON.parse(data)).data : undefined;
      if (here) yield { is: 'here', here: here.here };
    }
  }
}
