import type { JobItem, Part } from '@core/catalogue/pack';
import type { VariantSketch } from './families';

type PartSketch = Pick<Part, 'kind' | 'name' | 'attributes'> & { quantity?: number; option?: string };
type JobSketch = Omit<JobItem, 'variant' | 'part'> & { kindOfPart?: string };

const list = (v: VariantSketch['dims'][string] | undefined): number[] =>
  Array.isArray(v) ? v : typeof v === 'number' ? [v] : [];
const pick = (v: VariantSketch, ...keys: string[]): Part['attributes'] =>
  Object.fromEntries(
    keys.flatMap((k) =>
      typeof v.dims[k] === 'number' || typeof v.dims[k] === 'string' ? [[k, v.dims[k]]] : [],
    ),
  );

/** The parts that a drive of this kind takes; options go into the kit of that name only. */
export function partsFor(v: VariantSketch): PartSketch[] {
  return v.template.startsWith('belt') ? beltParts(v) : chainParts(v);
}

function beltParts(v: VariantSketch): PartSketch[] {
  const out: PartSketch[] = [
    {
      kind: 'belt',
      name: `Timing belt ${String(v.dims['teeth'])} teeth`,
      attributes: { ...pick(v, 'teeth', 'pitchMm', 'widthMm', 'profile'), thicknessMm: 4.8 },
    },
    {
      kind: 'tensioner',
      name: tensionerName(v.template),
      attributes: { outsideMm: 58, boltM: 10, tab: 'left', ...pick(v, 'boltM') },
    },
    { kind: 'idler', name: 'Guide roller', attributes: { outsideMm: 48 } },
    {
      kind: 'bolt',
      name: 'Tensioner bolt, single use',
      attributes: { boltM: Number(v.dims['boltM'] ?? 10), lengthMm: 55 },
    },
    { kind: 'seal', name: 'Front crank seal', attributes: { outsideMm: 52 } },
    { kind: 'pump', name: 'Water pump', attributes: { impeller: 'metal', boltM: 6 }, option: 'pump' },
  ];
  if (v.template === 'belt-over-chain')
    out.push({
      kind: 'chain',
      name: 'Lower chain',
      attributes: { links: list(v.dims['links'])[0] ?? 64, pitchMm: 8, profile: 'bush' },
    });
  if (v.template === 'belt-over-wetbelt')
    out.push({
      kind: 'belt',
      name: 'Lower belt in oil',
      attributes: { teeth: Number(v.dims['wetTeeth']), pitchMm: 8, widthMm: 18, profile: 'trapezoid' },
    });
  if (v.template === 'belt-adjustable' || v.template === 'belt-diesel')
    out.push({ kind: 'sprocket', name: 'Cam sprocket', attributes: { teeth: 40, boltM: 12 } });
  if (v.template === 'belt-opposed')
    out.push(
      { kind: 'idler', name: 'Toothed idler', attributes: { teeth: 20, outsideMm: 48 } },
      { kind: 'ring', name: 'Sensor ring', attributes: pick(v, 'windows') },
    );
  return out;
}

const tensionerName = (template: string) =>
  ({
    'belt-manual': 'Manual eccentric tensioner',
    'belt-hydraulic': 'Hydraulic damper with lever',
    'belt-adjustable': 'Manual eccentric tensioner, uprated',
  })[template] ?? 'Automatic eccentric tensioner';

function chainParts(v: VariantSketch): PartSketch[] {
  const links = list(v.dims['links']);
  const out: PartSketch[] = [];
  links.forEach((n, i) => {
    const name =
      links.length === 1
        ? 'Timing chain'
        : `${i < links.length / 2 ? 'Primary' : 'Secondary'} chain ${i + 1}`;
    const marks =
      v.dims['markedLinks'] === undefined
        ? { markedLinks: 3, linksBetween: Math.round(n / 7) }
        : pick(v, 'markedLinks', 'linksBetween');
    out.push({
      kind: 'chain',
      name,
      attributes: {
        links: n,
        pitchMm: 8,
        widthMm: Number(v.dims['widthMm'] ?? 9),
        profile: v.template === 'chain-ring' ? 'inverted tooth' : 'bush',
        ...marks,
      },
    });
    out.push({
      kind: 'tensioner',
      name: `Plunger tensioner ${i + 1}`,
      attributes: { bodyMm: Number(v.dims['bodyMm'] ?? 50), boltM: 6, ...pick(v, 'housing', 'hand') },
    });
    out.push({ kind: 'guide', name: `Guide ${i + 1}`, attributes: { lengthMm: 120 + n } });
  });
  out.push({ kind: 'guide', name: 'Tensioner arm', attributes: { lengthMm: 180 } });
  out.push({
    kind: 'bolt',
    name: 'Tensioner bolt',
    attributes: { boltM: 6, lengthMm: Number(v.dims['boltLengthMm'] ?? 45) },
    quantity: 2,
  });
  out.push({
    kind: 'bolt',
    name: v.template === 'chain-rear' ? 'Cassette bolt, left-hand thread' : 'Cam sprocket bolt, single use',
    attributes: { boltM: 10, lengthMm: 40 },
    quantity: v.template.startsWith('chain-v') ? 4 : 2,
  });
  out.push({ kind: 'seal', name: 'Front cover seal', attributes: {} });
  out.push({ kind: 'sprocket', name: 'Crank sprocket', attributes: { teeth: 21 }, option: 'crank sprocket' });
  if (v.template === 'chain-v6' || v.template === 'chain-v8') {
    for (const hand of ['left', 'right'])
      out.push({ kind: 'phaser', name: `Phaser, ${hand}`, attributes: { hand, teeth: 42 } });
  }
  if (v.dims['windows'] !== undefined)
    out.push({ kind: 'ring', name: 'Sensor ring', attributes: pick(v, 'windows'), option: 'sensor ring' });
  return out;
}

/** What the job needs beyond the drive, with invented costs in Aldmere crowns (AC). */
export function jobsFor(v: VariantSketch): JobSketch[] {
  const belt = v.template.startsWith('belt');
  const out: JobSketch[] = [
    belt
      ? {
          item: 'Tensioner bolt',
          kind: 'single_use',
          kindOfPart: 'bolt',
          quantity: 1,
          why: 'It stretches when tightened.',
          costNow: 4,
          costLater: 4,
        }
      : {
          item: 'Cam sprocket bolts',
          kind: 'single_use',
          kindOfPart: 'bolt',
          quantity: 2,
          why: 'They stretch when tightened.',
          costNow: 11,
          costLater: 11,
        },
    {
      item: belt ? 'Front crank seal' : 'Front cover seal',
      kind: 'seal',
      kindOfPart: 'seal',
      quantity: 1,
      why: 'Oil on a new drive ends it early.',
      costNow: 9,
      costLater: belt ? 390 : 640,
    },
    {
      item: 'Coolant, litres',
      kind: 'fluid',
      quantity: 5,
      why: 'Drained with the pump or its pipe.',
      costNow: 22,
      costLater: 22,
    },
    belt
      ? {
          item: 'Water pump',
          kind: 'reachable_now',
          kindOfPart: 'pump',
          quantity: 1,
          why: 'It runs on this belt; its bearing ends the new one.',
          costNow: 85,
          costLater: 470,
        }
      : {
          item: 'Oil screen of the tensioner feed',
          kind: 'clean',
          quantity: 1,
          why: 'Debris of the old guides starves the new tensioner.',
          check: 'Light shows through the whole screen, no tear.',
          costNow: 6,
          costLater: 520,
        },
    {
      item: 'Thermostat',
      kind: 'reachable_now',
      quantity: 1,
      why: 'Reached through the same covers.',
      costNow: 34,
      costLater: 180,
    },
    {
      item: 'Cover screws',
      kind: 'check',
      quantity: 1,
      why: 'Small threads in aluminium.',
      check: 'Threads whole, none stretched.',
      costNow: 8,
      costLater: 8,
    },
  ];
  if (!belt)
    out.push({
      item: 'Cover sealant',
      kind: 'sealant',
      quantity: 1,
      why: 'The cover joint crosses the block and head.',
      costNow: 12,
      costLater: 640,
    });
  if (v.dims['boltLengthMm'] !== undefined) {
    out.push({
      item: `Housing bolts ${String(v.dims['boltLengthMm'])} mm`,
      kind: 'length',
      kindOfPart: 'bolt',
      quantity: 2,
      why: 'Iron and aluminium housings take other lengths.',
      costNow: 7,
      costLater: 250,
    });
  }
  return out;
}
