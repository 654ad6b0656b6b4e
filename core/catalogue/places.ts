import type { Layout } from '@core/drive/layout';
import type { Place, PlacedOn } from '@core/facts/place';

/** Highest number of a tooth or link that any of these drives has; undefined for places that are not counted, or no drive. */
export function mostOf(on: PlacedOn, layouts: readonly Pick<Layout, 'kind' | 'count'>[]): number | undefined {
  const kind = on === 'tooth' ? 'belt' : on === 'link' ? 'chain' : undefined;
  const counts = layouts.filter((l) => l.kind === kind).map((l) => l.count);
  return counts.length === 0 ? undefined : Math.max(...counts);
}

/** The highest number, when a place lies beyond it, or before the first. */
export function beyond(place: Place, layouts: readonly Pick<Layout, 'kind' | 'count'>[]): number | undefined {
  const most = mostOf(place.on, layouts);
  if (most === undefined || place.from === undefined) return undefined;
  return place.from < 1 || (place.to ?? place.from) > most ? most : undefined;
}
