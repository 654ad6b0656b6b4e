import { bulletinEffect } from '@core/patterns/bulletin';
import { returnsByMonth, sharesByQuarter, watchOver } from '@core/patterns/charts';
import { INVENTED_DAY, inventPopulation } from '@core/patterns/invented';
import { lifeOf, lookThrough } from '@core/patterns/look';
import { type Population, populationOf, type Return, type SoldRow } from '@core/patterns/population';
import { lotFigures, lotWithout } from '@core/patterns/scan';
import { returnsToCome } from '@core/patterns/to-come';
import { whoHas } from '@core/patterns/who-has';
import { serveJobs } from '../threads/worker-client';
import type { FaultAsked, PatternJobs, PatternSource } from './patterns.protocol';
import { readSoldTable } from './read-sold-table';

// What was looked at last stays here, so that lives are fitted without sending it about.
let held: { population: Population; sold: readonly SoldRow[]; returns: readonly Return[] } | undefined;

/** An invented population stands still: it is looked at on the day that it was made for. */
const partsOf = (source: PatternSource, today: string) =>
  'invented' in source
    ? { ...inventPopulation(source.invented, INVENTED_DAY), day: INVENTED_DAY }
    : { ...source, day: today };

const quartersOf = (returns: readonly Return[], { shop, kit, code, step, share }: FaultAsked) =>
  sharesByQuarter(
    returns.filter((r) => (shop === undefined ? r.kit === kit : r.shop === shop)),
    (r) => r.faults.some((f) => f.code === code && f.step === step),
    share,
  );

serveJobs<PatternJobs>(
  {
    look: ({ source, today, assumed }, line) => {
      const { sold, returns, day } = partsOf(source, today);
      const population = populationOf(sold, returns, day, assumed);
      held = { population, sold, returns };
      return Promise.resolve(lookThrough(population, line.progress));
    },
    life: ({ kit, lot }) => Promise.resolve(held && lifeOf(held.population, kit, lot)),
    toCome: ({ kit, lot, months }) =>
      Promise.resolve(held && returnsToCome(held.population, kit, lot, months)),
    whoHas: ({ kit, lot }) => Promise.resolve(held && whoHas(held.sold, held.returns, kit, lot)),
    lotMonths: ({ kit, lot }) => {
      const months = held ? returnsByMonth(held.population, kit, lot) : [];
      return Promise.resolve(months.length > 0 ? { months, watch: watchOver(months) } : undefined);
    },
    quarters: (asked) => Promise.resolve(quartersOf(held?.returns ?? [], asked)),
    effect: ({ all, of }) => Promise.resolve(held && bulletinEffect(all, of, held.returns)),
    lotOfCase: ({ sold, returns, today, assumed, kit, lot, case: id }) => {
      const row = lotWithout(populationOf(sold, returns, today, assumed), kit, lot, id);
      return Promise.resolve(row && { ...row, ...lotFigures(row) });
    },
    readSold: readSoldTable,
  },
  self,
);
