import type { FactValue } from '@core/facts/fact';
import { bestNamed, namedBy } from '@core/catalogue/named-fasteners';
import { nth } from '@core/quantity/must';
import { findUnit, toBase } from '@core/quantity/units';
import { drivenBy, type IntakeContext, type NamedStep } from './context';
import type { Figure } from './figures';
import { kindNamed } from './lexicon';
import { hasPhrase } from './phrases';
import type { Proposal } from './proposal';
import { moodOf } from './read-choices';
import { beginOf, sentenceOf, type Speech } from './said';
import { type Token } from './text';
import { WORDS } from './words';

/** Two torques told for one are within this part of each other: "42 Nm, that is 31 foot pounds". */
const SAME = 0.03;

/** Torques: of the tensioner's bolt, or of the fastener that is named, by the step of the sheet that tightens it; angles behind them. */
export function readTorques(said: Speech, ctx: IntakeContext, engine: string | undefined): Proposal[] {
  const steps = engine === undefined ? [] : (ctx.steps?.(engine) ?? []);
  const out: Proposal[] = [];
  for (const f of said.figures) {
    const nm = torqueOf(f) ?? unitBefore(f, said);
    if (nm === undefined || nm <= 0) continue;
    const t = nth(said.tokens, f.at);
    const sentence = sentenceOf(said, f.at);
    const k = f.at - beginOf(said, sentence);
    if (out.some((p) => typeof p.value === 'number' && Math.abs(p.value - nm) < SAME * nm)) continue;
    const span = { from: t.from, to: nth(said.tokens, Math.min(f.at + f.n, said.tokens.length) - 1).to };
    const step = fastenerStep(sentence, k, steps, drivenBy(ctx, engine) === 'chain');
    const base = {
      value: Number(nm.toFixed(2)),
      how: 'reported' as const,
      sure: 'likely' as const,
      spans: [span],
    };
    if (step) out.push(moodOf({ key: 'step.torque', about: `step:${step.id}`, ...base }, said));
    else if (!otherFastener(sentence, k) && drivenBy(ctx, engine) !== 'chain')
      out.push(moodOf({ key: 'fit.torque', ...base }, said));
  }
  return out;
}

function torqueOf(f: Figure): number | undefined {
  if (f.unit === undefined) return undefined;
  const unit = findUnit('torque', f.unit);
  // "lb" and "ft" apart, or kilograms and metres: the unit of torque is written in many ways.
  return unit === undefined ? undefined : toBase('torque', f.value, unit);
}

/** "My wrench is in kgf·m: 4.6": the unit told just before. */
function unitBefore(f: Figure, said: Speech): number | undefined {
  if (f.unit !== undefined || f.spelled || !/[.,]/.test(nth(said.tokens, f.at).text)) return undefined;
  const { sentence } = nth(said.tokens, f.at);
  for (let n = 1; n <= 2; n++) {
    const run = said.tokens.slice(Math.max(0, f.at - n), f.at);
    const unit = run.every((t) => t.sentence === sentence)
      ? findUnit('torque', run.map((t) => t.text).join(''))
      : undefined;
    if (unit !== undefined) return toBase('torque', f.value, unit);
  }
  return undefined;
}

/** The step whose fastener is named beside a torque; none where the tensioner's own bolt is. */
function fastenerStep(
  sentence: readonly Token[],
  at: number,
  steps: readonly NamedStep[],
  chain: boolean,
): NamedStep | undefined {
  const clause = nth(sentence, at).clause;
  const near = new Set(
    sentence.filter((t, i) => Math.abs(t.clause - clause) <= 1 && Math.abs(i - at) <= 14).map((t) => t.stem),
  );
  let best: { step: NamedStep; score: number } | undefined;
  for (const step of steps) {
    if (step.fastener === undefined) continue;
    if (/tensioner/i.test(step.fastener) !== near.has('tensioner')) continue;
    const score = namedBy(step.fastener, near);
    if (score > 0 && (!best || score > best.score)) best = { step, score };
  }
  return best?.step.tensioner === true && !chain ? undefined : best?.step;
}

/** A fastener of something else is named, which no step tells. */
function otherFastener(sentence: readonly Token[], at: number): boolean {
  const clause = nth(sentence, at).clause;
  const near = sentence.filter((t, i) => Math.abs(t.clause - clause) <= 1 && Math.abs(i - at) <= 10);
  if (hasPhrase(near, ['tensioner'])) return false;
  return (
    near.some((t) =>
      ['pump', 'sprocket', 'phaser', 'cover', 'guide', 'roller', 'head'].includes(kindNamed(t) ?? ''),
    ) || hasPhrase(near, WORDS.otherFasteners)
  );
}

/** Words that a bolt is called by. */
const BOLT = /^(?:bolt|screw|nut|stud|bolts|screws|nuts)$/;
/** Words before a bolt that may name it, and behind: "the bolt of the upper guide". */
const NAMING = 4;

const listIn = (value: FactValue): readonly (string | number)[] => (Array.isArray(value) ? value : []);

/** The bolt whose torque they ask for, in their words, where a sheet of the engine has such a one. */
export function readBolt(
  said: Speech,
  ctx: IntakeContext,
  engine: string | undefined,
  asked: readonly Proposal[],
): Proposal[] {
  const wants = asked.some((p) => listIn(p.value).includes('torque'));
  const names = engine === undefined || !wants ? [] : (ctx.steps?.(engine) ?? []);
  const known = names.flatMap((s) => (s.fastener === undefined ? [] : [s.fastener]));
  const found = said.tokens.flatMap((t, i) => {
    if (!BOLT.test(t.low)) return [];
    const run = said.tokens.slice(Math.max(0, i - NAMING), i + 1).filter((x) => x.clause === t.clause);
    const behind = said.tokens.slice(i + 1, i + 1 + NAMING).filter((x) => x.clause === t.clause);
    const of = behind[0]?.low === 'of' ? behind : [];
    const words = [...run, ...of];
    const text = said.text.slice(nth(words, 0).from, nth(words, words.length - 1).to);
    const kinds = words.map((w) => kindNamed(w) ?? '').join(' ');
    const names = new Set(bestNamed(known, (f) => f, `${text} ${kinds}`));
    // Where they mean one of the sheet, it is called as there; else by their words.
    const [name] = names;
    return name !== undefined
      ? [
          {
            text: names.size === 1 ? name : text,
            from: nth(words, 0).from,
            to: nth(words, words.length - 1).to,
            clause: t.clause,
          },
        ]
      : [];
  });
  const bolt = found.find((f) => said.clauses.get(f.clause)?.mood === 'asked') ?? found[0];
  return bolt
    ? [
        {
          key: 'call.bolt',
          value: bolt.text.replace(/\s+/g, ' '),
          how: 'reported',
          sure: 'likely',
          spans: [{ from: bolt.from, to: bolt.to }],
        },
      ]
    : [];
}

/** How long the engine stood and how warm its block was, before it was set. */
export function readStanding(said: Speech): Proposal[] {
  const out: Proposal[] = [];
  const put = (key: string, value: number, f: Figure) => {
    if (out.some((p) => p.key === key)) return;
    const span = { from: nth(said.tokens, f.at).from, to: nth(said.tokens, f.at + f.n - 1).to };
    out.push(
      moodOf({ key, about: 'step:ready.cold', value, how: 'reported', sure: 'likely', spans: [span] }, said),
    );
  };
  for (const f of said.figures) {
    const t = nth(said.tokens, f.at);
    const clause = sentenceOf(said, f.at).filter((x) => x.clause === t.clause);
    const at = clause.indexOf(t);
    const before = clause.slice(Math.max(0, at - 6), at);
    const time =
      f.unit === undefined
        ? undefined
        : findUnit('time', f.unit.replace(/^hours?$/, 'h').replace(/^minutes?$/, 'min'));
    if (time === 'h' || time === 'min') {
      if (hasPhrase(before, WORDS.stood)) put('step.minutes', toBase('time', f.value, time), f);
      continue;
    }
    if (!hasPhrase(before, WORDS.block)) continue;
    if (
      f.unit === undefined &&
      !(
        Number.isInteger(f.value) &&
        f.value >= 5 &&
        hasPhrase(before.slice(-3), ['block', 'head']) &&
        !f.signed
      )
    )
      continue;
    const degrees = f.unit === undefined || /^(°|°?c|°?f|degrees?|deg|fahrenheit|celsius)$/i.test(f.unit);
    if (!degrees) continue;
    const fahrenheit = /f/i.test(f.unit?.replace(/deg(rees?)?/i, '') ?? '');
    const celsius = fahrenheit ? ((f.value - 32) * 5) / 9 : f.value;
    if (celsius > -60 && celsius < 140) put('step.temperature', Number(celsius.toFixed(1)), f);
  }
  return out;
}
