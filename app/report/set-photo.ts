import type { PaperPhoto } from './paper';

/** Longest side on paper, pixels: 300 to the inch at the largest size that is printed. */
const LONGEST = 1100;
const PAINT = { scale: '#1f6f5f', outline: '#c58a00', count: '#c58a00' } as const;

/** A picture that was unpacked, as it is looked at, and how much smaller than the file it is. */
type Unpacked = { picture: ImageBitmap | VideoFrame; width: number; height: number };

/**
 * Unpacks a photograph: straight to about the size of paper where the browser can, which takes half the time. How much smaller
 * that is it does not tell, so one that is drawn on is unpacked whole.
 */
async function unpacked({ blob, lines }: PaperPhoto): Promise<Unpacked | undefined> {
  try {
    const image = lines.length === 0 ? await decodedSmall(blob) : undefined;
    if (image) return { picture: image, width: image.displayWidth, height: image.displayHeight };
    const picture = await createImageBitmap(blob);
    return { picture, width: picture.width, height: picture.height };
  } catch {
    return undefined;
  }
}

/** At about the size of paper; undefined where the browser cannot, or stumbles over the file: the whole may still be read. */
async function decodedSmall(blob: Blob): Promise<VideoFrame | undefined> {
  if (!('ImageDecoder' in self) || !(await ImageDecoder.isTypeSupported(blob.type))) return undefined;
  const desired = { desiredWidth: LONGEST, desiredHeight: LONGEST };
  const decoder = new ImageDecoder({ data: await blob.arrayBuffer(), type: blob.type, ...desired });
  try {
    return (await decoder.decode()).image;
  } catch {
    return undefined;
  } finally {
    decoder.close();
  }
}

/** A photograph as it is embedded: no larger than paper shows it, with what was picked drawn on it; undefined for one that cannot be read. In a thread. */
export async function setPhoto(photo: PaperPhoto): Promise<string | undefined> {
  const whole = await unpacked(photo);
  if (!whole) return undefined;
  const { picture, width, height } = whole;
  const scale = Math.min(1, LONGEST / Math.max(width, height));
  const canvas = new OffscreenCanvas(Math.round(width * scale), Math.round(height * scale));
  const paint = canvas.getContext('2d');
  if (!paint) return undefined;
  paint.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  const unit = Math.max(canvas.width, canvas.height) / 400;
  for (const { points, is } of photo.lines) drawn(paint, points, is, scale, unit);
  const jpeg = await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.85 });
  const bytes = new Uint8Array(await jpeg.arrayBuffer());
  let text = '';
  for (let i = 0; i < bytes.length; i += 0x8000)
    text += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
  return `data:image/jpeg;base64,${btoa(text)}`;
}

/** Lines with a light edge, so that they show on dark and light alike and in black and white; spots as crosses, counts numbered. */
function drawn(
  paint: OffscreenCanvasRenderingContext2D,
  points: PaperPhoto['lines'][number]['points'],
  is: keyof typeof PAINT,
  scale: number,
  unit: number,
): void {
  const at = points.map(({ x, y }) => [x * scale, y * scale] as const);
  const path = new Path2D();
  if (is !== 'count') at.forEach(([x, y], i) => (i === 0 ? path.moveTo(x, y) : path.lineTo(x, y)));
  const r = 4 * unit;
  for (const [x, y] of at) {
    path.moveTo(x - r, y);
    path.lineTo(x + r, y);
    path.moveTo(x, y - r);
    path.lineTo(x, y + r);
  }
  for (const [style, width] of [
    ['#ffffff', 2.4 * unit],
    [PAINT[is], 1.2 * unit],
  ] as const) {
    paint.strokeStyle = style;
    paint.lineWidth = width;
    paint.stroke(path);
  }
  if (is !== 'count') return;
  paint.font = `${10 * unit}px sans-serif`;
  at.forEach(([x, y], i) => {
    paint.strokeStyle = '#ffffff';
    paint.lineWidth = 3 * unit;
    paint.strokeText(String(i + 1), x + r, y - r / 2);
    paint.fillStyle = '#1e2a2b';
    paint.fillText(String(i + 1), x + r, y - r / 2);
  });
}
