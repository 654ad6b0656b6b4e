import type { Layout } from '@core/drive/layout';
import { isBeyond, type Place, type PlacedOn } from '@core/facts/place';

/** Highest number of a tooth or link that any of these drives has; undefined for places that are not counted, or no drive. */
export function mostOf(on: PlacedOn, layouts: readonly Pick<Layout, 'kind' | 'count'>[]): number | undefined {
  const kind = on === 'tooth' ? 'belt' : on === 'link' ? 'chain' : undefined;
  const counts = layouts.filter((l) => l.kind === kind).map((l) => l.count);
  return counts.length === 0 ? undefined : Math.max(...counts);
}

/** The highest number, when a place lies beyond it, or before the first. */
export function beyond(place: Place, layouts: readonly Pick<Layout, 'kind' | 'count'>[]): number | undefined {
  const most = mostOf(place.on, layouts);
  return most !== undefined && isBeyond(place, most) ? most : undefined;
}
