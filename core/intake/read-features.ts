import { must, nth } from '@core/quantity/must';
import { optionsOf, type Observable } from '@core/facts/observable';
import { featuresOf, type IntakeContext } from './context';
import { groupBy, spanOf } from './phrases';
import type { Proposal } from './proposal';
import { negatedAt } from './read-choices';
import type { Said } from './said';
import { stemOf, type Token } from './text';
import { GRAMMAR } from './grammar';
import { WORDS } from './words';

/** "7" → "seven", as values are worded. */
const NUMBERS = new Map(
  Object.entries(GRAMMAR.numbers)
    .map(([word, n]) => [String(n), word] as const)
    .reverse(),
);
const EMPTY = new Set(WORDS.empty);

const wordsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[^a-z0-9]+/)
    .filter((w) => w !== '' && !EMPTY.has(w))
    .map(stemOf);

/** Two words of one family: equal, or one begins the other by four letters ("slot", "slotted"; "alu", "aluminium"). */
const alike = (said: string, own: string): boolean =>
  said === own ||
  (Math.min(said.length, own.length) >= 3 &&
    (own.startsWith(said) || said.startsWith(own)) &&
    said.length >= 3 &&
    own.length >= 4);

type Option = { key: string; telling: string[] };

/**
 * What tells an engine's designs apart, from the catalogue's own words: a word that only one value of a feature has, beside a
 * word of the feature's name; alone where no other feature of the engine has such a word. Both values in one clause say nothing.
 */
export function readFeatures(
  said: Said,
  ctx: IntakeContext,
  engine: string | undefined,
): Proposal[] {
  const features = featuresOf(ctx, engine);
  const out: Proposal[] = [];
  for (const o of features) {
    const topic = wordsOf(o.wording);
    const options: Option[] = optionsOf(o).map((x) => ({
      key: x.key,
      telling: [...new Set([...wordsOf(x.wording), ...wordsOf(x.key)])],
    }));
    for (const x of options)
      x.telling = x.telling.filter(
        (w) =>
          (!options.some((y) => y !== x && y.telling.includes(w)) && !topic.includes(w)) || /^[a-z]$/.test(w),
      );
    let before: readonly Token[] = [];
    for (const clause of groupBy(said.tokens, 'clause')) {
      // "the screws of the cover: five", "…, there are seven of them": the clause before named what is counted
      const carried =
        before[0]?.sentence === nth(clause, 0).sentence &&
        named(before, topic) > 1 &&
        named(clause, topic) === 0 &&
        clause.length <= 6;
      const read = inClause(o, topic, options, carried ? [...before, ...clause] : clause, engine, features);
      out.push(...read);
      before = read.length > 0 ? [] : clause;
    }
  }
  return out;
}

/** Words of a clause that name the topic. */
const named = (clause: readonly Token[], topic: readonly string[]): number =>
  clause.filter((t) => topic.some((own) => alike(t.stem, own))).length;

function inClause(
  o: Observable,
  topic: readonly string[],
  options: readonly Option[],
  clause: readonly Token[],
  engine: string | undefined,
  features: readonly Observable[],
): Proposal[] {
  const said = clause.map((t) => NUMBERS.get(t.low) ?? t.stem);
  const about = said.flatMap((w, i) => (topic.some((own) => alike(w, own)) ? [i] : []));
  const hits = options.flatMap((x) => {
    const at = said.findIndex((w) => x.telling.some((own) => telling(w, own)));
    return at < 0 ? [] : [{ key: x.key, at }];
  });
  if (yesNo(options)) return presence(o, topic, options, clause, about, hits);
  if (hits.length !== 1) return [];
  const hit = nth(hits, 0);
  const word = nth(said, hit.at);
  const plain = /^[a-z]$|^(two|three|four|five|six|seven|eight|nine|yes|no)$/.test(word);
  const near = about.some((i) => i !== hit.at && Math.abs(i - hit.at) <= 7);
  const alone =
    engine !== undefined &&
    !plain &&
    features.every(
      (f) => f === o || !optionsOf(f).some((x) => wordsOf(x.wording).some((w) => alike(word, w))),
    );
  if (!near && !alone) return [];
  const negated = negatedAt(clause, hit.at, 1);
  const key = negated
    ? options.length === 2
      ? must(options.find((x) => x.key !== hit.key)).key
      : undefined
    : hit.key;
  if (key === undefined) return [];
  const places = near ? [hit.at, ...about.filter((i) => Math.abs(i - hit.at) <= 7)] : [hit.at];
  return [propose(o, key, clause, places)];
}

/** A short word must be whole: "m8" is no beginning of anything. */
const telling = (w: string, own: string): boolean =>
  own.length < 4 || w.length < 3 ? w === own : alike(w, own);

const yesNo = (options: readonly Option[]): boolean =>
  options.some((x) => x.key === 'yes') && options.some((x) => x.key === 'no');

/** A thing that is there or not: its name, mostly, with "is present" or "there is", or the word that a value adds ("converted"). */
function presence(
  o: Observable,
  topic: readonly string[],
  options: readonly Option[],
  clause: readonly Token[],
  about: readonly number[],
  hits: readonly { key: string; at: number }[],
): Proposal[] {
  const yes = must(options.find((x) => x.key === 'yes'));
  const added = hits.find((h) => h.key === 'yes');
  if (added) return [propose(o, negatedAt(clause, added.at, 1) ? 'no' : yes.key, clause, [added.at])];
  const named = new Set(about.map((i) => topic.find((own) => alike(nth(clause, i).stem, own))));
  const there = clause.findIndex((t) => /^(present|there|fitted|has|have)$/.test(t.low));
  if (named.size < topic.length || there < 0) return [];
  const negated = clause.some((t) => /^(no|not|without|none)$/.test(t.low));
  return [propose(o, negated ? 'no' : 'yes', clause, [...about, there])];
}

function propose(
  o: Observable,
  value: string,
  clause: readonly Token[],
  places: readonly number[],
): Proposal {
  const [from, to] = [Math.min(...places), Math.max(...places)];
  return { key: o.key, value, how: 'reported', sure: 'likely', spans: [spanOf(clause, from, to - from + 1)] };
}
