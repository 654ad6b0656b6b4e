import { encode } from 'fast-png';
import * as z from 'zod';
import { fileFact, fileFacts, type NewFact } from '@core/facts/change';
import type { Author, Fact, FactValue, FileRef, Provenance } from '@core/facts/fact';
import type { Observable, Registry } from '@core/facts/observable';
import { reduce } from '@core/facts/state';
import { THING } from '@core/facts/thing';
import { answersFor } from '@core/answer/answers';
import { decideCause } from '@core/answer/decide';
import { registryFor, worldOf } from '@core/answer/world';
import { measureOnPhoto, type PhotoMeasure, type PicturePoint } from '@core/examination/photo';
import { catalogueOf } from '@core/catalogue/find-records';
import { SHIPPED_POLICY } from '@core/policy/policy';
import { cameraOver, photograph } from '@core/simulate/photograph';
import { nth } from '@core/quantity/must';
import { addDays } from '@core/quantity/dates';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { onPhoto, type PhotoOverlay } from '@core/examination/photo-overlay';
import { PACK } from '../cases';
import { demoPack } from '../catalogue';
import data from '../data/boxes.json';
import { BENCH, CARD } from './patches';
import { CaptureOfSchema, type DemoFile, recorded } from './captures';
import { sceneOf, type SceneOf } from './scenes';

const BoxSchema = z.strictObject({
  tag: z.string(),
  opened: z.iso.datetime(),
  engine: z.string(),
  features: z.record(z.string(), z.string()),
  built: z.string().optional(),
  who: z.string(),
  kit: z.string(),
  km: z.number(),
  /** What it ran since the fitting, km, in so many months. */
  run: z.number(),
  months: z.number().int(),
  symptom: z.string(),
  complaint: z.string(),
  sent: z.array(z.string()),
  /** Further things than the first of their kind. */
  things: z.array(z.strictObject({ id: z.string(), kind: z.string() })).optional(),
  facts: z.array(
    z.tuple([
      z.string(),
      z.custom<FactValue>(),
      z
        .strictObject({ at: z.number().optional(), to: z.number().optional(), about: z.string().optional() })
        .optional(),
    ]),
  ),
  photos: z.array(
    z.strictObject({
      of: z.string(),
      name: z.string(),
      scene: z.custom<SceneOf>((s) => typeof s === 'object' && s !== null && 'kind' in s),
      /** What was measured on it. */
      measure: z.string().optional(),
    }),
  ),
  captures: z.array(CaptureOfSchema).optional(),
  /** The cause that was decided, and why where it is not the leader. */
  decided: z.strictObject({ cause: z.string(), because: z.string().optional() }).optional(),
});
export type Box = z.infer<typeof BoxSchema>;
export type Photo = { ref: FileRef; png: Uint8Array };
export type Boxes = {
  format: 'hollow-sprocket-demo-boxes';
  facts: Fact[];
  files: FileRef[];
};

/** "Workshop, person" as the desk writes it: the person first. */
const byDesk = (who: string): string => who.split(', ').reverse().join(', ');

/** Who opens boxes at this desk, in turn. */
const HANDS = ['Cuthbert Lode', 'Ida Fennimore', 'Cuthbert Lode'] as const;

const MARROWFEN = demoPack();
const WORLD = worldOf(catalogueOf(MARROWFEN));
export const BOXES: readonly Box[] = z.array(BoxSchema).parse(data);

/** How surely a spot is pressed on a picture of the demo, shown as wide as the dialog is, pixels. */
const PICK_PX = SHIPPED_POLICY.pickScreenPx;
/** To a hundredth of a pixel, as the picture part presses. */
const pressed = ({ x, y }: PicturePoint): PicturePoint => ({
  x: Math.round(x * 100) / 100,
  y: Math.round(y * 100) / 100,
});

/** The photograph of a scene, where its card stands on it, and where its measure does. */
export function taken(
  scene: SceneOf,
  seed: number,
  name: string,
): Photo & { corners: PicturePoint[]; spots: PicturePoint[] } {
  const s = sceneOf(scene);
  const camera = cameraOver(s.view, seed);
  const { width, height, rgb } = photograph(camera, BENCH, s.patches);
  const png = encode({ width, height, data: rgb, channels: 3 });
  return {
    png,
    ref: { hash: bytesToHex(sha256(png)), name, type: 'image/png', bytes: png.length },
    corners: s.card.map((p) => pressed(camera.see(p))),
    spots: s.spots.map((p) => pressed(camera.see(p))),
  };
}

/** What was read off a photograph, with what was picked on it. */
function measured(
  o: Observable,
  of: string,
  about: string | undefined,
  photo: ReturnType<typeof taken>,
): NewFact[] {
  const what = onPhoto(o);
  if (what === undefined) throw new Error(`${o.key} is not read off pictures`);
  const overlay: PhotoOverlay = {
    is: 'overlay',
    hash: photo.ref.hash,
    key: o.key,
    scale: what === 'count' ? 'counted' : 'rectangle',
    sides: what === 'count' ? [] : [CARD.width, CARD.height],
    sideU: SHIPPED_POLICY.scaleSideU,
    marks: what === 'count' ? [] : photo.corners,
    spots: photo.spots,
  };
  const read = what === 'count' ? { value: photo.spots.length } : readOff(what, photo);
  const files = [photo.ref];
  const place = o.place === 'piece' ? { place: { on: o.place, from: 1 } } : {};
  return [
    { key: o.key, about, ...read, ...place, how: 'measured', files },
    { key: 'photo.overlay', about: of, value: overlay, how: 'measured', files },
  ];
}

function readOff(what: PhotoMeasure['what'], photo: ReturnType<typeof taken>): { value: number; u: number } {
  const corners = photo.corners as [PicturePoint, PicturePoint, PicturePoint, PicturePoint];
  const scale = { kind: 'rectangle' as const, corners, ...CARD, u: SHIPPED_POLICY.scaleSideU };
  const read = measureOnPhoto(scale, { what, spots: photo.spots }, PICK_PX);
  if (!read.ok) throw new Error(`${photo.ref.name}: ${read.error.code}`);
  return read.value;
}

const usualHow = (registry: Registry, key: string): Provenance => registry.get(key)?.how ?? 'seen';

/** The facts of one box, in the order of the work, its photographs and its captures. */
export function boxFacts(box: Box): { id: string; facts: Fact[]; photos: Photo[]; captures: DemoFile[] } {
  const id = `demo-box-${box.tag}`;
  const registry = registryFor(WORLD);
  const day = box.opened.slice(0, 10);
  let [minute, made] = [0, 0];
  const author: Author = {
    by: nth(HANDS, Number(box.tag) % HANDS.length),
    now: () => new Date(Date.parse(box.opened) + minute++ * 20_000).toISOString(),
    newId: () => `${id}-${String(++made).padStart(3, '0')}`,
  };
  const plain = (key: string, value: FactValue, how: Provenance = 'document'): NewFact => {
    const t = registry.get(key)?.type;
    return { key, value, how, ...(t?.kind === 'number' && t.u !== undefined ? { u: t.u } : {}) };
  };
  const entries: NewFact[] = [
    plain('case.tag', box.tag, 'decided'),
    plain('case.catalogue', PACK, 'decided'),
    plain('call.who', byDesk(box.who)),
    plain('claim.number', `C-${box.tag}0`),
    plain('engine.code', box.engine),
    ...(box.built ? [plain('vehicle.built', box.built)] : []),
    plain('vehicle.odometer', box.km),
    plain('case.date', day),
    plain('kit.number', box.kit),
    plain('kit.fitted', addDays(day, -Math.round(box.months * 30.5) - 2)),
    plain('kit.fitted_odometer', box.km - box.run),
    plain('symptom', box.symptom, 'reported'),
    plain('complaint', box.complaint, 'reported'),
    ...Object.entries(box.features).map(([key, value]) => plain(`feature.${key}`, value, 'seen')),
    plain('parts.sent', box.sent, 'seen'),
    ...(box.things ?? []).map((t): NewFact => ({ about: t.id, key: THING.kind, value: t.kind, how: 'seen' })),
  ];
  for (const [key, value, where = {}] of box.facts) {
    const o = registry.get(key);
    const u = o?.type.kind === 'number' ? o.type.u : undefined;
    entries.push({
      key,
      value,
      how: usualHow(registry, key),
      ...(where.about === undefined ? {} : { about: where.about }),
      ...(o?.place && where.at !== undefined
        ? { place: { on: o.place, from: where.at, ...(where.to === undefined ? {} : { to: where.to }) } }
        : {}),
      ...(u === undefined ? {} : { u }),
    });
  }
  const photos = box.photos.map((p, i) => {
    const photo = taken(p.scene, Number(box.tag) * 10 + i, p.name);
    entries.push({
      key: THING.file,
      about: p.of,
      value: p.name,
      how: 'seen',
      files: [photo.ref],
      series: 'files',
    });
    const o = p.measure === undefined ? undefined : registry.get(p.measure);
    const further = box.things?.some((t) => t.id === p.of) ? p.of : undefined;
    if (o) entries.push(...measured(o, p.of, further, photo));
    return { ref: photo.ref, png: photo.png };
  });
  const captures = (box.captures ?? []).map((c, i) => {
    const file = recorded(MARROWFEN, box.engine, box.kit, c, Number(box.tag) * 10 + i);
    entries.push({ key: THING.file, value: file.ref.name, how: 'seen', files: [file.ref], series: 'files' });
    return file;
  });
  const facts = fileFacts(reduce([]), id, entries, author);
  return { id, facts: [...facts, ...decidedOf(box, id, facts, author)], photos, captures };
}

/** What was decided of a box, on what its facts say. */
function decidedOf(box: Box, id: string, facts: readonly Fact[], author: Author): Fact[] {
  if (!box.decided) return [];
  const state = reduce(facts);
  const entry = decideCause(answersFor(WORLD, state), box.decided.cause, box.decided.because ?? '');
  if (!entry.ok) throw new Error(`${box.tag}: ${box.decided.cause} cannot be decided, ${entry.error.code}`);
  return [fileFact(state, id, entry.value, author)];
}

/** All boxes of the demo, with their photographs and captures. */
export function demoBoxes(): { boxes: Boxes; photos: Photo[]; captures: DemoFile[] } {
  const all = BOXES.map(boxFacts);
  const photos = all.flatMap((b) => b.photos);
  const captures = all.flatMap((b) => b.captures);
  return {
    boxes: {
      format: 'hollow-sprocket-demo-boxes',
      facts: all.flatMap((b) => b.facts),
      files: [...photos, ...captures].map((p) => p.ref),
    },
    photos,
    captures,
  };
}
