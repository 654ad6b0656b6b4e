import { nth } from '@core/quantity/must';
import { UNWEIGHED } from '@core/cause/unweighed';
import type { CauseVerdict } from '@core/answer/verdict';
import type { Ranking } from '@core/cause/rank';
import { allStanding } from '@core/facts/read';
import type { State } from '@core/facts/state';
import type { Policy } from '@core/policy/policy';
import { list } from '../language/list';
import { findingWords, inspectionWords, percent } from './answers';
import { sureWords } from './explain';
import type { SentenceContext } from './sentence-context';

const quoted = (s: string): string => `“${s}”`;
export const minutesWords = (n: number): string => (n === 1 ? 'one minute' : `${Math.round(n)} minutes`);

/** A verdict in words, sentence by sentence; what does not hold of the case is left out. */
export type VerdictWords = {
  title: string;
  because: string;
  settles: string;
  together: string[];
  tie?: string;
  sound?: string;
};

/** The verdict on the cause: what it is, why in one sentence, what would settle it in one. */
export function verdictWords(x: CauseVerdict, policy: Policy, v: SentenceContext): VerdictWords {
  const said = x.because.findings.map((f) => findingWords(f, v));
  const because =
    said.length === 0
      ? 'Nothing speaks for it but how common it is.'
      : x.because.seen
        ? `It was seen itself: ${said.join('; ')}.`
        : `What speaks for it most: ${said.join('; ')}.`;
  return {
    title: x.open
      ? `Open; ${quoted(x.leader.wording)} is ahead, ${percent(x.share)}`
      : `${x.leader.wording}: ${sureWords(x.share, policy.sureFrom)}`,
    because,
    settles: settlesWords(x, v),
    together: togetherWords(x, v),
    ...(x.tie ? { tie: tieWords(x.tie) } : {}),
    ...(x.sound ? { sound: soundWords(x.sound.unseen) } : {}),
  };
}

function settlesWords({ settles, lost, because, share }: CauseVerdict, v: SentenceContext): string {
  const key = settles?.inspections[0]?.key;
  const o = key === undefined ? undefined : v.registry.get(key);
  if (!settles || !o)
    return lost === undefined
      ? 'Nothing more that can be looked at would tell much.'
      : `Nothing that came would settle more; ${lost.toLowerCase()} would have, and did not come.`;
  const look = `${inspectionWords(o)}, ${minutesWords(settles.minutes)}`;
  return because.seen || share >= SETTLED
    ? `Next, to prove it: ${look}.`
    : `What would settle most: ${look}.`;
}
/** From this share on a look is there to prove, and not to settle. */
const SETTLED = 0.95;

function togetherWords({ together }: CauseVerdict, v: SentenceContext): string[] {
  return together.map(({ cause, shownBy, explains, part, suffices }) => {
    const by = shownBy.map((f) => findingWords(f, v)).join('; ');
    const of =
      explains.length === 0
        ? 'explains nothing else that was found'
        : `explains ${list(explains.map((f) => quoted(findingWords(f, v))))}`;
    const alone = suffices && explains.length > 0 ? '; it alone would have been enough' : '';
    return `${cause.wording}, ${percent(part)} of it: seen by ${by}; ${of}${alone}.`;
  });
}

/** What is known does not part supplier from fitter. */
const tieWords = ({ supplier, fitter }: NonNullable<CauseVerdict['tie']>): string =>
  `What is known does not part supplier from fitter: ${quoted(supplier.cause.wording)} (supplier’s side ${percent(supplier.share)}) and ${quoted(fitter.cause.wording)} (fitter’s side ${percent(fitter.share)}). The doubt is nobody’s fault.`;

const soundWords = (unseen: number): string =>
  unseen === 0
    ? 'All that could be looked at on what is here was looked at.'
    : `Only what was looked at is known to be sound; ${unseen} looks were not made.`;

/** How much a check settles beside the best one. */
export function settlingWords(settles: number, best: number, minutes: number): string {
  const ratio = best > 0 ? settles / best : 0;
  const much =
    ratio >= 1
      ? 'settles most'
      : ratio >= 0.7
        ? 'settles nearly as much'
        : ratio >= 0.3
          ? 'settles less'
          : 'settles little';
  return `${much}, in ${minutesWords(minutes)}`;
}

/** Everything filed that weighs nothing by itself, with why: said again, or of no cause. */
export function unweighedWords({ again }: Ranking, state: State, v: SentenceContext): string[] {
  const told = again.map(
    ({ finding, of }) =>
      `${findingWords(finding, v)}: says what ${quoted(findingWords(of, v))} says, and counts once.`,
  );
  const keys = new Set(allStanding(state).map((s) => s.meaning.key));
  const filed = [...keys].flatMap((key) => {
    const o = v.registry.get(key);
    const why = UNWEIGHED.get(key);
    return o && why !== undefined && !isAboutTheCase(why) ? [`${inspectionWords(o)}: ${why}`] : [];
  });
  return [...told, ...filed];
}
/** The first of the list: who called, which thing, what was asked. It is told of nobody’s parts. */
const ABOUT_THE_CASE = nth([...UNWEIGHED.values()], 0);
const isAboutTheCase = (why: string): boolean => why === ABOUT_THE_CASE;
