import { nth } from '@core/quantity/must';
import { own } from '@core/quantity/own';
import type { Carrier, Point } from './carrier';
import type { Layout, Wheel } from './layout';
import { storedAngle } from './path';

const RAD = Math.PI / 180;

function moveCarrier(carrier: Carrier, move: (p: Point) => Point): Carrier {
  const moved = { ...carrier, pivot: move(carrier.pivot) };
  return moved.kind === 'arm' && moved.plunger
    ? { ...moved, plunger: { ...moved.plunger, base: move(moved.plunger.base) } }
    : moved;
}

function moveWheel(w: Wheel, move: (p: Point) => Point): Wheel {
  if (!w.carrier) return { ...w, ...move(w) };
  // The arm keeps its length and direction: only its pivot sits on the part that moves.
  const carrier = moveCarrier(w.carrier, move);
  return {
    ...w,
    carrier,
    x: w.x + carrier.pivot.x - w.carrier.pivot.x,
    y: w.y + carrier.pivot.y - w.carrier.pivot.y,
  };
}

/** Layout with each bank brought nearer to the crank by so many mm (negative: further away). */
export function moveBanks(layout: Layout, nearerMm: Readonly<Record<string, number>>): Layout {
  const wheels = layout.wheels.map((w) => {
    const bank = layout.banks?.find((b) => b.id === w.bank);
    const mm = bank ? (own(nearerMm, bank.id) ?? 0) : 0;
    if (!bank || mm === 0) return w;
    const [dx, dy] = [-mm * Math.cos(bank.dirDeg * RAD), -mm * Math.sin(bank.dirDeg * RAD)];
    return moveWheel(w, (p) => ({ x: p.x + dx, y: p.y + dy }));
  });
  return { ...layout, wheels };
}

/** Layout with all centre distances from the driving wheel multiplied; wheels and arms keep their size. */
export function growCentres(layout: Layout, factor: number): Layout {
  const { x, y } = nth(layout.wheels, 0);
  const grow = (p: Point) => ({ x: x + (p.x - x) * factor, y: y + (p.y - y) * factor });
  return { ...layout, wheels: layout.wheels.map((w) => moveWheel(w, grow)) };
}

/** Layout with a carried wheel stored at another carrier angle; a carried shoe turns with it. */
export function atCarrier(layout: Layout, wheel: number, carrierDeg: number): Layout {
  const wheels = layout.wheels.map((w, i) => {
    if (i !== wheel || !w.carrier) return w;
    const { pivot, arm } = w.carrier;
    const by = carrierDeg - storedAngle(w, pivot) / RAD;
    return {
      ...w,
      x: pivot.x + arm * Math.cos(carrierDeg * RAD),
      y: pivot.y + arm * Math.sin(carrierDeg * RAD),
      ...(w.arc ? { arc: { fromDeg: w.arc.fromDeg + by, toDeg: w.arc.toDeg + by } } : {}),
    };
  });
  return { ...layout, wheels };
}
