import { oncePer } from '@core/quantity/keep';
import { nth } from '@core/quantity/must';
import type { Catalogue } from '@core/catalogue/find-records';
import { type IntakeContext, knownOf, type VehicleEntry } from './context';
import type { Figure } from './figures';
import type { Proposal, TextSpan } from './proposal';
import type { Speech } from './said';
import type { Token } from './text';
import { WORDS } from './words';

/** A vehicle or an engine's family where it is named. */
export type VehicleMention = {
  at: number;
  n: number;
  name?: string;
  engines: readonly string[];
  sure: boolean;
  whole?: boolean;
};

type Model = { first: string; entries: VehicleEntry[] };

/** Vehicles by the first word of their model. */
const modelsOf = oncePer((cat: Catalogue): ReadonlyMap<string, Model> => {
  const out = new Map<string, Model>();
  for (const v of knownOf(cat).vehicles) {
    const first = v.model[0];
    if (first === undefined) continue;
    const own = out.get(first) ?? { first, entries: [] };
    own.entries.push(v);
    out.set(first, own);
  }
  return out;
});

/** Tokens around a model's first word in which its further words may stand. */
const REACH = 7;

/** Every vehicle that is named, in order: by its model, told from its like by what else is said of it. */
export function vehiclesIn(said: Speech, ctx: IntakeContext): VehicleMention[] {
  const models = modelsOf(ctx.catalogue);
  const out: VehicleMention[] = [];
  const { tokens } = said;
  const small = smallLetters(tokens);
  for (let i = 0; i < tokens.length; i++) {
    const t = nth(tokens, i);
    const model = models.get(t.stem) ?? wholeName(tokens, i, ctx);
    if (!model) continue;
    const maker =
      tokens[i - 1] !== undefined &&
      model.entries.some((v) => v.stems[0] === tokens[i - 1]?.stem && v.model.length < v.stems.length);
    if (!maker && !namesIt(tokens, i, small)) continue;
    const { entry, n } = bestOf(model.entries, tokens, i);
    out.push({
      at: maker ? i - 1 : i,
      n: maker ? n + 1 : n,
      name: entry.name,
      engines: [...entry.engines],
      sure: maker && n >= entry.model.length,
      whole: maker || n >= entry.model.length,
    });
    i += n - 1;
  }
  return out;
}

/** Of vehicles named in one case those called by their maker or whole, before what only sounds like one: "an orchard truck, the Orchardman". */
export const surest = (list: readonly VehicleMention[]): VehicleMention[] => {
  const whole = list.filter((m) => m.whole);
  return whole.length > 0 && whole.length < list.length ? whole : [...list];
};

/** Vehicles whose model is called by its last words: "launch tender". */
const tailsOf = oncePer((cat: Catalogue): ReadonlyMap<string, readonly { next: string; model: Model }[]> => {
  const out = new Map<string, { next: string; model: Model }[]>();
  for (const v of knownOf(cat).vehicles) {
    const [first, next] = v.model.slice(-2);
    if (v.model.length < 3 || first === undefined || next === undefined) continue;
    out.set(first, [...(out.get(first) ?? []), { next, model: { first: v.model[0] ?? '', entries: [v] } }]);
  }
  return out;
});
const wholeName = (tokens: readonly Token[], at: number, ctx: IntakeContext): Model | undefined =>
  tailsOf(ctx.catalogue)
    .get(nth(tokens, at).stem)
    ?.find((t) => t.next === tokens[at + 1]?.stem)?.model;

/** A word is a vehicle's name by its capital, or by what stands before it; a place is none: "the causeway bridge". */
function namesIt(tokens: readonly Token[], at: number, small: boolean): boolean {
  const [t, next, before] = [nth(tokens, at), tokens[at + 1], tokens[at - 1]];
  if (next && WORDS.ofPlaces.includes(next.low) && next.from - t.to < 3) return false;
  // "Highmoor Bus Depot" is a place, not a Highmoor.
  const third = tokens[at + 2];
  if (
    third &&
    WORDS.places.includes(third.low) &&
    /^\p{Lu}/u.test(third.text) &&
    /^\p{Lu}/u.test(next?.text ?? '')
  )
    return false;
  if (/^\p{Lu}/u.test(t.text) || (small && !/^(at|in|near|to|from|by)$/.test(before?.low ?? ''))) return true;
  return (
    before === undefined ||
    /^(the|my|our|a|an|his|her|their|old|new|one|two|this|that|your|for|on|of)$/.test(before.low)
  );
}

/** Whether a text is written without capitals. */
const smallLetters = (tokens: readonly Token[]): boolean => {
  const words = tokens.filter((t) => /^\p{L}{2,}$/u.test(t.text));
  const capitals = words.filter((t) => /^\p{Lu}/u.test(t.text)).length;
  return capitals <= words.length * 0.04 || capitals >= words.length * 0.85;
};

/** Of vehicles with one first word the one of which most is said nearby; what is denied ("not the Long") is not meant. */
function bestOf(
  entries: readonly VehicleEntry[],
  tokens: readonly Token[],
  at: number,
): { entry: VehicleEntry; n: number } {
  const from = Math.max(0, at - 6);
  const around = tokens.slice(from, at + REACH).map((t, k) => ({ t, k: from + k }));
  const scored = entries.map((entry) => {
    const more = entry.model.slice(1);
    const found = more.filter((w) =>
      around.some(
        ({ t, k }) =>
          t.stem === w && Math.abs(t.sentence - nth(tokens, at).sentence) <= 1 && !denied(tokens, k),
      ),
    );
    let n = 1;
    while (n <= more.length && tokens[at + n]?.stem === more[n - 1]) n++;
    return { entry, n, score: found.length - 0.4 * (more.length - found.length) };
  });
  const best = scored.reduce((a, b) => (b.score > a.score ? b : a));
  return { entry: best.entry, n: best.n };
}

const denied = (tokens: readonly Token[], at: number): boolean =>
  [tokens[at - 1], tokens[at - 2]].some((t) => t !== undefined && /^(not|no|isnt|than|without)$/.test(t.low));

/** Engines by their family's name, told apart by the capacity that is said with it. */
export function familiesIn(said: Speech, ctx: IntakeContext): VehicleMention[] {
  const { families } = knownOf(ctx.catalogue);
  const capacities = said.figures.filter((f) => f.value >= 0.8 && f.value <= 8 && !f.whole).map(capacity);
  return said.tokens.flatMap((t, at): VehicleMention[] => {
    const engines = families.get(t.low) ?? families.get(t.low.replace(/s$/, ''));
    if (!engines || (WORDS.common.includes(t.low) && !/^\p{Lu}/u.test(t.text))) return [];
    const told = engines.filter((e) => capacities.some((c) => e.code.includes(c)));
    return [{ at, n: 1, engines: (told.length > 0 ? told : engines).map((e) => e.code), sure: true }];
  });
}
const capacity = (f: Figure): string => f.value.toFixed(1).replace('.', '');

/** Vehicle as a fact, and the engine that follows from what is named where no code says it. */
export function vehicleFact(m: VehicleMention, said: Speech): Proposal[] {
  return m.name === undefined
    ? []
    : [
        {
          key: 'vehicle.name',
          value: m.name,
          how: 'reported',
          sure: m.sure ? 'sure' : 'likely',
          spans: [mentionSpan(m, said)],
        },
      ];
}

export const mentionSpan = (m: Pick<VehicleMention, 'at' | 'n'>, said: Speech): TextSpan => ({
  from: nth(said.tokens, m.at).from,
  to: nth(said.tokens, Math.min(m.at + m.n, said.tokens.length) - 1).to,
});
