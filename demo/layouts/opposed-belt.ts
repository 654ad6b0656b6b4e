import type { Eccentric } from '@core/drive/carrier';
import { carrierAt } from '@core/drive/carrier';
import type { Layout, Wheel } from '@core/drive/layout';
import { BELT } from './single-cam';
import { closeLoop, withMarks } from './shape';

/**
 * Opposed four with two cams a side and one belt. Crank in the middle; on the tight side an eccentric idler before the left
 * head and one before the right, as a machine shop's kit brings them; the automatic eccentric is on the slack side.
 */
export function opposedBelt(id: string, count: number): Layout {
  const made = closeLoop((x) => sketch(id, count, x), 200, 330);
  return withMarks(made, {
    crank: { deg: 270 },
    'left-lower': { deg: 180 },
    'left-upper': { deg: 90 },
    // Its maker left the half tooth that the distance between the heads brings.
    'right-upper': { deg: 90, offTeeth: 0.46 },
    'right-lower': { deg: 0, offTeeth: 0.04 },
  });
}

/** Idlers that a fitter sets once, with no spring. */
const IDLER = { from: 0, nominal: 90, to: 180 };

const eccentric = (
  pivot: { x: number; y: number },
  arm: number,
  nominalDeg: number,
  turn: 'cw' | 'ccw',
  window: Eccentric['window'],
  manual = false,
): Eccentric => ({
  kind: 'eccentric',
  pivot,
  arm,
  startDeg: nominalDeg - (turn === 'ccw' ? 1 : -1) * window.nominal,
  turn,
  keyTurn: turn,
  window,
  endDeg: 150,
  ...(manual ? { manual } : {}),
});

function carried(e: Eccentric): { x: number; y: number; carrier: Eccentric } {
  const t = (carrierAt(e, e.window.nominal) * Math.PI) / 180;
  return { x: e.pivot.x + e.arm * Math.cos(t), y: e.pivot.y + e.arm * Math.sin(t), carrier: e };
}

function sketch(id: string, count: number, headX: number): Layout {
  const auto = eccentric({ x: 66, y: 20 }, 9, 165, 'cw', { from: 78, nominal: 90, to: 102 });
  const nearCrank = eccentric({ x: -62, y: 20 }, 4.5, 0, 'ccw', IDLER, true);
  const above = eccentric({ x: 0, y: 100 }, 5, 180, 'ccw', IDLER, true);
  const cam = (wheelId: string, name: string, x: number, y: number, bank: string): Wheel => ({
    id: wheelId,
    name,
    role: 'cam',
    x,
    y,
    teeth: 40,
    side: 1,
    rimMm: 0,
    bank,
  });
  const wheels: Wheel[] = [
    { id: 'crank', name: 'Crank sprocket', role: 'crank', x: 0, y: 0, teeth: 20, side: 1, rimMm: 2 },
    {
      id: 'tensioner',
      name: 'Tensioner',
      role: 'tensioner',
      ...carried(auto),
      outsideMm: 23,
      side: -1,
      rimMm: 0,
    },
    cam('right-lower', 'Right lower cam', headX, -58, 'right'),
    cam('right-upper', 'Right upper cam', headX, 58, 'right'),
    {
      id: 'idler-right',
      name: 'Idler before the right head',
      role: 'idler',
      ...carried(above),
      outsideMm: 20,
      side: -1,
      rimMm: 0,
    },
    cam('left-upper', 'Left upper cam', -headX, 58, 'left'),
    cam('left-lower', 'Left lower cam', -headX, -58, 'left'),
    {
      id: 'idler-left',
      name: 'Idler before the left head',
      role: 'idler',
      ...carried(nearCrank),
      outsideMm: 23,
      side: -1,
      rimMm: 0,
    },
  ];
  return {
    id,
    ...BELT,
    runs: 'ccw',
    count,
    banks: [
      { id: 'left', name: 'Left head', dirDeg: 180, mostMm: 1.5 },
      { id: 'right', name: 'Right head', dirDeg: 0, mostMm: 1.5 },
    ],
    valves: {
      strokeMm: 75,
      rodMm: 131,
      deckMm: 1.1,
      cylinders: [
        { name: '1', firingDeg: 90, bank: 'right' },
        { name: '3', firingDeg: 270, bank: 'right' },
        { name: '2', firingDeg: 450, bank: 'left' },
        { name: '4', firingDeg: 630, bank: 'left' },
      ],
      valves: [
        {
          name: 'right exhaust',
          wheel: 'right-lower',
          bank: 'right',
          openDeg: 138,
          closeDeg: 366,
          reachMm: 6.4,
        },
        {
          name: 'right intake',
          wheel: 'right-upper',
          bank: 'right',
          openDeg: 350,
          closeDeg: 580,
          reachMm: 7.1,
        },
        {
          name: 'left exhaust',
          wheel: 'left-lower',
          bank: 'left',
          openDeg: 138,
          closeDeg: 366,
          reachMm: 6.4,
        },
        { name: 'left intake', wheel: 'left-upper', bank: 'left', openDeg: 350, closeDeg: 580, reachMm: 7.1 },
      ],
      crossMm: 10.8,
    },
    wheels,
  };
}
