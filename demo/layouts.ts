import type { Carrier, Layout, Wheel } from '@core/drive/layout';
import { nominalLength } from '@core/drive/layout';
import { carrierAt, lengthByAngle } from '@core/drive/tensioner';

type Sketch = {
  id: string;
  count: number;
  camY: number;
  guide: { x: number; y: number; outsideMm: number };
  pumpX: number;
  pivot: { x: number; y: number };
  nominalCarrierDeg: number;
};

/**
 * A single-cam belt drive with an automatic eccentric on the slack side. The pivot's x is solved so that the pointer
 * stands at its nominal mark with a new belt: that is what makes the drawing true.
 */
export function singleCam(s: Sketch): Layout {
  const carrier: Carrier = {
    kind: 'eccentric',
    pivot: s.pivot,
    arm: 11,
    startDeg: s.nominalCarrierDeg + 90,
    turn: 'cw',
    keyTurn: 'ccw',
    window: { from: 80, nominal: 90, to: 100 },
    endDeg: 150,
  };
  const wheels: Wheel[] = [
    { id: 'crank', name: 'Crank sprocket', role: 'crank', x: 0, y: 0, teeth: 20, side: 1, rimMm: 2.5 },
    { id: 'guide', name: 'Guide roller', role: 'idler', ...s.guide, side: 1, rimMm: 3 },
    {
      id: 'tensioner',
      name: 'Tensioner',
      role: 'tensioner',
      x: s.pivot.x,
      y: s.pivot.y,
      outsideMm: 29,
      side: -1,
      rimMm: 0,
      carrier,
    },
    { id: 'cam', name: 'Cam sprocket', role: 'cam', x: 0, y: s.camY, teeth: 40, side: 1, rimMm: 0 },
    { id: 'pump', name: 'Water pump', role: 'pump', x: s.pumpX, y: 150, outsideMm: 27, side: -1, rimMm: 0 },
  ];
  const layout: Layout = {
    id: s.id,
    kind: 'belt',
    runs: 'cw',
    pitchMm: 8,
    count: s.count,
    backMm: 1.6,
    toothMm: 3.2,
    wheels,
  };
  return withSolvedPivot(layout, s.nominalCarrierDeg);
}

function withSolvedPivot(layout: Layout, nominalDeg: number): Layout {
  const index = layout.wheels.findIndex((w) => w.carrier);
  const wheel = layout.wheels[index]!;
  const carrier = wheel.carrier!;
  const t = (nominalDeg * Math.PI) / 180;
  const target = nominalLength(layout);
  const excess = (x: number) =>
    lengthByAngle(layout, index, { ...carrier, pivot: { ...carrier.pivot, x } })(t) - target;
  let [a, b] = [carrier.pivot.x - 12, carrier.pivot.x + 12];
  if (excess(a) * excess(b) > 0) throw new Error(`${layout.id}: no pivot within 12 mm gives ${target} mm`);
  for (let i = 0; i < 60; i++) {
    const m = (a + b) / 2;
    if (excess(a) * excess(m) <= 0) b = m;
    else a = m;
  }
  const pivot = { ...carrier.pivot, x: Math.round(a * 1000) / 1000 };
  const nominal = (carrierAt(carrier, carrier.window.nominal) * Math.PI) / 180;
  const round = (v: number) => Math.round(v * 1000) / 1000;
  const centre = {
    x: round(pivot.x + carrier.arm * Math.cos(nominal)),
    y: round(pivot.y + carrier.arm * Math.sin(nominal)),
  };
  const wheels = layout.wheels.map((w, i) =>
    i === index ? { ...w, ...centre, carrier: { ...carrier, pivot } } : w,
  );
  return { ...layout, wheels };
}
