import type { JobItem, Part } from '@core/catalogue/pack';
import type { Layout } from '@core/drive/layout';
import type { VariantSketch } from './families';

type PartSketch = Pick<Part, 'kind' | 'name' | 'attributes'> & { quantity?: number; option?: string };
type JobSketch = Omit<JobItem, 'variant' | 'part'> & { kindOfPart?: string };

const pick = (v: VariantSketch, ...keys: string[]): Part['attributes'] =>
  Object.fromEntries(
    keys.flatMap((k) =>
      typeof v.dims[k] === 'number' || typeof v.dims[k] === 'string' ? [[k, v.dims[k]]] : [],
    ),
  );

/** The parts that a drive takes, stage by stage as its layouts have them; options go into the kit of that name only. */
export function partsFor(v: VariantSketch, stages: readonly Layout[]): PartSketch[] {
  return v.template.startsWith('belt') ? beltParts(v, stages) : chainParts(v, stages);
}

const isPump = (l: Layout) =>
  l.kind === 'belt' && l.wheels.some((w) => w.role === 'pump' && w.teeth === undefined);
export const drivesPump = (stages: readonly Layout[]): boolean => stages.some(isPump);

function beltParts(v: VariantSketch, stages: readonly Layout[]): PartSketch[] {
  const [first, ...lower] = stages;
  const tensioner = first!.wheels.find((w) => w.role === 'tensioner')!;
  const out: PartSketch[] = [
    {
      kind: 'belt',
      name: `${first!.name ?? 'Timing belt'} ${first!.count} teeth`,
      attributes: { teeth: first!.count, ...pick(v, 'pitchMm', 'widthMm', 'profile'), thicknessMm: 4.8 },
    },
    {
      kind: 'tensioner',
      name: tensionerName(v.template),
      attributes: { outsideMm: 2 * (tensioner.outsideMm ?? 29), boltM: 10, tab: 'left', ...pick(v, 'boltM') },
    },
    ...first!.wheels
      .filter((w) => w.role === 'idler')
      .map((w) => ({
        kind: 'idler' as const,
        name: w.name,
        attributes: { outsideMm: 2 * (w.outsideMm ?? 24) },
      })),
    {
      kind: 'bolt',
      name: 'Tensioner bolt, single use',
      attributes: { boltM: Number(v.dims['boltM'] ?? 10), lengthMm: 55 },
    },
    { kind: 'seal', name: 'Front crank seal', attributes: { outsideMm: 52 } },
  ];
  if (drivesPump(stages))
    out.push({
      kind: 'pump',
      name: 'Water pump',
      attributes: { impeller: 'metal', boltM: 6 },
      option: 'pump',
    });
  for (const l of lower)
    out.push(
      l.kind === 'chain'
        ? { kind: 'chain', name: l.name!, attributes: { links: l.count, pitchMm: 8, profile: 'bush' } }
        : {
            kind: 'belt',
            name: l.name!,
            attributes: { teeth: l.count, pitchMm: 8, widthMm: 18, profile: 'trapezoid' },
          },
    );
  if (v.template === 'belt-adjustable' || v.template === 'belt-diesel')
    out.push({ kind: 'sprocket', name: 'Cam sprocket', attributes: { teeth: 40, boltM: 12 } });
  if (v.template === 'belt-opposed')
    out.push({ kind: 'ring', name: 'Sensor ring', attributes: pick(v, 'windows') });
  return out;
}

const tensionerName = (template: string) =>
  ({
    'belt-manual': 'Manual eccentric tensioner',
    'belt-hydraulic': 'Hydraulic damper with lever',
    'belt-adjustable': 'Manual eccentric tensioner, uprated',
  })[template] ?? 'Automatic eccentric tensioner';

/** "Tensioner, left secondary chain"; without a place where there is only one. */
const placed = (what: string, l: Layout, alone: boolean) =>
  alone ? what : `${what}, ${l.name![0]!.toLowerCase()}${l.name!.slice(1)}`;

function chainParts(v: VariantSketch, stages: readonly Layout[]): PartSketch[] {
  const alone = stages.length === 1;
  const out: PartSketch[] = [];
  for (const l of stages) {
    const marks =
      v.dims['markedLinks'] === undefined
        ? { markedLinks: 3, linksBetween: Math.round(l.count / 7) }
        : pick(v, 'markedLinks', 'linksBetween');
    out.push({
      kind: 'chain',
      name: l.name ?? 'Timing chain',
      attributes: {
        links: l.count,
        pitchMm: l.pitchMm,
        widthMm: Number(v.dims['widthMm'] ?? 9),
        profile: v.template === 'chain-ring' ? 'inverted tooth' : 'bush',
        ...marks,
      },
    });
    for (const w of l.wheels) {
      if (w.role === 'tensioner')
        out.push(
          {
            kind: 'tensioner',
            name: placed('Plunger tensioner', l, alone),
            attributes: { bodyMm: Number(v.dims['bodyMm'] ?? 50), boltM: 6, ...pick(v, 'housing', 'hand') },
          },
          { kind: 'guide', name: placed('Tensioner arm', l, alone), attributes: { lengthMm: 60 + l.count } },
        );
      if (w.role === 'guide')
        out.push({
          kind: 'guide',
          name: placed('Guide rail', l, alone),
          attributes: { lengthMm: 120 + l.count },
        });
    }
  }
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
  out.push({
    kind: 'sprocket',
    name: 'Crank sprocket',
    attributes: { teeth: stages[0]!.wheels[0]!.teeth! },
    option: 'crank sprocket',
  });
  if (v.template === 'chain-v6' || v.template === 'chain-v8') {
    for (const hand of ['left', 'right'])
      out.push({ kind: 'phaser', name: `Phaser, ${hand}`, attributes: { hand, teeth: 42 } });
  }
  if (v.dims['windows'] !== undefined)
    out.push({ kind: 'ring', name: 'Sensor ring', attributes: pick(v, 'windows'), option: 'sensor ring' });
  return out;
}

const PUMP: JobSketch = {
  item: 'Water pump',
  kind: 'reachable_now',
  kindOfPart: 'pump',
  quantity: 1,
  why: 'It runs on this belt; its bearing ends the new one.',
  costNow: 85,
  costLater: 470,
};
const OIL_SCREEN: JobSketch = {
  item: 'Oil screen of the tensioner feed',
  kind: 'clean',
  quantity: 1,
  why: 'Debris of the old guides starves the new tensioner.',
  check: 'Light shows through the whole screen, no tear.',
  costNow: 6,
  costLater: 520,
};

/** What the job needs beyond the drive, with invented costs in Aldmere crowns (AC). */
export function jobsFor(v: VariantSketch, stages: readonly Layout[]): JobSketch[] {
  const belt = v.template.startsWith('belt');
  const pump = drivesPump(stages);
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
    ...(pump ? [PUMP] : []),
    ...(belt ? [] : [OIL_SCREEN]),
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
