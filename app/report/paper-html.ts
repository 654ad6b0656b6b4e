import type { Paper } from './paper';

/** What of a content node is set; all else of the notation is not used on our papers. */
type Node = {
  text?: unknown;
  stack?: unknown[];
  columns?: unknown[];
  ul?: unknown[];
  table?: { body: unknown[][]; headerRows?: number };
  svg?: string;
  image?: string;
  style?: string;
  bold?: boolean;
  alignment?: string;
  width?: unknown;
  layout?: unknown;
};

const esc = (s: string): string =>
  s.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');

/** Names of styles that are headings, and at which level. */
const LEVEL: Readonly<Record<string, string>> = { title: 'h1', h: 'h2' };

/**
 * The same paper as one HTML file: headings, lists and tables are what they are, so that it is read aloud, searched and
 * reflowed; nothing is fetched.
 * @param images data URLs by the names that the content uses
 */
export function paperHtml({ frame, content }: Paper, images: Readonly<Record<string, string>>): string {
  const body = content.map((x) => painted(x, images)).join('\n');
  return [
    '<!doctype html>',
    '<html lang="en-GB">',
    `<head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><meta name="author" content="${esc(frame.house)}"><title>${esc(frame.title)}</title>`,
    `<style>${CSS}</style></head>`,
    `<body><main>${body}</main><footer>${esc(frame.foot)}</footer></body></html>`,
  ].join('\n');
}

const CSS =
  'body{font:16px/1.45 sans-serif;color:#1e2a2b;background:#fff;margin:2rem auto;max-width:46rem;padding:0 1rem}' +
  'h1{font-size:1.6rem;margin:.6em 0 .2em}h2{font-size:1.15rem;margin:1.3em 0 .3em}p{margin:.3em 0}' +
  'table{border-collapse:collapse;width:100%}td,th{text-align:left;vertical-align:top;padding:.25em .5em;border-bottom:1px solid #b9c0bd}' +
  'td.right,th.right{text-align:right}.columns{display:flex;flex-wrap:wrap;gap:1rem}.columns>*{flex:1 1 14rem}.columns>.auto{flex:0 1 auto}' +
  '.draft,.caution{color:#764e00;font-weight:600}.quiet{color:#4f5a59}.verdict{font-weight:600;font-size:1.1rem}.digest{font-size:.8rem;overflow-wrap:anywhere}' +
  'svg,img{max-width:100%;height:auto}footer{margin-top:2rem;color:#4f5a59;font-size:.85rem}@media print{body{margin:0}}';

function painted(x: unknown, images: Readonly<Record<string, string>>, inline = false): string {
  if (x === undefined || x === null || x === '') return '';
  if (typeof x === 'string' || typeof x === 'number') {
    const text = esc(String(x));
    return inline ? text : `<p>${text}</p>`;
  }
  if (typeof x !== 'object') return '';
  if (Array.isArray(x)) return x.map((y) => painted(y, images, inline)).join(inline ? '' : '\n');
  const n = x as Node;
  const inner = (y: unknown) => painted(y, images);
  if (n.stack) return `<div${named(n)}>${n.stack.map(inner).join('\n')}</div>`;
  if (n.columns)
    return `<div class="columns">${n.columns.map((y) => `<div${typeof (y as Node).width === 'number' ? ' class="auto"' : ''}>${inner(y)}</div>`).join('')}</div>`;
  if (n.ul) return `<ul>${n.ul.map((y) => `<li>${painted(y, images, true)}</li>`).join('')}</ul>`;
  if (n.table) return tableHtml(n.table, images);
  if (n.svg !== undefined) return n.svg;
  if (n.image !== undefined) return `<img src="${esc(images[n.image] ?? '')}" alt="">`;
  if (n.text === undefined) return '';
  const text = painted(n.text, images, true);
  const weight = n.bold ? `<b>${text}</b>` : text;
  if (inline) return n.style ? `<span${named(n)}>${weight}</span>` : weight;
  const level = n.style === undefined ? undefined : LEVEL[n.style];
  return level ? `<${level}>${text}</${level}>` : `<p${named(n)}>${weight}</p>`;
}

const named = (n: Node): string => (n.style === undefined ? '' : ` class="${esc(n.style)}"`);

/** A table of two columns whose first is bold is names with values; one with a head row has headings of columns. */
function tableHtml(
  { body, headerRows = 0 }: NonNullable<Node['table']>,
  images: Readonly<Record<string, string>>,
): string {
  const cell = (x: unknown, tag: string, scope = ''): string => {
    const n = typeof x === 'object' && x !== null && !Array.isArray(x) ? (x as Node) : { text: x };
    const side = n.alignment === 'right' ? ' class="right"' : '';
    return `<${tag}${scope}${side}>${'text' in n ? painted(n.text, images, true) : painted(n, images)}</${tag}>`;
  };
  const row = (cells: unknown[], head: boolean): string =>
    `<tr>${cells
      .map((x, i) => {
        if (head) return cell(x, 'th', ' scope="col"');
        const first = i === 0 && cells.length > 1 && (x as Node).bold === true;
        return first ? cell(x, 'th', ' scope="row"') : cell(x, 'td');
      })
      .join('')}</tr>`;
  const head = body.slice(0, headerRows).map((r) => row(r, true));
  const rest = body.slice(headerRows).map((r) => row(r, false));
  return `<table>${head.length > 0 ? `<thead>${head.join('')}</thead>` : ''}<tbody>${rest.join('')}</tbody></table>`;
}
