import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import * as pdfMake from 'pdfmake/build/pdfmake';

const FONTS = ['ibm-plex-sans-latin-400-normal.woff', 'ibm-plex-sans-latin-600-normal.woff'] as const;

type Maker = typeof pdfMake & {
  addVirtualFileSystem(files: Record<string, string>): void;
  addFonts(fonts: Record<string, Record<string, string>>): void;
};

/** Sets the document with the app's own typeface and hands it to the browser as a file. */
export async function downloadPdf(doc: TDocumentDefinitions, name: string): Promise<void> {
  const maker = ('default' in pdfMake ? (pdfMake as { default: unknown }).default : pdfMake) as Maker;
  const files = await Promise.all(FONTS.map(async (f) => [f, await base64(`fonts/${f}`)] as const));
  maker.addVirtualFileSystem(Object.fromEntries(files));
  const [normal, bold] = FONTS;
  maker.addFonts({ Plex: { normal, bold, italics: normal, bolditalics: bold } });
  await maker.createPdf(doc).download(name);
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
