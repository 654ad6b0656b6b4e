import * as z from 'zod';
import '@core/quantity/plain-schemas';
import data from './data/cautions.json';
import { QUESTIONS } from './advice';

/** The caution that belongs to the answer of each question. */
export const CAUTIONS = z.record(z.enum(QUESTIONS), z.string()).parse(data);
