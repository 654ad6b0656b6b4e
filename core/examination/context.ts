import type { LeakAnswer } from './leak-answer';
import type { Carrier } from '@core/drive/carrier';
import type { Layout } from '@core/drive/layout';
import type { Settings } from '@core/drive/tensioner';
import type { Registry } from '@core/facts/observable';
import type { State } from '@core/facts/state';
import type { ElongationAnswer, ExtensionAnswer } from './extension';
import type { MarksAnswer } from './marks';
import type { PieceBalance } from './piece-balance';
import type { TensionerAnswer } from './tensioners';

/** What is known of the drive for judging what its parts show; empty while the design is open. */
type DriveOnBench = {
  layout?: Layout | undefined;
  settings?: Settings | undefined;
  carrier?: Carrier | undefined;
  tensioners: readonly TensionerAnswer[];
  elongations: readonly ElongationAnswer[];
  extensions: readonly ExtensionAnswer[];
};
/** Distance and time since fitting, with the facts that say so; u of the distance from both readings (JCGM 100, 5.1.2). */
export type UsageSinceFitting = {
  distance?: { km: number; u: number; facts: string[] };
  time?: { months: number; facts: string[] };
  /** Where only the end is known: at most so far, or so long. */
  atMost?: { km?: { most: number; facts: string[] }; months?: { most: number; facts: string[] } };
  /** Both readings are here, and the later one is smaller. */
  back?: true;
};
export type ExaminationContext = {
  state: State;
  registry: Registry;
  /** Can this observable be filed of the drive? What cannot is no finding. */
  applies: (key: string) => boolean;
  drive: DriveOnBench;
  kitFits?: boolean | undefined;
  marks?: MarksAnswer | undefined;
  interval?: { km: number; months: number } | undefined;
  usage: UsageSinceFitting;
  /** Installation faults that a filled fitting sheet shows, each with the facts that say so. */
  /** What of guides came back, by mass and by outline. */
  balances: readonly PieceBalance[];
  /** How plungers sank under a load. */
  leaks: readonly LeakAnswer[];
  /** What a capture of crank and cam said. */
  trace?:
    | { facts: string[]; chances?: Readonly<Partial<Record<'in_tolerance' | 'whole' | 'fraction', number>>> }
    | undefined;
  /** Readings held against the dimension of the new part, thing by thing: how likely each is within its limit. */
  limits: readonly { key: string; about?: string; within: number }[];
  /** Distance after which a house holds oil overdue, km. */
  oilKm: number;
  /** Damage at teeth and links, where there is enough of it: whether it repeats with a wheel. */
  repeats: readonly { about: string; wheel: boolean; facts: string[] }[];
  /** Numbers read off parts: whether the kit that is named has them. */
  partNumbers: readonly { about: string; fits: boolean; facts: string[] }[];
  /** Findings that weigh as numbers, in bands; other numbers weigh by their limit. */
  numbers: ReadonlySet<string>;
  sheetFaults: readonly { code: string; facts: readonly string[] }[];
};
