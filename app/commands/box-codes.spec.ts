import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { boxCode, LABEL_SHEET } from '@core/claim/box-code';
import type { CaseDesk } from '../data/case-desk';
import { boxLabels, boxLabelSvg } from '../report/box-label';
import { LABEL } from '../report/label';
import { measureText } from '../report/measure-text';
import { closeDesk, openDesk } from '../testing/demo-desk';
import { BoxCodes } from './box-codes';
import { Incoming } from './incoming';
import { Notices } from './notices';
import { readQr } from './read-qr';

/** A label as somebody photographs it: askew on a grey bench, not filling the picture. */
async function photographed(code: string): Promise<File> {
  const model = { tag: '2027', what: 'Belt & rollers', claim: 'C-1', engine: 'E', day: '1 Mar 2026', code };
  const image = new Image();
  image.src = `data:image/svg+xml;utf8,${encodeURIComponent(boxLabelSvg(model, await measureText()))}`;
  await image.decode();
  const canvas = new OffscreenCanvas(1200, 900);
  const paint = canvas.getContext('2d')!;
  paint.fillStyle = '#8a8a84';
  paint.fillRect(0, 0, 1200, 900);
  paint.translate(260, 180);
  paint.rotate(0.12);
  paint.drawImage(image, 0, 0, LABEL.width * 9, LABEL.height * 9);
  return new File([await canvas.convertToBlob()], 'bench.png', { type: 'image/png' });
}

describe('the label of a box', () => {
  let desk: CaseDesk;
  let went: unknown[][];
  beforeEach(async () => {
    desk = await openDesk();
    went = [];
    spyOn(TestBed.inject(Router), 'navigate').and.callFake((...to) => {
      went.push(to);
      return Promise.resolve(true);
    });
  });
  afterEach(closeDesk);

  it('is read off a photograph of it, which is attached to its case and to none other', async () => {
    const code = boxCode('demo-2027', 'belt');
    const picture = await photographed(code);
    expect(await readQr(picture)).toBe(code);
    await desk.open('demo-2041');
    await TestBed.inject(Incoming).files([picture]);
    expect(went).toEqual([[['/case', 'demo-2027', 'examine']]]);
    expect(desk.currentId()).toBe('demo-2027');
    const files = () =>
      desk.current()!.state.log.filter((f) => f.files?.some((x) => x.name === 'bench.png')).length;
    expect(files()).toBe(1);
    // to the case in hand it goes when it is given to that one, and it is told
    const say = spyOn(TestBed.inject(Notices), 'say').and.resolveTo();
    await desk.open('demo-2041');
    await TestBed.inject(Incoming).files([picture], true);
    expect([desk.currentId(), files()]).toEqual(['demo-2041', 1]);
    expect(say.calls.mostRecent().args[0]).toBe('warning');
  });

  it('scanned or typed leads to its case and part; of a case that is not here it is refused, and nothing is filed', async () => {
    const codes = TestBed.inject(BoxCodes);
    expect(codes.take('half a tooth out')).toBeFalse();
    expect(await TestBed.inject(Incoming).text(boxCode('demo-2027', 'tensioner'))).toBeTrue();
    expect(codes.take(boxCode('demo-2027'))).toBeTrue();
    expect(went).toEqual([
      [['/case', 'demo-2027', 'examine'], { queryParams: { part: 'tensioner' } }],
      [['/case', 'demo-2027', 'examine'], { queryParams: {} }],
    ]);
    const refuse = spyOn(TestBed.inject(Notices), 'refuse');
    expect(codes.take(boxCode('nowhere'))).toBeTrue();
    expect(refuse).toHaveBeenCalledTimes(1);
    expect(went.length).toBe(2);
    expect(desk.current()).toBeUndefined();
  });

  it('lies on its place of the sheet, none over another, and a full sheet is followed by the next', () => {
    const doc = boxLabels(
      Array.from({ length: 15 }, (_, i) => `<svg id="${i}"/>`),
      'sheet',
      9,
    );
    const content = doc.content as { absolutePosition: { x: number; y: number }; pageBreak?: string }[];
    const mm = (points: number) => Math.round((points / 72) * 25.4 * 10) / 10;
    const pages: string[][] = [[]];
    for (const c of content) {
      if (c.pageBreak) pages.push([]);
      const { x, y } = c.absolutePosition;
      expect(
        mm(x) >= 0 && mm(x) + LABEL.width <= 210 && mm(y) >= 0 && mm(y) + LABEL.height <= 297,
      ).toBeTrue();
      pages.at(-1)!.push(`${mm(x)} ${mm(y)}`);
    }
    expect(pages.map((p) => p.length)).toEqual([LABEL_SHEET.places - 9, LABEL_SHEET.places]);
    for (const page of pages) expect(new Set(page).size).toBe(page.length);
    expect(pages[1]![0]).toBe('31 16.5');
    const roll = boxLabels(['a', 'b'], 'roll');
    expect((roll.content as unknown[]).length).toBe(2);
    expect((roll.pageSize as { width: number }).width).toBeCloseTo((74 / 25.4) * 72, 6);
  });
});
