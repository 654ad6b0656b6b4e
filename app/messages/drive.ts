import type { ExtensionAnswer } from '@core/examination/extension';
import { FINDINGS } from '@core/examination/finding-data';
import type { Shown } from '@core/examination/tensioners';
import { type Carrier, carrierKind, limitsOf, readingUnit } from '@core/drive/carrier';
import type { Clearance } from '@core/drive/clearance';
import { type Layout, tensionerIndex } from '@core/drive/layout';
import type { PathError } from '@core/drive/path';
import type { SettingsError, Travel } from '@core/drive/tensioner';
import { senseWord as senseWords } from '@core/drive/sense';
import { formatNumber, formatQuantity } from '@core/quantity/format-quantity';
import { list } from '../language/list';

export const SHOWN_WORDS: Record<Shown, string> = {
  right: 'the intended setting',
  wrong_way: 'the setting reached by turning the wrong way',
  slack: 'neither: the tensioner stands slack',
  beyond: 'more than its window: worn, or a part too long',
  end: 'its end of travel: worn out, or too long a part',
  cannot_tell: 'cannot tell: the reading straddles a limit',
};
export { senseWords };
/** Both senses, to choose one of. */
export const SENSE_CHOICES = (['cw', 'ccw'] as const).map((value) => ({ value, label: senseWords(value) }));

/** What stands on the tensioner: "90.0°", "7.00 mm". */
export function readingWords(carrier: Carrier, reading: number): string {
  return readingUnit(carrier) === 'mm'
    ? `${formatNumber(reading, 2)}\u00a0mm`
    : `${formatNumber(reading, 1)}°`;
}

const READING_NAMES = {
  automatic_eccentric: 'Pointer',
  manual_eccentric: 'Eccentric, from its start mark',
  plunger: 'Extension',
  lever: 'Lever',
};
/** Name of what is read: pointer, eccentric, lever or plunger. */
export function readingName(carrier: Carrier): string {
  return READING_NAMES[carrierKind(carrier)];
}

/** Name of a setting that gives the length. Only an eccentric can be turned the wrong way. */
export function settingName(carrier: Carrier | undefined, which: 'right' | 'other'): string {
  if (which === 'right') return 'As intended';
  return carrier?.kind === 'eccentric' ? 'Turned the wrong way' : 'The other place that gives the length';
}

/** How far it can still follow from a setting, "10.1 mm of growth, to its end of travel". */
export function followsWords({ followsMm, until }: Travel): string {
  if (until === 'past') return 'nothing more: it stands past its end of travel';
  return `${formatNumber(followsMm, 1)}\u00a0mm of growth, ${until === 'end' ? 'to its end of travel' : 'as far as the path gets longer'}`;
}

type Measured = { value: number; u: number };
const measured = (layout: Layout, m: Measured): string => {
  const carrier = layout.wheels[tensionerIndex(layout)]?.carrier;
  const dimension = carrier && readingUnit(carrier) === '°' ? 'angle' : 'length';
  return formatQuantity(dimension, m.value, { u: m.u, decimals: 1 });
};

/** A tensioner's reading and what of it the measured length of its chain or belt explains; one sentence at every station. */
export function extensionWords(layout: Layout, { reading, rest }: ExtensionAnswer): string {
  const carrier = layout.wheels[tensionerIndex(layout)]?.carrier;
  const out = `${carrier ? readingName(carrier) : 'Reading'} ${measured(layout, reading)}`;
  if (!rest) return `${out}.`;
  const verdict = FINDINGS.get('extension.rest')?.values?.[rest.verdict] ?? rest.verdict;
  return `${out}; the ${layout.kind}’s length explains ${measured(layout, rest.expected)}; left over ${measured(layout, rest.remainder)}: ${verdict}.`;
}

/** What of it even wear of the guides would be, where it is more than the length explains and the drive has guides. */
export function guideWearWords({ rest }: ExtensionAnswer): string {
  const wear = rest?.verdict === 'more' ? rest.guideWear : undefined;
  if (!wear) return '';
  return `As even wear of the guides it is ${formatQuantity('length', wear.value, { u: wear.u, decimals: 1 })}.`;
}

/** How the tensioner is set, in one sentence. */
export function settingWords(carrier: Carrier, computed: number): string {
  const { window, end } = limitsOf(carrier);
  const unit = readingUnit(carrier) === 'mm' ? ' mm' : '°';
  const range = `window ${window.from}${unit} to ${window.to}${unit}, end ${formatNumber(end, 0)}${unit}`;
  return carrier.kind === 'eccentric'
    ? `Key ${senseWords(carrier.keyTurn)}, ${carrier.manual ? 'the eccentric' : 'pointer'} moves ${senseWords(carrier.turn)} from the start mark to ${window.nominal}° (${range}). Computed for this drive: ${readingWords(carrier, computed)}.`
    : `Released, it stands at ${formatNumber(window.nominal, 1)}${unit} with new parts (${range}). Computed for this drive: ${readingWords(carrier, computed)}.`;
}

export const wheelName = (layout: Layout, i: number) => layout.wheels[i]?.name ?? `wheel ${i + 1}`;

export function clearanceWords(layout: Layout, c: Clearance): string {
  const strand = (i: number) =>
    `${wheelName(layout, i)}–${wheelName(layout, (i + 1) % layout.wheels.length)}`;
  switch (c.between.kind) {
    case 'strands':
      return `between the strands ${strand(c.between.spans[0])} and ${strand(c.between.spans[1])}`;
    case 'strand_wheel':
      return `between the strand ${strand(c.between.span)} and ${wheelName(layout, c.between.wheel)}`;
    case 'wheels': {
      const [i, j] = c.between.wheels;
      const rimmed = (k: number) =>
        `${(layout.wheels[k]?.rimMm ?? 0) > 0 ? 'the rim of ' : ''}${wheelName(layout, k)}`;
      return `between ${rimmed(i)} and ${rimmed(j)}`;
    }
  }
}

export function pathSentence(layout: Layout, e: PathError): string {
  const names = list(e.wheels.map((i) => wheelName(layout, i)));
  switch (e.code) {
    case 'too_few_wheels':
      return 'A drive needs at least two wheels.';
    case 'no_radius':
      return `${names} has no radius: give its teeth or its outside diameter.`;
    case 'wheels_overlap':
      return `${names} overlap by ${formatNumber(e.byMm, 1)} mm.`;
    case 'no_tangent':
      return `No straight strand can run between ${names}.`;
    case 'not_reached':
      return `The ${layout.kind} does not reach ${names} on the side given.`;
    case 'spans_cross':
      return `Strands cross at ${names}.`;
    case 'span_cuts_wheel':
      return `A strand cuts ${wheelName(layout, e.wheels[2] ?? 0)} by ${formatNumber(e.byMm, 1)} mm.`;
    case 'span_cuts_shoe':
      return `A strand passes through the surface of ${wheelName(layout, e.wheels[2] ?? 0)}.`;
    case 'off_shoe':
      return `The strand would leave ${names} ${formatNumber(e.byDeg, 1)}° beyond its end.`;
  }
}

export function settingsSentence(layout: Layout, e: SettingsError): string {
  switch (e.code) {
    case 'no_tensioner':
      return 'This layout has no adjustable tensioner.';
    case 'no_geometry':
      return `This layout cannot exist. ${pathSentence(layout, e.why)}`;
    case 'belt_too_long':
      return `The ${layout.kind} is ${formatNumber(e.byMm, 1)} mm too long for any setting.`;
    case 'belt_too_short':
      return `The ${layout.kind} is ${formatNumber(e.byMm, 1)} mm too short for any setting.`;
  }
}
