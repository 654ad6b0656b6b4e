import { INVENTED_DAY, inventPopulation } from '@core/patterns/invented';
import { lifeOf, lookThrough } from '@core/patterns/look';
import { type Population, populationOf } from '@core/patterns/population';
import { returnsToCome } from '@core/patterns/to-come';
import { serveJobs } from '../threads/worker-client';
import type { PatternJobs, PatternSource } from './patterns.protocol';
import { readSoldTable } from './read-sold-table';

// What was looked at last stays here, so that lives are fitted without sending it about.
let held: Population | undefined;

/** An invented population stands still: it is looked at on the day that it was made for. */
const partsOf = (source: PatternSource, today: string) =>
  'invented' in source
    ? { ...inventPopulation(source.invented, INVENTED_DAY), day: INVENTED_DAY }
    : { ...source, day: today };

serveJobs<PatternJobs>(
  {
    look: ({ source, today, assumed }, line) => {
      const { sold, returns, day } = partsOf(source, today);
      held = populationOf(sold, returns, day, assumed);
      return Promise.resolve(lookThrough(held, line.progress));
    },
    life: ({ kit, lot }) => Promise.resolve(held && lifeOf(held, kit, lot)),
    toCome: ({ kit, lot, months }) => Promise.resolve(held && returnsToCome(held, kit, lot, months)),
    readSold: readSoldTable,
  },
  self,
);
