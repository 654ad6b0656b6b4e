import { intAt } from '@core/quantity/must';
import { LEAST_TEETH, spreadOfSteps, type StepSpread, stepSpread, type WheelTeeth, teethOf } from './teeth';
import type { Edges } from './edges';
import { arrangementsOf, foremost, type ToothWheel } from './wheel';

/** Why no wheel was chosen. */
export type WheelChoiceError =
  | { code: 'too_few_teeth'; teeth: number }
  /** `fits`: share of the edges that are teeth of the wheel and of its teeth that left an edge. `better`: a usual wheel that explains far more. */
  | { code: 'wheel_does_not_match'; notation: string; fits: number; better?: string };

/** Share of edges and teeth that have to go together, and how likely a step has to be on average, against its spread. */
const FITS = 0.85;
const LIKELY = -2.7;
/** Teeth come at even steps: logs of steps that spread by more are of no wheel; a gap, seen turn upon turn, is worth some unevenness. */
const UNEVEN = { without: 0.22, withGap: 0.45 };
/** By how much, natural log, a wheel has to be likelier than the next one to be told from it, and to contradict what was said. */
const TOLD_APART = 7;
const CONTRADICTS = 40;
/** Edges of each direction from which a wheel is chosen before all of them are read. */
const CHOSEN_FROM = 300;
/** Edges from which the arrangement of gaps is told. */
const ARRANGED_FROM = 100;
/** Share of the edges that a wheel explains when no further one has to be tried. */
const EXPLAINED = 0.99;

/** Both directions of a crank signal as teeth of one wheel. */
export type Fit = {
  wheel: ToothWheel;
  falling: WheelTeeth | undefined;
  rising: WheelTeeth | undefined;
  likelihood: number;
};

function fitOf(edges: Edges, wheel: ToothWheel, spread: StepSpread): Fit {
  const [falling, rising] = [teethOf(edges.falling, wheel, spread), teethOf(edges.rising, wheel, spread)];
  const [down, up] = [falling?.likelihood ?? -Infinity, rising?.likelihood ?? -Infinity];
  // Both edges of a square tooth tell of it; of a swing only its sharp crossing does.
  const likelihood =
    edges.kind === 'square'
      ? (down + up) / 2
      : edges.sharp === undefined
        ? Math.max(down, up)
        : edges.sharp === 'falling'
          ? down
          : up;
  return { wheel, falling, rising, likelihood };
}

const begun = (edges: Edges, most: number): Edges => ({
  ...edges,
  falling: edges.falling.subarray(0, most),
  rising: edges.rising.subarray(0, most),
});

/** Wheels by how likely they are, best first; of one notation the best arrangement of its gaps alone, found from the first edges. */
function ranked(edges: Edges, wheels: readonly ToothWheel[], spread: StepSpread): Fit[] {
  const some = begun(edges, CHOSEN_FROM);
  const few = edges[edges.sharp ?? 'falling'].subarray(0, ARRANGED_FROM);
  return wheels
    .map((wheel) => {
      const all = arrangementsOf(wheel);
      if (all.length === 1) return fitOf(some, wheel, spread);
      const best = all
        .map((arranged) => ({ arranged, by: teethOf(few, arranged, spread)?.likelihood ?? -Infinity }))
        .sort((a, b) => b.by - a.by)
        .slice(0, 4)
        .map((f) => fitOf(some, f.arranged, spread));
      return best.reduce((a, b) => (b.likelihood > a.likelihood ? b : a));
    })
    .sort((a, b) => b.likelihood - a.likelihood);
}

/** The usual wheels by how likely they are. Those whose gaps can stand in many ways are tried when none of the others explains nearly every edge. */
function usualRanked(edges: Edges, usual: readonly ToothWheel[], spread: StepSpread): Fit[] {
  const plain = ranked(
    edges,
    usual.filter((w) => arrangementsOf(w).length === 1),
    spread,
  );
  const explained = Math.max(...[plain[0]?.falling, plain[0]?.rising].map((t) => (t ? fitsOf(t) : 0)));
  if (explained > EXPLAINED) return plain;
  const more = ranked(
    edges,
    usual.filter((w) => arrangementsOf(w).length > 1),
    spread,
  );
  return [...plain, ...more].sort((a, b) => b.likelihood - a.likelihood);
}

/** Share of what a wheel explains. */
const fitsOf = ({ edge, lost, double }: WheelTeeth): number => edge.length / (edge.length + lost + double);

/** The direction of a fit that explains most. */
const better = ({ falling, rising }: Fit): WheelTeeth | undefined =>
  !falling || (rising && rising.likelihood > falling.likelihood) ? rising : falling;

/**
 * The wheels that the edges of a crank may be of, likeliest first: the one that is said, or those of the usual ones that cannot be
 * told from the likeliest by the crank alone. A wheel of which another is twice as much looks like it at half the speed.
 * @param said the wheel, when it is known; then the others only contradict it
 */
export function likelyWheels(
  edges: Edges,
  usual: readonly ToothWheel[],
  said?: ToothWheel,
): { ok: true; value: Fit[] } | { ok: false; error: WheelChoiceError } {
  const most = Math.max(edges.falling.length, edges.rising.length);
  if (most < LEAST_TEETH) return { ok: false, error: { code: 'too_few_teeth', teeth: most } };
  const sigma = Math.min(spreadOfSteps(edges.falling), spreadOfSteps(edges.rising));
  const spread = stepSpread(sigma);
  const others = usualRanked(
    edges,
    usual.filter((w) => w.notation !== said?.notation && (!said || arrangementsOf(w).length === 1)),
    spread,
  );
  const own = said && ranked(edges, [said], spread);
  const [first, ...rest] = own ?? others;
  if (!first) return { ok: false, error: { code: 'too_few_teeth', teeth: most } };
  const all = (f: Fit): Fit => (most <= CHOSEN_FROM ? f : fitOf(edges, f.wheel, spread));
  const whole = all(first);
  const teeth = better(whole);
  const fits = teeth ? fitsOf(teeth) : 0;
  const likely = teeth ? teeth.likelihood / most + Math.log(sigma) : -Infinity;
  const uneven = sigma > (first.wheel.teeth.every(Boolean) ? UNEVEN.without : UNEVEN.withGap);
  const beaten =
    said && others[0] && others[0].likelihood > first.likelihood + CONTRADICTS ? others[0] : undefined;
  if (fits < FITS || likely < LIKELY || uneven || !turned(teeth, first.wheel) || beaten)
    return {
      ok: false,
      error: {
        code: 'wheel_does_not_match',
        notation: first.wheel.notation,
        fits,
        ...(beaten ? { better: beaten.wheel.notation } : {}),
      },
    };
  if (said) return { ok: true, value: [whole] };
  const near = rest.filter((f) => f.likelihood > first.likelihood - TOLD_APART).map(all);
  const twice = twiceOf(first.wheel, usual).filter((w) => !near.some((f) => f.wheel.notation === w.notation));
  return { ok: true, value: [whole, ...near, ...twice.map((w) => fitOf(edges, w, spread))] };
}

/** True when the wheel went around once at least. */
const turned = (t: WheelTeeth | undefined, { teeth }: ToothWheel): boolean =>
  t !== undefined && t.slot.length > 1 && intAt(t.slot, t.slot.length - 1) - intAt(t.slot, 0) >= teeth.length;

/** Usual wheels that are the same one twice around. */
function twiceOf({ teeth }: ToothWheel, usual: readonly ToothWheel[]): ToothWheel[] {
  const text = foremost([...teeth, ...teeth])
    .map(Number)
    .join('');
  if (teeth.every(Boolean)) return [];
  return usual.flatMap((w) => arrangementsOf(w).filter((a) => a.teeth.map(Number).join('') === text));
}
