import jsQR from 'jsqr';
import { nameWorld } from '@core/answer/world';
import { readSealText, sealText } from '@core/claim/seal-text';
import { CaseSentences } from '../commands/case-sentences';
import { Cases } from '../data/cases';
import type { CaseDesk } from '../data/case-desk';
import { closeDesk, openDesk } from '../testing/demo-desk';
import { TestBed } from '@angular/core/testing';
import type { CaseOnPaper } from './case-on-paper';
import { ROOM } from './paper';
import { setPhoto } from './set-photo';
import { drawnWidths } from './drive-part';
import { withImages } from './set-paper';
import { squareCode } from './square-code';
import { stripSvg } from './strip-svg';
import { workshopLetter } from './workshop-letter';

/** Every drawing of a paper by its width and height in points, as it is laid. */
function drawingsOf(x: unknown): { width: number; height: number }[] {
  if (Array.isArray(x)) return x.flatMap(drawingsOf);
  if (typeof x !== 'object' || x === null) return [];
  const { svg, width } = x as { svg?: string; width?: number };
  const box = svg && /viewBox="[-\d.]+ [-\d.]+ ([\d.]+) ([\d.]+)"/.exec(svg);
  const own =
    box && typeof width === 'number' ? [{ width, height: (width * Number(box[2])) / Number(box[1]) }] : [];
  return [...own, ...Object.values(x).flatMap(drawingsOf)];
}

describe('letters of the demo', () => {
  let desk: CaseDesk;
  beforeEach(async () => {
    desk = await openDesk();
  });
  afterEach(closeDesk);

  const inHand = (): CaseOnPaper => {
    const view = desk.current()!;
    return {
      tag: view.tag,
      state: view.state,
      answers: view.answers!,
      world: nameWorld(view.world!),
      voice: TestBed.inject(CaseSentences).voice(),
      name: desk.nameOf,
      today: '2026-11-25',
      house: 'House\nLane\nPlace',
    };
  };

  it('draw the drive to be read, the setting that was found beside it only where it was', async () => {
    let drawn = 0;
    for (const { id } of TestBed.inject(Cases).summaries()) {
      await desk.open(id);
      const c = inHand();
      const { drive } = c.answers;
      if (!drive?.right) continue;
      const large = drawingsOf(workshopLetter(c).content).filter(
        (d) => d.height > 80 * ROOM.mm - 0.5 || d.width > ROOM.width - 0.5,
      );
      expect(large.length)
        .withContext(c.tag)
        .toBe(drive.shown === 'wrong_way' ? 2 : 1);
      drawn++;
    }
    expect(drawn).toBeGreaterThan(3);
  });
});

describe('what papers are made of', () => {
  const pixels = async (blob: Blob): Promise<ImageData> => {
    const picture = await createImageBitmap(blob);
    const canvas = new OffscreenCanvas(picture.width, picture.height);
    const paint = canvas.getContext('2d')!;
    paint.drawImage(picture, 0, 0);
    return paint.getImageData(0, 0, picture.width, picture.height);
  };

  it('a code that is read back as it was written', async () => {
    const seal = { case: 'ä: 1%', issue: 12, digest: 'ab01'.repeat(16) };
    const svg = squareCode(sealText(seal));
    const image = new Image();
    image.src = `data:image/svg+xml,${encodeURIComponent(svg)}`;
    await image.decode();
    const canvas = new OffscreenCanvas(500, 500);
    const paint = canvas.getContext('2d')!;
    paint.drawImage(image, 0, 0, 500, 500);
    const found = jsQR(paint.getImageData(0, 0, 500, 500).data, 500, 500);
    expect(readSealText(found!.data)).toEqual(seal);
    for (const other of [
      '',
      sealText(seal).slice(0, -1),
      `${sealText(seal)}0`,
      'hollow-sprocket:issue:%:1:aa',
    ])
      expect(readSealText(other)).withContext(other).toBeUndefined();
  });

  it('a photograph no larger than it is printed, with what was picked where it was picked', async () => {
    const canvas = new OffscreenCanvas(2200, 1100);
    const paint = canvas.getContext('2d')!;
    paint.fillStyle = '#808080';
    paint.fillRect(0, 0, 2200, 1100);
    const points = [
      { x: 200, y: 300 },
      { x: 2000, y: 300 },
    ];
    const blob = await canvas.convertToBlob();
    const made = await setPhoto({ id: 'a', blob, lines: [{ points, is: 'scale' }] });
    const { width, height, data } = await pixels(await (await fetch(made!)).blob());
    expect([width, height]).toEqual([1100, 550]);
    const grey = (x: number, y: number) =>
      [0, 1, 2].every((k) => Math.abs(data[(y * width + x) * 4 + k]! - 128) < 12);
    // on the line in the middle of its length, and well off it
    expect(grey(550, 150)).toBeFalse();
    expect(grey(550, 200)).toBeTrue();
    expect(grey(50, 150)).toBeTrue();
  });

  it('a photograph with nothing drawn on it, small and the right way up, however the camera was held', async () => {
    const canvas = new OffscreenCanvas(2200, 1100);
    const paint = canvas.getContext('2d')!;
    paint.fillStyle = '#808080';
    paint.fillRect(0, 0, 2200, 1100);
    paint.fillStyle = '#000000';
    paint.fillRect(0, 0, 1100, 1100);
    const plain = await (await canvas.convertToBlob({ type: 'image/jpeg' })).bytes();
    // Orientation 6: turned a quarter clockwise to be looked at, so what lies left in the file stands on top.
    const turn = [0xff, 0xe1, 0, 34, ...Array.from('Exif\0\0MM\0*', (c) => c.charCodeAt(0))];
    const tag = [0, 0, 0, 8, 0, 1, 0x01, 0x12, 0, 3, 0, 0, 0, 1, 0, 6, 0, 0, 0, 0, 0, 0];
    const bytes = Uint8Array.of(...plain.subarray(0, 2), ...turn, ...tag, ...plain.subarray(2));
    const blob = new Blob([bytes], { type: 'image/jpeg' });
    const made = await setPhoto({ id: 'a', blob, lines: [] });
    const { width, height, data } = await pixels(await (await fetch(made!)).blob());
    expect(height).toBe(2 * width);
    expect(height).toBeLessThanOrEqual(1100);
    // Not so small that less than 250 dots stand on an inch of the width that a photograph has.
    expect(height).toBeGreaterThan(800);
    const light = (share: number) => data[(Math.round(height * share) * width + Math.round(width / 2)) * 4]!;
    expect(light(0.25)).toBeLessThan(20);
    expect(light(0.75)).toBeGreaterThan(100);
  });

  it('a strip whose pin stands where the value does', () => {
    const svg = stripSvg({
      label: 'x',
      text: '',
      min: -10,
      max: 20,
      window: { from: 0, to: 5 },
      end: 19,
      value: 10,
      u: 1,
    });
    expect(svg).toContain('<rect x="100.0" y="4" width="50.0"');
    expect(svg).toContain('cx="200.0"');
    // ± 2u
    expect(svg).toContain('x1="180.0" x2="220.0"');
  });
});

describe('a paper', () => {
  it('says of a photograph that is not here that it is not, wherever it stands, and keeps the others', () => {
    const content = { stack: [{ image: 'a', fit: [1, 1] }, { columns: [{ image: 'b' }, 'text'] }] };
    const set = withImages(content, { a: 'data:' });
    expect(set.stack[0]).toEqual(content.stack[0]);
    const [missing, text] = (
      set.stack[1] as unknown as { columns: [{ image?: string; text: string }, string] }
    ).columns;
    expect(missing.image).toBeUndefined();
    expect(missing.text).toBeTruthy();
    expect(text).toBe('text');
  });

  it('draws pictures of different sizes to one scale, each high enough unless the page is too narrow', () => {
    for (const boxes of [
      [
        { width: 455, height: 454 },
        { width: 470, height: 460 },
      ],
      [{ width: 354, height: 317 }],
      [
        { width: 980, height: 307 },
        { width: 900, height: 300 },
      ],
    ]) {
      const widths = drawnWidths(boxes);
      const scales = widths.map((w, i) => w / boxes[i]!.width);
      for (const s of scales) expect(s).toBeCloseTo(scales[0]!, 9);
      expect(Math.max(...widths)).toBeLessThanOrEqual(ROOM.width + 1e-9);
      const high = boxes.every((b) => b.height * scales[0]! >= 80 * ROOM.mm - 1e-9);
      expect(high || Math.abs(Math.max(...widths) - ROOM.width) < 1e-9).toBeTrue();
    }
  });
});
