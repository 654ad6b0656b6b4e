import type { JobItem } from '@core/catalogue/pack';
import type { Layout } from '@core/drive/layout';
import type { VariantSketch } from './families';
import { drivesPump, partsFor } from './parts';

/** `takes`: what of the work it is, by which the part is found. */
type JobSketch = Omit<JobItem, 'variant' | 'part'> & { takes?: string };

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
export function jobSketches(v: VariantSketch, stages: readonly Layout[]): JobSketch[] {
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
