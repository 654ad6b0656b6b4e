import type { Point } from '@core/drive/path';

/** A name to be placed: at a wheel, or beside a shoe, which has no room inside. */
export type Named = { id: string; name: string; x: number; y: number; r: number; hollow: boolean };
/** What a name must not lie on: lines with half their width, and discs. Sheet millimetres, y downwards. */
export type Obstacles = {
  lines: readonly { a: Point; b: Point; half: number }[];
  discs: readonly { x: number; y: number; r: number }[];
};
/** Middle of a placed name, with the room that it takes. */
export type Label = { id: string; name: string; x: number; y: number; width: number; height: number };

/** Room of a sign and of a line in pixels, at the size in which names are written; signs are counted wide. */
const SIGN_PX = 6.1;
const LINE_PX = 13;
/** Steps outward, pixels, and the directions looked at, degrees from straight outward. */
const STEPS_PX = [4, 12, 24, 40, 60, 85, 120];
const TURNS = [0, 20, -20, 40, -40, 65, -65, 90, -90, 120, -120, 150, -150, 180];

/**
 * Places names so that none lies on a strand, a wheel or another name: inside its own wheel where it fits, else beside
 * it, first straight outward from the middle of the drive, then further round and further away.
 * @param unit millimetres of the sheet for one pixel
 */
export function labelPlaces(named: readonly Named[], obstacles: Obstacles, unit: number): Label[] {
  const middle = {
    x: named.reduce((s, n) => s + n.x, 0) / Math.max(1, named.length),
    y: named.reduce((s, n) => s + n.y, 0) / Math.max(1, named.length),
  };
  const placed: Label[] = [];
  // The largest wheels first: they have room inside, and the small ones find theirs around.
  for (const n of [...named].sort((a, b) => b.r - a.r)) {
    const size = { width: n.name.length * SIGN_PX * unit, height: LINE_PX * unit };
    const candidates = [...inside(n, size), ...around(n, size, middle, unit)].map((p) => ({
      id: n.id,
      name: n.name,
      ...p,
      ...size,
    }));
    const free = candidates.find((l) => isFree(l, n, obstacles, placed));
    placed.push(free ?? leastBad(candidates, n, obstacles, placed));
  }
  return placed;
}

/** True when names that were placed before still lie on nothing, so that they need not jump while a knob is turned. */
export function stillFree(labels: readonly Label[], named: readonly Named[], obstacles: Obstacles): boolean {
  return (
    labels.length === named.length &&
    labels.every((l, i) => {
      const n = named.find((x) => x.id === l.id);
      return n !== undefined && isFree(l, n, obstacles, labels.slice(0, i));
    })
  );
}

/** Below and above the hub, where the name fits between the rims. */
function inside(n: Named, size: { width: number; height: number }): Point[] {
  if (n.hollow) return [];
  return [0.5, -0.5, 0.3, -0.3].flatMap((at) => {
    const far = Math.abs(at) * n.r + size.height / 2;
    const half = Math.sqrt(Math.max(0, (n.r * 0.9) ** 2 - far ** 2));
    return half * 2 >= size.width ? [{ x: n.x, y: n.y + at * n.r }] : [];
  });
}

function around(n: Named, size: { width: number; height: number }, middle: Point, unit: number): Point[] {
  const out = Math.atan2(n.y - middle.y, n.x - middle.x);
  return STEPS_PX.flatMap((px) =>
    TURNS.map((turn) => {
      const t = out + (turn * Math.PI) / 180;
      const [cos, sin] = [Math.cos(t), Math.sin(t)];
      const reach = n.r + px * unit;
      return {
        x: n.x + cos * reach + (Math.sign(Math.round(cos * 100)) * Math.abs(cos) ** 0.5 * size.width) / 2,
        y: n.y + sin * reach + (Math.sign(Math.round(sin * 100)) * Math.abs(sin) ** 0.5 * size.height) / 2,
      };
    }),
  );
}

const isFree = (l: Label, n: Named, o: Obstacles, placed: readonly Label[]): boolean =>
  hits(l, n, o, placed) === 0;

/** How much lies under a name: strands count most. */
function hits(l: Label, n: Named, o: Obstacles, placed: readonly Label[]): number {
  const own = !n.hollow && Math.hypot(l.x - n.x, l.y - n.y) < n.r;
  return (
    o.lines.filter((s) => crosses(l, s.a, s.b, s.half)).length * 10 +
    o.discs.filter((d) => !(own && d.x === n.x && d.y === n.y) && touches(l, d)).length +
    placed.filter((p) => overlap(l, p)).length
  );
}

function leastBad(all: readonly Label[], n: Named, o: Obstacles, placed: readonly Label[]): Label {
  const scored = all.map((l) => ({ l, bad: hits(l, n, o, placed) }));
  return scored.reduce((best, x) => (x.bad < best.bad ? x : best)).l;
}

const overlap = (a: Label, b: Label): boolean =>
  Math.abs(a.x - b.x) < (a.width + b.width) / 2 && Math.abs(a.y - b.y) < (a.height + b.height) / 2;

function touches(l: Label, d: { x: number; y: number; r: number }): boolean {
  const dx = Math.max(0, Math.abs(d.x - l.x) - l.width / 2);
  const dy = Math.max(0, Math.abs(d.y - l.y) - l.height / 2);
  return dx * dx + dy * dy < d.r * d.r;
}

/** True when a line of some width crosses a name's room. Clipping after Liang and Barsky 1984. */
export function crosses(l: Label, a: Point, b: Point, half: number): boolean {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  let [from, to] = [0, 1];
  const [w, h] = [l.width / 2 + half, l.height / 2 + half];
  for (const [p, q] of [
    [-dx, a.x - (l.x - w)],
    [dx, l.x + w - a.x],
    [-dy, a.y - (l.y - h)],
    [dy, l.y + h - a.y],
  ] as const) {
    if (p === 0) {
      if (q < 0) return false;
      continue;
    }
    const t = q / p;
    if (p < 0) from = Math.max(from, t);
    else to = Math.min(to, t);
    if (from > to) return false;
  }
  return true;
}
