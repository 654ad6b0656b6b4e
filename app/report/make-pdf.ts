import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import * as pdfMake from 'pdfmake/build/pdfmake';

const FONTS = ['ibm-plex-sans-latin-400-normal.woff', 'ibm-plex-sans-latin-600-normal.woff'] as const;

type Made = ReturnType<typeof pdfMake.createPdf> & {
  setProgressCallback?(callback: (share: number) => void): void;
};
type Maker = typeof pdfMake & {
  addVirtualFileSystem(files: Record<string, string>): void;
  addFonts(fonts: Record<string, Record<string, string>>): void;
};

/**
 * Sets the document with the app's own typeface, on the page or in a thread.
 * @param progress share of what is drawn, 0 to 1
 */
export async function pdfBlob(doc: TDocumentDefinitions, progress?: (share: number) => void): Promise<Blob> {
  const maker = ('default' in pdfMake ? (pdfMake as { default: unknown }).default : pdfMake) as Maker;
  const files = await Promise.all(FONTS.map(async (f) => [f, await base64(`fonts/${f}`)] as const));
  maker.addVirtualFileSystem(Object.fromEntries(files));
  const [normal, bold] = FONTS;
  maker.addFonts({ Plex: { normal, bold, italics: normal, bolditalics: bold } });
  const made = maker.createPdf(withPlainSpaces(doc)) as Made;
  if (progress) made.setProgressCallback?.(progress);
  return made.getBlob();
}

async function base64(url: string): Promise<string> {
  const answer = await fetch(url);
  if (!answer.ok) throw new Error(`the typeface ${url} could not be read`);
  const bytes = new Uint8Array(await answer.arrayBuffer());
  let text = '';
  for (let i = 0; i < bytes.length; i += 0x8000)
    text += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
  return btoa(text);
}

/** The embedded subset has no narrow no-break space; an ordinary one keeps figures together as well. */
function withPlainSpaces<T>(value: T): T {
  if (typeof value === 'string') return value.replace(/\u202f/g, '\u00a0') as T;
  if (Array.isArray(value)) return value.map(withPlainSpaces) as T;
  if (value === null || typeof value !== 'object') return value;
  return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, withPlainSpaces(v)])) as T;
}
