import { pngBytes } from '../testing/picture-bytes';
import { TestBed } from '@angular/core/testing';
import type { FileRef } from '@core/facts/fact';
import { factsOf } from '@core/facts/read';
import { THING } from '@core/facts/thing';
import type { CaseDesk } from '../data/case-desk';
import { Database } from '../data/database';
import { closeDesk, failWrites, openDesk } from '../testing/demo-desk';
import { Attachments, LARGEST_FILE } from './attachments';
import { Notices } from './notices';

/** Keeps what was said instead of showing it. */
class Heard {
  readonly refused: string[] = [];
  readonly said: string[] = [];

  say(_: string, words: string): void {
    this.said.push(words);
  }

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
  const png = (name: string, content = 'picture') =>
    new File([pngBytes(content)], name, { type: 'image/png' });

  beforeEach(async () => {
    heard = new Heard();
    desk = await openDesk(true, [{ provide: Notices, useValue: heard }]);
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
    const digest = await crypto.subtle.digest('SHA-256', pngBytes('picture'));
    expect(a.hash).toBe([...new Uint8Array(digest)].map((x) => x.toString(16).padStart(2, '0')).join(''));
    expect(await (await TestBed.inject(Database).open()).count('files')).toBe(2);
    const out = await files.blobOf(a);
    expect(new Uint8Array(await out!.arrayBuffer())).toEqual(pngBytes('picture'));
    expect(out!.type).toBe('image/png');
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

  it('lose where they were taken before they are kept, and stay the picture that they are', async () => {
    const canvas = new OffscreenCanvas(8, 8);
    canvas.getContext('2d')!.fillRect(0, 0, 4, 8);
    const jpeg = new Uint8Array(await (await canvas.convertToBlob({ type: 'image/jpeg' })).arrayBuffer());
    const packet = new TextEncoder().encode(
      '\u0000\u0000http://ns.adobe.com/xap/1.0/\u0000<x exif:GPSLatitude="54,32.1N"/>',
    );
    const segment = new Uint8Array([0xff, 0xe1, 0, packet.length, ...packet.slice(2)]);
    const taken = new File([jpeg.slice(0, 2), segment, jpeg.slice(2)], 'taken.jpg', { type: 'image/jpeg' });
    await files.attach([taken, png('plain.png')], 'tensioner');
    const kept = (await files.blobOf(filed('tensioner')[0]!))!;
    expect(await kept.text()).not.toContain('54,32');
    expect((await createImageBitmap(kept)).width).toBe(8);
    expect(heard.said.filter((w) => w.includes('taken.jpg')).length).toBe(1);
    expect(heard.said.some((w) => w.includes('plain.png'))).toBeFalse();
  });

  it('of a kind that cannot be cleaned are refused by name, and so is a picture that does not hold together', async () => {
    const phone = new File(['\0\0\0\x18ftypheic and more'], 'phone.heic', { type: 'image/heic' });
    await files.attach([phone, new File(['no picture'], 'broken.png', { type: 'image/png' })]);
    await files.attach([new File([pngBytes('x').slice(0, 40)], 'cut.png', { type: 'image/png' })]);
    expect(filed()).toEqual([]);
    expect(heard.refused.map((w) => w.split(' ')[0]!)).toEqual(['phone.heic', 'broken.png', 'cut.png']);
    await files.attach([new File(['paper'], 'C:\\claims\\\u202einvoice.pdf', { type: 'application/pdf' })]);
    expect(filed().map((f) => f.name)).toEqual(['invoice.pdf']);
  });

  it('are refused by name where the store has no room, and told where it is scarce', async () => {
    const estimate = spyOn(navigator.storage, 'estimate').and.resolveTo({ usage: 99_999_999, quota: 1e8 });
    await files.attach([png('full.png')]);
    expect(filed()).toEqual([]);
    expect(heard.refused[0]).toContain('full.png');
    estimate.and.resolveTo({ usage: 9e7, quota: 1e8 });
    await files.attach([png('near.png')]);
    expect(filed().map((f) => f.name)).toEqual(['near.png']);
    expect(heard.said[0]).toContain('10 MB');
    estimate.and.resolveTo({});
    await files.attach([png('unknown.png')]);
    expect(heard.said.length).toBe(1);
  });

  it('of a case that came without them are told to be elsewhere', async () => {
    const ref: FileRef = { hash: 'f'.repeat(64), name: 'there.png', type: 'image/png', bytes: 7 };
    expect(await files.blobOf(ref)).toBeUndefined();
    await files.save(ref);
    expect(heard.refused[0]).toContain('there.png');
  });
});
