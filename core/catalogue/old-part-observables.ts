import type { Observable } from '@core/facts/observable';
import { ATTRIBUTES } from './attributes';
import type { Part } from './pack';

/** Key of the observable that measures an old part. */
export const oldPartKey = (kind: Part['kind'], attribute: string): string => `old.${kind}.${attribute}`;

/** An old part's dimensions as observables, for every kind and attribute that the catalogue's parts have. */
export function oldPartObservables(parts: readonly Part[]): Observable[] {
  const wanted = new Map<string, { kind: Part['kind']; attribute: string }>();
  for (const p of parts)
    for (const attribute of Object.keys(p.attributes))
      wanted.set(oldPartKey(p.kind, attribute), { kind: p.kind, attribute });
  return [...wanted].flatMap(([key, { kind, attribute }]) => {
    const a = ATTRIBUTES.get(attribute);
    if (!a) return [];
    const type: Observable['type'] =
      a.kind === 'mm'
        ? {
            kind: 'number',
            dimension: 'length',
            unit: 'mm',
            decimals: 1,
            min: 0.5,
            max: 3000,
            u: a.u ?? 0.05,
          }
        : a.kind === 'count'
          ? { kind: 'count', what: '', min: 1, max: 500 }
          : {
              kind: 'choice',
              options: [
                ...(a.words ?? []).map((w) => ({ key: w, wording: w })),
                { key: 'unknown', wording: 'Unknown', also: ['?'] },
              ],
            };
    return [
      {
        key,
        wording: `Old ${kind}: ${a.wording.toLowerCase()}`,
        aliases: [`old ${kind} ${a.wording.toLowerCase()}`],
        part: kind,
        station: 'identify' as const,
        type,
        how: 'measured' as const,
        ...(a.observe === undefined ? {} : { observe: a.observe }),
        minutes: 2,
      },
    ];
  });
}
