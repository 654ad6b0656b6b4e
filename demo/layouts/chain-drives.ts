import { must, nth } from '@core/quantity/must';
import { type Layout, pitchRadius, type Wheel } from '@core/drive/layout';
import { closeLoop, placed, type PlungerSketch, shoeArm, shoeOutside, withMarks } from './shape';

const CHAIN = {
  kind: 'chain' as const,
  pitchMm: 8,
  backMm: 3.8,
  toothMm: 3.8,
  markToleranceTeeth: 0.25,
  elongationLimit: 0.005,
  heat: { perKelvin: 0.000012, drawnAtC: 20 },
};
export const PLUNGER: PlungerSketch = { newMm: 7, from: 4, to: 16, min: 1, max: 26, ratcheted: true };

export type ChainSketch = {
  id: string;
  name?: string;
  links: number;
  driver: { id: string; name: string; role: 'crank' | 'intermediate' | 'cam'; teeth: number };
  /** Driven wheels in running order, at their place across the axis; all at the height that is solved for. */
  driven: { id: string; name: string; role: Wheel['role']; teeth: number; x: number }[];
  /** Row that it lies in, from the front. */
  row?: number;
  inOil?: boolean;
  end?: 'rear';
  valves?: Layout['valves'];
  bank?: { id: string; name: string };
  follows?: Layout['follows'];
  plunger?: PlungerSketch;
  runs?: 'cw' | 'ccw';
  /** Without a tensioner: fixed centres. */
  fixed?: boolean;
  kind?: 'belt';
  height?: [number, number];
};

/**
 * A chain from one wheel up to one or two: arm with plunger on the slack side, fixed guide on the tight one. The height is
 * solved so that a new chain has its length with the plunger at its nominal extension.
 */
export function chainDrive(s: ChainSketch): Layout {
  const [low, high] = s.height ?? [150, 520];
  const made = closeLoop((y) => sketch(s, y), low, high);
  const marks = Object.fromEntries(s.driven.map((d) => [d.id, { deg: 90 }]));
  return withMarks(made, { [s.driver.id]: { deg: 270 }, ...marks });
}

function sketch(s: ChainSketch, y: number): Layout {
  const base = s.kind === 'belt' ? { ...CHAIN, kind: 'belt' as const, backMm: 1.4, toothMm: 2.8 } : CHAIN;
  // Clockwise the chain rises on the left: that strand is slack.
  const runs = s.runs ?? 'cw';
  const flip = runs === 'cw' ? 1 : -1;
  const driver: Wheel = {
    ...s.driver,
    x: 0,
    y: 0,
    side: 1,
    rimMm: 0,
    ...(s.driver.role === 'cam' ? { seat: 'friction' as const } : {}),
  };
  const driven: Wheel[] = s.driven.map((d) => ({
    ...d,
    x: flip * d.x,
    y,
    side: 1,
    rimMm: 0,
    ...(d.role === 'cam' ? { seat: 'friction' as const } : {}),
    ...(s.bank ? { bank: s.bank.id } : {}),
  }));
  const wheels: Wheel[] = [driver, ...driven];
  if (!s.fixed) {
    const first = nth(driven, 0);
    const last = must(driven.at(-1));
    const reach = Math.hypot(first.x, first.y) - pitchRadius(base, driver) - pitchRadius(base, first);
    const press = Math.min(12, reach / 9);
    const arm = shoeArm(
      {
        layout: base,
        a: driver,
        b: first,
        hand: runs === 'cw' ? -1 : 1,
        radiusMm: 0.5 * Math.hypot(first.x, first.y),
        pressMm: press,
      },
      s.plunger ?? PLUNGER,
    );
    const guide = shoeOutside({
      layout: base,
      a: driver,
      b: last,
      hand: runs === 'cw' ? 1 : -1,
      radiusMm: 1.2 * Math.hypot(last.x, last.y),
      pressMm: press * 0.45,
    });
    wheels.splice(1, 0, { id: 'arm', name: 'Tensioner arm', role: 'tensioner', ...arm });
    wheels.push({ id: 'rail', name: 'Guide rail', role: 'guide', ...guide.shape });
  }
  return {
    id: s.id,
    ...(s.name ? { name: s.name } : {}),
    ...base,
    runs,
    count: s.links,
    ...(s.row ? { row: s.row } : {}),
    ...(s.inOil ? { inOil: true } : {}),
    ...(s.end ? { end: s.end } : {}),
    ...(s.valves ? { valves: s.valves } : {}),
    ...(s.bank ? { banks: [{ ...s.bank, dirDeg: 90, mostMm: 1.5 }] } : {}),
    ...(s.follows ? { follows: s.follows } : {}),
    wheels,
  };
}

/** The same, laid over to a bank and set on the shaft that drives it. */
export const onShaft = (layout: Layout, shaft: { x: number; y: number }, leanDeg: number): Layout =>
  placed(layout, { deg: leanDeg, x: shaft.x, y: shaft.y });
