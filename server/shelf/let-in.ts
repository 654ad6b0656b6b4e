import { createPublicKey, type KeyObject, randomBytes, verify } from 'node:crypto';
import { joinText, type ShelfRefusal, requestText, type ShelvedDesk } from '@core/shelf/protocol';
import { err, ok, type Result } from '@core/quantity/result';
import type { DeskTable } from './desk-table';

/** How long a session lasts without being used, and how many there are, ms. */
const IDLE_MS = 12 * 3_600_000;
const MOST_SESSIONS = 2000;
/** Counts of a session that may come out of their order. */
const WINDOW = 512;
/** Requests of one desk in a second, over a while, and at once. */
const PER_S = 100;
const AT_ONCE = 400;

type Session = { desk: string; key: KeyObject; used: number; last: number; seen: Set<number> };
type Pace = { left: number; at: number };

export type Signed = {
  session: string;
  count: number;
  method: string;
  path: string;
  body: string;
  signature: string;
};

const keyOf = (raw: string): KeyObject => {
  const b64 = (hex: string) => Buffer.from(hex, 'hex').toString('base64url');
  return createPublicKey({
    key: { kty: 'EC', crv: 'P-256', x: b64(raw.slice(2, 66)), y: b64(raw.slice(66)) },
    format: 'jwk',
  });
};
const holds = (text: string, key: KeyObject, signature: string): boolean =>
  /^[0-9a-f]{128}$/.test(signature) &&
  verify('sha256', Buffer.from(text), { key, dsaEncoding: 'ieee-p1363' }, Buffer.from(signature, 'hex'));

/** Whether a desk may join: the key is theirs who ask. False for what is no key as well. */
export function ownsKey(ask: { code: string; key: string; signature: string }): boolean {
  try {
    return holds(joinText(ask), keyOf(ask.key), ask.signature);
  } catch {
    return false;
  }
}

/** Sessions of desks: each request is signed, is taken once, and comes from a desk that is not shut out. */
export class LetIn {
  private readonly sessions = new Map<string, Session>();
  private readonly paces = new Map<string, Pace>();

  constructor(
    private readonly desks: DeskTable,
    private readonly clock: () => number = () => performance.now(),
  ) {}

  /** Opens a session for a desk; what is asked within it has to be signed, so that this needs no proof. */
  async open(id: string): Promise<Result<string, ShelfRefusal>> {
    const desk = await this.desks.desk(id);
    if (!desk) return err({ code: 'unknown', detail: '' });
    if (desk.out) return err({ code: 'shut_out', detail: desk.name });
    this.tidy();
    const session = randomBytes(20).toString('hex');
    this.sessions.set(session, {
      desk: id,
      key: keyOf(desk.key),
      used: this.clock(),
      last: 0,
      seen: new Set(),
    });
    return ok(session);
  }

  /** The desk that signed a request, or why it is not answered. */
  async check(r: Signed): Promise<Result<ShelvedDesk, ShelfRefusal>> {
    const s = this.sessions.get(r.session);
    if (!s) return err({ code: 'session', detail: '' });
    if (!Number.isSafeInteger(r.count) || r.count < 1 || r.count <= s.last - WINDOW || s.seen.has(r.count))
      return err({ code: 'session', detail: 'count' });
    if (!holds(requestText(r), s.key, r.signature)) return err({ code: 'session', detail: 'signature' });
    s.seen.add(r.count);
    s.last = Math.max(s.last, r.count);
    for (const n of s.seen) if (n <= s.last - WINDOW) s.seen.delete(n);
    s.used = this.clock();
    if (!this.hasPace(s.desk)) return err({ code: 'too_much', detail: 'requests' });
    const desk = await this.desks.desk(s.desk);
    if (!desk || desk.out) {
      this.sessions.delete(r.session);
      return err({ code: 'shut_out', detail: desk?.name ?? '' });
    }
    return ok(desk);
  }

  private hasPace(desk: string): boolean {
    const now = this.clock();
    const before = this.paces.get(desk) ?? { left: AT_ONCE, at: now };
    const left = Math.min(AT_ONCE, before.left + ((now - before.at) / 1000) * PER_S);
    this.paces.set(desk, { left: Math.max(0, left - 1), at: now });
    return left >= 1;
  }

  private tidy(): void {
    const now = this.clock();
    for (const [id, s] of this.sessions) if (now - s.used > IDLE_MS) this.sessions.delete(id);
    if (this.sessions.size < MOST_SESSIONS) return;
    // whoever opens sessions without a key to use them pushes out their like, and nobody at work
    const [oldest] = this.sessions.keys();
    const unused = [...this.sessions].find(([, s]) => s.seen.size === 0)?.[0] ?? oldest;
    if (unused !== undefined) this.sessions.delete(unused);
  }
}
