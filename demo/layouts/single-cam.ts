import type { Eccentric } from '@core/drive/carrier';
import type { Layout, Wheel } from '@core/drive/layout';
import { carrierAt } from '@core/drive/carrier';
import { closeLoop, withMarks } from './shape';

type Sketch = {
  id: string;
  count: number;
  camY: number;
  guide: { x: number; y: number; outsideMm: number };
  pumpX: number;
  pivot: { x: number; y: number };
  nominalCarrierDeg: number;
  /** Without a spring: the fitter's key turns the eccentric itself. */
  manual?: boolean;
  slotted?: boolean;
  /** Pockets so deep that no valve ever meets a piston. */
  free?: boolean;
};

export const BELT = {
  kind: 'belt' as const,
  pitchMm: 8,
  backMm: 1.6,
  toothMm: 3.2,
  markToleranceTeeth: 0.25,
  elongationLimit: 0.0015,
  heat: { perKelvin: 0.000018, drawnAtC: 20 },
  strand: { kgPerM: 0.105, setN: 260 },
};

/**
 * A single-cam belt drive with an eccentric on the slack side. The pivot's x is solved so that the pointer stands at its
 * nominal mark with a new belt: that is what makes the drawing true.
 */
export function singleCam(s: Sketch): Layout {
  const made = closeLoop((x) => sketch(s, x), s.pivot.x - 12, s.pivot.x + 12);
  return withMarks(made, { crank: { deg: 270 }, cam: { deg: 90 } });
}

function sketch(s: Sketch, pivotX: number): Layout {
  const carrier: Eccentric = {
    kind: 'eccentric',
    pivot: { x: pivotX, y: s.pivot.y },
    arm: 11,
    startDeg: s.nominalCarrierDeg + 90,
    turn: 'cw',
    keyTurn: s.manual ? 'cw' : 'ccw',
    window: s.manual ? { from: 65, nominal: 90, to: 115 } : { from: 80, nominal: 90, to: 100 },
    endDeg: s.manual ? 165 : 150,
    ...(s.manual ? { manual: true } : {}),
  };
  const t = (carrierAt(carrier, carrier.window.nominal) * Math.PI) / 180;
  const wheels: Wheel[] = [
    { id: 'crank', name: 'Crank sprocket', role: 'crank', x: 0, y: 0, teeth: 20, side: 1, rimMm: 2.5 },
    { id: 'guide', name: 'Guide roller', role: 'idler', ...s.guide, side: 1, rimMm: 3 },
    {
      id: 'tensioner',
      name: 'Tensioner',
      role: 'tensioner',
      x: pivotX + carrier.arm * Math.cos(t),
      y: s.pivot.y + carrier.arm * Math.sin(t),
      outsideMm: 29,
      side: -1,
      rimMm: 0,
      carrier,
    },
    {
      id: 'cam',
      name: 'Cam sprocket',
      role: 'cam',
      x: 0,
      y: s.camY,
      teeth: 40,
      side: 1,
      rimMm: 0,
      bank: 'head',
      ...(s.slotted ? { slots: { radiusMm: 32, halfMm: 3 } } : {}),
    },
    { id: 'pump', name: 'Water pump', role: 'pump', x: s.pumpX, y: 150, outsideMm: 27, side: -1, rimMm: 0 },
  ];
  return {
    id: s.id,
    ...BELT,
    runs: 'cw',
    count: s.count,
    banks: [{ id: 'head', name: 'Cylinder head', dirDeg: 90, mostMm: 1.5 }],
    valves: {
      strokeMm: 84,
      rodMm: 141,
      deckMm: s.free ? 9.6 : 1.4,
      cylinders: [0, 180, 360, 540].map((firingDeg, i) => ({ name: String([1, 3, 4, 2][i]), firingDeg })),
      valves: [
        { name: 'exhaust', wheel: 'cam', openDeg: 142, closeDeg: 368, reachMm: 6.2 },
        { name: 'intake', wheel: 'cam', openDeg: 352, closeDeg: 578, reachMm: 6.8 },
      ],
    },
    wheels,
  };
}
