/**
 * Units and their exact factors. Each dimension has one base unit; values are kept in the base unit
 * and shown in any other. Factors: BIPM SI brochure (9th ed.) and NIST SP 811, appendix B.
 */
export const UNITS = {
  length: { base: 'mm', units: { mm: 1, cm: 10, m: 1000, in: 25.4 } },
  area: { base: 'mm²', units: { 'mm²': 1, 'cm²': 100 } },
  distance: { base: 'km', units: { km: 1, mi: 1.609344, m: 0.001 } },
  angle: { base: '°', units: { '°': 1, rad: 180 / Math.PI } },
  force: { base: 'N', units: { N: 1, kgf: 9.80665, lbf: 4.4482216152605 } },
  torque: {
    base: 'N·m',
    units: {
      'N·m': 1,
      'daN·m': 10,
      'cN·m': 0.01,
      'kgf·m': 9.80665,
      'kgf·cm': 0.0980665,
      'lbf·ft': 1.3558179483314,
      'lbf·in': 0.112984829027617,
    },
  },
  mass: { base: 'g', units: { g: 1, kg: 1000, oz: 28.349523125 } },
  time: { base: 's', units: { s: 1, ms: 0.001, min: 60, h: 3600 } },
  duration: { base: 'months', units: { months: 1, years: 12 } },
  frequency: { base: 'Hz', units: { Hz: 1 } },
  money: { base: 'AC', units: { AC: 1 } },
  temperature: { base: '°C', units: { '°C': 1, '°F': 1 } },
  difference: { base: 'K', units: { K: 1 } },
  teeth: { base: 'teeth', units: { teeth: 1 } },
  ratio: { base: '1', units: { '1': 1, '%': 0.01 } },
} as const satisfies Record<string, { base: string; units: Record<string, number> }>;

export type Dimension = keyof typeof UNITS;
export const DIMENSIONS = Object.keys(UNITS) as [Dimension, ...Dimension[]];

/** Spellings that people type, folded to the unit's symbol. Compared in lower case without spaces. */
const SPELLINGS: ReadonlyMap<string, string> = new Map([
  ...words('°', 'deg degree degrees'),
  ...words('in', '" inch inches ″'),
  ...words('km', 'kms kilometres kilometers'),
  ...words('mi', 'mile miles'),
  ...words('mm', 'millimetre millimetres millimeter millimeters'),
  ...words('N', 'newton newtons'),
  ...words('kgf', 'kp'),
  ...words('lbf', 'lb lbs'),
  ...words('°C', 'c degc celsius'),
  ...words('K', 'kelvin kelvins'),
  ...words('°F', 'f degf fahrenheit'),
  ...words('mm²', 'mm2 sqmm'),
  ...words('cm²', 'cm2 sqcm'),
  ...words('teeth', 'tooth t'),
  ...words('s', 'sec secs second seconds'),
  ...words('months', 'month mo'),
  ...words('years', 'year y yr yrs'),
]);

/** Torques, spelled by their letters alone: "lb·ft", "ft.lbf", "lb-ft" and "ft lb" are one. */
const TORQUES: ReadonlyMap<string, string> = new Map([
  ...words('N·m', 'nm newtonmetre newtonmetres newtonmeter newtonmeters'),
  ...words('daN·m', 'danm mdan'),
  ...words('cN·m', 'cnm ncm'),
  ...words('kgf·m', 'kgfm kgm kpm mkgf mkg mkp'),
  ...words('kgf·cm', 'kgfcm kgcm kpcm cmkgf cmkg cmkp'),
  ...words('lbf·ft', 'lbfft lbft lbsft ftlbf ftlb ftlbs footpound footpounds poundfoot poundfeet'),
  ...words('lbf·in', 'lbfin lbin lbsin inlbf inlb inlbs inchpound inchpounds poundinch poundinches'),
]);

function words(symbol: string, spellings: string): [string, string][] {
  return spellings.split(' ').map((s) => [s, symbol]);
}

/** Base unit symbol of a dimension. */
export function baseUnit(dimension: Dimension): string {
  return UNITS[dimension].base;
}

/** All unit symbols of a dimension, base first. */
export function unitsOf(dimension: Dimension): string[] {
  return Object.keys(UNITS[dimension].units);
}

/** The symbol that a typed unit means within a dimension, or undefined when it is none of its units. */
export function findUnit(dimension: Dimension, typed: string): string | undefined {
  const folded = typed.toLowerCase().replace(/\s/g, '');
  const letters = folded.replace(/[·⋅•.*×\-/]/g, '');
  const symbol =
    (dimension === 'torque' ? TORQUES.get(letters) : undefined) ?? SPELLINGS.get(folded) ?? folded;
  return unitsOf(dimension).find((u) => u.toLowerCase() === symbol.toLowerCase());
}

/** The dimension that a unit symbol belongs to, the first that has it; undefined for none. */
export const dimensionOf = (symbol: string): Dimension | undefined =>
  DIMENSIONS.find((d) => unitsOf(d).includes(symbol));

function factor(dimension: Dimension, unit: string): number {
  const f = (UNITS[dimension].units as Record<string, number>)[unit];
  if (f === undefined) throw new RangeError(`${unit} is not a unit of ${dimension}`);
  return f;
}

/** Converts a value in `unit` to the base unit of its dimension. @example toBase('length', 1, 'in') // 25.4 */
export function toBase(dimension: Dimension, value: number, unit: string): number {
  if (dimension === 'temperature') return unit === '°F' ? ((value - 32) * 5) / 9 : value;
  return value * factor(dimension, unit);
}

/** Converts a value in the base unit to `unit`. Inverse of {@link toBase}. */
export function fromBase(dimension: Dimension, value: number, unit: string): number {
  if (dimension === 'temperature') return unit === '°F' ? (value * 9) / 5 + 32 : value;
  return value / factor(dimension, unit);
}

/** Converts a standard uncertainty (a difference, so no offset) in `unit` to the base unit. */
export function spreadToBase(dimension: Dimension, u: number, unit: string): number {
  if (dimension === 'temperature') return unit === '°F' ? (u * 5) / 9 : u;
  return u * factor(dimension, unit);
}
