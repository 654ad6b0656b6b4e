import type { FactValue, Provenance } from '@core/facts/fact';
import { type Place, placeKey } from '@core/facts/place';

/** A part of the text that a proposal stands on. */
export type TextSpan = { from: number; to: number };

/** `sure`: a code or a figure with its unit; `likely`: by the words around it; `ask`: it could be something else. */
type Sureness = 'sure' | 'likely' | 'ask';

/** What a text may mean as a fact. It is filed only when somebody took it. */
export type Proposal = {
  key: string;
  about?: string;
  value: FactValue;
  u?: number;
  how: Provenance;
  sure: Sureness;
  spans: readonly TextSpan[];
  /** Who is quoted, when it is somebody's word only. */
  hearsay?: string;
  /** One of several returned parts of a kind, by where it belongs: "left secondary". */
  part?: { kind: string; place: string };
  /** Speech of the part that came out, or of the one that goes in. */
  which?: 'old' | 'new';
  place?: Place;
  /** Which vehicle or claim of a message that tells of several, from 1; 0: of each of them; none: there is but one. */
  of?: number;
  /** The day stands for its whole month. */
  month?: true;
  /** Why it is asked: two values for one thing, a code with a stroke wrong, a number without its unit. */
  doubt?:
    | 'two_values'
    | 'witness'
    | 'near_code'
    | 'half_code'
    | 'implied'
    | 'bare_number'
    | 'not_sure'
    | 'asked';
};

/** Proposals for one and the same thing bear the same name. */
export const slotOf = (p: Pick<Proposal, 'key' | 'about' | 'part' | 'which' | 'place' | 'of'>): string =>
  [
    p.key,
    p.about ?? '',
    p.part?.place ?? '',
    p.which === 'new' ? 'new' : '',
    p.place ? placeKey(p.place) : '',
    p.of ?? '',
  ]
    .join(' ')
    .trim();
