import type { LoopCheck, LoopReason } from '@core/drive/check-loop';
import type { Layout } from '@core/drive/layout';
import type { DrivePhotoFault } from '@core/examination/drive-photo';
import type { DrivePhoto, PhotoDoubt } from '@core/examination/photo-sheet';
import type { OwnFault } from '@core/catalogue/own-faults';
import { formatNumber, formatQuantity } from '@core/quantity/format-quantity';
import { nth } from '@core/quantity/must';
import { counted } from '../language/plural';
import { pathSentence, wheelName } from './drive';

const FIELDS: Readonly<Record<string, string>> = {
  catalogue: 'a name for the catalogue',
  code: 'the engine’s code',
  maker: 'its maker',
  design: 'at least one design',
  name: 'a name',
  seen: 'what one sees at it',
  say: 'the sentence that asks for it on the phone',
  number: 'a number',
  part: 'at least one part',
};
const WHAT = { engine: 'engine', kit: 'kit', part: 'part' } as const;
const NUMBERS: Readonly<Record<string, string>> = {
  months: 'Months',
  km: 'Kilometres',
  quantity: 'Quantity',
};

/** What still stands between a form and an engine that answers. */
export function ownFaultWords(f: OwnFault): string {
  const row = f.at === undefined ? '' : `${f.step === 'kit' ? 'Part' : 'Design'} ${f.at + 1}: `;
  switch (f.code) {
    case 'missing':
      return `${row}${row === '' ? 'Still missing:' : 'still missing:'} ${FIELDS[f.field] ?? f.field}.`;
    case 'here_already':
      return `${row}The ${WHAT[f.what]} ${f.key} is in the catalogue already; correct it in its tables.`;
    case 'not_a_day':
      return `${row}“${f.typed}” is no day, month or year; write 2014, 2014-03 or 2014-03-12.`;
    case 'window_backwards':
      return `${row}it ends before it begins.`;
    case 'no_number':
      return `${row}${NUMBERS[f.field] ?? f.field}: “${f.typed}” is no whole number above zero.`;
    case 'twice':
      return `${row}${f.key} stands here twice.`;
    case 'not_parted':
      return 'Nothing tells the designs apart: give the days between which each was built, or what one sees.';
    case 'drive_of_none':
      return 'A drive is drawn up, but no design has it.';
    case 'no_belt':
      return 'No belt and no chain is among the parts.';
  }
}

/** A length in mm, with its standard uncertainty where it was measured. */
export const mm = (v: number, u?: number): string =>
  formatQuantity('length', v, { unit: 'mm', decimals: 1, ...(u === undefined ? {} : { u }) });

const nameOf = (photo: DrivePhoto, i: number): string => {
  const name = photo.wheels[i]?.name.trim() ?? '';
  return name === '' ? `Wheel ${i + 1}` : name;
};
/** Teeth of a belt, links of a chain. */
const piecesWord = (kind: Layout['kind'], n: number): string =>
  kind === 'chain' ? counted(n, 'link', 'links') : counted(n, 'tooth', 'teeth');

/** A belt or chain as a kit lists it. */
export const beltName = ({ kind, count }: Pick<Layout, 'kind' | 'count'>): string =>
  `Timing ${kind} ${piecesWord(kind, count)}`;

/** What a photograph still needs before a drive is measured on it. */
export function photoFaultWords(photo: DrivePhoto, f: DrivePhotoFault): string {
  switch (f.code) {
    case 'no_scale':
      return photo.scale === 'ruler'
        ? 'Press two marks of the ruler, and say how far apart they are.'
        : 'Press the four corners of the rectangle, and say how wide and high it is.';
    case 'flat_rectangle':
      return 'The corners do not go around: press them one after the other, along its edges.';
    case 'no_pitch':
      return `Still missing: the pitch of the ${photo.kind}.`;
    case 'no_count':
      return `Still missing: how many ${photo.kind === 'chain' ? 'links' : 'teeth'} the ${photo.kind} has.`;
    case 'too_few_wheels':
      return 'A drive has two wheels or more.';
    case 'not_picked':
      return `${nameOf(photo, f.wheel)} is not picked yet.`;
    case 'no_size':
      return `${nameOf(photo, f.wheel)}: three spots of its rim, or count its teeth.`;
    case 'no_rim':
      return f.why.code === 'too_few_points'
        ? `${nameOf(photo, f.wheel)}: three spots of its rim, well apart; or one, its middle, where teeth are counted.`
        : `${nameOf(photo, f.wheel)}: its spots lie in a line. Press them well apart round the rim.`;
    case 'no_pivot':
      return `${nameOf(photo, f.wheel)}: press the bolt about which its eccentric is turned.`;
    case 'carrier':
      return f.why.code === 'not_eccentric'
        ? `${nameOf(photo, f.wheel)}: the pivot lies in its middle, so nothing is eccentric.`
        : `${nameOf(photo, f.wheel)}: its marks run from, nominal, to, end, each at least the one before.`;
    case 'behind':
      return `${nameOf(photo, f.wheel)} lies beyond the horizon of that rectangle. Press its corners again.`;
    case 'not_held':
      return 'What is picked does not hold the wheels in their places: press more spots, or measure a distance.';
  }
}

/** Something picked or measured that does not agree with all the rest. */
export function photoDoubtWords(photo: DrivePhoto, d: PhotoDoubt): string {
  const off = mm(Math.abs(d.mm));
  if (d.is === 'spot')
    return d.spot === undefined
      ? `A spot of ${nameOf(photo, d.wheel)} lies ${off} off its circle: press them again.`
      : `Spot ${d.spot + 1} of ${nameOf(photo, d.wheel)} does not lie on the circle of the others.`;
  const between = photo.distances[d.at];
  const name = (id: string | undefined) => {
    const i = photo.wheels.findIndex((w) => w.id === id);
    return i < 0 ? '?' : nameOf(photo, i);
  };
  return `${name(between?.a)} to ${name(between?.b)}: the picture has it ${off} ${d.mm > 0 ? 'longer' : 'shorter'}. Measure it again.`;
}

/** Does the belt lie on the wheels that were measured? One sentence. */
export function loopWords(layout: Layout, c: LoopCheck): string {
  if (c.offMm === undefined)
    return c.error ? `No ${layout.kind} can run so. ${pathSentence(layout, c.error)}` : '';
  const path = mm(c.wantedMm + c.offMm, c.u);
  const belt = `${layout.count} × ${formatNumber(layout.pitchMm, pitchDigits(layout.pitchMm))} mm are ${mm(c.wantedMm)}`;
  return c.closes
    ? `The loop closes: the path is ${path}, and ${belt}.`
    : `The loop does not close: the path is ${path}, but ${belt}. That is ${formatNumber(Math.abs(c.offMm) / layout.pitchMm, 1)} ${layout.kind === 'chain' ? 'links' : 'teeth'} too ${c.offMm > 0 ? 'short' : 'long'} a ${layout.kind}.`;
}
const pitchDigits = (v: number): number => (Number.isInteger(v) ? 0 : Number.isInteger(v * 10) ? 1 : 3);

/** How surely a miscount would be seen: less than a tooth, or not. */
export function seesWords(layout: Layout, u: number): string {
  if (3 * u < layout.pitchMm / 2) return '';
  return `It is not sure to a ${layout.kind === 'chain' ? 'link' : 'tooth'} yet: a distance between two centres, measured by hand, helps most; so do more spots, pressed closer.`;
}

const RIMS = {
  for: '; the rim that was picked says so too',
  against: '; the rim that was picked says otherwise',
  silent: '',
};

/** One thing that would explain why a loop does not close. */
export function reasonSentence(layout: Layout, r: LoopReason): string {
  switch (r.what) {
    case 'count':
      return `The ${layout.kind} has ${piecesWord(layout.kind, r.count)}, not ${layout.count}.`;
    case 'teeth':
      return `${wheelName(layout, r.wheel)} has ${counted(r.teeth, 'tooth', 'teeth')}, not ${nth(layout.wheels, r.wheel).teeth ?? '?'}${RIMS[r.rims]}.`;
    case 'side':
      return `${wheelName(layout, r.wheel)} has the ${nth(layout.wheels, r.wheel).side === 1 ? 'back' : 'inside'} of the ${layout.kind} on it.`;
    case 'order':
      return `The ${layout.kind} meets ${wheelName(layout, r.wheels[1])} before ${wheelName(layout, r.wheels[0])}.`;
    case 'scale':
      return `Everything is picked ${formatNumber(Math.abs(r.factor - 1) * 100, 1)} % too ${r.factor > 1 ? 'large' : 'small'}${RIMS[r.rims]}: what gives the scale has another length, or lies ${r.factor > 1 ? 'further from' : 'nearer to'} the camera than the wheels.`;
  }
}

/** What the next press on the photograph picks. */
export function nextOnDrive(
  photo: DrivePhoto,
  p: { what: 'scale' } | { what: 'wheel' | 'pivot'; wheel: number },
): string {
  if (p.what === 'scale')
    return photo.scale === 'ruler'
      ? `Press ${photo.marks.length === 1 ? 'the other' : 'one'} mark of the ruler`
      : `Press corner ${(photo.marks.length % 4) + 1} of the rectangle, going around${photo.marks.length % 4 === 0 ? '; the first side is its width' : ''}`;
  const w = photo.wheels[p.wheel];
  if (!w) return '';
  const name = nameOf(photo, p.wheel);
  if (p.what === 'pivot') return `Press the bolt about which the eccentric of ${name} is turned`;
  const spots = w.spots.length;
  if (spots >= 3)
    return `${name}: ${counted(spots, 'spot', 'spots')}; one more makes it surer, or take the next wheel`;
  return `${name}: press ${spots === 0 ? 'a spot' : 'another spot'} of its rim, well apart${spots === 0 && w.teeth !== undefined ? '; three or more, or its middle alone' : ''}`;
}
