import type { Layout, Wheel } from '@core/drive/layout';
import { BELT } from './single-cam';
import { closeLoop, withMarks } from './shape';
import { inlineFour } from './valves';

/** Two cams, a roller on a lever that a hydraulic damper pushes: on the slack side, from outside. */
export function leverBelt(id: string, count: number): Layout {
  const made = closeLoop((y) => sketch(id, count, y), 322, 348);
  return withMarks(made, { crank: { deg: 270 }, exhaust: { deg: 90 }, intake: { deg: 90 } });
}

function sketch(id: string, count: number, camY: number): Layout {
  const pivot = { x: -104, y: 198 };
  const arm = 52;
  const at = -80;
  const centre = {
    x: pivot.x + arm * Math.cos((at * Math.PI) / 180),
    y: pivot.y + arm * Math.sin((at * Math.PI) / 180),
  };
  // The damper lies across and pushes the lever, and so the roller, inwards.
  const footRadius = 34;
  const footDeg = at - 10;
  const foot = {
    x: pivot.x + footRadius * Math.cos((footDeg * Math.PI) / 180),
    y: pivot.y + footRadius * Math.sin((footDeg * Math.PI) / 180),
  };
  const newMm = 7;
  const wheels: Wheel[] = [
    { id: 'crank', name: 'Crank sprocket', role: 'crank', x: 0, y: 0, teeth: 22, side: 1, rimMm: 2.5 },
    {
      id: 'tensioner',
      name: 'Tensioner roller',
      role: 'tensioner',
      ...centre,
      outsideMm: 30,
      side: -1,
      rimMm: 0,
      carrier: {
        kind: 'arm',
        pivot,
        arm,
        startDeg: at - 11,
        turn: 'ccw',
        sweepDeg: 26,
        window: { from: 8, nominal: 11, to: 18 },
        plunger: {
          base: { x: foot.x - newMm, y: foot.y },
          axisDeg: 0,
          foot: { radius: footRadius, offsetDeg: footDeg - at },
          window: { from: 5.5, nominal: newMm, to: 9.5 },
          minMm: 1.5,
          maxMm: 13,
          ratcheted: false,
        },
      },
    },
    {
      id: 'exhaust',
      name: 'Exhaust cam',
      role: 'cam',
      seat: 'taper',
      x: -68,
      y: camY,
      teeth: 44,
      side: 1,
      rimMm: 0,
      bank: 'head',
    },
    {
      id: 'intake',
      name: 'Intake cam',
      role: 'cam',
      seat: 'taper',
      x: 68,
      y: camY,
      teeth: 44,
      side: 1,
      rimMm: 0,
      bank: 'head',
    },
    { id: 'guide', name: 'Guide roller', role: 'idler', x: 92, y: 150, outsideMm: 27, side: -1, rimMm: 0 },
  ];
  return {
    id,
    ...BELT,
    runs: 'cw',
    count,
    valves: inlineFour({ exhaust: 'exhaust', intake: 'intake' }),
    banks: [{ id: 'head', name: 'Cylinder head', dirDeg: 90, mostMm: 1.5 }],
    wheels,
  };
}
