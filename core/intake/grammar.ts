import * as z from 'zod';
import '@core/quantity/plain-schemas';
import data from './data/grammar.json';

const Words = z.array(z.string().min(1));
const Figures = z.record(z.string(), z.number());

/** How people put things, whatever they speak of: words of structure, none of the trade. */
const GrammarSchema = z.strictObject({
  /** Words that begin a clause. */
  joins: Words,
  /** Short forms and what they stand for; what a dictation heard, and what was said. */
  short: z.record(z.string(), z.string()),
  heard: z.record(z.string(), z.string()),
  /** Short forms behind whose point the sentence goes on. */
  abbreviations: Words,
  numbers: Figures,
  scales: Figures,
  fractions: Figures,
  times: Figures,
  about: Words,
  nearly: Words,
  /** Last words of a letter, behind which the writer's name stands. */
  closings: Words,
  /** First words of a question that is answered yes or no, and of one that is not. */
  openers: Words,
  askers: Words,
  /** What makes a clause a condition, a plan, a guess, a state of before. */
  if: Words,
  ifOpens: Words,
  plan: Words,
  maybe: Words,
  earlier: Words,
  /** What takes back or mends what was said before; and what changes two sides for each other. */
  fixes: Words,
  swapped: Words,
  /** What makes it somebody else's word. */
  theirs: Words,
  negation: Words,
});

export const GRAMMAR = GrammarSchema.parse(data);
