import * as z from 'zod';
import data from './data/cautions.json';
import { QUESTIONS } from './advice';

z.config({ jitless: true });
/** The caution that belongs to the answer of each question. */
export const CAUTIONS = z.record(z.enum(QUESTIONS), z.string()).parse(data);
