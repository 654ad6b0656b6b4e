import { must } from '@core/quantity/must';
import type { Layout } from '@core/drive/layout';
import type { VariantSketch } from '../families';
import { type ChainSketch, chainDrive, onShaft, PLUNGER } from './chain-drives';
import type { PlungerSketch } from './shape';
import { leverBelt } from './lever-belt';
import { opposedBelt } from './opposed-belt';
import { singleCam } from './single-cam';
import { inlineFour, twinBank } from './valves';

export const firstDesign = (id: string, count: number, camY: number) =>
  singleCam({
    id,
    count,
    camY,
    guide: { x: -78, y: 92, outsideMm: 24 },
    pumpX: 52,
    pivot: { x: -70, y: 160 },
    nominalCarrierDeg: 52,
  });
export const secondDesign = (id: string, count: number, camY: number) =>
  singleCam({
    id,
    count,
    camY,
    guide: { x: -80, y: 100, outsideMm: 29 },
    pumpX: 52,
    pivot: { x: -60, y: 170 },
    nominalCarrierDeg: 68,
  });

const links = (v: VariantSketch): number[] => {
  const l = v.dims['links'];
  return Array.isArray(l) ? l : typeof l === 'number' ? [l] : [];
};
/** A smaller body takes a plunger that cannot be set back; a larger one that is screwed back. */
const plungerOf = (v: VariantSketch): PlungerSketch => {
  if (v.procedure === 'flat-chain') return { ...PLUNGER, back: 'never' };
  if (v.procedure === 'screw-chain')
    return { ...PLUNGER, newMm: 9, from: 6, to: 17, max: 26, back: 'screwed' };
  return v.template === 'chain-balance' ? { ...PLUNGER, back: 'never' } : PLUNGER;
};
const crank = (teeth: number) => ({ id: 'crank', name: 'Crank sprocket', role: 'crank' as const, teeth });
const HEAD = { id: 'head', name: 'Cylinder head' };

function twinCam(id: string, count: number, more: Partial<ChainSketch> = {}): Layout {
  return chainDrive({
    id,
    links: count,
    driver: crank(20),
    driven: [
      { id: 'exhaust', name: 'Exhaust cam', role: 'cam', teeth: 40, x: -57 },
      { id: 'intake', name: 'Intake cam', role: 'cam', teeth: 40, x: 57 },
    ],
    bank: HEAD,
    valves: inlineFour({ exhaust: 'exhaust', intake: 'intake' }),
    ...more,
  });
}

/** Driving wheel of a further stage: on the crank. */
const lower = (
  id: string,
  parent: string,
  sketch: Partial<ChainSketch> & Pick<ChainSketch, 'links' | 'driven'>,
) =>
  chainDrive({
    id,
    driver: { id: 'crank-rear', name: 'Crank sprocket, rear', role: 'crank', teeth: 21 },
    follows: { layout: parent, wheel: 'crank' },
    row: 2,
    height: [95, 320],
    ...sketch,
  });

function sixInV(id: string, v: VariantSketch): Layout[] {
  const [first = 118, second = 96, third = 96] = links(v);
  const root = chainDrive({
    id,
    name: 'Primary chain',
    row: 2,
    valves: twinBank('six'),
    links: first,
    driver: crank(24),
    driven: [
      { id: 'left-shaft', name: 'Left intermediate', role: 'intermediate', teeth: 30, x: -96 },
      { id: 'right-shaft', name: 'Right intermediate', role: 'intermediate', teeth: 30, x: 96 },
    ],
  });
  return [
    root,
    ...(['left', 'right'] as const).map((side) => {
      const shaft = must(root.wheels.find((w) => w.id === `${side}-shaft`));
      const bank = chainDrive({
        id: `${id}-${side}`,
        name: `${side === 'left' ? 'Left' : 'Right'} secondary chain`,
        links: side === 'left' ? second : third,
        driver: {
          id: `${side}-small`,
          name: `${side === 'left' ? 'Left' : 'Right'} intermediate, small sprocket`,
          role: 'intermediate',
          teeth: 20,
        },
        driven: [
          {
            id: `${side}-exhaust`,
            name: `${side === 'left' ? 'Left' : 'Right'} exhaust cam`,
            role: 'cam',
            teeth: 32,
            x: -46,
          },
          {
            id: `${side}-intake`,
            name: `${side === 'left' ? 'Left' : 'Right'} intake cam`,
            role: 'cam',
            teeth: 32,
            x: 46,
          },
        ],
        bank: { id: side, name: `${side === 'left' ? 'Left' : 'Right'} head` },
        follows: { layout: id, wheel: `${side}-shaft` },
      });
      return onShaft(bank, shaft, side === 'left' ? 30 : -30);
    }),
  ];
}

function eightInV(id: string, v: VariantSketch): Layout[] {
  const [a = 104, b = 104, c = 72, d = 72] = links(v);
  return (['left', 'right'] as const).flatMap((side, i) => {
    const word = side === 'left' ? 'Left' : 'Right';
    const lean = side === 'left' ? 45 : -45;
    const primary = chainDrive({
      id: i === 0 ? id : `${id}-right`,
      name: `${word} primary chain`,
      links: i === 0 ? a : b,
      driver: i === 0 ? crank(21) : { ...crank(21), id: 'crank-rear', name: 'Crank sprocket, rear row' },
      driven: [{ id: `${side}-intake`, name: `${word} intake cam`, role: 'cam', teeth: 42, x: 0 }],
      bank: { id: side, name: `${word} head` },
      row: i + 1,
      ...(i === 0 ? { valves: twinBank('eight') } : {}),
      ...(i === 0 ? {} : { follows: { layout: id, wheel: 'crank' } }),
    });
    const laid = onShaft(primary, { x: 0, y: 0 }, lean);
    const shaft = must(laid.wheels.find((w) => w.id === `${side}-intake`));
    const secondary = chainDrive({
      id: `${id}-${side}-cams`,
      name: `${word} secondary chain`,
      links: i === 0 ? c : d,
      driver: {
        id: `${side}-intake-rear`,
        name: `${word} intake cam, rear sprocket`,
        role: 'cam',
        teeth: 38,
      },
      driven: [{ id: `${side}-exhaust`, name: `${word} exhaust cam`, role: 'cam', teeth: 38, x: 0 }],
      follows: { layout: laid.id, wheel: `${side}-intake` },
      row: 3,
      plunger: { newMm: 4, from: 2.5, to: 8, min: 1, max: 15, ratcheted: true },
      height: [100, 200],
    });
    return [laid, onShaft(secondary, shaft, side === 'left' ? 135 : -135)];
  });
}

/** The layouts of one invented drive: the one at the crank first, then every further stage. */
export function layoutsFor(id: string, v: VariantSketch, interference: 'yes' | 'no' | 'unknown'): Layout[] {
  const teeth = Number(v.dims['teeth'] ?? 0);
  const sketch = v.sketch;
  const [first = 112, second = 64] = links(v);
  switch (v.template) {
    case 'belt-hydraulic':
      return [leverBelt(id, teeth)];
    case 'belt-opposed':
      return [opposedBelt(id, teeth)];
    case 'belt-over-chain':
    case 'belt-over-wetbelt': {
      const top = firstDesign(id, must(sketch).count, must(sketch).camY);
      const wet = v.template === 'belt-over-wetbelt';
      const pump = { id: 'oil-pump', name: 'Oil pump', role: 'pump' as const, teeth: 24, x: 0 };
      const below = wet
        ? lower(`${id}-lower`, id, {
            name: 'Lower belt in oil',
            links: Number(v.dims['wetTeeth']),
            driven: [pump],
            fixed: true,
            inOil: true,
            kind: 'belt',
            height: [60, 420],
          })
        : lower(`${id}-lower`, id, {
            name: 'Lower chain',
            links: first,
            driven: [pump],
            plunger: { newMm: 5, from: 3, to: 9, min: 1, max: 14, ratcheted: false, pad: true },
          });
      return [{ ...top, name: 'Upper belt' }, onShaft(below, { x: 0, y: 0 }, 180)];
    }
    case 'belt-manual':
    case 'belt-adjustable':
    case 'belt-diesel':
      return [
        singleCam({
          id,
          count: must(sketch).count,
          camY: must(sketch).camY,
          guide: { x: -78, y: 92, outsideMm: 24 },
          pumpX: 52,
          pivot: { x: -70, y: 160 },
          nominalCarrierDeg: 52,
          manual: v.template !== 'belt-diesel',
          free: interference === 'no',
          slotted: v.template === 'belt-adjustable' || (v.features['cam-wheel'] ?? []).includes('slotted'),
        }),
      ];
    case 'chain-v6':
      return sixInV(id, v);
    case 'chain-v8':
      return eightInV(id, v);
    case 'chain-balance': {
      const shaft = { id: 'balance', name: 'Balance shaft', role: 'balance' as const, teeth: 18, x: -70 };
      const pump = { id: 'oil-pump', name: 'Oil pump', role: 'pump' as const, teeth: 26, x: 70 };
      const below = lower(`${id}-lower`, id, {
        name: second > 80 ? 'Balance and pump chain' : 'Pump chain',
        driver: {
          id: 'crank-rear',
          name: 'Crank sprocket, rear',
          role: 'crank',
          teeth: second > 80 ? 36 : 21,
        },
        links: second,
        driven: second > 80 ? [shaft, pump] : [{ ...pump, x: 0 }],
        plunger: { newMm: 5, from: 3, to: 9, min: 1, max: 14, ratcheted: true, back: 'never', pad: true },
      });
      return [
        { ...twinCam(id, first, { plunger: plungerOf(v) }), name: 'Timing chain' },
        onShaft(below, { x: 0, y: 0 }, 180),
      ];
    }
    case 'chain-rear':
      return [
        twinCam(id, first, {
          runs: 'ccw',
          end: 'rear',
          driver: { ...crank(20), name: 'Crank sprocket, rear end' },
        }),
      ];
    default:
      return [
        twinCam(id, first, {
          plunger: plungerOf(v),
          ...(interference === 'no'
            ? { valves: inlineFour({ exhaust: 'exhaust', intake: 'intake' }, true) }
            : {}),
        }),
      ];
  }
}
