import { oncePer } from '@core/quantity/keep';
import * as z from 'zod';
import '@core/quantity/plain-schemas';
import type { Observable } from '@core/facts/observable';
import data from './data/words.json';

const Words = z.array(z.string().min(1));

const WordsSchema = z.strictObject({
  /** Further names of what an observable is about, by its key; the registry's own aliases count too. */
  subjects: z.record(z.string(), Words),
  /** Those of them that many things are called by: a figure beside one needs its unit or its part. */
  looseNames: Words,
  sent: Words,
  parts: z.record(z.string(), Words),
  /** Words by which wheels are told apart, by the word in their names. */
  wheels: z.record(z.string(), Words),
  ahead: Words,
  behind: Words,
  inLine: Words,
  /** As said before; what is left; every mark; marks of a sensor's wheel, which are none of these. */
  same: Words,
  rest: Words,
  allMarks: Words,
  ofSensor: Words,
  /** What says that a mark was not looked at. */
  unseen: Words,
  /** What tells that a head was machined, and that none was. */
  machined: Words,
  unmachined: Words,
  /** What says that the engine was turned, and what else has turns: a screw, a key, the starter. */
  engineTurns: Words,
  othersTurn: Words,
  /** Kinds of vehicle that fleets number; and those of them that number other things as well, an address for one. */
  fleet: Words,
  fleetLoose: Words,
  /** Last words of the names of workshops. */
  places: Words,
  /** First words that are no name. */
  notNames: Words,
  /** Words behind a name that make it one of a place. */
  ofPlaces: Words,
  /** Words beside which a half number is a kit's; and of money. */
  kits: Words,
  money: Words,
  /** What a distance is of, by the words around it. */
  distance: z.strictObject({
    yearly: Words,
    since: Words,
    ran: Words,
    changed: Words,
    atFitting: Words,
    fittedToo: Words,
    now: Words,
    other: Words,
  }),
  /** What says that a setting was read again after the turns. */
  afterTurns: Words,
  /** Words before a number that stands on a part. */
  stamped: Words,
  /** What tells by when they want it. */
  urgent: Words,
  /** Words that carry meaning though they name no part. */
  telling: Words,
  /** Words of a clause that only says where. */
  placeWords: Words,
  /** What tells that bare distances are in kilometres. */
  metric: Words,
  /** Words behind a number that is no reading of an odometer. */
  notOdometer: Words,
  /** What tells the part that came out from the one that goes in. */
  oldPart: Words,
  newPart: Words,
  built: Words,
  fitted: Words,
  failed: Words,
  /** Words that name a part or a thing, by its kind: what is said behind one is said of it. */
  nouns: z.record(z.string(), Words),
  /** Words before a number that is no distance; spans that are counted from nowhere; what tells now, running and fitting. */
  notDistance: Words,
  /** Days of something else than making, fitting and failing. */
  otherDays: Words,
  /** What says that nothing was fitted then. */
  notFitting: Words,
  /** Somebody else sent it; and what a part is only named for. */
  notSent: Words,
  partOf: Words,
  stayed: Words,
  /** What makes a box one that came back. */
  returns: Words,
  /** What says from which end a guide is measured; what is found at a counted tooth or link. */
  fromEnd: Words,
  atPlace: z.record(z.string(), z.record(z.string(), Words)),
  miles: Words,
  tooth: Words,
  /** What means a word of the catalogue's features, by that word; where a letter stands; the engine's far end; colours. */
  alike: z.record(z.string(), Words),
  letters: Words,
  farEnd: Words,
  colours: Words,
  /** Fasteners that are not the tensioner's; how long an engine stood, and what of it was felt. */
  otherFasteners: Words,
  stood: Words,
  block: Words,
  /** What says that a step was left out, or done otherwise than the sheet has it. */
  leftOut: Words,
  otherwise: Words,
  /** Words of a feature's values that many things are, too. */
  plain: Words,
  /** Words of a feature's name that tell nothing. */
  empty: Words,
  clock: Words,
  /** Words that a text in a language that is read here is bound to hold. */
  common: Words,
});

/** The reader's own words; everything else it knows from the registry and the catalogue. */
export const WORDS = WordsSchema.parse(data);

/** Names of what an observable is about: its own, its aliases of more than two letters, and the reader's. */
export const namesOfSubject = oncePer((o: Observable): readonly string[] => [
  ...(WORDS.subjects[o.key] ?? []),
  o.wording,
  ...o.aliases.filter((a) => a.length > 2),
]);
