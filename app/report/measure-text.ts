import { must } from '@core/quantity/must';

/** Width of a text at a size, both in the same unit. */
export type Measure = (text: string, size: number, weight: 400 | 600) => number;

/** Typeface of everything that is printed; the one that the PDF embeds. */
export const PAPER_FONT = 'Plex, IBM Plex Sans, sans-serif';

/** A character of each part that the typeface comes in. */
const OF_EACH_PART = 'aé';

/** Measures with the typeface that is printed with, once it is loaded. */
export async function measureText(): Promise<Measure> {
  await Promise.all(
    ([400, 600] as const).map((w) => document.fonts.load(`${w} 100px "IBM Plex Sans"`, OF_EACH_PART)),
  );
  const context = document.createElement('canvas').getContext('2d');
  if (!context) throw new Error('this browser measures no text');
  return (text, size, weight) => {
    context.font = `${weight} 100px ${PAPER_FONT}`;
    return (context.measureText(text).width * size) / 100;
  };
}

/** Words broken into lines of at most this width; a word that is wider alone is broken inside. */
export function breakLines(text: string, width: number, measure: (t: string) => number): string[] {
  const lines: string[] = [];
  let line = '';
  for (const word of text.split(/[ \t\r\n]+/).filter(Boolean)) {
    const longer = line === '' ? word : `${line} ${word}`;
    if (measure(longer) <= width) {
      line = longer;
      continue;
    }
    if (line !== '') lines.push(line);
    line = word;
    while (measure(line) > width && line.length > 1) {
      let fits = line.length - 1;
      while (fits > 1 && measure(line.slice(0, fits)) > width) fits--;
      lines.push(line.slice(0, fits));
      line = line.slice(fits);
    }
  }
  return line === '' ? lines : [...lines, line];
}

/** The largest of these sizes at which a text fits into so many lines, with its lines; at the smallest it is cut with "…". */
export function fitText(
  text: string,
  box: { width: number; lines: number; sizes: readonly number[]; weight: 400 | 600 },
  measure: Measure,
): { size: number; lines: string[] } {
  for (const size of box.sizes) {
    const lines = breakLines(text, box.width, (t) => measure(t, size, box.weight));
    if (lines.length <= box.lines) return { size, lines };
  }
  const size = must(box.sizes.at(-1));
  const width = (t: string) => measure(t, size, box.weight);
  const lines = breakLines(text, box.width, width).slice(0, box.lines);
  let last = `${lines.at(-1) ?? ''}…`;
  while (last.length > 1 && width(last) > box.width) last = `${last.slice(0, -2)}…`;
  return { size, lines: [...lines.slice(0, -1), last] };
}
