import type { SheetStep } from '@core/fitting/sheet';
import type { Answers } from '@core/answer/answers';
import type { World } from '@core/answer/world';
import type { Contradiction } from '@core/answer/contradictions';
import type { CauseVerdict } from '@core/answer/verdict';
import type { Carrier } from '@core/drive/carrier';
import type { Layout } from '@core/drive/layout';
import type { FreeSeat, Go } from '@core/drive/judge-marks';
import type { CrankRange } from '@core/drive/valve-safety';
import type { State } from '@core/facts/state';
import type { Due } from '@core/catalogue/interval';
import type { Engine, ServiceInterval, Variant } from '@core/catalogue/pack';
import type { Finding } from '@core/examination/finding';
import type { ElongationAnswer, ExtensionAnswer } from '@core/examination/extension';
import type { LeakAnswer } from '@core/examination/leak-answer';
import type { MarkAnswer } from '@core/examination/marks';
import type { JobLine } from '@core/match/job-list';
import type { KitMatch } from '@core/match/match-kits';
import type { Policy } from '@core/policy/policy';
import type { Day } from '@core/quantity/dates';
import type { Code } from './codes';

/** What a caller can want to know; the options of the observable "call.asked". */
export const QUESTIONS = [
  'kit',
  'fits',
  'setting',
  'marks',
  'torque',
  'tools',
  'also',
  'due',
  'reuse',
  'lost',
  'means',
  'why',
] as const;
export type CallerQuestion = (typeof QUESTIONS)[number];

/** A fact still missing, what asking for it takes, and what each answer would leave. */
export type Missing = {
  key: string;
  about?: string;
  minutes: number;
  /** Value → names of the designs left; none where the answer does not choose a design. */
  outcomes?: { value: string; leaves: string[] }[];
};

/** How one tensioner is set: the stage it belongs to ("" for the only one), its carrier and the reading computed. */
export type SettingOf = { stage: string; carrier: Carrier; reading: number };
export type PredictedMark = { about: string; name: string; teeth: number };
/** A step that is tightened: the bolt and its stages. */
export type TorqueStep = { id: string; number: number; torque: NonNullable<SheetStep['torque']> };

/** A tool that holds or finds a position, and what can stand in for it, each with its risk. */
export type ToolOf = { name: string; instead: readonly { name: string; risk: string }[] };
/** Pistons of cylinders that stand alike, mm below their top, moving down or up as the crank goes on. */
export type PistonsAt = { cylinders: string[]; mm: number; going: 'down' | 'up' | 'top' };

/** A used part, whether it may run on. `some`: only some of the designs have it. `stage`: "" for the only one. */
export type ReuseOf = { some: boolean } & (
  | { part: 'belt'; by: 'never' | 'if_sound' }
  | { part: 'chain'; stage: string; length?: ElongationAnswer }
  | { part: 'plunger'; by: 'replaced'; stage: string }
  | { part: 'plunger'; by: 'tested'; stage: string; leak?: LeakAnswer }
);

/** Links counted between the marks against those that are right: each one more or less is a tooth of the wheels. */
export type LinksBetween = { counted: number; right: number; teeth: number; crankDeg?: number };

/** The first sentence, as figures; words are made elsewhere. */
export type Lead =
  | { code: 'no_engine' }
  | { code: 'contradicted' }
  | { code: 'kits'; kits: KitMatch[] }
  | { code: 'kits_by_design'; branches: { design: string; kits: string[] }[] }
  | { code: 'no_kit' }
  | { code: 'which_part' }
  | { code: 'fits'; number: string; verdict: KitMatch['verdict']; instead: string[] }
  | { code: 'setting'; settings: SettingOf[] }
  | { code: 'setting_by_design'; branches: { design: string; settings: SettingOf[] }[] }
  | { code: 'no_setting' }
  | { code: 'marks'; go: Go; seen: number; of: number }
  | { code: 'marks_unseen'; of: number }
  | ({ code: 'links_off' } & LinksBetween)
  | { code: 'no_marks' }
  | { code: 'torques'; steps: TorqueStep[]; of: number }
  | { code: 'no_procedure' }
  | { code: 'no_substitute' }
  | { code: 'tools'; allowed: boolean; tools: ToolOf[] }
  | { code: 'also'; lines: JobLine[]; certain: boolean; kit: string | undefined }
  | { code: 'no_jobs' }
  | { code: 'due'; due: Due; interval: ServiceInterval }
  | { code: 'interval'; interval: ServiceInterval }
  | { code: 'no_interval' }
  | { code: 'odometer_back' }
  | { code: 'reuse'; parts: ReuseOf[] }
  | { code: 'design_open' }
  | { code: 'may_turn'; ranges: CrankRange[] }
  | { code: 'turn_free' }
  | { code: 'do_not_turn'; interference: Engine['interference'] }
  | { code: 'codes'; codes: Code[]; unknown: string[] }
  | { code: 'noise'; looks: { key: string; about: string | undefined }[] }
  | {
      code: 'why';
      cause: string;
      share: number;
      open: boolean;
      others: { wording: string; share: number }[];
      sureFrom: Policy['sureFrom'];
    }
  | { code: 'why_open' }
  | { code: 'at_odds'; contradiction: Contradiction }
  | { code: 'nothing_told' };

/** The second sentence: why. */
export type Reason =
  | { code: 'match'; match: KitMatch }
  | { code: 'predicted'; marks: PredictedMark[] }
  | { code: 'judged'; marks: MarkAnswer[] }
  | { code: 'links_right'; counted: number }
  | { code: 'free_seat'; free: FreeSeat[] }
  | { code: 'turn_first'; turns: number | undefined; least: number }
  | { code: 'designs'; names: string[] }
  | { code: 'interference'; interference: Engine['interference'] }
  | { code: 'from_computed' }
  | { code: 'after_job' }
  /** Bolts that the words for it name, of all that the sheet tightens. */
  | { code: 'bolt'; words: string; of: number }
  /** What the pistons do at a crank angle after the mark, negative against the running direction. */
  | { code: 'pistons'; crankDeg: number; roomMm: number; at: PistonsAt[] }
  /** What a label says if it is changed now, at this distance. */
  | { code: 'label'; next: Due }
  | { code: 'extension'; layout: Layout; answer: ExtensionAnswer }
  /** What they took it for: how likely that part's own faults are all together, and what speaks against the likeliest of them. */
  | { code: 'guess'; part: string; share: number; against: Pick<Finding, 'finding' | 'value' | 'about'>[] }
  | { code: 'verdict'; verdict: CauseVerdict; policy: Policy }
  | { code: 'send'; parts: string[] };

/** `yes`/`no`: answered; `if`: answered as far as facts go; `open`: a fact is wanted first; `cannot`: nobody can tell from this. */
export type Standing = 'yes' | 'no' | 'if' | 'open' | 'cannot';

/** The answer to one question of a caller, computed from the facts. */
export type Advice = {
  asked: CallerQuestion;
  standing: Standing;
  lead: Lead;
  because: Reason[];
  missing: Missing[];
  /** Ids of the facts on which it stands. */
  basis: string[];
  draw?: 'marks' | 'setting';
};

/** What advising reads: a world, the facts and what was computed from them, and the day. */
export type Case = { world: World; state: State; a: Answers; today: Day };

/** The part of an advice that a question computes; the rest is common. */
export type AnsweredQuestion = Omit<Advice, 'asked' | 'basis'> & { keys?: readonly string[] };

/** A design by its name. */
export const designName = (v: Variant): string => v.name;
