import type { FactLineError } from '@core/facts/fact-line';
import type { Provenance } from '@core/facts/fact';
import type { ReadError } from '@core/facts/read-value';
import { type PlacedOn, placeWords } from '@core/facts/place';
import { list } from '../language/list';

export const PROVENANCE_WORDS: Record<Provenance, string> = {
  measured: 'measured',
  seen: 'seen',
  document: 'document',
  computed: 'computed',
  reported: 'reported',
  imported: 'imported',
  decided: 'decided',
};

/** The same where there is room for a mark only. */
export const HOW_SHORT: Record<Provenance, string> = {
  measured: 'meas.',
  seen: 'seen',
  document: 'doc.',
  computed: 'comp.',
  reported: 'rep.',
  imported: 'imp.',
  decided: 'dec.',
};

const ORDER = {
  dmy: 'day.month.year, such as 12.03.2026',
  mdy: 'month/day/year, such as 03/12/2026',
  ymd: 'year-month-day, such as 2026-03-12',
};

/** What was typed, as far as a sentence has room for it. */
const short = (typed: string): string => (typed.length > 40 ? `${typed.slice(0, 38)}…` : typed);
const REF_PLACE: Partial<Record<string, string>> = { cause: 'a cause that this drive can have' };

/** Why a typed value was not taken, and what would be. */
export function readSentence(e: ReadError | FactLineError): string {
  switch (e.code) {
    case 'empty':
      return 'Type a value after the name.';
    case 'not_a_number':
      return `“${short(e.typed)}” is not a number that can be measured. Type it like ${e.example}.`;
    case 'not_a_count':
      return `“${short(e.typed)}” has a fraction; whole ones are counted. Type it like ${e.example}.`;
    case 'unknown_unit':
      return `“${short(e.typed)}” is not a unit for this. Use ${list(e.allowed)}.`;
    case 'bad_uncertainty':
      return `The uncertainty “${short(e.typed)}” must be a number above zero and within what can be measured here.`;
    case 'out_of_range':
      return `${short(e.typed)} is outside ${e.min} to ${e.max}. Check the unit and the digits.`;
    case 'too_long':
      return `This text has ${e.length} characters; ${e.most} fit. Shorten it by ${e.length - e.most}.`;
    case 'not_an_option':
      return `“${short(e.typed)}” is not one of: ${e.allowed.join(' · ')}.`;
    case 'not_a_date':
      return `“${e.typed}” is not a day. Write ${ORDER[e.order]}, or 12 Mar 2026.`;
    case 'not_a_code':
      return `“${short(e.typed)}” is not a fault code. They look like ${e.example}.`;
    case 'not_found':
      return `“${short(e.typed)}” is not ${REF_PLACE[e.table] ?? 'in the catalogue'}.`;
    case 'no_observable':
      return `“${short(e.typed.split(' ')[0] ?? '')}” names nothing that can be filed here.`;
    case 'not_on_drive':
      return `This drive has nothing that “${e.wording}” could be filed of.`;
    case 'which_thing':
      return e.names.length
        ? `Say of which: ${e.wording.toLowerCase()} ${list([...e.names.slice(0, 8)], 'or')}.`
        : `There is nothing here that “${e.wording}” could be filed of.`;
    case 'no_place':
      return `“${e.wording}” needs its place first: ${PLACE_EXAMPLE[e.on]}.`;
    case 'beyond':
      return `There is no ${placeWords(e.place)}: the longest that this drive can have counts 1 to ${e.most}.`;
    case 'several':
      return `“${short(e.typed)}” may be ${list(
        e.wordings.map((w) => `“${w}”`),
        'or',
      )}. Type more of its name.`;
  }
}

/** How a place of this sort is typed. */
export const placeExample = (on: PlacedOn): string => PLACE_EXAMPLE[on];

const PLACE_EXAMPLE: Record<PlacedOn, string> = {
  tooth: 'a tooth, counted from the paint (41 or 41-44)',
  link: 'a link, counted from the paint (17 or 17-19)',
  degree: 'degrees (120)',
  station: 'millimetres along it (35)',
  track: 'a track (2)',
  edge: 'front or rear, and where (front 41)',
  piece: 'a piece, by number, then its mass (1 12.4 g)',
};
