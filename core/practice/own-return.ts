import type { Registry } from '@core/facts/observable';
import { whySilent } from '@core/facts/silence';
import type { State } from '@core/facts/state';
import { textOf } from '@core/facts/read';
import { contentDigest } from '@core/facts/digest';
import { type Result, err, ok } from '@core/quantity/result';
import { VIRTUAL_BENCH } from './bench';
import { isLook } from './look';
import { type Lies, slotName, type VirtualCase } from './virtual-case';

export type OwnError = { code: 'not_decided' | 'not_issued' | 'too_little' };

/** Fewer looks than this teach nothing. */
const LEAST = 4;
/** Kinds of values that can name nobody. */
const PLAIN: ReadonlySet<string> = new Set([
  'number',
  'count',
  'choice',
  'several',
  'wheels',
  'codes',
  'series',
]);
/** What stands on the paper of a box; of these the engine and the kit are records of the catalogue and no names. */
const OPENING: ReadonlySet<string> = new Set([
  'engine.code',
  'parts.sent',
  'symptom',
  'vehicle.odometer',
  'kit.number',
]);

/**
 * A return for practice from a settled case: only what was looked at and asked, by values that can name nobody. Texts, days, numbers of parts and
 * claims, notes, files, who filed it and when stay behind.
 */
export function ownReturn(state: State, registry: Registry): Result<VirtualCase, OwnError> {
  const cause = textOf(state, 'cause.decided');
  if (cause === undefined) return err({ code: 'not_decided' });
  if (!state.log.some((f) => f.key === 'report.issue' && !state.retracted.has(f.id)))
    return err({ code: 'not_issued' });
  const kept = state.log.flatMap((f): Lies[] => {
    if (f.strikes !== undefined || state.retracted.has(f.id) || whySilent(f) !== undefined) return [];
    const o = registry.get(f.key);
    const allowed = OPENING.has(f.key) || (o !== undefined && isLook(o) && PLAIN.has(o.type.kind));
    if (!allowed || f.key.startsWith('thing.')) return [];
    const { key, about, place, value, u, how } = f;
    return [
      {
        key,
        ...(about === undefined ? {} : { about }),
        ...(place ? { place } : {}),
        value,
        how,
        ...(u === undefined ? {} : { u }),
      },
    ];
  });
  const last = [...new Map(kept.map((l) => [slotName(l), l])).values()];
  const there = last.filter((l) => !['engine.code', 'parts.sent'].includes(l.key));
  if (there.length < LEAST) return err({ code: 'too_little' });
  const abnormal = there.filter((l) => {
    const type = registry.get(l.key)?.type;
    return type?.kind === 'choice' && type.options.some((x) => x.key === l.value && x.abnormal);
  });
  return ok({
    id: `practice-own-${contentDigest({ cause, there }).slice(0, 16)}`,
    cause,
    opening: [
      ...last.filter((l) => OPENING.has(l.key)),
      { key: 'case.date', value: VIRTUAL_BENCH.day, how: 'document' },
    ],
    there,
    shows: abnormal.map(slotName),
    wrong: [],
    patience: VIRTUAL_BENCH.patience.to,
  });
}
