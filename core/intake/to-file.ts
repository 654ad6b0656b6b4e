import { declaring, type NewFact } from '@core/facts/change';
import type { Registry } from '@core/facts/observable';
import { type Proposal, slotOf } from './proposal';

/** A part of the case that there is already. */
type KnownPart = { id: string; kind: string; place?: string | undefined };

/** Place of a part that goes in: it is none of those that came. */
const NEW_PART = 'new';

/**
 * Proposals as they are filed. What is said of one of several parts, or of the new one beside the old, is filed about a part of
 * its own, declared where there is none yet: it is never taken for the part that came.
 * What several people say of one thing stands side by side; what the writer says is filed last, so that it stands.
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
  const told = new Map<string, number>();
  for (const p of proposals) told.set(slotOf(p), (told.get(slotOf(p)) ?? 0) + 1);
  const begun = new Set<string>();
  const byHand = (p: Proposal) => (p.hearsay === undefined ? 1 : 0);
  const several = (p: Proposal) => (told.get(slotOf(p)) ?? 0) > 1;
  const ordered = [
    ...proposals.filter((p) => !several(p)),
    ...proposals.filter(several).sort((a, b) => byHand(a) - byHand(b)),
  ];
  for (const p of ordered) {
    const rival = begun.has(slotOf(p)) || (p.doubt === 'witness' && !several(p));
    begun.add(slotOf(p));
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
      ...(rival ? { rival } : {}),
      ...(p.hearsay === undefined ? {} : { note: `as told: ${p.hearsay}` }),
    });
  }
  return out;
}
