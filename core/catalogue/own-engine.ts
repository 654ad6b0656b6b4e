import * as z from 'zod';
import '@core/quantity/plain-schemas';
import type { Layout } from '@core/drive/layout';
import { isDay } from '@core/quantity/dates';
import { readNumber } from '@core/quantity/parse-quantity';
import { nth } from '@core/quantity/must';
import {
  type Engine,
  type Feature,
  FeatureSchema,
  type Kit,
  type Pack,
  type Part,
  PART_KINDS,
  type Variant,
} from './pack';
import type { RowChange } from './pack-changes';
import { nextVersion } from './version';

const Typed = z.string().max(400);

/** An engine as it is typed in, one form: texts as they stand in their fields, so that nothing half-typed is lost. */
export const OwnEngineSchema = z.strictObject({
  /** The catalogue it goes into: a new one by name, where none is here. */
  catalogue: Typed,
  source: Typed,
  code: Typed,
  maker: Typed,
  family: Typed,
  /** Separated by commas. */
  vehicles: Typed,
  interference: z.enum(['yes', 'no', 'unknown']),
  designs: z
    .array(
      z.strictObject({
        name: Typed,
        from: Typed,
        to: Typed,
        /** What one sees at it, where a question parts the designs. */
        seen: Typed,
        /** It has the drive that was drawn up. */
        drive: z.boolean(),
      }),
    )
    .max(20),
  /** The one thing by which designs are told apart, its sentence for the phone, and what it costs to look. */
  tell: z.strictObject({ wording: Typed, say: Typed, look: FeatureSchema.shape.look }),
  kit: z.strictObject({
    number: Typed,
    name: Typed,
    months: Typed,
    km: Typed,
    parts: z
      .array(z.strictObject({ number: Typed, kind: z.enum(PART_KINDS), name: Typed, quantity: Typed }))
      .max(60),
  }),
});
export type OwnEngine = z.infer<typeof OwnEngineSchema>;

export const EMPTY_ENGINE: OwnEngine = {
  catalogue: '',
  source: '',
  code: '',
  maker: '',
  family: '',
  vehicles: '',
  interference: 'unknown',
  designs: [{ name: '', from: '', to: '', seen: '', drive: true }],
  tell: { wording: '', say: '', look: 'eye' },
  kit: {
    number: '',
    name: '',
    months: '24',
    km: '',
    parts: [],
  },
};

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

const slug = (text: string): string =>
  text
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 40);
const letterOf = (i: number): string => String.fromCharCode(97 + i);
const spread = (text: string): string[] =>
  text
    .split(/[,;\n]/)
    .map((t) => t.trim())
    .filter(Boolean);

/** Days on which a design was built, as typed; a year or a month stands for its first or last day. */
export function builtDay(typed: string, end: 'from' | 'to'): string | undefined {
  const t = typed.trim();
  const m = /^(\d{4})(?:-(\d{2}))?$/.exec(t);
  if (!m) return isDay(t) ? t : undefined;
  const [year, month] = [Number(m[1]), m[2] === undefined ? undefined : Number(m[2])];
  if (month !== undefined && !(month >= 1 && month <= 12)) return undefined;
  if (end === 'from') return `${t}${month === undefined ? '-01-01' : '-01'}`;
  const last = new Date(Date.UTC(year, month ?? 12, 0)).getUTCDate();
  return `${year}-${String(month ?? 12).padStart(2, '0')}-${last}`;
}

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
    if (kit[field].trim() !== '' && whole(kit[field]) === undefined)
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
    if (whole(p.quantity) === undefined)
      out.push({ step, at, code: 'no_number', field: 'quantity', typed: p.quantity.trim() });
  });
  if (kit.parts.length > 0 && !kit.parts.some((p) => p.kind === 'belt' || p.kind === 'chain'))
    out.push({ step, code: 'no_belt' });
  return out;
}

function whole(text: string): number | undefined {
  const v = readNumber(text);
  return v !== undefined && Number.isInteger(v) && v > 0 ? v : undefined;
}

/** An id that no row of the table has yet. */
function free(wanted: string, taken: ReadonlySet<string>): string {
  let id = wanted;
  for (let n = 2; taken.has(id); n++) id = `${wanted}-${n}`;
  return id;
}

/** The rows of a form without faults: engine, designs, what parts them, drive, parts, kit and what it fits. */
export function ownRows(form: OwnEngine, base: Pack | undefined, layout: Layout | undefined): RowChange[] {
  const code = form.code.trim();
  const engine: Engine = {
    code,
    maker: form.maker.trim(),
    family: form.family.trim(),
    vehicles: spread(form.vehicles),
    interference: form.interference,
  };
  const feature = featureOf(form, base);
  const drive = layout && { ...layout, id: free(`${slug(code)}-drive`, idsOf(base?.layouts)) };
  const taken = idsOf(base?.variants);
  const variants = form.designs.map((d, i): Variant => {
    const [from, to] = [builtDay(d.from, 'from'), builtDay(d.to, 'to')];
    const value = feature?.options.find((o) => sameWords(o.wording, d.seen))?.key;
    return {
      id: free(`${slug(code)}-${letterOf(i)}`, taken),
      engine: code,
      name: d.name.trim() === '' ? 'only design' : d.name.trim(),
      share: 1,
      built: { ...(from === undefined ? {} : { from }), ...(to === undefined ? {} : { to }), slackDays: 30 },
      features: feature && value !== undefined ? { [feature.id]: [value] } : {},
      markets: [],
      ...(drive && d.drive ? { layout: drive.id } : {}),
    };
  });
  const parts = form.kit.parts.flatMap((p): Part[] => {
    const number = p.number.trim();
    if (base?.parts.some((x) => x.number === number)) return [];
    return [{ number, kind: p.kind, name: p.name.trim(), attributes: attributesOf(p.kind, layout) }];
  });
  const [months, km] = [whole(form.kit.months), whole(form.kit.km)];
  const kit: Kit = {
    number: form.kit.number.trim(),
    name: form.kit.name.trim() === '' ? `Kit for ${code}` : form.kit.name.trim(),
    revision: 1,
    options: [],
    status: 'current',
    contents: form.kit.parts.map((p) => ({ part: p.number.trim(), quantity: whole(p.quantity) ?? 1 })),
    terms: { ...(months === undefined ? {} : { months }), ...(km === undefined ? {} : { km }) },
  };
  return [
    { table: 'engines', key: code, row: engine },
    ...(feature ? [{ table: 'features', key: feature.id, row: feature } as const] : []),
    ...(drive ? [{ table: 'layouts', key: drive.id, row: drive } as const] : []),
    ...variants.map((v) => ({ table: 'variants' as const, key: v.id, row: v })),
    ...parts.map((p) => ({ table: 'parts' as const, key: p.number, row: p })),
    { table: 'kits', key: kit.number, row: kit },
    ...variants.map((v) => ({
      table: 'applications' as const,
      key: `${kit.number}|${v.id}`,
      row: { kit: kit.number, variant: v.id },
    })),
  ];
}

const idsOf = (rows: readonly { id: string }[] | undefined): ReadonlySet<string> =>
  new Set((rows ?? []).map((r) => r.id));
const sameWords = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

function featureOf(form: OwnEngine, base: Pack | undefined): Feature | undefined {
  const wording = form.tell.wording.trim();
  if (form.designs.length < 2 || wording === '') return undefined;
  const seen: string[] = [];
  for (const d of form.designs) if (!seen.some((s) => sameWords(s, d.seen))) seen.push(d.seen.trim());
  const keys = new Set<string>();
  const options = seen.map((s) => {
    const key = free(slug(s) || 'other', keys);
    keys.add(key);
    return { key, wording: s };
  });
  return {
    id: free(`${slug(form.code)}-${slug(wording)}`.slice(0, 55), idsOf(base?.features)),
    wording,
    say: form.tell.say.trim(),
    look: form.tell.look,
    options,
  };
}

/** What the drive says of a belt: its teeth and their pitch; of a chain its links and pitch. */
function attributesOf(kind: Part['kind'], layout: Layout | undefined): Part['attributes'] {
  if (layout?.kind !== kind) return {};
  return kind === 'belt'
    ? { teeth: layout.count, pitchMm: layout.pitchMm }
    : { links: layout.count, pitchMm: layout.pitchMm };
}

/** The next version of a catalogue with these rows; a first one where there is none. @param day of issue */
export function headOfNext(
  form: Pick<OwnEngine, 'catalogue' | 'source'>,
  base: Pack | undefined,
  day: string,
): Pack {
  if (base)
    return { ...base, version: nextVersion(base.version), issued: base.issued > day ? base.issued : day };
  return {
    format: 'hollow-sprocket-catalogue',
    formatVersion: 1,
    name: form.catalogue.trim(),
    version: nth(day.split('-'), 0) + '.1',
    issued: day,
    source: form.source.trim(),
    ...{ engines: [], features: [], variants: [], layouts: [], parts: [], kits: [] },
    ...{ applications: [], jobs: [], intervals: [], cross: [], procedures: [] },
  };
}
