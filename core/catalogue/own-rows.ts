import type { Layout } from '@core/drive/layout';
import { nth } from '@core/quantity/must';
import { builtDay, type OwnEngine, wholeTyped } from './own-engine';
import type { Engine, Feature, Kit, Pack, Part, Variant } from './pack';
import type { RowChange } from './pack-changes';
import { asNext } from './version';

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
  const [months, km] = [wholeTyped(form.kit.months), wholeTyped(form.kit.km)];
  const kit: Kit = {
    number: form.kit.number.trim(),
    name: form.kit.name.trim() === '' ? `Kit for ${code}` : form.kit.name.trim(),
    revision: 1,
    options: [],
    status: 'current',
    contents: form.kit.parts.map((p) => ({ part: p.number.trim(), quantity: wholeTyped(p.quantity) ?? 1 })),
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

/** Roles of wheels that are parts of a kit. */
const IN_KITS = ['tensioner', 'guide', 'idler'] as const;

/** What a drive has of a kit and the kit has not yet: its belt or chain first, then wheels by the names that they have on it. */
export function partsLacking(
  layout: Layout,
  parts: readonly { kind: Part['kind'] }[],
): { kind: Part['kind']; wheel?: string }[] {
  const wanted: { kind: Part['kind']; wheel?: string }[] = [{ kind: layout.kind }];
  for (const w of layout.wheels) {
    const kind = IN_KITS.find((k) => k === w.role);
    if (kind) wanted.push({ kind, wheel: w.name });
  }
  const left = parts.map((p) => p.kind);
  return wanted.filter(({ kind }) => {
    const at = left.indexOf(kind);
    if (at >= 0) left.splice(at, 1);
    return at < 0;
  });
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
  if (base) return asNext(base, day);
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
