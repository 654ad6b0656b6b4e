import { capital } from '../language/capital';
import { counted, plural } from '../language/plural';
import type { Advice, CallerQuestion, Lead, Reason, SettingOf } from '@core/advice/advice';
import { roundDown } from '@core/catalogue/interval';
import { writtenDay } from '@core/facts/read-value';
import { fromBase } from '@core/quantity/units';
import { CAUTIONS } from '@core/advice/cautions';
import type { Code } from '@core/advice/codes';
import { PARTS_SENT } from '@core/facts/kinds';
import { formatNumber } from '@core/quantity/format-quantity';
import { contradictionWords, distance, findingWords, percent } from './answers';
import { sureWords } from './explain';
import { verdictWords } from './verdict';
import { extensionWords, settingWords } from './drive';
import { freeSeatWords, goWords, offsetVerdictWords } from './drive-results';
import { dueWords, SOURCE_WORDS, RUNS_BACK } from './jobs';
import { list } from '../language/list';
import { lower } from '../language/lower';
import { degreesWords, pistonWords, rangeWords } from './turning';
import { toolWords } from './tools';
import { reuseWords } from './reuse';
import { spokenPlan } from './torque';
import { kitReasons, kitStatus } from './match';
import type { SentenceContext } from './sentence-context';

/** What they want to know, as a tile says it. */
export const ASKED_WORDS: Record<CallerQuestion, string> = {
  kit: 'Which kit',
  fits: 'Does this part fit',
  setting: 'How is it set',
  marks: 'Are the marks right',
  torque: 'Which torque, which order',
  tools: 'Can it be done without the tool',
  also: 'What else to change',
  due: 'When is it due',
  reuse: 'Is the used part still good',
  lost: 'Timing lost: may it be turned',
  means: 'What does the code or noise mean',
  why: 'Why did it fail',
};

/** What no eye tells from in line, teeth. */
const IN_LINE = 0.05;

const INTERFERENCE = {
  yes: 'Valves meet pistons on this engine when timing is lost.',
  unknown: 'Whether valves meet pistons is not known, and unknown counts as yes.',
  no: 'Valves and pistons do not meet on this engine.',
} as const;

/** "0.46 teeth behind", "in line". */
export function standsWords(teeth: number): string {
  const n = formatNumber(Math.abs(teeth), 2);
  if (Number(n) === 0) return 'in line';
  return `${n} ${plural(Number(n), 'tooth', 'teeth')} ${teeth > 0 ? 'ahead' : 'behind'}`;
}

/** The sentence to read out first. */
export function leadWords(lead: Lead, v: SentenceContext): string {
  switch (lead.code) {
    case 'no_engine':
      return 'Nothing can be said before the engine is known.';
    case 'contradicted':
      return 'What was told does not belong to any design of this engine: one of the facts is wrong.';
    case 'kits':
      return `It takes ${list(
        lead.kits.map((m) => [m.kit.number, kitStatus(m)].filter(Boolean).join(' ')),
        'or',
      )}.`;
    case 'kits_by_design':
      return `${lead.branches
        .map((b) => `${b.kits.length ? list(b.kits, 'or') : 'no kit of ours'} if it is the ${b.design}`)
        .join('; ')}.`;
    case 'no_kit':
      return 'The catalogue has no kit for this drive.';
    case 'which_part':
      return 'Say which kit or part it is about.';
    case 'fits':
      return fitsWords(lead);
    case 'setting':
      return lead.settings.map(oneSetting).join(' ');
    case 'setting_by_design':
      return lead.branches
        .map(
          (b) =>
            `If it is the ${b.design}: ${b.settings.length ? b.settings.map(oneSetting).join(' ') : 'it has no tensioner to be set.'}`,
        )
        .join(' ');
    case 'no_setting':
      return 'This drive is not in the catalogue with its geometry, so its setting cannot be computed.';
    case 'marks':
      return `${goWords(lead.go, lead.seen, lead.of)}.`;
    case 'marks_unseen':
      return `Go or no go follows from ${counted(lead.of, 'mark', 'marks')}; none was told yet.`;
    case 'links_off': {
      const off = Math.abs(lead.teeth);
      const crank = lead.crankDeg === undefined ? '' : `, ${degreesWords(lead.crankDeg)} of the crank`;
      return `No go: ${lead.counted} links between the marks where ${lead.right} are right. That is ${counted(off, 'tooth', 'teeth')} ${lead.teeth > 0 ? 'too many' : 'too few'}${crank}. Count once more from the coloured links; if it stays so, the chain is laid again.`;
    }
    case 'no_marks':
      return 'This drive is not in the catalogue with its geometry, so its marks cannot be judged.';
    case 'torques':
      return lead.steps.length
        ? `${lead.steps.map((s) => spokenPlan(s.torque)).join(' ')}${lead.of ? ` The order is on the fitting sheet, ${lead.of} steps: let me send it to you.` : ''}`
        : 'The sheet of this drive gives no torque.';
    case 'no_procedure':
      return 'The catalogue has no one procedure for what is known so far: take torques and order from the vehicle maker’s information.';
    case 'no_substitute':
      return 'The catalogue knows nothing that stands in for the tools of this drive: it takes the proper ones.';
    case 'tools':
      return toolWords(lead.allowed, lead.tools);
    case 'also':
      return `${lead.kit === undefined ? '' : `With kit ${lead.kit}: `}${lead.certain ? '' : 'whichever design it is: '}${lead.lines.map((l) => `${l.item.item} (${SOURCE_WORDS[l.source]})`).join('; ')}.`;
    case 'no_jobs':
      return 'The catalogue lists nothing beside the kit for what is known so far.';
    case 'due':
      return dueWords(lead.due, v.notation).join(' ');
    case 'interval':
      return `Every ${distance(lead.interval.km, v.notation)} or ${lead.interval.months} months, whichever comes first.`;
    case 'odometer_back':
      return RUNS_BACK;
    case 'no_interval':
      return 'The catalogue has no interval for this engine.';
    case 'reuse':
      return lead.parts.map(reuseWords).join(' ');
    case 'design_open':
      return 'It depends on the design, which is open.';
    case 'may_turn':
      return `With the crank ${list(
        lead.ranges.map(rangeWords),
        'or',
      )} no piston can meet a valve, whatever the cams do; cams are set there, one at a time.`;
    case 'turn_free':
      return 'Yes, it may be turned.';
    case 'do_not_turn':
      return 'Do not turn anything: no safe position of the crank is computed for this engine. Take it from the vehicle maker’s information.';
    case 'codes':
      return [
        ...lead.codes.map(codeWords),
        ...(lead.unknown.length ? [`${list(lead.unknown)}: not about cam or crank.`] : []),
      ].join(' ');
    case 'noise':
      return lead.looks.length
        ? `A noise alone does not say. Look first at: ${list(lead.looks.map((l) => lower(inspectionWords(l, v))))}.`
        : 'A noise alone does not say; name the engine, so that it can be told what to look at first.';
    case 'why': {
      const { cause, share, open, others, sureFrom } = lead;
      const first = open
        ? `Not settled. The likeliest so far is “${cause}”, ${percent(share)}`
        : `“${cause}”: ${sureWords(share, sureFrom)}`;
      const then = list(others.map((o) => `“${o.wording}” (${percent(o.share)})`));
      return `${first}.${then ? ` Then ${then}.` : ''}`;
    }
    case 'why_open':
      return 'Nothing was told yet by which one cause is likelier than another.';
    case 'at_odds':
      return `${contradictionWords(lead.contradiction, v)} Which of the two is right? Before that nothing that stands on it is said.`;
    case 'nothing_told':
      return 'Tell the fault codes, or the noise.';
  }
}

/** The sentence behind it; '' where the first says all. */
export function reasonWords(r: Reason, v: SentenceContext): string {
  switch (r.code) {
    case 'match':
      return `${capital(list(kitReasons(r.match, v), 'and'))}.`;
    case 'predicted': {
      const off = r.marks.filter((m) => Math.abs(m.teeth) >= IN_LINE);
      if (off.length === 0) return 'On this drive a right fitting shows every mark in line.';
      const rest = off.length === r.marks.length ? [] : ['the others in line'];
      return `On this drive a right fitting shows ${list([...off.map((m) => `the ${lower(m.name)} ${standsWords(m.teeth)}`), ...rest])}, since teeth seat whole only.`;
    }
    case 'judged':
      return r.marks
        .map(
          (m) =>
            `${capital(v.thing?.(m.about) ?? m.about)}: told ${standsWords(m.teeth)}, a right fitting shows ${standsWords(m.predicted.teeth)}; ${offsetVerdictWords(m.verdict).replace(/^[✓✕▲?] /, '')}.`,
        )
        .join(' ');
    case 'links_right':
      return `${counted(r.counted, 'link', 'links')} between the marks are right.`;
    case 'free_seat':
      return freeSeatWords(r.free);
    case 'turn_first':
      return r.turns === undefined
        ? `It counts once it was turned by hand ${r.least} turns and stands so again.`
        : `It was turned ${counted(r.turns, 'turn', 'turns')} by hand; turn ${r.least} and look again.`;
    case 'designs':
      return `${r.names.length} designs are still possible.`;
    case 'interference':
      return INTERFERENCE[r.interference];
    case 'from_computed':
      return 'Computed from the layout of this drive.';
    case 'bolt':
      return `That is what the sheet has for “${r.words}”; it tightens ${r.of} in all.`;
    case 'pistons':
      return pistonWords(r);
    case 'label':
      return `Changed now, the label says: next at ${labelDistance(r.next.dueKm, v)} or on ${writtenDay(r.next.dueDay, v.notation)}, whichever comes first.`;
    case 'after_job':
      return 'The drive was worked on: look at that job first.';
    case 'extension':
      return extensionWords(r.layout, r.answer);
    case 'verdict': {
      const words = verdictWords(r.verdict, r.policy, v);
      return [words.because, words.tie, words.settles].filter(Boolean).join(' ');
    }
    case 'guess': {
      const against = r.against.map((f) => findingWords(f, v));
      return `A fault of the ${partWords(r.part)} itself: ${percent(r.share)}${against.length ? `; against it speaks: ${list(against)}` : ''}.`;
    }
    case 'send':
      return r.parts.length
        ? `To be sure, send in as taken off, unwashed: ${list(r.parts.map(partWords))}.`
        : '';
  }
}

export interface Spoken {
  lead: string;
  because: string;
  caution: string;
}

/** An answer as it is read out: one sentence, the reason in one more, the caution. */
export const spoken = (a: Advice, v: SentenceContext): Spoken => ({
  lead: leadWords(a.lead, v),
  because: a.because.map((r) => reasonWords(r, v)).join(' '),
  caution: CAUTIONS[a.asked],
});

/** Stands under every answer that leaves the house. */
export const FIRST = 'The vehicle maker’s service information, local rules and qualified people come first.';

/** The answer as plain text, to be copied, mailed and kept. */
export function spokenText(a: Advice, v: SentenceContext): string {
  const { lead, because, caution } = spoken(a, v);
  return [`${ASKED_WORDS[a.asked]}? ${lead}`, because, `Caution: ${caution}`, FIRST]
    .filter(Boolean)
    .join('\n');
}

function fitsWords(l: Extract<Lead, { code: 'fits' }>): string {
  if (l.verdict === 'fits') return `Yes, ${l.number} fits.`;
  if (l.verdict === 'fits_if') return `${l.number} fits one of the designs that are still possible.`;
  return `No, ${l.number} does not fit${l.instead.length ? `; it takes ${list(l.instead, 'or')}` : ''}.`;
}

/** A part by its key among those sent in. */
const partWords = (key: string): string => lower(PARTS_SENT.find((p) => p.key === key)?.wording ?? key);

/** A distance as the house's label has it: rounded down to its step. */
function labelDistance(km: number, v: SentenceContext): string {
  const unit = v.notation.units['distance'] ?? 'km';
  return `${formatNumber(roundDown(fromBase('distance', km, unit), v.labelStep ?? 1), 0)} ${unit}`;
}

const oneSetting = (s: SettingOf): string =>
  `${s.stage === '' ? '' : `${capital(s.stage)}: `}${settingWords(s.carrier, s.reading)}`;

function inspectionWords(l: { key: string; about: string | undefined }, v: SentenceContext): string {
  const thing = l.about === undefined ? '' : (v.thing?.(l.about) ?? '');
  return [v.registry.get(l.key)?.wording ?? l.key, thing].filter(Boolean).join(', ');
}

const OF = {
  engine: 'cam and crank',
  crank: 'the crank',
  intake: 'the intake cam',
  exhaust: 'the exhaust cam',
};
const SAYS = {
  correlation:
    'does not stand to the crank as it should: a tooth out, a long chain, a slipped wheel, or its sensor ring',
  phaser: 'is not where its phaser should put it: oil, the phaser or its valve, or timing that is out',
  signal: 'gives no right signal: sensor, wiring, its gap, or a ring with other windows',
};
function codeWords(c: Code): string {
  const of = c.of === 'engine' ? 'cam' : OF[c.of];
  return `${c.code}: ${of}${c.bank === 2 ? ' of bank 2' : ''} ${SAYS[c.says]}.`;
}

/** A sign for how an answer stands; the words say it too. */
export const STANDING_SIGNS: Record<Advice['standing'], string> = {
  yes: '✓',
  no: '✕',
  if: '◐',
  open: '○',
  cannot: '?',
};
