import type { Advice } from '@core/advice/advice';
import { advise, questionsAsked } from '@core/advice/advise';
import { answersFor } from '@core/answer/answers';
import { thingWords } from '@core/answer/things';
import { METRIC } from '@core/facts/read-value';
import { registryFor, worldOf } from '@core/answer/world';
import { catalogueOf } from '@core/catalogue/find-records';
import { fileFacts, type NewFact } from '@core/facts/change';
import type { Author, Fact } from '@core/facts/fact';
import { reduce } from '@core/facts/state';
import { readText } from '@core/intake/read-text';
import type { Day } from '@core/quantity/dates';
import { must } from '@core/quantity/must';
import { PACK } from './cases';
import { demoPack } from './catalogue';
import messages from './data/messages.json';

/** Tags of the calls that were answered, between the demo's own cases, and the days on which they came. */
const ANSWERED: readonly (readonly [tag: number, day: Day])[] = [
  [1958, '2026-11-18'],
  [1959, '2026-11-18'],
  [2025, '2026-11-18'],
  [2026, '2026-11-18'],
  [2028, '2026-11-19'],
  [2029, '2026-11-19'],
  [2030, '2026-11-19'],
  [2031, '2026-11-19'],
  [2032, '2026-11-19'],
  [2034, '2026-11-20'],
  [2035, '2026-11-20'],
  [2037, '2026-11-20'],
  [2039, '2026-11-20'],
  [2040, '2026-11-20'],
  [2042, '2026-11-23'],
  [2043, '2026-11-23'],
];
/** The morning on which the desk is opened, the tag of the first message that nobody read yet, and how many there are. */
const [TODAY, FIRST_UNREAD, UNREAD] = ['2026-11-24', 2045, 4] as const;
/** Every so many of the other messages waits to be read. */
const EVERY = 21;
/** Engine of the caller who was promised a call, and when. */
const CALL_BACK = { engine: 'QU13-STOA', day: TODAY };

const engineOf = (m: (typeof messages)[number]): string =>
  String(m.facts.find((f) => f.key === 'engine.code')?.value ?? '');

/** The first message about each engine that asks something. */
function firstOfEach(): typeof messages {
  const found = new Map<string, (typeof messages)[number]>();
  for (const m of messages) {
    const engine = engineOf(m);
    if (engine !== '' && !found.has(engine) && m.facts.some((f) => f.key === 'call.asked'))
      found.set(engine, m);
  }
  return [...found.values()];
}

/** How the answer to a question is said, and the question: words are the app's, and lent by whoever makes the demo. */
export type Telling = {
  spoken: (advice: Advice, voice: ReturnType<typeof voiceOf>) => string;
  asked: Readonly<Record<Advice['asked'], string>>;
};
const voiceOf = (a: ReturnType<typeof answersFor>) => ({
  notation: METRIC,
  cat: WORLD.catalogue,
  registry: registryFor(WORLD),
  thing: (t: string) => thingWords(a.things, t),
});

/** What they were told, where the facts gave an answer. */
function told(facts: readonly Fact[], id: string, author: Author, today: string, say: Telling): Fact[] {
  const state = reduce(facts);
  const a = answersFor(WORLD, state);
  const voice = voiceOf(a);
  const entries = questionsAsked(state)
    .map((asked) => advise(asked, { world: WORLD, state, a, today }))
    .filter((x) => x.standing !== 'open')
    .map(
      (x): NewFact => ({
        key: 'call.told',
        value: say.spoken(x, voice),
        how: 'decided',
        basis: x.basis,
        note: `${say.asked[x.asked]}: read out`,
        series: 'told',
      }),
    );
  return entries.length === 0 ? [] : fileFacts(state, id, entries, author);
}

const waiting = () => {
  const read = firstOfEach();
  return messages
    .filter((m) => !read.includes(m))
    .filter((_, i) => i % EVERY === 0)
    .slice(0, UNREAD)
    .map((m) => ({ ...m, unread: true }));
};

const WORLD = worldOf(catalogueOf(demoPack()));

export type Calls = { format: 'hollow-sprocket-demo-calls'; facts: Fact[] };

/**
 * Calls and messages of the weeks before: each case holds its message word for word; of one of every engine the facts were
 * taken as the reader proposes them, the others wait to be read.
 */
export function demoCalls(say: Telling): Calls {
  const { catalogue } = WORLD;
  const registry = registryFor(WORLD);
  const chosen = [...firstOfEach().map((m) => ({ ...m, unread: false })), ...waiting()];
  const facts: Fact[] = [];
  chosen.forEach(({ text, unread }, i) => {
    const id = `demo-call-${i + 1}`;
    const at = i - ANSWERED.length;
    const [tag, day] = unread ? [FIRST_UNREAD + at, TODAY] : must(ANSWERED[i]);
    // What nobody read yet came before the day began.
    const came = unread
      ? `06:${String(10 + at * 4)}`
      : `${String(7 + (i % 9)).padStart(2, '0')}:${String(10 + i)}`;
    let [minute, made] = [0, 0];
    const author: Author = {
      by: 'Ida Fennimore',
      now: () => new Date(Date.parse(`${day}T${came}:00Z`) + minute++ * 20_000).toISOString(),
      newId: () => `${id}-${String(++made).padStart(2, '0')}`,
    };
    const entries: NewFact[] = [
      { key: 'case.tag', value: String(tag), how: 'decided' },
      { key: 'case.catalogue', value: PACK, how: 'decided' },
      { key: 'call.message', value: text, how: 'reported', series: 'messages' },
    ];
    if (!unread) {
      const read = readText(text, {
        catalogue,
        registry,
        notation: { dateOrder: 'dmy', units: {} },
        today: day,
      });
      if ('code' in read) throw new Error(`${id}: ${read.code}`);
      for (const p of read.proposals) {
        if (p.sure === 'ask') continue;
        const { key, value, how, about, u, hearsay } = p;
        entries.push({
          key,
          value,
          how,
          ...(about === undefined ? {} : { about }),
          ...(u === undefined ? {} : { u }),
          ...(hearsay === undefined ? {} : { note: `as told: ${hearsay}` }),
        });
      }
      if (entries.some((e) => e.key === 'engine.code' && e.value === CALL_BACK.engine))
        entries.push({ key: 'call.back', value: CALL_BACK.day, how: 'decided' });
      if (read.left !== '') entries.push({ key: 'complaint', value: read.left, how: 'reported' });
    }
    const own = fileFacts(reduce([]), id, entries, author);
    if (!unread) own.push(...told(own, id, author, day, say));
    facts.push(...own);
  });
  return { format: 'hollow-sprocket-demo-calls', facts };
}
