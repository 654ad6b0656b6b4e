import { TestBed } from '@angular/core/testing';
import { factsOf, measuredOf, numberOf, placedOf } from '@core/facts/read';
import type { FileRef } from '@core/facts/fact';
import { Attachments } from '../../commands/attachments';
import type { CaseDesk } from '../../data/case-desk';
import { DeskSession } from '../../entry/desk-session';
import { closeDesk, openDesk, paint, until } from '../../testing/demo-desk';
import { PhotoDialog } from './photo-dialog';
import { onPhoto, readOverlay } from '@core/examination/photo-overlay';

describe('measuring on a photograph', () => {
  let desk: CaseDesk;
  const modal = () => [...document.querySelectorAll<HTMLElement>('.ant-modal')].at(-1);
  const file: FileRef = { hash: 'c'.repeat(64), name: 'belt.png', type: 'image/png', bytes: 10 };
  const open = async (blob: Blob | undefined, key = 'belt.width', thing = 'belt') => {
    spyOn(TestBed.inject(Attachments), 'blobOf').and.resolveTo(blob);
    const observable = desk.registry().get(key)!;
    const session = TestBed.inject(DeskSession);
    return paint(PhotoDialog, { session, observable, thing, what: onPhoto(observable)!, file });
  };
  const drawn = async () => {
    const canvas = new OffscreenCanvas(800, 400);
    canvas.getContext('2d')!.fillRect(0, 0, 10, 10);
    return canvas.convertToBlob();
  };
  const picture = () => modal()?.querySelector('svg[role=application]');
  const button = (name: string) =>
    [...modal()!.querySelectorAll('button')].find((b) => b.textContent.includes(name))!;
  /** Walks a cross over the picture, two pixels a step and twenty with Shift. */
  const press = (key: string, times = 1, shiftKey = false) => {
    for (let k = 0; k < times; k++)
      picture()!.dispatchEvent(
        new KeyboardEvent('keydown', { key, shiftKey, bubbles: true, cancelable: true }),
      );
  };
  beforeEach(async () => {
    desk = await openDesk();
    await desk.open('demo-2027');
  });
  afterEach(closeDesk);

  it('a ruler and a length, walked to by keys, become a fact with its picture and what was picked', async () => {
    const page = await open(await drawn());
    await until(() => Boolean(picture()));
    // ruler: 100 mm over 200 px; length: 44 px
    press('Enter');
    press('ArrowRight', 10, true);
    press('Enter');
    press('ArrowDown', 3);
    press('Enter');
    press('ArrowLeft', 22);
    press('Enter');
    await page.fixture.whenStable();
    expect(button('File it').disabled).toBeFalse();
    button('File it').click();
    const read = () => measuredOf(desk.current()!.state, desk.registry(), 'belt.width');
    await until(() => read() !== undefined);
    expect(read()!.value).toBeCloseTo(22, 6);
    expect(read()!.u).toBeGreaterThan(0);
    expect(read()!.fact.files).toEqual([file]);
    const kept = readOverlay(factsOf(desk.current()!.state, 'photo.overlay', 'belt')[0]!.value)!;
    expect([kept.key, kept.marks.length, kept.spots.length]).toEqual(['belt.width', 2, 2]);
    page.fixture.destroy();
  });

  it('an outline becomes the area of the next piece, with the picture that it was read off', async () => {
    await desk.open('demo-2036');
    const page = await open(await drawn(), 'guide.piece_area', 'guide');
    await until(() => Boolean(picture()));
    const pieces = () => placedOf(desk.current()!.state, 'guide.piece_area');
    for (const n of [1, 2]) {
      // ruler: 100 mm over 200 px; outline: 40 by 20 px
      if (n === 1) {
        press('Enter');
        press('ArrowRight', 10, true);
        press('Enter');
      } else for (let k = 0; k < 4; k++) press('Backspace');
      for (const [way, steps] of [
        ['ArrowDown', 0],
        ['ArrowDown', 10],
        ['ArrowLeft', 20],
        ['ArrowUp', 10],
      ] as const) {
        press(way, steps);
        press('Enter');
      }
      await page.fixture.whenStable();
      button('File it').click();
      await until(() => pieces().length === n);
    }
    expect(pieces().map((p) => p.place.from)).toEqual([1, 2]);
    // 40 × 20 px at half a millimetre a pixel
    for (const p of pieces()) expect(Number(p.value)).toBeCloseTo(200, 6);
    page.fixture.destroy();
  });

  it('teeth that are pressed one by one become their number, which needs no scale', async () => {
    const page = await open(await drawn(), 'belt.teeth_count');
    await until(() => Boolean(picture()));
    for (let k = 0; k < 23; k++) {
      press('ArrowRight', 2);
      press('Enter');
    }
    press('Backspace');
    await page.fixture.whenStable();
    expect(modal()!.querySelectorAll('svg text').length).toBe(22);
    button('File it').click();
    await until(() => numberOf(desk.current()!.state, 'belt.teeth_count') === 22);
    const kept = readOverlay(factsOf(desk.current()!.state, 'photo.overlay', 'belt')[0]!.value)!;
    expect([kept.scale, kept.sides.length, kept.spots.length]).toEqual(['counted', 0, 22]);
    page.fixture.destroy();
  });

  it('seen from above, spots are still those of the original, and the length is the same', async () => {
    const page = await open(await drawn());
    await until(() => Boolean(picture()));
    [...modal()!.querySelectorAll<HTMLElement>('label')]
      .find((e) => e.textContent.includes('rectangle'))
      ?.click();
    await page.fixture.whenStable();
    // a rectangle seen at a slant, around the middle
    for (const [way, n] of [
      ['ArrowUp', 20],
      ['ArrowRight', 60],
      ['ArrowDown', 50],
      ['ArrowLeft', 75],
    ] as const) {
      press(way, n);
      press('Enter');
    }
    await page.fixture.whenStable();
    const cross = () => picture()!.getAttribute('viewBox');
    const before = cross();
    button('Seen from above').click();
    await until(() => cross() !== before);
    press('ArrowUp', 5);
    press('Enter');
    press('ArrowRight', 40);
    press('Enter');
    await page.fixture.whenStable();
    const says = () => modal()!.querySelector('b')!.textContent.trim();
    const above = says();
    expect(above).not.toBe('');
    button('Seen from above').click();
    await until(() => cross() === before);
    // the value is the same; how surely one presses depends on how large it is shown
    const value = (words: string) => Number(/[\d.]+/.exec(words)?.[0]);
    expect(value(says())).toBeCloseTo(value(above), 6);
    page.fixture.destroy();
  });

  it('a picture that cannot be read, or is not here, is said', async () => {
    const page = await open(new Blob(['no picture'], { type: 'image/png' }));
    await until(() => Boolean(modal()?.querySelector('.caution')));
    expect(modal()!.querySelector('.caution')!.textContent).toContain('belt.png');
    expect(modal()!.querySelector('svg[role=application]')).toBeNull();
    page.fixture.destroy();
  });
});
