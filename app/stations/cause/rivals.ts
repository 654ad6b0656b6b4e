import { must } from '@core/quantity/must';
import type { Answers } from '@core/answer/answers';
import { CAUSES, NO_CAUSE } from '@core/cause/cause-data';
import { percent } from '../../messages/answers';

/** A rival as a row: a cause, or an outcome that is none. */
export type Rival = {
  key: string;
  name: string;
  family: string;
  /** Share that is drawn and told; none of what has no share. */
  p: number | undefined;
  share: string;
  odds: string;
  decided: boolean;
};

/** From this share on a rival is in sight without being asked for, and so many of them. */
const WORTH_A_LOOK = { share: 0.01, most: 6 };

/** Every cause by its share, and those that are worth looking at: the likely ones, the one decided, what the fitting sheet shows. */
export function causeRivals(
  { ranking, fitted }: Pick<Answers, 'ranking' | 'fitted'>,
  decided: string | undefined,
): { all: Rival[]; likely: Rival[] } {
  const onSheet = new Set(fitted?.faults.map((f) => f.code));
  const rows = ranking.causes.map((c) => ({
    fault: c.cause.fault,
    rival: row(c.cause.key, c.cause.wording, c.cause.family, c.probability, decided),
  }));
  return {
    all: rows.map((r) => r.rival),
    likely: rows
      .filter(
        ({ rival, fault }, i) =>
          (i < WORTH_A_LOOK.most && must(rival.p) >= WORTH_A_LOOK.share) ||
          rival.decided ||
          (fault !== undefined && onSheet.has(fault)),
      )
      .map((r) => r.rival),
  };
}

/** What can be decided that is no cause. */
export const outcomesOf = ({ ranking }: Pick<Answers, 'ranking'>, decided: string | undefined): Rival[] =>
  NO_CAUSE.map((key) =>
    row(key, CAUSES[key].wording, '', key === 'none' ? ranking.none : undefined, decided),
  );

function row(
  key: string,
  name: string,
  family: string,
  p: number | undefined,
  decided: string | undefined,
): Rival {
  return {
    key,
    name,
    family,
    p,
    share: p === undefined ? '' : percent(p),
    odds: p === undefined ? '' : oddsWords(p),
    decided: key === decided,
  };
}

function oddsWords(p: number): string {
  const odds = p / (1 - p);
  return odds >= 1
    ? `${odds >= 100 ? '>100' : odds.toFixed(1)} : 1`
    : `1 : ${odds <= 0.01 ? '>100' : (1 / odds).toFixed(1)}`;
}
