import type { Observable } from '@core/facts/observable';
import { ATTRIBUTES } from './attributes';

/** Key of the observable that measures an attribute of a part. */
export const attributeKey = (attribute: string): string => `part.${attribute}`;

/** The dimensions of an old part as observables: what is measured to compare it with the new one. */
export function attributeObservables(): Observable[] {
  return [...ATTRIBUTES.values()].map((a) => {
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
              options: (a.words ?? []).map((w) => ({ key: w, wording: w })),
            };
    return {
      key: attributeKey(a.key),
      wording: a.wording,
      aliases: [],
      part: 'old',
      station: 'identify' as const,
      type,
      how: 'measured' as const,
      ...(a.observe === undefined ? {} : { observe: a.observe }),
      minutes: 2,
    };
  });
}
