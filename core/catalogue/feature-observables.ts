import type { Observable } from '@core/facts/observable';
import type { Feature } from './pack';

const MINUTES = { phone: 1, eye: 3, cover: 20, front: 120 } as const;

/** Minutes that an inspection costs, by strip-down. */
export const minutesToSee = (look: Feature['look']): number => MINUTES[look];

/** Key of the observable that answers a feature. */
export const featureKey = (id: string): string => `feature.${id}`;

/** A catalogue's features as observables, so that they are asked, filed and undone like any other. */
export function featureObservables(features: readonly Feature[]): Observable[] {
  return features.map((f) => ({
    key: featureKey(f.id),
    wording: f.wording,
    aliases: [f.id.replace(/[-_]/g, ' ')],
    part: 'drive',
    station: 'identify',
    type: {
      kind: 'choice',
      options: [...f.options],
    },
    how: 'reported',
    observe: f.say,
    minutes: minutesToSee(f.look),
  }));
}
