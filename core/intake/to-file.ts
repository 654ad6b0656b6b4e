import { declaring, type NewFact } from '@core/facts/change';
import type { Registry } from '@core/facts/observable';
import type { Proposal } from './proposal';

/** A part of the case that there is already. */
type KnownPart = { id: string; kind: string; place?: string | undefined };

/** Place of a part that goes in: it is none of those that came. */
const NEW_PART = 'new';

/**
 * Proposals as they are filed. What is said of one of several parts, or of the new one beside the old, is filed about a part of
 * its own, declared where there is none yet: it is never taken for the part that came.
 * @param unique makes the ids of new parts
 */
export function toFile(
  proposals: readonly Proposal[],
  parts: readonly KnownPart[],
  registry: Registry,
  unique: () => string,
): NewFact[] {
  const known = [...parts];
  const out: NewFact[] = [];
  const partOf = (kind: string, place: string): string => {
    const own = known.find((p) => p.kind === kind && p.place === place);
    if (own) return own.id;
    const declared = declaring(kind, place, unique());
    const id = declared[0]?.about ?? kind;
    out.push(...declared.map((f) => ({ ...f, how: 'reported' as const })));
    known.push({ id, kind, place });
    return id;
  };
  for (const p of proposals) {
    const kind = p.part?.kind ?? registry.get(p.key)?.part;
    const place = p.part?.place ?? (p.which === 'new' ? NEW_PART : undefined);
    const about = p.about ?? (place === undefined || kind === undefined ? undefined : partOf(kind, place));
    out.push({
      key: p.key,
      value: p.value,
      how: p.how,
      ...(about === undefined ? {} : { about }),
      ...(p.place === undefined ? {} : { place: p.place }),
      ...(p.u === undefined ? {} : { u: p.u }),
      ...(p.hearsay === undefined ? {} : { note: `as told: ${p.hearsay}` }),
    });
  }
  return out;
}
