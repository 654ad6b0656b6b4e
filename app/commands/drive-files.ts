import { nth } from '@core/quantity/must';
import { inject, Injectable } from '@angular/core';
import { type Layout, LayoutSchema } from '@core/drive/layout';
import { parseJson } from '@core/quantity/parse-json';
import { download } from '../report/download';
import { Notices } from './notices';

const LARGEST_LAYOUT = 2_000_000;

/** Drives out as pictures and as open layout files, and in again. */
@Injectable({ providedIn: 'root' })
export class DriveFiles {
  private readonly notices = inject(Notices);

  /** The picture as it stands on the screen, with its colours written in, so that any program shows it alike. */
  svg(element: SVGSVGElement, name: string): void {
    download(`${name}.svg`, new Blob([standalone(element).text], { type: 'image/svg+xml' }));
  }

  /** The same as pixels, twice as fine as the screen. */
  async png(element: SVGSVGElement, name: string): Promise<void> {
    const { text, width, height } = standalone(element);
    const image = new Image();
    image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(text)}`;
    try {
      await image.decode();
    } catch {
      this.notices.refuse('The picture could not be made here. Take it out as SVG instead.');
      return;
    }
    const canvas = document.createElement('canvas');
    canvas.width = width * 2;
    canvas.height = height * 2;
    canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height);
    const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'));
    if (blob) download(`${name}.png`, blob);
    else this.notices.refuse('The picture could not be made here. Take it out as SVG instead.');
  }

  json(layout: Layout): void {
    const file = { format: 'hollow-sprocket-layout', formatVersion: 1, layout };
    download(
      `drive-${layout.id}.json`,
      new Blob([JSON.stringify(file, null, 2)], { type: 'application/json' }),
    );
  }

  /** Opens a layout file, its size looked at first: a drive of sixty wheels fits many times over. */
  async open(file: File): Promise<Layout | undefined> {
    if (file.size <= LARGEST_LAYOUT) return this.read(file.name, await file.text());
    this.notices.refuse(
      `${file.name} has ${Math.ceil(file.size / 1e6)} MB; a layout has at most ${LARGEST_LAYOUT / 1e6} MB. Nothing was changed.`,
    );
    return undefined;
  }

  /** Reads a layout file; a fault is named with its place and nothing is taken. */
  read(name: string, text: string): Layout | undefined {
    const refuse = (why: string) => {
      this.notices.refuse(`${name}: ${why} Nothing was changed.`);
      return undefined;
    };
    const parsed = parseJson(text);
    if (!parsed.ok) {
      const { line, column, detail } = parsed.error;
      return refuse(`it is broken at line ${line}, column ${column} (${detail}).`);
    }
    const head = parsed.value as { format?: unknown; formatVersion?: unknown; layout?: unknown } | null;
    if (head?.format !== 'hollow-sprocket-layout') return refuse('it is no layout file of this program.');
    if (head.formatVersion !== 1)
      return refuse(
        typeof head.formatVersion === 'number' && head.formatVersion > 1
          ? `it was written by a newer version (layout version ${head.formatVersion}). Update this program first.`
          : 'it says no layout version that is known here.',
      );
    const read = LayoutSchema.safeParse(head.layout);
    if (!read.success) {
      const first = read.error.issues[0];
      const more = read.error.issues.length - 1;
      return refuse(
        `at ${first?.path.map(String).join(' › ') ?? 'the top'}: ${first?.message ?? 'does not fit'}${more ? `, and ${more} more` : ''}.`,
      );
    }
    return read.data;
  }
}

const KEPT = [
  'fill',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'stroke-linecap',
  'opacity',
  'font',
  'text-anchor',
  'paint-order',
];

/** A copy of a drawing that needs no stylesheet. */
function standalone(element: SVGSVGElement): { text: string; width: number; height: number } {
  const copy = element.cloneNode(true) as SVGSVGElement;
  const [from, to] = [element.querySelectorAll('*'), copy.querySelectorAll('*')];
  from.forEach((node, i) => {
    const style = getComputedStyle(node);
    const target = nth(to, i);
    for (const key of KEPT) {
      const value = style.getPropertyValue(key);
      if (value !== '' && value !== 'none' && value !== 'normal') target.setAttribute(key, value);
      else if (value === 'none' && (key === 'fill' || key === 'stroke')) target.setAttribute(key, 'none');
    }
    for (const name of ['class', 'tabindex', 'role']) target.removeAttribute(name);
  });
  const { width, height } = element.getBoundingClientRect();
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('width', String(Math.round(width)));
  copy.setAttribute('height', String(Math.round(height)));
  const paper = getComputedStyle(document.body).backgroundColor;
  const { x, y, width: w, height: h } = element.viewBox.baseVal;
  const sheet = `<rect x="${x - w}" y="${y - h}" width="${3 * w}" height="${3 * h}" fill="${paper}"/>`;
  const text = new XMLSerializer()
    .serializeToString(copy)
    .replace(/<!--[\s\S]*?-->/g, '')
    .replace(/_ng\w+-[\w-]+=""/g, '');
  return { text: text.replace(/>/, `>${sheet}`), width: Math.round(width), height: Math.round(height) };
}
