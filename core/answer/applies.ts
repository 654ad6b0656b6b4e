import { readingUnit } from '@core/drive/carrier';
import { tensionerIndex } from '@core/drive/layout';
import type { Observable } from '@core/facts/observable';
import type { DriveAnswer } from './drive-answer';

/**
 * Can this be observed on this drive? A chain drive has no belt edges, a plunger no pointer. While the drive is not known
 * everything may be.
 */
export function applies(o: Pick<Observable, 'key' | 'part'>, drive: DriveAnswer | undefined): boolean {
  if (!drive) return true;
  const kinds = new Set(drive.stages.map((s) => s.layout.kind));
  if (o.part === 'belt' && !kinds.has('belt')) return false;
  if (o.part === 'chain' && !kinds.has('chain')) return false;
  // Only a belt climbs a rim.
  if (o.key === 'wheel.rim_marks') return kinds.has('belt');
  const carriers = drive.stages.flatMap(({ layout }) => layout.wheels[tensionerIndex(layout)]?.carrier ?? []);
  if (o.key === 'tensioner.pointer') return carriers.some((c) => readingUnit(c) === '°');
  if (o.key === 'tensioner.key_turn') return carriers.some((c) => c.kind === 'eccentric');
  if (o.key === 'tensioner.extension') return carriers.some((c) => readingUnit(c) === 'mm');
  return true;
}
