import { nth } from '@core/quantity/must';
import { type Kit, type Pack, PackSchema, type Part } from '@core/catalogue/pack';
import type { Plan } from '@core/catalogue/plan';
import cormorant from './data/cormorant.json';
import belts from './data/procedures/belts.json';
import chains from './data/procedures/chains.json';
import close from './data/procedures/close.json';
import designs from './data/procedures/designs.json';
import open from './data/procedures/open.json';
import { FAMILIES, type FamilySketch, type VariantSketch } from './families';
import { firstDesign, layoutsFor, secondDesign } from './layouts/drives';
import { withSensors } from './layouts/sensors';
import { jobSketches } from './jobs';
import { partsFor } from './parts';

const CODE: Record<Part['kind'], string> = {
  belt: 'TB',
  chain: 'CH',
  tensioner: 'TN',
  guide: 'GD',
  idler: 'GR',
  sprocket: 'SP',
  phaser: 'PH',
  ring: 'RG',
  pump: 'PU',
  thermostat: 'TH',
  bolt: 'SB',
  seal: 'SL',
  screen: 'SC',
  liquid: 'LQ',
};
/** Wheels of the crank sensors, family by family. */
const RELUCTORS = ['60-2', '36-1', '60-2', '36-2', '60-2', '36-2-2-2', '24'] as const;
type Rows = Pick<
  Pack,
  'engines' | 'variants' | 'layouts' | 'parts' | 'kits' | 'applications' | 'jobs' | 'intervals' | 'cross'
>;

let made: Pack | undefined;
/** The invented catalogue: sixteen engines with their drives, kits, parts and jobs. Laid out once; each caller has its own. */
export function demoPack(): Pack {
  made ??= makePack();
  return structuredClone(made);
}

function makePack(): Pack {
  const rows: Rows = {
    engines: [],
    variants: [],
    layouts: [],
    parts: [],
    kits: [],
    applications: [],
    jobs: [],
    intervals: [],
    cross: [],
  };
  addCormorant(rows);
  FAMILIES.families.forEach((f, i) => addFamily(rows, f, 301 + i, nth(RELUCTORS, i % RELUCTORS.length)));
  return PackSchema.parse({
    format: 'hollow-sprocket-catalogue',
    formatVersion: 1,
    name: 'Marrowfen',
    version: '2026.3',
    issued: '2026-09-01',
    source: 'Marrowfen Drive Parts, invented demonstration data',
    features: FAMILIES.features,
    procedures: [...open, ...belts, ...chains, ...close, ...designs],
    ...rows,
  });
}

/** The family of the demo cases: its numbers are written out, since cases and tests name them. */
function addCormorant(rows: Rows): void {
  const { engines, variants, parts, kits, applications, jobs, intervals, cross } =
    cormorant as unknown as Omit<Rows, 'layouts'>;
  rows.engines.push(...engines);
  rows.variants.push(...variants);
  rows.parts.push(...parts);
  rows.kits.push(...kits);
  rows.applications.push(...applications);
  rows.jobs.push(...jobs);
  rows.intervals.push(...intervals);
  rows.cross.push(...cross);
  rows.layouts.push(
    ...withSensors([firstDesign('corm-121', 121, 330)], 'TE16-CORM', RELUCTORS[0]),
    ...withSensors([secondDesign('corm-123', 123, 330)], 'TE16-CORM', RELUCTORS[0]),
    ...withSensors([firstDesign('corm-117', 117, 314)], 'TE14-CORM', RELUCTORS[0]),
  );
}

function addFamily(rows: Rows, f: FamilySketch, number: number, reluctor: string): void {
  rows.engines.push({
    code: f.code,
    maker: f.maker,
    family: f.family,
    vehicles: f.vehicles,
    interference: f.interference,
  });
  f.vehicles.forEach((vehicle, i) =>
    rows.intervals.push({
      engine: f.code,
      vehicle,
      km: f.interval.km - 20000 * i,
      months: f.interval.months,
    }),
  );
  for (const v of f.variants) addVariant(rows, f, v, number, reluctor);
}

function addVariant(rows: Rows, f: FamilySketch, v: VariantSketch, number: number, reluctor: string): void {
  const id = `${f.code}/${v.key}`;
  const layout = `${f.family.toLowerCase()}-${v.key.toLowerCase()}`;
  const stages = withSensors(layoutsFor(layout, v, f.interference), f.code, reluctor);
  rows.layouts.push(...stages);
  rows.variants.push({
    id,
    engine: f.code,
    name: v.name,
    share: v.share,
    built: { ...(v.from ? { from: v.from } : {}), ...(v.to ? { to: v.to } : {}), slackDays: v.slackDays },
    markets: v.markets,
    features: v.features,
    layout,
    procedure: v.procedure,
  });
  const mine = partsFor(v, stages).map((p, i) => ({
    ...p,
    number: `MF-${CODE[p.kind]}${number}${v.key}${i + 1}`,
  }));
  for (const { number: n, kind, name, attributes, as } of mine)
    rows.parts.push({ number: n, kind, name, attributes, ...(as ? { as } : {}) });
  addKits(rows, v, id, number, mine);
  for (const { takes, ...job } of jobSketches(v, stages)) {
    const part = mine.find((p) => p.as === takes);
    rows.jobs.push({
      variant: id,
      ...job,
      ...(takes ? { as: takes } : {}),
      ...(part ? { part: part.number } : {}),
    });
  }
}

/** Plans of the demo: belts for two years; chains for three, shared in the third, fitted whole; guides alone for life, parts only. */
function planOf({ template, key }: VariantSketch): Plan {
  if (template.startsWith('belt')) return { months: 24, km: 60000, documents: ['invoice'] };
  return key === 'B'
    ? { name: 'Aldmere life', bears: ['part'], documents: ['invoice', 'sheet'] }
    : {
        name: 'Aldmere chain',
        months: 36,
        km: 120000,
        from: 'fitted_else_sold',
        bears: ['part', 'labour'],
        shares: [{ after: 24, share: 0.5 }],
        excludes: [
          {
            key: 'kit.renewed',
            is: ['some_old'],
            why: 'a chain kit is covered only where it was fitted whole.',
          },
        ],
        documents: ['invoice'],
      };
}

function addKits(
  rows: Rows,
  v: VariantSketch,
  id: string,
  number: number,
  parts: { number: string; quantity?: number; option?: string }[],
): void {
  const terms = planOf(v);
  const has = new Set(parts.map((p) => p.option));
  v.options.forEach((option, i) => {
    if (option !== 'plain' && !has.has(option)) return;
    const kit: Kit = {
      number: `MF-K${number}${v.key}-${i + 1}`,
      name: `${v.template.startsWith('belt') ? 'Belt' : 'Chain'} kit ${number}${v.key}${option === 'plain' ? '' : ` with ${option}`}`,
      revision: 1,
      options: option === 'plain' ? [] : [option],
      status: 'current',
      contents: parts
        .filter((p) => p.option === undefined || p.option === option)
        .map((p) => ({ part: p.number, quantity: p.quantity ?? 1 })),
      terms,
    };
    rows.kits.push(kit);
    rows.applications.push({ kit: kit.number, variant: id });
    rows.cross.push({ number: `ALD ${number}.${v.key}${i + 1}`, names: kit.number });
  });
}
