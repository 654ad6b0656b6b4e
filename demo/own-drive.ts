import { encode } from 'fast-png';
import { placesAlong } from '@core/drive/along';
import type { Layout } from '@core/drive/layout';
import { pitchRadius } from '@core/drive/layout';
import { solveDrive } from '@core/drive/solve-drive';
import { EMPTY_ENGINE, type OwnEngine } from '@core/catalogue/own-engine';
import type { DrivePhoto } from '@core/examination/photo-sheet';
import type { PicturePoint } from '@core/examination/photo';
import { nth } from '@core/quantity/must';
import { cameraOver, type Colour, type Patch, photograph } from '@core/simulate/photograph';
import { CORD, DARK, INK, PAPER, patch, patchRect, round, RUBBER, STEEL } from './boxes/patches';
import { singleCam } from './layouts/single-cam';

/** A drive that stands in no catalogue here: its photograph, and what one reads off the engine and counts. */
export type OwnDrive = {
  form: OwnEngine;
  /** As it is once everything is picked. */
  photo: DrivePhoto;
};

const CARD = { width: 90, height: 60 };
const PLATE: Colour = [168, 172, 170];
const COVER: Colour = [122, 130, 132];
const SIZE = { width: 1280, height: 1600 };

const LAYOUT: Layout = singleCam({
  id: 'own-drive',
  count: 123,
  camY: 336,
  guide: { x: -82, y: 96, outsideMm: 27 },
  pumpX: 55,
  pivot: { x: -66, y: 186 },
  nominalCarrierDeg: 60,
});

/** A wheel with its teeth, as its outline. */
function gear(c: PicturePoint, r: number, teeth: number, deep: number): PicturePoint[] {
  return Array.from({ length: teeth * 4 }, (_, k) => {
    const a = (2 * Math.PI * (k + 0.5)) / (teeth * 4);
    const at = k % 4 < 2 ? r : r - deep;
    return { x: c.x + at * Math.cos(a), y: c.y + at * Math.sin(a) };
  });
}

/** The photograph of the drive with a card of known sides beside it, and everything that is picked on it. */
export function ownDrive(): OwnDrive & { png: Uint8Array } {
  const s = solveDrive(LAYOUT);
  if (!s.ok) throw new Error(s.error.code);
  const { circles, path } = s.value;
  // On paper y runs downwards.
  const down = ({ x, y }: PicturePoint): PicturePoint => ({ x, y: -y });
  const rims = LAYOUT.wheels.map((w) =>
    w.teeth === undefined ? (w.outsideMm ?? 0) : pitchRadius(LAYOUT, w) - 0.6,
  );
  const patches: Patch[] = [
    patch(patchRect(-190, -430, 380, 520), PLATE),
    patch(patchRect(-176, -416, 352, 130), COVER),
  ];
  const carrier = LAYOUT.wheels.find((w) => w.carrier)?.carrier;
  LAYOUT.wheels.forEach((w, i) => {
    const [c, r] = [down(nth(circles, i)), nth(rims, i)];
    patches.push(patch(w.teeth === undefined ? round(c.x, c.y, r) : gear(c, r, w.teeth, 2.4), STEEL));
    patches.push(
      patch(round(c.x, c.y, r * 0.7), w.side === 1 ? DARK : COVER),
      patch(round(c.x, c.y, 9), STEEL),
    );
    patches.push(patch(round(c.x, c.y, 4), INK));
  });
  const places = placesAlong(circles, path, 480, 0);
  const band = (off: number) =>
    places.map(({ x, y, angle }) => down({ x: x - off * Math.sin(angle), y: y + off * Math.cos(angle) }));
  // It runs clockwise: outside lies to the left of where it goes.
  const [outer, inner] = [band(LAYOUT.backMm), band(-1.2)];
  places.forEach((_, i) => {
    const j = (i + 1) % places.length;
    patches.push(patch([nth(outer, i), nth(outer, j), nth(inner, j), nth(inner, i)], RUBBER));
    if (i % 40 < 2) patches.push(patch([nth(outer, i), nth(outer, j), nth(inner, j), nth(inner, i)], CORD));
  });
  const pivot = carrier && down(carrier.pivot);
  if (pivot) patches.push(patch(round(pivot.x, pivot.y, 5), INK));
  const corner = { x: -176, y: 22 };
  const card = patchRect(corner.x, corner.y, CARD.width, CARD.height);
  patches.push(patch(card, PAPER));
  for (let x = 0; x <= CARD.width; x += 5)
    patches.push(
      patch(patchRect(corner.x + x - 0.3, corner.y + CARD.height - 6, 0.6, x % 10 === 0 ? 6 : 3), INK),
    );
  const camera = cameraOver({ x: -200, y: -440, w: 400, h: 540 }, 20, SIZE.width, SIZE.height);
  const picture = photograph(camera, [74, 70, 66], patches);
  const png = encode({ width: SIZE.width, height: SIZE.height, data: picture.rgb, channels: 3, depth: 8 });
  const tenth = ({ x, y }: PicturePoint) => ({ x: Math.round(x * 10) / 10, y: Math.round(y * 10) / 10 });
  const seen = (p: PicturePoint) => tenth(camera.see(p));
  const { kind, runs, pitchMm, count, backMm, toothMm } = LAYOUT;
  return {
    png,
    form: {
      ...EMPTY_ENGINE,
      catalogue: 'Own engines',
      source: 'Entered at this desk',
      code: 'WHX-18',
      maker: 'Wharfedown',
      family: 'Petrol 1.8',
      vehicles: 'Curlew, Curlew Estate',
      interference: 'yes',
      designs: [{ name: '', from: '2012-03', to: '', seen: '', drive: true }],
      kit: {
        number: 'MF-K123-61',
        name: 'Belt kit 123 teeth',
        months: '24',
        km: '60000',
        parts: [
          { number: 'MF-TB123-61', kind: 'belt', name: 'Timing belt 123 teeth', quantity: '1' },
          { number: 'MF-TE58-61', kind: 'tensioner', name: 'Tensioner', quantity: '1' },
          { number: 'MF-GR54-61', kind: 'idler', name: 'Guide roller', quantity: '1' },
        ],
      },
    },
    photo: {
      ...{ kind, runs, pitchMm, count, backMm, toothMm },
      scale: 'rectangle',
      sides: [CARD.width, CARD.height],
      sideU: 0.2,
      distances: [{ a: 'crank', b: 'cam', mm: 336, u: 0.5 }],
      marks: card.map(seen),
      wheels: LAYOUT.wheels.map((w, i) => {
        const { id, name, role, side, teeth } = w;
        const c = nth(circles, i);
        const spots = [20, 110, 200, 290].map((deg) => {
          const a = (deg * Math.PI) / 180;
          const r = nth(rims, i);
          return seen(down({ x: c.x + r * Math.cos(a), y: c.y + r * Math.sin(a) }));
        });
        const eccentric =
          w.carrier?.kind === 'eccentric' && pivot
            ? { pivot: seen(pivot), turn: w.carrier.turn, ...w.carrier.window, end: w.carrier.endDeg }
            : undefined;
        return {
          id,
          name,
          role,
          side,
          spots,
          ...(teeth ? { teeth } : {}),
          ...(eccentric ? { eccentric } : {}),
        };
      }),
    },
  };
}
