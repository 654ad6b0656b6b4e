import { pdfBlob } from './make-pdf';
import { paperDocument } from './paper';
import { paperHtml } from './paper-html';
import type { PaperAsk } from './paper.protocol';
import { NO_PHOTO, setPhoto } from './set-photo';

/** Share of the work that preparing the photographs is, where there are any. */
const PHOTOS = 0.6;

/** Prepares the photographs and sets the paper. @param stopped asked between photographs */
export async function setPaper(
  { paper, photos, as }: PaperAsk,
  progress: (share: number) => void,
  stopped: () => boolean = () => false,
): Promise<Blob> {
  const images: Record<string, string> = Object.fromEntries(paper.photos.map((id) => [id, NO_PHOTO]));
  for (const [i, photo] of photos.entries()) {
    if (stopped()) break;
    images[photo.id] = await setPhoto(photo);
    progress((PHOTOS * (i + 1)) / photos.length);
  }
  if (as === 'html') return new Blob([paperHtml(paper, images)], { type: 'text/html' });
  const before = photos.length > 0 ? PHOTOS : 0;
  return pdfBlob(paperDocument(paper, images), (share) => progress(before + share * (1 - before)));
}
