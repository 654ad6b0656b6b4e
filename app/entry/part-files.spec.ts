import { TestBed } from '@angular/core/testing';
import { DeskSettingsStore } from '../data/desk-settings';
import { pngBytes } from '../testing/picture-bytes';
import { factsOf } from '@core/facts/read';
import { THING } from '@core/facts/thing';
import type { CaseDesk } from '../data/case-desk';
import { closeDesk, openDesk, paint, until } from '../testing/demo-desk';
import { PartFiles } from './part-files';

describe('files of a part', () => {
  let desk: CaseDesk;
  const filed = () => factsOf(desk.current()!.state, THING.file, 'roller').flatMap((f) => f.files ?? []);
  const modal = () => [...document.querySelectorAll<HTMLElement>('.ant-modal')].at(-1);
  const button = (name: string, within: ParentNode) =>
    [...within.querySelectorAll('button')].find((b) => b.textContent.includes(name))!;
  const paste = (...files: File[]) => {
    const clipboardData = new DataTransfer();
    for (const f of files) clipboardData.items.add(f);
    const e = new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true });
    document.body.dispatchEvent(e);
    return e.defaultPrevented;
  };
  beforeEach(async () => {
    desk = await openDesk();
    await desk.open('demo-2027');
  });
  afterEach(closeDesk);

  it('take a picture from the clipboard, and leave text where it was to go', async () => {
    const page = await paint(PartFiles, { about: 'roller', name: 'Guide roller' });
    expect(paste(new File(['x'], 'note.txt', { type: 'text/plain' }))).toBeFalse();
    expect(paste(new File([pngBytes('x')], 'image.png', { type: 'image/png' }))).toBeTrue();
    await until(() => filed().length > 0);
    expect(filed().map((f) => f.name)).toEqual(['image.png']);
    page.fixture.destroy();
    // gone from the bench, nothing listens any more
    expect(paste(new File(['y'], 'late.png', { type: 'image/png' }))).toBeFalse();
  });

  it('are taken with a camera, which is let go again', async () => {
    const streams: MediaStream[] = [];
    const open = navigator.mediaDevices.getUserMedia.bind(navigator.mediaDevices);
    spyOn(navigator.mediaDevices, 'getUserMedia').and.callFake(async (wanted) => {
      const stream = await open(wanted);
      streams.push(stream);
      return stream;
    });
    const page = await paint(PartFiles, { about: 'roller', name: 'Guide roller' });
    button('Take a picture', page.element).click();
    await page.fixture.whenStable();
    await until(() => Boolean(modal() && !button('Take it', modal()!)?.disabled));
    button('Take it', modal()!).click();
    await until(() => filed().length > 0);
    expect(filed()[0]!.type).toBe('image/jpeg');
    expect(streams[0]!.getTracks().every((t) => t.readyState === 'live')).toBeTrue();
    page.fixture.destroy();
    expect(streams[0]!.getTracks().every((t) => t.readyState === 'ended')).toBeTrue();
  });

  it('without a camera say so, and what to do instead', async () => {
    spyOn(navigator.mediaDevices, 'getUserMedia').and.rejectWith(new DOMException('none', 'NotFoundError'));
    const page = await paint(PartFiles, { about: 'roller', name: 'Guide roller' });
    button('Take a picture', page.element).click();
    await until(() => Boolean(modal()?.querySelector('.caution')));
    expect(modal()!.querySelector('video')).toBeNull();
    expect(button('Take it', modal()!)).toBeUndefined();
    // a tablet has a camera of its own behind its chooser of files
    const own = modal()!.querySelector<HTMLInputElement>('input[type=file]')!;
    expect([own.getAttribute('capture'), own.accept]).toEqual(['environment', 'image/*']);
    const taken = new DataTransfer();
    taken.items.add(new File([pngBytes('z')], 'from-the-bench.png', { type: 'image/png' }));
    own.files = taken.files;
    own.dispatchEvent(new Event('change'));
    await until(() => filed().length > 0);
    expect(filed().map((f) => f.name)).toEqual(['from-the-bench.png']);
    page.fixture.destroy();
  });

  it('for gloves are taken first, at a desk chosen first', async () => {
    const page = await paint(PartFiles, { about: 'roller', name: 'Guide roller' });
    const inSight = () => page.all('.row button');
    expect(inSight().map((b) => b.textContent.trim())).toEqual(['Attach a file', 'Take a picture']);
    TestBed.inject(DeskSettingsStore).change({ density: 'large' });
    await page.fixture.whenStable();
    expect(inSight().map((b) => b.textContent.trim())).toEqual(['Take a picture', 'Attach a file']);
    page.fixture.destroy();
  });
});
