import { TestBed } from '@angular/core/testing';
import type { FileRef } from '@core/facts/fact';
import { factsOf } from '@core/facts/read';
import { THING } from '@core/facts/thing';
import type { CaseDesk } from '../data/case-desk';
import { Database } from '../data/database';
import { closeDesk, failWrites, openDesk } from '../testing/demo-desk';
import { Attachments, LARGEST_FILE } from './attachments';
import { Say } from './say';

/** Keeps what was said instead of showing it. */
class Heard {
  readonly refused: string[] = [];

  refuse(words: string): void {
    this.refused.push(words);
  }
}

describe('files attached to a case', () => {
  let desk: CaseDesk;
  let files: Attachments;
  let heard: Heard;
  const filed = (about?: string) =>
    factsOf(desk.current()!.state, THING.file, about).flatMap((f) => f.files ?? []);
  const png = (name: string, content = 'picture') => new File([content], name, { type: 'image/png' });

  beforeEach(async () => {
    heard = new Heard();
    desk = await openDesk(true, [{ provide: Say, useValue: heard }]);
    files = TestBed.inject(Attachments);
    await desk.open('demo-2036');
  });
  afterEach(closeDesk);

  it('stand at what they are of, once in the store however often they come, and come out as they went in', async () => {
    await files.attach([png('front.png'), png('same.png')], 'tensioner');
    await files.attach([png('case.png', 'other')]);
    expect(filed('tensioner').map((f) => f.name)).toEqual(['front.png', 'same.png']);
    expect(filed().map((f) => f.name)).toEqual(['case.png']);
    const [a, b] = filed('tensioner') as [FileRef, FileRef];
    expect(a.hash).toBe(b.hash);
    const digest = await crypto.subtle.digest('SHA-256', new TextEncoder().encode('picture'));
    expect(a.hash).toBe([...new Uint8Array(digest)].map((x) => x.toString(16).padStart(2, '0')).join(''));
    expect(await (await TestBed.inject(Database).open()).count('files')).toBe(2);
    const out = await files.blobOf(a);
    expect([await out!.text(), out!.type]).toEqual(['picture', 'image/png']);
    expect(heard.refused).toEqual([]);
  });

  it('too large is refused by name and size, and the others are attached', async () => {
    const large = png('large.png');
    Object.defineProperty(large, 'size', { value: LARGEST_FILE + 1 });
    await files.attach([large, png('small.png')]);
    expect(filed().map((f) => f.name)).toEqual(['small.png']);
    expect(heard.refused.length).toBe(1);
    expect(heard.refused[0]).toContain('large.png');
    expect(heard.refused[0]).toContain(String(Math.floor(LARGEST_FILE / 1e6)));
  });

  it('that the store refuses are no fact of the case', async () => {
    const mend = failWrites('QuotaExceededError');
    await files.attach([png('lost.png')]);
    mend();
    expect(filed()).toEqual([]);
    expect(heard.refused[0]).toContain('lost.png');
    await files.attach([png('lost.png')]);
    expect(filed().map((f) => f.name)).toEqual(['lost.png']);
  });

  it('of a case that came without them are told to be elsewhere', async () => {
    const ref: FileRef = { hash: 'f'.repeat(64), name: 'there.png', type: 'image/png', bytes: 7 };
    expect(await files.blobOf(ref)).toBeUndefined();
    await files.save(ref);
    expect(heard.refused[0]).toContain('there.png');
  });
});
