import * as z from 'zod';
import '@core/quantity/plain-schemas';
import data from './data/bench.json';

const Chance = z.number().gte(0).lt(1);
const Span = z.strictObject({ from: z.number().positive(), to: z.number().positive() });
const Pair = z.tuple([z.number().nonnegative(), z.number().positive()]);
const BenchSchema = z.strictObject({
  /** A look is passed over though the box is complete. */
  passed: Chance,
  /** What shows is taken for sound, or for another grade. */
  overlooked: Chance,
  misnamed: Chance,
  /** A sound look is filed as abnormal: handling after the removal, a mistaken look. What shows a cause itself is not imagined. */
  imagined: Chance,
  /** Nobody says what was noticed; nobody knows the distance. */
  unsaid: Chance,
  noDistance: Chance,
  /** Spread of a reported distance, of 1. */
  odometer: Chance,
  /** Parts that a box may hold, by the word in front of what is looked at. */
  parts: z.array(z.string()).min(1),
  /** Those that always come; of the others those that the cause shows on, and this share of the rest. */
  always: z.array(z.string()),
  sentAlong: Chance,
  /** Where the catalogue's interval ends, km: whether it was passed follows from the distance. */
  interval: z.number().positive(),
  /** Who is asked tells it wrong. */
  toldWrong: Chance,
  /** A filled fitting sheet came back with the box. */
  sheetBack: Chance,
  /** Share of the parts that a cause shows on, that are sent. */
  sentShown: Chance,
  /** Odometer at the fitting, km; distance since the oil was changed, as it should be and too far, km. */
  fittedAt: Span,
  oilKm: z.strictObject({ sound: Pair, past: Pair }),
  /** Teeth by which a mark is out, by its verdict. */
  outBy: z.record(z.string(), z.number().positive()),
  /** Minutes that a caller stays on the line. */
  patience: Span,
  /** How warm an engine is whose tensioner was set too warm, °C. */
  setAtC: Span,
  /** Elongation by its limit, of a chain that is in order and of one that is not. */
  wear: z.strictObject({ sound: Pair, past: Pair }),
  /** By how much a plunger stands out that its chain does not explain, mm. */
  restMm: z.number().positive(),
  /** What a vehicle runs a month, km, and the day on which all virtual returns came. */
  kmPerMonth: z.number().positive(),
  day: z.iso.date(),
});

/** What a virtual box holds, and what goes wrong between the part and the file. */
export const VIRTUAL_BENCH = BenchSchema.parse(data);
