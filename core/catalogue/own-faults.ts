import type { Layout } from '@core/drive/layout';
import { builtDay, type OwnEngine, wholeTyped } from './own-engine';
import type { Pack } from './pack';

export const OWN_STEPS = ['engine', 'designs', 'drive', 'kit'] as const;
export type OwnStep = (typeof OWN_STEPS)[number];
/** What is missing or wrong, at which field; `at` counts designs or parts. */
export type OwnFault = { step: OwnStep; at?: number } & (
  | { code: 'missing'; field: string }
  /** An engine, kit or part of this number is in the catalogue already. */
  | { code: 'here_already'; what: 'engine' | 'kit' | 'part'; key: string }
  | { code: 'not_a_day'; typed: string }
  | { code: 'window_backwards' }
  | { code: 'no_number'; field: string; typed: string }
  | { code: 'twice'; key: string }
  /** Several designs and nothing that parts them. */
  | { code: 'not_parted' }
  | { code: 'drive_of_none' }
  | { code: 'no_belt' }
);

/** What still stands between this form and an engine that answers; empty: nothing. */
export function ownFaults(form: OwnEngine, base: Pack | undefined, layout: Layout | undefined): OwnFault[] {
  return [
    ...engineFaults(form, base),
    ...designFaults(form),
    ...(layout && !form.designs.some((d) => d.drive)
      ? [{ step: 'drive', code: 'drive_of_none' } as const]
      : []),
    ...kitFaults(form, base),
  ];
}

function engineFaults(form: OwnEngine, base: Pack | undefined): OwnFault[] {
  const out: OwnFault[] = [];
  const step = 'engine';
  if (!base && form.catalogue.trim() === '') out.push({ step, code: 'missing', field: 'catalogue' });
  for (const field of ['code', 'maker'] as const)
    if (form[field].trim() === '') out.push({ step, code: 'missing', field });
  const code = form.code.trim();
  if (base?.engines.some((e) => e.code.toLowerCase() === code.toLowerCase()))
    out.push({ step, code: 'here_already', what: 'engine', key: code });
  return out;
}

function designFaults({ designs, tell }: OwnEngine): OwnFault[] {
  const step = 'designs';
  const out: OwnFault[] = [];
  if (designs.length === 0) out.push({ step, code: 'missing', field: 'design' });
  const names = new Set<string>();
  designs.forEach((d, at) => {
    const name = d.name.trim().toLowerCase();
    if (designs.length > 1 && name === '') out.push({ step, at, code: 'missing', field: 'name' });
    if (name !== '' && names.has(name)) out.push({ step, at, code: 'twice', key: d.name.trim() });
    names.add(name);
    for (const end of ['from', 'to'] as const)
      if (d[end].trim() !== '' && builtDay(d[end], end) === undefined)
        out.push({ step, at, code: 'not_a_day', typed: d[end].trim() });
    const [from, to] = [builtDay(d.from, 'from'), builtDay(d.to, 'to')];
    if (from !== undefined && to !== undefined && from > to) out.push({ step, at, code: 'window_backwards' });
    if (designs.length > 1 && tell.wording.trim() !== '' && d.seen.trim() === '')
      out.push({ step, at, code: 'missing', field: 'seen' });
  });
  if (designs.length > 1 && tell.wording.trim() !== '' && tell.say.trim() === '')
    out.push({ step, code: 'missing', field: 'say' });
  if (designs.length > 1 && out.length === 0 && !parted(designs, tell.wording.trim() !== ''))
    out.push({ step, code: 'not_parted' });
  return out;
}

/** Any two designs differ in what is seen or in when they were built. */
function parted(designs: OwnEngine['designs'], asked: boolean): boolean {
  return designs.every((a, i) =>
    designs.slice(i + 1).every((b) => {
      if (asked && a.seen.trim().toLowerCase() !== b.seen.trim().toLowerCase()) return true;
      const [endA, endB] = [builtDay(a.to, 'to') ?? '9999', builtDay(b.to, 'to') ?? '9999'];
      return endA < (builtDay(b.from, 'from') ?? '0000') || endB < (builtDay(a.from, 'from') ?? '0000');
    }),
  );
}

function kitFaults({ kit }: OwnEngine, base: Pack | undefined): OwnFault[] {
  const step = 'kit';
  const out: OwnFault[] = [];
  const number = kit.number.trim();
  if (number === '') out.push({ step, code: 'missing', field: 'number' });
  else if (base?.kits.some((k) => k.number === number))
    out.push({ step, code: 'here_already', what: 'kit', key: number });
  for (const field of ['months', 'km'] as const)
    if (kit[field].trim() !== '' && wholeTyped(kit[field]) === undefined)
      out.push({ step, code: 'no_number', field, typed: kit[field].trim() });
  if (kit.parts.length === 0) out.push({ step, code: 'missing', field: 'part' });
  const seen = new Set<string>();
  kit.parts.forEach((p, at) => {
    const n = p.number.trim();
    if (n === '') out.push({ step, at, code: 'missing', field: 'number' });
    else if (seen.has(n)) out.push({ step, at, code: 'twice', key: n });
    seen.add(n);
    // A part that is here may be in this kit too; it stays as it is there.
    if (p.name.trim() === '' && !base?.parts.some((x) => x.number === n))
      out.push({ step, at, code: 'missing', field: 'name' });
    if (wholeTyped(p.quantity) === undefined)
      out.push({ step, at, code: 'no_number', field: 'quantity', typed: p.quantity.trim() });
  });
  if (kit.parts.length > 0 && !kit.parts.some((p) => p.kind === 'belt' || p.kind === 'chain'))
    out.push({ step, code: 'no_belt' });
  return out;
}
