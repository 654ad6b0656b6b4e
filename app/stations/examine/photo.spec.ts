import { TestBed } from '@angular/core/testing';
import { factsOf, measuredOf } from '@core/facts/read';
import type { FileRef } from '@core/facts/fact';
import { Attachments } from '../../acts/attachments';
import type { CaseDesk } from '../../data/case-desk';
import { DeskSession } from '../../entry/desk-session';
import { closeDesk, openDesk, paint, until } from '../../testing/demo-desk';
import { PhotoDialog } from './photo-dialog';
import { nextSpot, type Overlay, overlayLines, readOverlay, scaleOf } from './photo-overlay';

const overlay: Overlay = {
  hash: 'ab',
  key: 'belt.width',
  scale: 'rectangle',
  sides: [85, 54],
  sideU: 0.1,
  marks: [1, 2, 3, 4].map((x) => ({ x, y: 2.5 * x })),
  spots: [{ x: 9.25, y: 8 }],
};

describe('what was picked on a photograph', () => {
  it('is written as lines and read back alike; anything else is none', () => {
    expect(readOverlay(overlayLines(overlay))).toEqual(overlay);
    const ruler: Overlay = { ...overlay, scale: 'ruler', sides: [100], marks: [], spots: [] };
    expect(readOverlay(overlayLines(ruler))).toEqual(ruler);
    for (const bad of [undefined, 'x', [], ['picture a'], overlayLines({ ...overlay, sides: [-1, 2] })])
      expect(readOverlay(bad)).toBeUndefined();
  });

  it('is a scale once all of its marks and sides are there, and says what is pressed next', () => {
    expect(scaleOf(overlay)?.kind).toBe('rectangle');
    expect(scaleOf({ ...overlay, marks: overlay.marks.slice(0, 3) })).toBeUndefined();
    expect(scaleOf({ ...overlay, sides: [85] })).toBeUndefined();
    const steps = [0, 1, 2].map((n) => nextSpot({ ...overlay, spots: overlay.marks.slice(0, n) }, 'length'));
    expect(new Set(steps).size).toBe(3);
    expect(steps[2]).toBe('');
    expect(nextSpot({ ...overlay, spots: overlay.marks.slice(0, 2) }, 'angle')).not.toBe('');
  });
});

describe('measuring on a photograph', () => {
  let desk: CaseDesk;
  const modal = () => [...document.querySelectorAll<HTMLElement>('.ant-modal')].at(-1);
  const file: FileRef = { hash: 'c'.repeat(64), name: 'belt.png', type: 'image/png', bytes: 10 };
  const open = async (blob: Blob | undefined) => {
    spyOn(TestBed.inject(Attachments), 'blobOf').and.resolveTo(blob);
    return paint(PhotoDialog, {
      session: TestBed.inject(DeskSession),
      observable: desk.registry().get('belt.width')!,
      thing: 'belt',
      file,
    });
  };
  beforeEach(async () => {
    desk = await openDesk();
    await desk.open('demo-2027');
  });
  afterEach(closeDesk);

  it('a ruler and a length, walked to by keys, become a fact with its picture and what was picked', async () => {
    const canvas = new OffscreenCanvas(800, 400);
    canvas.getContext('2d')!.fillRect(0, 0, 10, 10);
    const page = await open(await canvas.convertToBlob());
    const picture = () => modal()?.querySelector('svg[role=application]');
    await until(() => Boolean(picture()));
    const svg = picture()!;
    const press = (key: string, times = 1, shiftKey = false) => {
      for (let k = 0; k < times; k++)
        svg.dispatchEvent(new KeyboardEvent('keydown', { key, shiftKey, bubbles: true, cancelable: true }));
    };
    // ruler: 100 mm over 200 px; length: 44 px
    press('Enter');
    press('ArrowRight', 10, true);
    press('Enter');
    press('ArrowDown', 3);
    press('Enter');
    press('ArrowLeft', 22);
    press('Enter');
    await page.fixture.whenStable();
    const button = [...modal()!.querySelectorAll('button')].find((b) => b.textContent.includes('File it'))!;
    expect(button.disabled).toBeFalse();
    button.click();
    const read = () => measuredOf(desk.current()!.state, desk.registry(), 'belt.width');
    await until(() => read() !== undefined);
    expect(read()!.value).toBeCloseTo(22, 6);
    expect(read()!.u).toBeGreaterThan(0);
    expect(read()!.fact.files).toEqual([file]);
    const kept = readOverlay(factsOf(desk.current()!.state, 'photo.overlay', 'belt')[0]!.value)!;
    expect([kept.key, kept.marks.length, kept.spots.length]).toEqual(['belt.width', 2, 2]);
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
