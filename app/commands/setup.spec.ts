import { TestBed } from '@angular/core/testing';
import { closeDesk, openDesk } from '../testing/demo-desk';
import { Setup } from './setup';

describe('the opening of the desk', () => {
  beforeEach(() => openDesk(false));
  afterEach(closeDesk);

  it('is refused with a sentence where the browser keeps no keys, and nothing is begun', async () => {
    const fetched = spyOn(globalThis, 'fetch');
    const secure = spyOnProperty(window, 'isSecureContext').and.returnValue(false);
    const setup = TestBed.inject(Setup);
    await setup.start();
    expect([setup.ready(), fetched.calls.count()]).toEqual([false, 0]);
    expect(setup.failure()).toBeTruthy();
    // reached by a safe way it opens
    secure.and.returnValue(true);
    fetched.and.callFake(() => Promise.resolve(new Response('{"demo":false}')));
    await setup.start();
    expect([setup.ready(), setup.failure()]).toEqual([true, undefined]);
  });
});
