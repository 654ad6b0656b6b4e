import { nth } from '@core/quantity/must';
import type { IntakeContext, MarkedWheel } from './context';
import { wheelsWithMarks } from './context';
import type { Figure } from './figures';
import { findPhrases, hasPhrase } from './phrases';
import type { Proposal } from './proposal';
import { moodOf } from './read-choices';
import { beginOf, figuresIn, type Speech } from './said';
import type { Token } from './text';
import { WORDS } from './words';

/** Word in a wheel's name that a said word means. */
const WHEEL_WORD = new Map(
  Object.entries(WORDS.wheels).flatMap(([word, said]) => said.map((s) => [s, word] as const)),
);
/** Two letters on a note: right upper, left exhaust. */
const LETTERS = /^([rl])([ulie])$/;
const BY_LETTER: Readonly<Record<string, string>> = {
  r: 'right',
  l: 'left',
  u: 'upper',
  l2: 'lower',
  i: 'intake',
  e: 'exhaust',
};
type Mention = { at: number; n: number; wheels: readonly MarkedWheel[]; many: boolean };
type Offset = { teeth: number; at: number; n: number; about: boolean };
/** Words between an amount and its sense at most. */
const REACH = 5;

/**
 * Marks with wheel, amount and sense: "upper right half a tooth ahead", "RU −½ RL −½ LU 0", "left lower the same, both right
 * ones good". What is said counts for the wheels that were named since what was said before.
 */
export function readMarks(said: Speech, ctx: IntakeContext, engine: string | undefined): Proposal[] {
  const wheels = wheelsWithMarks(ctx.catalogue, engine).filter((w) => !w.words.includes('crank'));
  const out: Proposal[] = [];
  for (const sentence of said.sentences) {
    if (hasPhrase(sentence, WORDS.ofSensor)) continue;
    const first = beginOf(said, sentence);
    const figures = figuresIn(said, sentence).map((f) => ({ ...f, at: f.at - first }));
    const mentions = mentionsOf(sentence, wheels, out, engine !== undefined);
    const offsets = offsetsOf(sentence, figures);
    let last: Offset | undefined;
    let open: Mention[] = [];
    const events = [...mentions.map((m) => ({ at: m.at, m })), ...offsets.map((o) => ({ at: o.at, o }))].sort(
      (a, b) => a.at - b.at,
    );
    const put = (m: Mention, o: Offset) => {
      const from = nth(sentence, Math.min(m.at, o.at)).from;
      const to = nth(sentence, Math.max(m.at + m.n, o.at + o.n) - 1).to;
      for (const w of m.wheels)
        out.push(
          moodOf(
            {
              key: 'mark',
              about: w.id,
              value: o.teeth,
              how: 'reported',
              sure: m.many && o.teeth !== 0 && m.wheels.length > 2 ? 'ask' : 'likely',
              spans: [{ from, to }],
              ...(o.about ? { u: 0.15 } : {}),
            },
            said,
          ),
        );
    };
    for (const e of events) {
      if ('m' in e) {
        // "left lower the same": as what was said last.
        const behind = sentence.slice(e.m.at + e.m.n, e.m.at + e.m.n + 3);
        if (last && hasPhrase(behind, WORDS.same)) put(e.m, { ...last, at: e.m.at, n: e.m.n });
        else open.push(e.m);
        continue;
      }
      last = e.o;
      if (open.length === 0) continue;
      // Wheels named in a clause of their own before are another matter.
      const clause = nth(sentence, e.o.at).clause;
      const clauseOf = (m: Mention) => nth(sentence, m.at).clause;
      const latest = Math.max(...open.map(clauseOf));
      for (const m of open) if (clauseOf(m) === clause || clauseOf(m) === latest) put(m, e.o);
      open = [];
    }
    // "late: upper left": what was said before the only wheel named.
    if (
      open.length > 0 &&
      offsets.length === 1 &&
      mentions.length === open.length &&
      last &&
      last.at < nth(open, 0).at &&
      nth(open, 0).at - last.at <= 6
    )
      for (const m of open) put(m, last);
  }
  return said.swapped ? swapped(out, wheels) : out;
}

/** Left and right were told the wrong way round: each side takes what the other had, unless it was told again. */
function swapped(list: readonly Proposal[], wheels: readonly MarkedWheel[]): Proposal[] {
  const other = (about: string | undefined): string | undefined => {
    const turned = about?.includes('left') ? about.replace('left', 'right') : about?.replace('right', 'left');
    return wheels.some((w) => w.id === turned) ? turned : about;
  };
  return list.map((p) => {
    const about = other(p.about);
    return about === undefined ? p : { ...p, about };
  });
}

/** Runs of words that name wheels: by their names, by two letters, "both", "all four", "the rest". */
function mentionsOf(
  sentence: readonly Token[],
  wheels: readonly MarkedWheel[],
  told: readonly Proposal[],
  known: boolean,
): Mention[] {
  const out: Mention[] = [];
  // "The others I did not look at": nothing is said of them.
  const unseen = hasPhrase(sentence, WORDS.unseen);
  const free = () =>
    wheels.filter((w) => !told.some((p) => p.about === w.id) && !out.some((m) => m.wheels.includes(w)));
  for (let i = 0; i < sentence.length; i++) {
    const t = nth(sentence, i);
    const letters = LETTERS.exec(t.low);
    if (letters && known) {
      const words = [BY_LETTER[letters[1] ?? ''], BY_LETTER[letters[2] === 'l' ? 'l2' : (letters[2] ?? '')]];
      const hits = wheels.filter((w) => words.every((x) => x !== undefined && w.words.includes(x)));
      if (hits.length === 1) out.push({ at: i, n: 1, wheels: hits, many: false });
      continue;
    }
    if (
      known &&
      !unseen &&
      hasPhrase(sentence.slice(i, i + 3), WORDS.rest) &&
      findPhrases(sentence.slice(i, i + 3), WORDS.rest)[0]?.at === 0
    ) {
      const n = findPhrases(sentence.slice(i, i + 3), WORDS.rest)[0]?.n ?? 1;
      const rest = free();
      if (rest.length > 0) out.push({ at: i, n, wheels: rest, many: true });
      i += n - 1;
      continue;
    }
    if (
      known &&
      hasPhrase(sentence.slice(i, i + 3), WORDS.allMarks) &&
      findPhrases(sentence.slice(i, i + 3), WORDS.allMarks)[0]?.at === 0
    ) {
      const n = findPhrases(sentence.slice(i, i + 3), WORDS.allMarks)[0]?.n ?? 1;
      out.push({ at: i, n, wheels, many: true });
      i += n - 1;
      continue;
    }
    let n = 0;
    const said: string[] = [];
    while (i + n < sentence.length) {
      const x = nth(sentence, i + n);
      const word = WHEEL_WORD.get(x.low);
      if (word === undefined) {
        // "the one of exhaust left", "both right ones"
        if (n > 0 || !(x.low === 'both' && WHEEL_WORD.has(sentence[i + n + 1]?.low ?? ''))) break;
        n++;
        continue;
      }
      if (n > 0 && x.clause !== nth(sentence, i).clause) break;
      said.push(word);
      n++;
    }
    if (said.length === 0) continue;
    const hits = wheels.filter((w) => said.every((s) => w.words.includes(s)));
    const whole = hits.filter((w) =>
      w.words.every((x) => said.includes(x) || x === 'cam' || x === 'sprocket'),
    );
    const meant = whole.length > 0 ? whole : hits;
    const next = sentence[i + n]?.low ?? '';
    const tail = sentence.slice(i + n, i + n + 6);
    const side = /^(side|bank|head|ones)$/.test(next) || nth(sentence, i).low === 'both';
    const words = n + (/^(one|cam|mark|marks|side|bank|head|ones|edge|sprocket|wheel)$/.test(next) ? 1 : 0);
    if (
      meant.length === 1 ||
      (known && side && meant.length > 1 && meant.length < wheels.length) ||
      (known && meant.length === 2 && hasPhrase(tail, ['both']))
    )
      out.push({ at: i, n: words, wheels: meant, many: meant.length > 1 });
    i += words - 1;
  }
  return out;
}

/** Amounts with their senses, and what says that a mark stands in line. */
function offsetsOf(sentence: readonly Token[], figures: readonly Figure[]): Offset[] {
  const [ahead, behind] = [findPhrases(sentence, WORDS.ahead), findPhrases(sentence, WORDS.behind)];
  const out: Offset[] = [];
  for (const f of figures) {
    const tooth = sentence
      .slice(f.at + f.digits, f.at + f.digits + 4)
      .findIndex((t) => WORDS.tooth.includes(t.low));
    const close =
      tooth >= 0 &&
      sentence.slice(f.at + f.digits, f.at + f.digits + tooth).every((t) => /^(a|an|of|the)$/.test(t.low));
    if (f.value === 0 && f.unit === undefined && !f.spelled) {
      out.push({ teeth: 0, at: f.at, n: f.digits, about: false });
      continue;
    }
    if (f.unit !== undefined && !/^(t|tooth|teeth)$/i.test(f.unit) && !close) continue;
    if (Math.abs(f.value) > 8) continue;
    const end = f.at + f.digits + (close ? tooth + 1 : 0);
    const sense = [...ahead.map((s) => ({ ...s, sign: 1 })), ...behind.map((s) => ({ ...s, sign: -1 }))]
      .map((s) => ({ ...s, away: s.at >= end ? s.at - end : f.at - s.at - s.n + 2 }))
      .filter((s) => s.away >= 0 && s.away <= REACH)
      .sort((a, b) => a.away - b.away)[0];
    if (f.signed) {
      out.push({ teeth: f.value, at: f.at, n: end - f.at, about: false });
      continue;
    }
    if (!sense || (!close && !f.part && !(f.value === 1 && sense.away <= 1))) continue;
    out.push({
      teeth: sense.sign * f.value,
      at: f.at,
      n: Math.max(end, sense.at + sense.n) - f.at,
      about: false,
    });
  }
  // "a tooth behind", without a number
  for (let i = 0; i + 1 < sentence.length; i++)
    if (
      /^an?$/.test(nth(sentence, i).low) &&
      WORDS.tooth.includes(nth(sentence, i + 1).low) &&
      !figures.some((f) => f.at < i && f.at + f.n >= i)
    ) {
      const sign = ahead.some((s) => s.at - i - 2 >= 0 && s.at - i - 2 < 3)
        ? 1
        : behind.some((s) => s.at - i - 2 >= 0 && s.at - i - 2 < 3)
          ? -1
          : 0;
      const nearly = /^(nearly|almost)$/.test(sentence[i - 1]?.low ?? '');
      if (sign !== 0) out.push({ teeth: sign * (nearly ? 0.9 : 1), at: i, n: 3, about: nearly });
    }
  for (const l of findPhrases(sentence, WORDS.inLine))
    if (!out.some((o) => o.at <= l.at && l.at < o.at + o.n))
      out.push({ teeth: 0, at: l.at, n: l.n, about: false });
  return out.sort((a, b) => a.at - b.at);
}
