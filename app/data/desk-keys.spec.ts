import { TestBed } from '@angular/core/testing';
import { checkSeals } from '@core/claim/seal';
import { reduce } from '@core/facts/state';
import { closeDesk, openDesk } from '../testing/demo-desk';
import { DeskKeys } from './desk-keys';
import { FactRepository } from './fact-repository';

const PHRASE = 'lamp under the sluice';

describe('the key of a desk', () => {
  afterEach(closeDesk);

  it('signs into the case that was sealed, though another was opened meanwhile', async () => {
    const desk = await openDesk();
    const keys = TestBed.inject(DeskKeys);
    await keys.make(undefined);
    await desk.open('demo-2027');
    // a signature takes its time
    const sign = keys.sign.bind(keys);
    spyOn(keys, 'sign').and.callFake(async (seal) => {
      await desk.open('demo-2041');
      return sign(seal);
    });
    expect((await desk.seal()).ok).toBeTrue();
    const repository = TestBed.inject(FactRepository);
    const seals = checkSeals(reduce(await repository.factsOf('demo-2027')));
    expect(seals.at(-1)!.signatures.map((s) => [s.holds, keys.who(s.key)])).toEqual([
      [true, { is: 'this_desk' }],
    ]);
    expect((await repository.factsOf('demo-2041')).some((f) => f.key === 'report.signed')).toBeFalse();
  });

  it('cannot be taken out of the browser; its backup opens with its passphrase, unchanged, and with nothing else', async () => {
    await openDesk(false);
    const keys = TestBed.inject(DeskKeys);
    const made = await keys.make(PHRASE);
    if (!made.ok || !made.value) return fail('no backup');
    const first = keys.own()!;
    await expectAsync(crypto.subtle.exportKey('pkcs8', first.secret)).toBeRejected();
    await keys.make(undefined);
    // an issue of before is still this desk's
    expect(keys.own()!.key).not.toBe(first.key);
    expect(keys.who(first.key)).toEqual({ is: 'this_desk' });
    const code = async (content: object, phrase?: string) => {
      const read = await keys.take(JSON.stringify(content), phrase);
      return read.ok ? 'taken' : read.error.code;
    };
    expect(await code(made.value)).toBe('passphrase_wanted');
    expect(await code(made.value, `${PHRASE}!`)).toBe('wrong_passphrase');
    // whose key it is cannot be changed around what is hidden
    expect(await code({ ...made.value, key: keys.own()!.key }, PHRASE)).toBe('wrong_passphrase');
    expect(await code(made.value, PHRASE)).toBe('taken');
    expect(keys.own()!.key).toBe(first.key);
  });
});
