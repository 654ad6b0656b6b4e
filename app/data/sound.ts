import type { Fact } from '@core/facts/fact';

/** Does a record have the fields by which a fact is sorted, shown and computed with? Cheap: asked of every one. */
export function isSound(f: Fact): boolean {
  const list = (x: unknown) => x === undefined || Array.isArray(x);
  return (
    typeof f === 'object' &&
    typeof f.id === 'string' &&
    typeof f.case === 'string' &&
    typeof f.key === 'string' &&
    typeof f.at === 'string' &&
    typeof f.by === 'string' &&
    typeof f.how === 'string' &&
    f.value !== undefined &&
    f.value !== null &&
    list(f.basis) &&
    list(f.files) &&
    (f.about === undefined || typeof f.about === 'string') &&
    (f.place === undefined || (typeof f.place === 'object' && typeof f.place?.on === 'string'))
  );
}
