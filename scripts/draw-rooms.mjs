// docs/rooms.svg: the rooms of core and the folders of the app as they import each other today. --check: says when it is not current.
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './ensure.mjs';
import { imports } from './imports.mjs';

/** The room of a file; the stations are one, since none imports another. */
function roomOf(file) {
  const [top, folder, more] = file.split(/[\\/]/);
  if (/\.(spec|fixture)\.ts$/.test(file) || folder === 'testing') return undefined;
  if (top === 'core' || top === 'app')
    return more === undefined ? (top === 'app' ? 'app' : undefined) : `${top}/${folder}`;
  return top === 'server' || top === 'demo' ? top : undefined;
}

const leads = new Map();
for (const [file, to] of imports) {
  const from = roomOf(file);
  if (from === undefined) continue;
  if (!leads.has(from)) leads.set(from, new Set());
  for (const t of to) {
    const room = roomOf(t);
    if (room !== undefined && room !== from) leads.get(from).add(room);
  }
}
const rooms = [...leads.keys()].sort();

/** How far a room stands above the lowest: one more than the highest that it imports. */
const heights = new Map();
const height = (room) => {
  if (!heights.has(room)) heights.set(room, 1 + Math.max(-1, ...[...leads.get(room)].map(height)));
  return heights.get(room);
};
const reach = (room, over) => [...leads.get(room)].some((r) => r === over || reach(r, over));
/** Only what is not reached by way of another room is drawn. */
const arrows = rooms.flatMap((from) =>
  [...leads.get(from)]
    .filter((to) => ![...leads.get(from)].some((by) => by !== to && reach(by, to)))
    .map((to) => [from, to]),
);

const [WIDE, TALL, ROW, GAP] = [112, 26, 62, 14];
const rows = [];
for (const room of rooms) (rows[height(room)] ??= []).push(room);
const most = Math.max(...rows.map((r) => r.length));
const width = most * (WIDE + GAP) + GAP;
const total = rows.length * ROW + 20;
const place = new Map();
rows.forEach((row, h) => {
  const from = (width - row.length * (WIDE + GAP) + GAP) / 2;
  row.forEach((room, i) => place.set(room, { x: from + i * (WIDE + GAP), y: total - (h + 1) * ROW }));
});
const line = ([from, to]) => {
  const [a, b] = [place.get(from), place.get(to)];
  const [x1, y1, x2, y2] = [a.x + WIDE / 2, a.y + TALL, b.x + WIDE / 2, b.y];
  const bend = (y2 - y1) / 2;
  return `<path d="M${x1} ${y1}C${x1} ${y1 + bend} ${x2} ${y2 - bend} ${x2} ${y2}"/>`;
};
const box = (room) => {
  const { x, y } = place.get(room);
  const kind = room.startsWith('core') ? 'core' : 'app';
  return `<g class="${kind}"><rect x="${x}" y="${y}" width="${WIDE}" height="${TALL}" rx="3"/><text x="${x + WIDE / 2}" y="${y + 17}">${room}</text></g>`;
};
const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${total}" font-family="sans-serif" font-size="12">
<style>rect{stroke:#444}.core rect{fill:#dce9e4}.app rect{fill:#f3ecdc}text{text-anchor:middle;fill:#222}path{fill:none;stroke:#777}</style>
<rect width="${width}" height="${total}" style="fill:#fff;stroke:none"/>
${arrows.map(line).join('\n')}
${rooms.map(box).join('\n')}
</svg>
`;

const file = join(root, 'docs', 'rooms.svg');
if (!process.argv.includes('--check')) writeFileSync(file, svg);
else if (!existsSync(file) || readFileSync(file, 'utf8') !== svg) {
  console.error('docs/rooms.svg is not what the imports say today. Run: npm run docs:rooms');
  process.exit(1);
}
console.log(`${rooms.length} rooms, ${arrows.length} arrows`);
