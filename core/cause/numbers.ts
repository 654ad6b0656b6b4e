import { oncePer } from '@core/quantity/keep';
import type { CauseData } from './cause-data';

/** What a number of the knowledge is. Shares lie between 0 and 1; shapes and kilometres of a life and factors are above 0. */
type NumberKind = 'prior' | 'life' | 'works' | 'leak' | 'shows' | 'off' | 'tilt';
/** One number: where it stands ("causes/set_hot/prior"), whose it is, what it speaks of, and its value. */
export type KnowledgeNumber = {
  place: string;
  kind: NumberKind;
  /** Key of the cause, mechanism or finding; a drive's kind or an arrival of a tilt. */
  entry: string;
  /** What else it names: mechanism, finding and grade, shape or scale, family. */
  about: readonly string[];
  value: number;
};

const placeOf = (...parts: string[]): string => parts.join('/');

/** Every number that a body of knowledge weighs by, by its place, in the order of the data. */
export const numbersOf = oncePer((data: CauseData): ReadonlyMap<string, KnowledgeNumber> => {
  const out = new Map<string, KnowledgeNumber>();
  const put = (of: string, entry: string, kind: NumberKind, about: string[], value: number) => {
    const place = placeOf(of, entry, kind, ...about);
    out.set(place, { place, kind, entry, about, value });
  };
  for (const c of data.causes) {
    put('causes', c.key, 'prior', [], c.prior);
    for (const [k, v] of Object.entries(c.life)) put('causes', c.key, 'life', [k], v);
    for (const [k, v] of Object.entries(c.works)) put('causes', c.key, 'works', [k], v);
  }
  for (const m of data.mechanisms) {
    put('mechanisms', m.key, 'leak', [], m.leak);
    for (const [f, grades] of Object.entries(m.shows))
      for (const [g, v] of Object.entries(grades)) put('mechanisms', m.key, 'shows', [f, g], v);
  }
  for (const f of data.findings)
    for (const [g, v] of Object.entries(f.off)) put('findings', f.finding, 'off', [g], v);
  for (const [when, families] of Object.entries(data.tilts))
    for (const [family, v] of Object.entries(families)) put('tilts', when, 'tilt', [family], v);
  return out;
});

/** A share of something, between 0 and 1; a life and a factor are none. */
export const isShare = ({ kind }: Pick<KnowledgeNumber, 'kind'>): boolean =>
  kind !== 'life' && kind !== 'tilt';

/** Between what a number of a kind may lie, neither end included. */
export const numberRange = ({ kind, about }: Pick<KnowledgeNumber, 'kind' | 'about'>): [number, number] =>
  kind === 'tilt' ? [0, 10] : kind === 'life' ? (about[0] === 'shape' ? [0, 10] : [0, 2_000_000]) : [0, 1];

/** The same knowledge with other numbers at some places; places that are none are passed over. */
export function withNumbers(data: CauseData, values: ReadonlyMap<string, number>): CauseData {
  if (values.size === 0) return data;
  const at = (fallback: number, ...parts: string[]): number => values.get(placeOf(...parts)) ?? fallback;
  const each = (shares: Readonly<Record<string, number>>, ...parts: string[]): Record<string, number> =>
    Object.fromEntries(Object.entries(shares).map(([k, v]) => [k, at(v, ...parts, k)]));
  return {
    ...data,
    causes: data.causes.map((c) => ({
      ...c,
      prior: at(c.prior, 'causes', c.key, 'prior'),
      life: {
        shape: at(c.life.shape, 'causes', c.key, 'life', 'shape'),
        scale: at(c.life.scale, 'causes', c.key, 'life', 'scale'),
      },
      works: each(c.works, 'causes', c.key, 'works'),
    })),
    mechanisms: data.mechanisms.map((m) => ({
      ...m,
      leak: at(m.leak, 'mechanisms', m.key, 'leak'),
      shows: Object.fromEntries(
        Object.entries(m.shows).map(([f, grades]) => [f, each(grades, 'mechanisms', m.key, 'shows', f)]),
      ),
    })),
    findings: data.findings.map((f) => ({ ...f, off: each(f.off, 'findings', f.finding, 'off') })),
    tilts: Object.fromEntries(
      Object.entries(data.tilts).map(([when, families]) => [when, each(families, 'tilts', when, 'tilt')]),
    ),
  };
}
