import { pdfBlob } from './make-pdf';
import { paperDocument } from './paper';
import { paperHtml } from './paper-html';
import type { PaperAsk } from './paper.protocol';
import { setPhoto } from './set-photo';

/** Share of the work that preparing the photographs is, where there are any. */
const PHOTOS = 0.6;

/** Photographs that are prepared at once: the browser unpacks them beside the thread; more only fill memory. */
const AT_ONCE = 3;

/** Prepares the photographs and sets the paper; one that is not here, or cannot be read, is said in its place. */
export async function setPaper(
  { paper, photos, as }: PaperAsk,
  progress: (share: number) => void,
): Promise<Blob> {
  const images: Record<string, string> = {};
  const waiting = [...photos];
  let done = 0;
  const prepare = async (): Promise<void> => {
    for (let photo = waiting.shift(); photo; photo = waiting.shift()) {
      const set = await setPhoto(photo);
      if (set !== undefined) images[photo.id] = set;
      progress((PHOTOS * ++done) / photos.length);
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, prepare));
  const whole = { ...paper, content: paper.content.map((c) => withImages(c, images)) };
  if (as === 'html') return new Blob([paperHtml(whole, images)], { type: 'text/html' });
  const before = photos.length > 0 ? PHOTOS : 0;
  return pdfBlob(paperDocument(whole, images), (share) => progress(before + share * (1 - before)));
}

/** The content with a word in the place of each photograph that there is no image of. */
export function withImages<T>(content: T, images: Readonly<Record<string, string>>): T {
  if (Array.isArray(content)) return content.map((c) => withImages(c as unknown, images)) as T;
  if (typeof content !== 'object' || content === null) return content;
  const { image } = content as { image?: unknown };
  if (typeof image === 'string' && images[image] === undefined)
    return { text: 'This photograph is not in this browser, or cannot be read.', style: 'caution' } as T;
  return Object.fromEntries(
    Object.entries(content).map(([k, v]) => [k, withImages(v as unknown, images)]),
  ) as T;
}
