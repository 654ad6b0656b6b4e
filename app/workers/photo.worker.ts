import { found } from '@core/quantity/must';
import { flatFrame, flatten } from '@core/examination/flatten';
import { serveJobs } from '../threads/worker-client';
import type { PhotoJobs } from './photo.protocol';

/** Pixels beyond which a picture is shown smaller, and a flat one is not made larger. */
const MOST_PIXELS = 12e6;

const reduced = (width: number, height: number) => Math.min(1, Math.sqrt(MOST_PIXELS / (width * height)));

/** A picture on a canvas, smaller where it is too large. */
async function drawn(
  blob: Blob,
): Promise<{ canvas: OffscreenCanvas; width: number; height: number; share: number }> {
  const bitmap = await createImageBitmap(blob);
  const { width, height } = bitmap;
  const share = reduced(width, height);
  const canvas = new OffscreenCanvas(Math.round(width * share), Math.round(height * share));
  found(canvas.getContext('2d')).drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  bitmap.close();
  return { canvas, width, height, share };
}

serveJobs<PhotoJobs>(
  {
    async look(blob) {
      const bitmap = await createImageBitmap(blob);
      const { width, height } = bitmap;
      bitmap.close();
      if (reduced(width, height) === 1) return { width, height, shown: blob };
      const { canvas } = await drawn(blob);
      return { width, height, shown: await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.92 }) };
    },
    async flatten({ blob, corners, sides }) {
      const { canvas, share } = await drawn(blob);
      const size = { width: canvas.width, height: canvas.height };
      const frame = flatFrame(
        size,
        corners.map(({ x, y }) => ({ x: x * share, y: y * share })),
        sides,
        MOST_PIXELS,
      );
      if (!frame) throw new Error('the corners give no plane');
      const { data } = found(canvas.getContext('2d')).getImageData(0, 0, size.width, size.height);
      const flat = new OffscreenCanvas(frame.width, frame.height);
      found(flat.getContext('2d')).putImageData(new ImageData(flatten(data, size, frame), frame.width), 0, 0);
      // What lies outside the original stays clear.
      const out = await flat.convertToBlob({ type: 'image/webp', quality: 0.95 });
      return { blob: out, width: frame.width, height: frame.height, back: frame.back, sourcePx: share };
    },
  },
  self,
);
