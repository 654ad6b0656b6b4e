import jsQR from 'jsqr';

/** Longest side that a picture is looked at with, pixels: more is slower and finds no more. */
const LOOKED_AT = 1600;

/** The text of a square code on a picture, or undefined where none is found. */
export async function readQr(file: Blob): Promise<string | undefined> {
  let picture: ImageBitmap;
  try {
    picture = await createImageBitmap(file);
  } catch {
    return undefined;
  }
  const scale = Math.min(1, LOOKED_AT / Math.max(picture.width, picture.height));
  const [width, height] = [Math.round(picture.width * scale), Math.round(picture.height * scale)];
  const canvas = new OffscreenCanvas(width, height);
  const paint = canvas.getContext('2d');
  if (!paint) return undefined;
  paint.drawImage(picture, 0, 0, width, height);
  picture.close();
  const { data } = paint.getImageData(0, 0, width, height);
  const found = jsQR(data, width, height);
  return found && found.data !== '' ? found.data : undefined;
}
