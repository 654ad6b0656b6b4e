import { must, nth } from '@core/quantity/must';
import type { Part } from '@core/catalogue/pack';
import type { Layout } from '@core/drive/layout';
import type { VariantSketch } from './families';

type PartSketch = Pick<Part, 'kind' | 'name' | 'attributes' | 'as'> & { quantity?: number; option?: string };

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
  const tensioner = must(must(first).wheels.find((w) => w.role === 'tensioner'));
  const lever = v.template === 'belt-hydraulic';
  const out: PartSketch[] = [
    {
      kind: 'belt',
      as: 'loop',
      name: `${must(first).name ?? 'Timing belt'} ${must(first).count} teeth`,
      attributes: { teeth: must(first).count, ...pick(v, 'pitchMm', 'widthMm', 'profile'), thicknessMm: 4.8 },
    },
    {
      kind: 'tensioner',
      as: 'tensioner',
      name: tensionerName(v.template),
      attributes: { outsideMm: 2 * (tensioner.outsideMm ?? 29), boltM: 10, tab: 'left', ...pick(v, 'boltM') },
    },
    ...must(first)
      .wheels.filter((w) => w.role === 'idler')
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
  const idlers = must(first).wheels.filter((w) => w.role === 'idler' && w.carrier).length;
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
      quantity: must(first).wheels.filter((w) => w.role === 'cam').length,
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
            name: must(l.name),
            attributes: { links: l.count, pitchMm: 8, profile: 'bush' },
          }
        : {
            kind: 'belt',
            as: 'loop',
            name: must(l.name),
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
  if (must(first).wheels.some((w) => w.slots))
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
  alone ? what : `${what}, ${nth(must(l.name), 0).toLowerCase()}${must(l.name).slice(1)}`;

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
    attributes: { teeth: must(nth(nth(stages, 0).wheels, 0).teeth) },
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
