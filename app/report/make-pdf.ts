import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import * as pdfMake from 'pdfmake/build/pdfmake';

const FONTS = ['IBMPlexSans_400Regular.ttf', 'IBMPlexSans_600SemiBold.ttf'] as const;

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
  const made = maker.createPdf(withPrintable(doc)) as Made;
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

/**
 * Signs of the screen that the typeface has not (it has letters of Latin, Greek and Cyrillic, ticks and arrows), in words or
 * signs that it has: print keeps its meaning.
 */
const SIGNS: readonly (readonly [RegExp, string])[] = [
  [/▲ ?/g, 'Caution: '],
  [/[✕✗] ?/g, 'no: '],
  [/[◆◇●○◦△▽■□] ?/g, ''],
  [/⌀/g, 'dia.'],
];

/** A text as the embedded typeface can print it. */
export const printable = (text: string): string =>
  SIGNS.reduce((t, [sign, words]) => t.replace(sign, words), text);

function withPrintable<T>(value: T, key = ''): T {
  // pictures and names of files are no text
  if (typeof value === 'string') return (key === 'svg' || key === 'image' ? value : printable(value)) as T;
  if (Array.isArray(value)) return value.map((v) => withPrintable(v, key) as unknown) as T;
  if (value === null || typeof value !== 'object') return value;
  return Object.fromEntries(
    Object.entries(value).map(([k, v]) => [k, k === 'images' ? (v as unknown) : withPrintable(v, k)]),
  ) as T;
}
