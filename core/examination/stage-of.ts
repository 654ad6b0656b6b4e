import { nth, num } from '@core/quantity/must';
import type { Layout } from '@core/drive/layout';
import type { Stage } from '@core/drive/stages';
import { isCalled } from '@core/facts/names';
import { textOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { THING } from '@core/facts/thing';

/**
 * Index of the stage that a returned part belongs to: the one filed for it, or the only one whose name has the words of its
 * place ("left, secondary"); for the first of its kind the first stage that
 * has such a part; −1 when it cannot be told.
 * @param about the thing; '' for the first of its kind
 */
export function stageOf(
  state: State,
  about: string,
  kind: string,
  stages: readonly Stage[],
  suits: (layout: Layout) => boolean,
): number {
  const thing = about === '' ? kind : about;
  const filed = textOf(state, THING.stage, thing);
  if (filed !== undefined) return stages.findIndex((s) => s.layout.id === filed && suits(s.layout));
  const place = textOf(state, THING.place, thing);
  const fitting = stages.flatMap((s, i) => (suits(s.layout) ? [i] : []));
  const there = fitting.filter(
    (i) => place !== undefined && isCalled(nth(stages, i).layout.name ?? '', place),
  );
  if (there.length === 1) return num(there, 0);
  // A further part of a drive with several such stages may be any of them.
  return about === '' || fitting.length === 1 ? (fitting[0] ?? -1) : -1;
}
