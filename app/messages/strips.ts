import { halfOf, highest, lowest } from '@core/quantity/judge';
import type { CatalogueLimit } from '@core/examination/catalogue-limit';
import type { DriveAnswer } from '@core/answer/drive-answer';
import { limitsOf, readingUnit } from '@core/drive/carrier';
import type { Observable } from '@core/facts/observable';
import type { Reading } from '@core/facts/read';
import type { Strip } from '../ui/limit-strip';
import { readingName, readingWords, settingName, SHOWN_WORDS } from './drive';

/** The reading of a drive's tensioner as it is filed: in mm for a plunger, else in degrees of its pointer. */
export const readingKey = (d: DriveAnswer): string | undefined =>
  d.carrier && (readingUnit(d.carrier) === 'mm' ? 'tensioner.extension' : 'tensioner.pointer');

/** The tensioner's reading against its window, end and the other setting; none where the drive has no tensioner. */
export function readingStrip(d: DriveAnswer, m: Reading | undefined): Strip | undefined {
  if (!d.carrier) return undefined;
  const plunger = readingUnit(d.carrier) === 'mm';
  const { window, end } = limitsOf(d.carrier);
  const other = d.other && {
    at: d.other.reading,
    name: `${settingName(d.carrier, 'other').toLowerCase()} ${readingWords(d.carrier, d.other.reading)}`,
  };
  return {
    label: readingName(d.carrier),
    min: plunger ? 0 : -180,
    max: plunger ? end + 2 : 180,
    window,
    nominal: window.nominal,
    end,
    marks: other ? [other] : [],
    value: m?.value,
    u: m?.u,
    ticks: ticksOf(m),
    good: d.shown === undefined ? undefined : d.shown === 'right',
    text:
      d.shown === undefined || m === undefined
        ? 'not read yet'
        : `${readingWords(d.carrier, m.value)}: ${SHOWN_WORDS[d.shown]}`,
  };
}

/** A reading against the new part's dimension and its tolerance, with what it comes to. */
export function limitStrip(
  o: Observable,
  m: Reading,
  limit: CatalogueLimit,
  show: (value: number, u?: number) => string,
): Strip {
  const { nominal, tolerance, within } = limit;
  const reach = Math.max(tolerance * 4, Math.abs(m.value - nominal) * 1.3 + halfOf(m.u), nominal * 0.01);
  const verdict = within === undefined ? 'cannot tell' : within ? 'as new' : 'not as new';
  return {
    label: `${o.wording}, new ${show(nominal)} (${limit.part})`,
    min: nominal - reach,
    max: nominal + reach,
    ends: [show(nominal - reach), show(nominal + reach)],
    window: { from: nominal - tolerance, to: nominal + tolerance },
    nominal,
    ticks: ticksOf(m),
    value: m.value,
    u: m.u,
    good: within,
    text: `${show(m.value, m.u)}: ${verdict}`,
  };
}

/** Several readings of one thing beside each other, with their mean; none where one stands alone. */
export function repeatsStrip(
  o: Observable,
  m: Reading | undefined,
  show: (value: number, u?: number) => string,
): Strip | undefined {
  if (!m || m.repeats.n < 2) return undefined;
  const ticks = ticksOf(m);
  const [low, high] = [Math.min(...ticks, lowest(m)), Math.max(...ticks, highest(m))];
  const margin = (high - low || Math.abs(m.value) || 1) * 0.15;
  return {
    label: `Mean of ${m.repeats.n}`,
    min: low - margin,
    max: high + margin,
    ends: [show(low - margin), show(high + margin)],
    ticks,
    value: m.value,
    u: m.u,
    text: show(m.value, m.u),
  };
}

const ticksOf = (m: Reading | undefined): number[] =>
  m && m.repeats.n > 1 ? m.facts.map((f) => Number(f.value)) : [];
