import { nth } from '@core/quantity/must';
import type { Layout } from '@core/drive/layout';
import { limitsOf } from '@core/drive/carrier';
import type { Registry } from '@core/facts/observable';
import { measuredOf, type Measured } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { judgeBand } from '@core/quantity/judge';

export type Band = { from: number; to: number };
/** A length that comes of others, with its standard uncertainty, against its window where there is one. */
export type StackUp = Measured & {
  kind: 'stand_out' | 'slot';
  about: string;
  facts: string[];
  window?: Band;
  verdict?: 'within' | 'outside' | 'cannot_tell';
  /** Of a slot: the angle at its wheel, and what is left of its travel in that sense, mm. */
  deg?: Measured;
  leftMm?: Measured;
};

/**
 * a − b with u² = u_a² + u_b² (JCGM 100, 5.1.2, independent readings), against a window. Handbook 7.14.
 * @param a @param b lengths, mm
 */
export function stackDifference(
  a: Measured,
  b: Measured,
  window?: Band,
): Pick<StackUp, 'value' | 'u' | 'verdict'> {
  const value = a.value - b.value;
  const u = Math.hypot(a.u, b.u);
  return { value, u, ...(window ? { verdict: judgeBand(value, u, window) } : {}) };
}

/** Travel of a slotted hub as an angle at its wheel: Δθ = s/r, degrees. @param s mm along the bolt circle @param r its radius, mm */
export const slotAngle = (s: Measured, r: number): Measured => ({
  value: ((s.value / r) * 180) / Math.PI,
  u: ((s.u / r) * 180) / Math.PI,
});

/** Every stack-up that the readings of a case allow. @param things ids of further parts; the first of a kind is '' */
export function stackUps(
  state: State,
  registry: Registry,
  layouts: readonly Layout[],
  things: readonly string[],
): StackUp[] {
  const read = (key: string, about: string) =>
    measuredOf(state, registry, key, about === '' ? undefined : about);
  const plunger = layouts
    .flatMap((l) => l.wheels)
    .find((w) => w.carrier?.kind === 'arm' && w.carrier.plunger)?.carrier;
  const slots = layouts.flatMap((l) => l.wheels).flatMap((w) => (w.slots ? [w.slots] : []));
  const alike = slots[0] && slots.every((s) => s.radiusMm === nth(slots, 0).radiusMm) ? slots[0] : undefined;
  return ['', ...things].flatMap((about): StackUp[] => {
    const out: StackUp[] = [];
    const [overall, body] = [read('tensioner.overall', about), read('tensioner.body', about)];
    if (overall && body) {
      const window = plunger ? limitsOf(plunger).window : undefined;
      const facts = [...overall.facts, ...body.facts].map((f) => f.id);
      out.push({
        kind: 'stand_out',
        about,
        facts,
        ...stackDifference(overall, body, window),
        ...(window ? { window } : {}),
      });
    }
    const travel = read('sprocket.slot_travel', about);
    if (travel && alike) {
      const s = { value: travel.value, u: travel.u };
      out.push({
        kind: 'slot',
        about,
        facts: travel.facts.map((f) => f.id),
        ...s,
        window: { from: 0, to: alike.halfMm },
        verdict: judgeBand(s.value, s.u, { from: 0, to: alike.halfMm }),
        deg: slotAngle(s, alike.radiusMm),
        leftMm: { value: alike.halfMm - s.value, u: s.u },
      });
    }
    return out;
  });
}
