import { reduce } from '@core/facts/state';
import type { Fact } from '@core/facts/fact';
import { checkSeals, makeSeal, sealedNow } from './seal';
import { keyCode, signaturesOf, signedText } from './signature';

const author = (() => {
  let n = 0;
  return { by: 'T', now: () => new Date(Date.UTC(2026, 0, 1) + ++n).toISOString(), newId: () => `s${++n}` };
})();
const hex = (b: ArrayBuffer): string =>
  [...new Uint8Array(b)].map((x) => x.toString(16).padStart(2, '0')).join('');
const fact: Fact = {
  id: 'a',
  case: 'c: 1',
  key: 'vehicle.odometer',
  value: 48_200,
  how: 'reported',
  by: 'T',
  at: '2026-01-01T00:00:00.000Z',
  seen: 1,
};

/** Signs with the platform's own implementation: a second one than that which verifies. */
async function signer() {
  const pair = await crypto.subtle.generateKey({ name: 'ECDSA', namedCurve: 'P-256' }, false, [
    'sign',
    'verify',
  ]);
  const key = hex(await crypto.subtle.exportKey('raw', pair.publicKey));
  return async (seal: Fact, of: Fact = seal): Promise<Fact> => {
    const bytes = new TextEncoder().encode(signedText(of));
    const signature = hex(
      await crypto.subtle.sign({ name: 'ECDSA', hash: 'SHA-256' }, pair.privateKey, bytes),
    );
    return {
      ...fact,
      id: author.newId(),
      key: 'report.signed',
      how: 'decided',
      value: { is: 'signature', seal: seal.id, key, signature },
    };
  };
}

describe('a signature', () => {
  const sealed = () => {
    const facts = [fact, ...makeSeal(reduce([fact]), fact.case, ['line'], author)];
    return { facts, seal: facts.at(-1)! };
  };

  it('holds for the issue that it was made for and for no other, whoever verifies it', async () => {
    const sign = await signer();
    for (let i = 0; i < 20; i++) {
      const { facts, seal } = sealed();
      const own = await sign(seal);
      const [s] = signaturesOf(reduce([...facts, own]), seal);
      expect(s!.holds).toBeTrue();
      expect(s!.code).toMatch(/^([0-9a-f]{4} ){3}[0-9a-f]{4}$/);
      // that of another issue, and one whose last sign was turned
      const foreign = await sign(seal, { ...seal, value: '0'.repeat(64) });
      const v = own.value as { signature: string };
      const turned = {
        ...own,
        value: { ...v, signature: v.signature.replace(/.$/, (c) => (c === '0' ? '1' : '0')) },
      } as Fact;
      for (const bad of [foreign, turned])
        expect(signaturesOf(reduce([...facts, bad]), seal).map((x) => x.holds)).toEqual([false]);
    }
  });

  it('comes after the seal and takes nothing from it; two desks sign one issue', async () => {
    const { facts, seal } = sealed();
    const [a, b] = [await signer(), await signer()];
    const state = reduce([...facts, await a(seal), await b(seal), await a(seal)]);
    const now = sealedNow(checkSeals(state))!;
    expect(now.signatures.map((s) => s.holds)).toEqual([true, true]);
    expect(new Set(now.signatures.map((s) => s.code)).size).toBe(2);
  });

  it('of a key that is no point of the curve holds for nothing', () => {
    const { facts, seal } = sealed();
    const key = `04${'00'.repeat(63)}01`;
    const bad: Fact = {
      ...fact,
      id: 'x',
      key: 'report.signed',
      value: { is: 'signature', seal: seal.id, key, signature: '11'.repeat(64) },
    };
    expect(signaturesOf(reduce([...facts, bad]), seal)).toEqual([{ key, code: keyCode(key), holds: false }]);
  });
});
