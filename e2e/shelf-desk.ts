import type { PlainDesk } from '@core/shelf/many-desks.fixture';
import { HttpShelf } from '../app/shelves/http-shelf';
import { joinShelf } from '../app/shelves/shelf-requests';

/** A desk with a key of its own, as a browser has one. */
export async function keyed() {
  const how = { name: 'ECDSA', namedCurve: 'P-256' };
  const pair = await crypto.subtle.generateKey(how, true, ['sign', 'verify']);
  const key = Buffer.from(await crypto.subtle.exportKey('raw', pair.publicKey)).toString('hex');
  const sign = async (text: string) =>
    Buffer.from(
      await crypto.subtle.sign(
        { name: 'ECDSA', hash: 'SHA-256' },
        pair.privateKey,
        new TextEncoder().encode(text),
      ),
    ).toString('hex');
  return { key, sign };
}
/** A desk that joined the shelf of a server, without a browser. */
export async function joinedDesk(origin: string, code: string, name: string) {
  const { key, sign } = await keyed();
  const done = await joinShelf({ code, key, name }, sign, `${origin}/shelf`);
  if (!done.ok) throw new Error(JSON.stringify(done.error));
  const desk = done.value;
  return { desk, key, sign, shelf: new HttpShelf({ desk: desk.id, sign }, `${origin}/shelf`) };
}

/** The desk's side of one that only reads. */
export const readOnly = (d: PlainDesk) => ({
  memory: () => d.memory(),
  waiting: () => Promise.resolve([]),
  take: (...a: Parameters<PlainDesk['take']>) => d.take(...a),
  know: (...a: Parameters<PlainDesk['know']>) => d.know(...a),
  lost: (logs: readonly string[]) => d.lost(logs),
  rechecked: () => d.rechecked(),
  contested: (id: string) => d.contested(id),
});
