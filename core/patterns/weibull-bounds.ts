import { CHI2_95 } from '@core/quantity/incomplete';
import type { Interval } from './rates';
import type { WeibullFit } from './weibull';
import { logLikelihood, type LifeRow, slopes } from './weibull-likelihood';

/** What is told of a fit: its shape, its scale, or the life by which a share has failed. */
export type LifeFigure = { of: 'shape' } | { of: 'scale' } | { of: 'quantile'; share: number };

const Z95 = Math.sqrt(CHI2_95);
const depth = (share: number): number => Math.log(-Math.log1p(-share));

/** Life by which a share of all has failed: B10 at one tenth. */
export const lifeAt = (fit: Pick<WeibullFit, 'shape' | 'scale'>, share: number): number =>
  fit.scale * Math.exp(depth(share) / fit.shape);

/** Share failed by a time. */
export const failedBy = (fit: Pick<WeibullFit, 'shape' | 'scale'>, time: number): number =>
  time <= 0 ? 0 : -Math.expm1(-((time / fit.scale) ** fit.shape));

/** The figure itself, with Wald's 95 % interval: normal in its logarithm, by the delta method from the observed information. */
export function waldInterval(fit: WeibullFit, figure: LifeFigure): Interval & { value: number } {
  const { uu, ub, bb } = fit.cov;
  const [du, db] =
    figure.of === 'shape' ? [0, 1] : figure.of === 'scale' ? [1, 0] : [1, -depth(figure.share) / fit.shape];
  const value =
    figure.of === 'shape' ? fit.shape : figure.of === 'scale' ? fit.scale : lifeAt(fit, figure.share);
  const spread = Z95 * Math.sqrt(du * du * uu + 2 * du * db * ub + db * db * bb);
  return { value, from: value * Math.exp(-spread), to: value * Math.exp(spread) };
}

/**
 * Its 95 % interval by the likelihood ratio: all values that the best of the other parameter leaves within half of χ² of the
 * maximum. An end that is not reached within a factor of e^30 is 0 or Infinity.
 */
export function likelihoodInterval(rows: readonly LifeRow[], fit: WeibullFit, figure: LifeFigure): Interval {
  const best = Math.log(waldInterval(fit, figure).value);
  const least = fit.logLikelihood - CHI2_95 / 2;
  const held = profile(rows, fit, figure);
  const end = (sign: 1 | -1): number => {
    let [inside, out] = [0, 0.25];
    while (held(best + sign * out) >= least) {
      inside = out;
      out *= 2;
      if (out > 30) return sign === 1 ? Infinity : 0;
    }
    for (let k = 0; k < 60; k++) {
      const mid = (inside + out) / 2;
      if (held(best + sign * mid) >= least) inside = mid;
      else out = mid;
    }
    return Math.exp(best + (sign * (inside + out)) / 2);
  };
  return { from: end(-1), to: end(1) };
}

/** Highest likelihood with the figure's logarithm held, over what is left free. */
function profile(rows: readonly LifeRow[], fit: WeibullFit, figure: LifeFigure): (value: number) => number {
  let free = figure.of === 'shape' ? Math.log(fit.scale) : Math.log(fit.shape);
  return (value) => {
    // A held quantile ties u to b: u = value − depth·e^−b.
    const k = figure.of === 'quantile' ? depth(figure.share) : 0;
    const at = (x: number): [number, number] =>
      figure.of === 'shape' ? [x, value] : [value - k * Math.exp(-x), x];
    let like = logLikelihood(rows, ...at(free));
    for (let n = 0; n < 100; n++) {
      const s = slopes(rows, ...at(free));
      const g = k * Math.exp(-free);
      const [d1, d2] =
        figure.of === 'shape' ? [s.u, s.uu] : [s.b + g * s.u, s.bb + 2 * g * s.ub + g * g * s.uu - g * s.u];
      let step = d2 < 0 ? -d1 / d2 : Math.sign(d1) * 0.5;
      step = Math.max(-1.5, Math.min(1.5, step));
      let next = logLikelihood(rows, ...at(free + step));
      while (!(next >= like) && Math.abs(step) > 1e-13) {
        step /= 2;
        next = logLikelihood(rows, ...at(free + step));
      }
      if (!(next >= like)) break;
      free += step;
      like = next;
      if (Math.abs(step) < 1e-10) break;
    }
    return like;
  };
}
