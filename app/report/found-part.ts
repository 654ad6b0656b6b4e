import type { Content } from 'pdfmake/interfaces';
import type { Answers } from '@core/answer/answers';
import type { RankedCause } from '@core/cause/rank';
import { measuredOf, textOf } from '@core/facts/read';
import type { Fact } from '@core/facts/fact';
import { meaningOf } from '@core/facts/meaning';
import type { State } from '@core/facts/state';
import { showValue } from '@core/facts/show-value';
import type { Strip } from '../ui/limit-strip';
import { findingWords } from '../messages/answers';
import { factWords } from '../messages/facts';
import { limitStrip, readingKey, readingStrip } from '../messages/strips';
import type { CaseOnPaper } from './case-on-paper';
import { photoPart, photosOf } from './photo-part';
import { stripSvg } from './strip-svg';

/** Findings that are told to outsiders, and the least weight of one, natural log. */
const [MOST, LEAST_NATS] = [6, 0.3];

/** The cause that a paper speaks of: the one that was decided, else the leader once something weighs. */
export function causeTold(state: State, { ranking }: Answers): RankedCause | undefined {
  const decided = textOf(state, 'cause.decided');
  const named = ranking.causes.find((x) => x.cause.key === decided);
  return named ?? (decided === undefined && ranking.weighed > 0 ? ranking.causes[0] : undefined);
}

/** The findings that a cause leads by, the strongest first, each with its readings against their limits and its photographs. */
export function foundPart(c: CaseOnPaper): { content: Content[]; photos: string[] } {
  const { state, answers: a, voice, name } = c;
  const told = causeTold(state, a);
  const byId = new Map(state.log.map((f) => [f.id, f]));
  const recorded = a.faults.flatMap((f) => f.recorded?.basis ?? []);
  const weights = [...(told?.weights ?? [])]
    .filter((w) => w.nats >= LEAST_NATS)
    .sort((x, y) => y.nats - x.nats)
    .slice(0, MOST);
  const facts = (ids: readonly string[]): Fact[] => ids.flatMap((id) => byId.get(id) ?? []);
  // A reading that several findings stand on is drawn at the first of them.
  const drawn = new Set<string>();
  const line = (words: string, of: readonly Fact[]): Content => {
    const strips = of.flatMap((f) => stripOf(c, f) ?? []).filter((s) => !drawn.has(s.label));
    for (const s of strips) drawn.add(s.label);
    return { stack: [{ text: `• ${words}` }, ...strips.map(stripPart)], margin: [0, 0, 0, 3] };
  };
  // Of faults that were recorded, evidence that no finding named.
  const weighed = new Set(weights.flatMap((w) => w.facts));
  const more = facts([...new Set(recorded)].filter((id) => !weighed.has(id)));
  const photos = photosOf(facts([...weighed, ...recorded]));
  return {
    content: [
      ...weights.map((w) => line(findingWords(w, voice), facts(w.facts))),
      ...more.map((f) => line(factWords(f, voice, name), [f])),
      ...photoPart(c, photos),
    ],
    photos,
  };
}

const STRIP_PT = 190;
const stripPart = (s: Strip): Content => ({
  margin: [8, 1, 0, 2],
  columns: [
    { width: STRIP_PT, svg: stripSvg(s, STRIP_PT) },
    { width: '*', text: `${s.label}: ${s.text}`, style: 'quiet', fontSize: 8 },
  ],
  columnGap: 8,
});

/** A reading against the limits of its drive or of the new part; none where it has none. */
function stripOf({ state, answers: a, voice, name }: CaseOnPaper, fact: Fact): Strip | undefined {
  const { key } = meaningOf(fact);
  const o = voice.registry.get(key);
  if (o?.type.kind !== 'number') return undefined;
  const m = measuredOf(state, voice.registry, key, fact.about);
  if (!m) return undefined;
  if (a.drive && fact.about === undefined && readingKey(a.drive) === key) return readingStrip(a.drive, m);
  const limit = a.examination?.things
    .filter((t) => t.about === fact.about)
    .flatMap((t) => t.inspections)
    .find((l) => l.inspection.key === key)?.limit;
  return limit && limitStrip(o, m, limit, (value, u) => showValue(o, value, voice.notation, name, u));
}
