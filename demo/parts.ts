import type { JobItem, Part } from '@core/catalogue/pack';
import type { Layout } from '@core/drive/layout';
import type { VariantSketch } from './families';

type PartSketch = Pick<Part, 'kind' | 'name' | 'attributes' | 'as'> & { quantity?: number; option?: string };
/** `takes`: what of the work it is, by which the part is found. */
type JobSketch = Omit<JobItem, 'variant' | 'part'> & { takes?: string };

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
  const lever = v.template === 'belt-hydraulic';
  const out: PartSketch[] = [
    {
      kind: 'belt',
      as: 'loop',
      name: `${first!.name ?? 'Timing belt'} ${first!.count} teeth`,
      attributes: { teeth: first!.count, ...pick(v, 'pitchMm', 'widthMm', 'profile'), thicknessMm: 4.8 },
    },
    {
      kind: 'tensioner',
      as: 'tensioner',
      name: tensionerName(v.template),
      attributes: { outsideMm: 2 * (tensioner.outsideMm ?? 29), boltM: 10, tab: 'left', ...pick(v, 'boltM') },
    },
    ...first!.wheels
      .filter((w) => w.role === 'idler')
      .map((w) => ({
        kind: 'idler' as const,
        as: w.carrier ? 'idler' : 'rollers',
        name: w.name,
        attributes: { outsideMm: 2 * (w.outsideMm ?? 24) },
      })),
    {
      kind: 'bolt',
      as: 'tensioner-bolts',
      name: lever ? 'Damper bolt, single use' : 'Tensioner bolt, single use',
      attributes: { boltM: Number(v.dims['boltM'] ?? 10), lengthMm: 55 },
      ...(lever ? { quantity: 2 } : {}),
    },
    { kind: 'seal', as: 'crank-seal', name: 'Front crank seal', attributes: { outsideMm: 52 } },
  ];
  const idlers = first!.wheels.filter((w) => w.role === 'idler' && w.carrier).length;
  if (idlers > 0)
    out.push({
      kind: 'bolt',
      as: 'idler-bolt',
      name: 'Idler bolt, single use',
      attributes: { boltM: 10, lengthMm: 48 },
      quantity: idlers,
    });
  if (lever)
    out.push({
      kind: 'bolt',
      as: 'cam-bolts',
      name: 'Cam sprocket bolt, single use',
      attributes: { boltM: 12, lengthMm: 62 },
      quantity: first!.wheels.filter((w) => w.role === 'cam').length,
    });
  if (drivesPump(stages))
    out.push(
      { kind: 'seal', as: 'pump-seal', name: 'Seal of the water pump', attributes: {} },
      {
        kind: 'pump',
        as: 'pump',
        name: 'Water pump',
        attributes: { impeller: 'metal', boltM: 6 },
        option: 'pump',
      },
    );
  for (const l of lower) {
    out.push(
      l.kind === 'chain'
        ? {
            kind: 'chain',
            as: 'loop',
            name: l.name!,
            attributes: { links: l.count, pitchMm: 8, profile: 'bush' },
          }
        : {
            kind: 'belt',
            as: 'loop',
            name: l.name!,
            attributes: { teeth: l.count, pitchMm: 8, widthMm: 18, profile: 'trapezoid' },
          },
    );
    out.push(...tensionerParts(v, l, false));
    if (l.wheels.some((w) => w.role === 'tensioner'))
      out.push({
        kind: 'bolt',
        as: 'tensioner-bolts',
        name: placed('Tensioner bolt', l, false),
        attributes: { boltM: 6, lengthMm: 45 },
        quantity: 2,
      });
  }
  if (first!.wheels.some((w) => w.slots))
    out.push({
      kind: 'sprocket',
      as: 'cam-sprockets',
      name: 'Slotted cam sprocket',
      attributes: { teeth: 40, boltM: 8 },
    });
  if (v.template === 'belt-opposed')
    out.push({ kind: 'ring', as: 'ring', name: 'Sensor ring', attributes: pick(v, 'windows') });
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
      as: 'loop',
      name: l.name ?? 'Timing chain',
      attributes: {
        links: l.count,
        pitchMm: l.pitchMm,
        widthMm: Number(v.dims['widthMm'] ?? 9),
        profile: v.template === 'chain-ring' ? 'inverted tooth' : 'bush',
        ...marks,
      },
    });
    out.push(...tensionerParts(v, l, alone));
  }
  const held = stages.filter((l) => l.wheels.some((w) => w.role === 'tensioner')).length;
  const phasers = stages.flatMap((l) => l.wheels).filter((w) => w.phaser).length;
  const cams = new Set(
    stages.flatMap((l) => l.wheels.slice(1).flatMap((w) => (w.role === 'cam' ? [w.id] : []))),
  );
  const bolt = (as: string, name: string, quantity: number, lengthMm: number, boltM = 10) =>
    out.push({ kind: 'bolt', as, name, attributes: { boltM, lengthMm }, quantity });
  bolt('tensioner-bolts', 'Tensioner bolt', 2 * held, 45, 6);
  if (cams.size > phasers) bolt('cam-bolts', 'Cam sprocket bolt, single use', cams.size - phasers, 40);
  if (phasers > 0) bolt('phaser-bolts', 'Phaser bolt, single use', phasers, 52);
  if (v.template === 'chain-rear')
    bolt('cassette-bolt', 'Cassette bolt, left-hand thread, single use', 1, 70);
  const housing = v.dims['boltLengthMm'];
  if (typeof housing === 'number') bolt('housing-bolts', 'Housing bolt', 4, housing, 8);
  out.push({ kind: 'seal', as: 'cover-seal', name: 'Front cover seal', attributes: {} });
  out.push({
    kind: 'sprocket',
    as: 'crank-sprocket',
    name: 'Crank sprocket',
    attributes: { teeth: stages[0]!.wheels[0]!.teeth! },
    option: 'crank sprocket',
  });
  if (v.template === 'chain-v6' || v.template === 'chain-v8') {
    for (const hand of ['left', 'right'])
      out.push({ kind: 'phaser', as: 'phasers', name: `Phaser, ${hand}`, attributes: { hand, teeth: 42 } });
  }
  if (v.dims['windows'] !== undefined)
    out.push({
      kind: 'ring',
      as: 'ring',
      name: 'Sensor ring',
      attributes: pick(v, 'windows'),
      option: 'sensor ring',
    });
  return out;
}

/** What holds the slack of a chain: tensioner, arm and rail of a stage. */
function tensionerParts(v: VariantSketch, l: Layout, alone: boolean): PartSketch[] {
  return l.wheels.flatMap((w): PartSketch[] => {
    if (w.role === 'guide')
      return [
        {
          kind: 'guide',
          as: 'rail',
          name: placed('Guide rail', l, alone),
          attributes: { lengthMm: 120 + l.count },
        },
      ];
    if (w.role !== 'tensioner') return [];
    return [
      {
        kind: 'tensioner',
        as: 'tensioner',
        name: placed('Plunger tensioner', l, alone),
        attributes: { bodyMm: Number(v.dims['bodyMm'] ?? 50), boltM: 6, ...pick(v, 'housing', 'hand') },
      },
      {
        kind: 'guide',
        as: 'arm',
        name: placed('Tensioner arm', l, alone),
        attributes: { lengthMm: 60 + l.count },
      },
    ];
  });
}

const PUMP: JobSketch = {
  item: 'Water pump',
  kind: 'reachable_now',
  takes: 'pump',
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
  const rear = stages.some((l) => l.end === 'rear');
  const oiled = stages.some((l) => l.kind === 'chain' || l.inOil);
  const out: JobSketch[] = [
    ...boltsFor(v, stages),
    {
      item: rear ? 'Flywheel bolts' : 'Crank pulley bolt',
      kind: 'single_use',
      takes: rear ? 'flywheel-bolts' : 'crank-bolt',
      quantity: rear ? 6 : 1,
      why: 'It stretches when tightened.',
      costNow: 9,
      costLater: 9,
    },
    {
      item: belt ? 'Front crank seal' : 'Front cover seal',
      kind: 'seal',
      takes: belt ? 'crank-seal' : 'cover-seal',
      quantity: 1,
      why: 'Oil on a new drive ends it early.',
      costNow: 9,
      costLater: belt ? 390 : 640,
    },
    ...(pump
      ? [
          {
            item: 'Coolant, litres',
            kind: 'fluid' as const,
            quantity: 5,
            why: 'Drained with the pump.',
            costNow: 22,
            costLater: 22,
          },
          {
            item: 'Seal of the water pump',
            kind: 'seal' as const,
            takes: 'pump-seal',
            quantity: 1,
            why: 'The pump comes off, whether it is new or not.',
            costNow: 3,
            costLater: 410,
          },
        ]
      : []),
    ...(oiled
      ? [
          {
            item: 'Oil, litres',
            kind: 'fluid' as const,
            quantity: 5,
            why: 'Drained with the cover.',
            costNow: 48,
            costLater: 48,
          },
          {
            item: 'Oil filter',
            kind: 'fluid' as const,
            quantity: 1,
            why: 'New oil through an old filter carries what the old drive left.',
            costNow: 11,
            costLater: 11,
          },
        ]
      : []),
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
  if (oiled)
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
      takes: 'housing-bolts',
      quantity: 4,
      why: 'Iron and aluminium housings take other lengths.',
      costNow: 7,
      costLater: 250,
    });
  }
  return out;
}

/** Bolts that are used once, each line with the part of the kit that it is. */
function boltsFor(v: VariantSketch, stages: readonly Layout[]): JobSketch[] {
  return partsFor(v, stages)
    .filter((p) => p.kind === 'bolt' && p.name.includes('single use'))
    .map((p) => ({
      item: p.name.replace(/, single use$/, ''),
      kind: 'single_use' as const,
      ...(p.as ? { takes: p.as } : {}),
      quantity: p.quantity ?? 1,
      why: 'It stretches when tightened.',
      costNow: 4 * (p.quantity ?? 1),
      costLater: 4 * (p.quantity ?? 1),
    }));
}
