import { nth } from '@core/quantity/must';
import { stagesFor } from '@core/catalogue/find-records';
import type { IntakeContext } from './context';
import { kindNamed } from './lexicon';
import type { Proposal } from './proposal';
import { tokenAt, type Speech } from './said';
import type { Token } from './text';

/** Kinds of parts of which a drive of several stages has several. */
const SEVERAL = new Set(['tensioner', 'chain', 'guide']);
const SIDES: Readonly<Record<string, string>> = {
  left: 'left',
  lh: 'left',
  l: 'left',
  right: 'right',
  rh: 'right',
  r: 'right',
};
const STAGES: Readonly<Record<string, string>> = {
  primary: 'primary',
  secondary: 'secondary',
  secondaries: 'secondary',
  sec: 'secondary',
  lower: 'lower',
  timing: 'timing',
  balance: 'balance',
};
/** Words before a finding among which its place is looked for, and behind it. */
const REACH = 30;
const AHEAD = 4;

export type Stages = { many: boolean; sided: boolean };

/** Whether an engine has several stages, and such as belong to a side. */
export function stagesTold(ctx: IntakeContext, engine: string | undefined): Stages {
  const names = (engine === undefined ? [] : (ctx.catalogue.variantsOf.get(engine) ?? [])).flatMap((v) =>
    v.layout === undefined ? [] : stagesFor(ctx.catalogue, v.layout).map((s) => s.layout.id),
  );
  const per =
    engine === undefined
      ? 0
      : names.length / Math.max(1, (ctx.catalogue.variantsOf.get(engine) ?? []).length);
  return { many: per > 1.5, sided: names.some((n) => /left|right/.test(n)) };
}

/** Adds to a finding of a part of which there are several where it belongs, as it is told: "left secondary". */
export function withPlace(p: Proposal, said: Speech, ctx: IntakeContext, stages: Stages): Proposal {
  const kind = ctx.registry.get(p.key)?.part;
  if (!stages.many || kind === undefined || !SEVERAL.has(kind) || p.part || p.about !== undefined) return p;
  const at = tokenAt(said, nth(p.spans, 0).from);
  const place = at < 0 ? undefined : placeAt(said, at, kind, stages);
  return place === undefined ? p : { ...p, part: { kind, place } };
}

/** The place told nearest before a token in its sentence, else right behind it. */
function placeAt(said: Speech, at: number, kind: string, stages: Stages): string | undefined {
  const { tokens } = said;
  const { sentence, from } = nth(tokens, at);
  // A line is headed by where it speaks of, whatever its points part.
  const line = said.text.lastIndexOf('\n', from) + 1;
  const words: string[] = [];
  // The words of one place stand together: "left secondary", "secondary on the left side".
  let of: number | undefined;
  for (let i = Math.min(tokens.length - 1, at); i >= Math.max(0, at - REACH); i--) {
    const t = nth(tokens, i);
    if (of === undefined ? t.sentence !== sentence && t.from < line : t.sentence !== of) break;
    if (t.sentence !== sentence && /[.!?]/.test(said.text.slice(t.to, from))) break;
    const word = placeWord(tokens, i);
    if (word !== undefined) {
      words.unshift(word);
      of = t.sentence;
    } else if (words.length > 0 && !/^(the|of|stage|chain|tensioner|side|bank|one|ratchet)$/.test(t.low))
      break;
  }
  if (words.length === 0)
    for (let i = at + 1; i < Math.min(tokens.length, at + AHEAD + 2); i++) {
      const t = nth(tokens, i);
      if (t.sentence !== sentence || t.clause !== nth(tokens, at).clause) break;
      const word = placeWord(tokens, i);
      if (word !== undefined) words.push(word);
      else if (kindNamed(t) !== undefined && kindNamed(t) !== kind) break;
    }
  return composed(words, kind, stages);
}

function placeWord(tokens: readonly Token[], at: number): string | undefined {
  const t = nth(tokens, at);
  // "3 sec" is a time, "R sec" a stage.
  if (t.low === 'sec' && SIDES[tokens[at - 1]?.low ?? ''] === undefined) return undefined;
  if (t.text.length === 1 && !/^[RL]$/.test(t.text)) return undefined;
  // "Right through" is no side.
  if (
    t.low === 'right' &&
    /^(through|out|in|away|now|on|order|way|next|behind)$/.test(tokens[at + 1]?.low ?? '')
  )
    return undefined;
  return SIDES[t.low] ?? STAGES[t.low];
}

function composed(words: readonly string[], kind: string, stages: Stages): string | undefined {
  const side = words.find((w) => w === 'left' || w === 'right');
  const stage = words.find((w) => w !== 'left' && w !== 'right');
  if (stage === 'primary') return 'primary';
  if (side !== undefined && (stages.sided || stage === 'secondary')) return `${side} secondary`;
  return side !== undefined && kind === 'guide' ? side : stage;
}
