import { agreed } from '@core/quantity/agreed';
import { reluctorOf } from '@core/trace/drive-teeth';
import { toldOffset } from '@core/trace/told-offset';
import { stagesFor } from '@core/catalogue/find-records';
import type { IntakeContext } from './context';
import type { Proposal } from './proposal';
import type { Said } from './said';

/** How far a cam stands off, told in degrees of a shaft or in teeth of the sensor's wheel: one a message, the first. */
export function readOffset(
  said: Said,
  ctx: IntakeContext,
  engine: string | undefined,
): Proposal[] {
  const wheel = engine === undefined ? undefined : wheelOf(ctx, engine);
  const { sentences, text } = said;
  for (const [i, s] of sentences.entries()) {
    const from = s[0]?.from ?? 0;
    const told = toldOffset(text.slice(from, sentences[i + 1]?.[0]?.from ?? text.length), wheel, true);
    if (!told.ok) continue;
    const { deg, u, wheel: named } = told.value;
    const spans = [{ from: from + told.value.from, to: from + told.value.to }];
    return [
      { key: 'trace.offset', value: deg, u, how: 'reported', sure: 'likely', spans },
      ...(named === undefined
        ? []
        : [{ key: 'trace.wheel', value: named, how: 'reported' as const, sure: 'likely' as const, spans }]),
    ];
  }
  return [];
}

/** The crank sensor's wheel of an engine, where all of its designs have one. */
function wheelOf({ catalogue }: IntakeContext, engine: string): string | undefined {
  return agreed(
    (catalogue.variantsOf.get(engine) ?? []).map((v) =>
      v.layout === undefined ? undefined : reluctorOf(stagesFor(catalogue, v.layout).map((s) => s.layout)),
    ),
  );
}
