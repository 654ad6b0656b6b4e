import { must, nth } from '@core/quantity/must';
import { type Layout, LayoutSchema, pitchRadius, type Wheel } from '@core/drive/layout';
import type { Point } from '@core/drive/carrier';
import { type EccentricMarks, onEccentric } from '@core/drive/on-eccentric';
import { USUAL } from '@core/drive/usual';
import { readNumber } from '@core/quantity/parse-quantity';

const NUMBERS = new Set<keyof Wheel>(['x', 'y', 'teeth', 'outsideMm', 'rimMm', 'markDeg']);
const ROLES: readonly Wheel['role'][] = LayoutSchema.shape.wheels.element.shape.role.options;
export const WHEEL_ROLES = ROLES;

/** A layout with one field of one wheel changed as typed, or a sentence that says why it cannot be. */
export function withWheelField(layout: Layout, i: number, field: keyof Wheel, text: string): Layout | string {
  const w = nth(layout.wheels, i);
  const typed = text.trim();
  const put = (change: Partial<Wheel>, drop?: keyof Wheel): Layout => {
    const next: Partial<Wheel> = { ...w, ...change };
    if (drop) Reflect.deleteProperty(next, drop);
    return { ...layout, wheels: layout.wheels.map((x, k) => (k === i ? (next as Wheel) : x)) };
  };
  if (field === 'side') return put({ side: typed === 'back' ? -1 : 1 });
  if (field === 'role') {
    const role = ROLES.find((r) => r === typed);
    return role ? put({ role }) : `${w.name}: “${typed}” is no kind of wheel.`;
  }
  if (!NUMBERS.has(field)) return typed === '' ? `A wheel needs a name.` : put({ [field]: typed });
  if (typed === '' && field === 'teeth') return put({}, 'teeth');
  if (typed === '' && (field === 'outsideMm' || field === 'markDeg')) return put({}, field);
  const v = readNumber(typed);
  if (v === undefined) return `${w.name}, ${field}: “${typed}” is not a number. Millimetres, without a unit.`;
  if (field === 'teeth' && !(Number.isInteger(v) && v > 2))
    return `${w.name}: ${typed} teeth cannot be; a whole number above two.`;
  if ((field === 'outsideMm' && !(v > 0)) || (field === 'rimMm' && v < 0))
    return `${w.name}, ${field}: ${typed} must be above zero.`;
  if (Math.abs(v) > 10_000) return `${w.name}, ${field}: ${typed} is beyond any engine.`;
  if (field === 'teeth' && v > 1000) return `${w.name}: ${typed} teeth are more than any wheel has.`;
  const next = field === 'x' || field === 'y' ? put(movedTo(w, field, v)) : put({ [field]: v });
  return mismatch(layout, nth(next.wheels, i)) ?? next;
}

/** A wheel at another place; what it is carried by comes along, so that it stays on its carrier's circle. */
function movedTo(w: Wheel, field: 'x' | 'y', v: number): Partial<Wheel> {
  const by = v - w[field];
  if (!w.carrier) return { [field]: v };
  const carrier = { ...w.carrier, pivot: { ...w.carrier.pivot, [field]: w.carrier.pivot[field] + by } };
  if (carrier.kind === 'arm' && carrier.plunger) {
    const { base } = carrier.plunger;
    carrier.plunger = { ...carrier.plunger, base: { ...base, [field]: base[field] + by } };
  }
  return { [field]: v, carrier };
}

/** Teeth and a measured outside radius that cannot belong to each other at this pitch. */
function mismatch(layout: Layout, w: Wheel): string | undefined {
  if (w.teeth === undefined || w.outsideMm === undefined) return undefined;
  const r = pitchRadius(layout, w);
  const off = Math.abs(r - w.outsideMm);
  return off > layout.pitchMm / 2
    ? `${w.name}: ${w.teeth} teeth at ${layout.pitchMm} mm give a pitch radius of ${r.toFixed(1)} mm, not ${w.outsideMm} mm. One of the three is wrong.`
    : undefined;
}

/** One more idler, beside the last wheel. */
export function newWheel(layout: Layout): Layout {
  let n = layout.wheels.length;
  while (layout.wheels.some((w) => w.id === `wheel-${n}`)) n++;
  const last = must(layout.wheels.at(-1));
  const wheel: Wheel = {
    id: `wheel-${n}`,
    name: `Wheel ${n}`,
    role: 'idler',
    x: last.x + 60,
    y: last.y,
    outsideMm: 20,
    side: -1,
    rimMm: 0,
  };
  return { ...layout, wheels: [...layout.wheels, wheel] };
}

/** Crank and cam with a belt between them, to start from. */
export function newDrive(): Layout {
  const wheel = { side: 1 as const, rimMm: 0 };
  return {
    id: 'own-drive',
    name: 'New drive',
    kind: 'belt',
    runs: 'cw',
    pitchMm: 8,
    count: 105,
    ...USUAL.thickness.belt,
    wheels: [
      { id: 'crank', name: 'Crank sprocket', role: 'crank', x: 0, y: 0, teeth: 20, markDeg: 270, ...wheel },
      { id: 'cam', name: 'Cam sprocket', role: 'cam', x: 0, y: 300, teeth: 40, markDeg: 90, ...wheel },
    ],
  };
}

/** Makes a wheel the tensioner on an eccentric, at its nominal mark as drawn. Any other tensioner becomes an idler. A sentence when that cannot be. */
export function carriedBy(layout: Layout, i: number, c: EccentricMarks & { pivot: Point }): Layout | string {
  const w = nth(layout.wheels, i);
  const carrier = onEccentric(w, c.pivot, c);
  if (!carrier.ok)
    return carrier.error.code === 'not_eccentric'
      ? `${w.name}: the pivot must stand off the wheel’s centre, or nothing is eccentric.`
      : `${w.name}: the window must run from, nominal, to, end, each at least the one before.`;
  const wheels = layout.wheels.map((x, k): Wheel => {
    if (k !== i) return x.role === 'tensioner' ? { ...x, role: 'idler', carrier: undefined } : x;
    return { ...x, role: 'tensioner', carrier: carrier.value };
  });
  return { ...layout, wheels };
}
