import { type Layout, LayoutSchema, pitchRadius, type Wheel } from '@core/drive/layout';
import { readNumber } from '@core/quantity/parse-quantity';

const NUMBERS = new Set<keyof Wheel>(['x', 'y', 'teeth', 'outsideMm', 'rimMm']);
const ROLES: readonly Wheel['role'][] = LayoutSchema.shape.wheels.element.shape.role.options;
export const WHEEL_ROLES = ROLES;

/** A layout with one field of one wheel changed as typed, or a sentence that says why it cannot be. */
export function withWheelField(layout: Layout, i: number, field: keyof Wheel, text: string): Layout | string {
  const w = layout.wheels[i]!;
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
  if (typed === '' && field === 'outsideMm') return put({}, 'outsideMm');
  const v = readNumber(typed);
  if (v === undefined) return `${w.name}, ${field}: “${typed}” is not a number. Millimetres, without a unit.`;
  if (field === 'teeth' && !(Number.isInteger(v) && v > 2))
    return `${w.name}: ${typed} teeth cannot be; a whole number above two.`;
  if ((field === 'outsideMm' && !(v > 0)) || (field === 'rimMm' && v < 0))
    return `${w.name}, ${field}: ${typed} must be above zero.`;
  const next = put({ [field]: v });
  return mismatch(layout, next.wheels[i]!) ?? next;
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
  const last = layout.wheels.at(-1)!;
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
