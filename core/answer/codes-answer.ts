import { type CodeMeaning, codesRead } from '@core/examination/codes';
import type { CauseData } from '@core/cause/cause-data';
import { listOf } from '@core/facts/read';
import type { State } from '@core/facts/state';

/** A fault code that was read: what it accuses, and what of this drive sets such a code. */
export type CodeAnswer = CodeMeaning & { code: string; setBy: string[] };

/** Codes of the cam and crank families in a case. What sets them is what the knowledge says shows as that kind of code. */
export const codesAnswer = (state: State, { mechanisms }: Pick<CauseData, 'mechanisms'>): CodeAnswer[] =>
  codesRead(listOf(state, 'fault.codes')).map((c) => ({
    ...c,
    setBy: mechanisms
      .map((m) => ({ m, share: m.shows['codes.shown']?.[c.kind] ?? 0 }))
      .filter((x) => x.share > 0)
      .sort((a, b) => b.share - a.share)
      .map((x) => x.m.wording),
  }));
