import { nth } from '@core/quantity/must';
import type { Pack } from '@core/catalogue/pack';
import { randomFrom } from '@core/quantity/random';

const SYLLABLES = [
  'CAR',
  'DOV',
  'FEN',
  'GOR',
  'HAL',
  'KEV',
  'LUM',
  'MOR',
  'NAD',
  'PEL',
  'QUO',
  'RAV',
  'SOL',
  'TUR',
  'VEN',
  'WEX',
];
const MAKERS = [
  ['TE', 'Tessarine'],
  ['BR', 'Brackwater'],
  ['OL', 'Oldhaven'],
  ['QU', 'Quillon'],
] as const;

/** A generated catalogue for measuring: `engines` engines with four variants each and `rows` applications. Same seed, same pack. */
export function largePack(engines: number, rows: number, seed = 7): Pack {
  const random = randomFrom(seed);
  const any = <T>(list: readonly T[]): T => nth(list, Math.floor(random() * list.length));
  const features: Pack['features'] = Array.from({ length: 12 }, (_, i) => ({
    id: `f${i}`,
    wording: `Feature ${i}`,
    say: `Please look at feature ${i}.`,
    look: nth(['phone', 'eye', 'cover', 'front'] as const, i % 4),
    options: ['a', 'b', 'c'].map((key) => ({ key, wording: key.toUpperCase() })),
  }));
  const pack: Pack = {
    format: 'hollow-sprocket-catalogue',
    formatVersion: 1,
    name: 'Generated',
    version: `${engines}`,
    issued: '2026-11-01',
    source: 'generated for measuring',
    engines: [],
    features,
    variants: [],
    layouts: [],
    parts: [],
    kits: [],
    applications: [],
    jobs: [],
    intervals: [],
    cross: [],
    procedures: [],
  };
  for (let e = 0; e < engines; e++) {
    const [short, maker] = nth(MAKERS, e % 4);
    const code = `${short}${10 + (e % 40)}-${any(SYLLABLES)}${any(SYLLABLES)}${e}`;
    pack.engines.push({
      code,
      maker,
      family: any(SYLLABLES),
      vehicles: [`${maker} ${any(SYLLABLES)}${e % 97}`],
      interference: 'unknown',
    });
    const first = e % 10;
    for (let v = 0; v < 4; v++) {
      const pickOption = (bit: number) => [nth(['a', 'b', 'c'], (v >> bit) & 1)];
      pack.variants.push({
        id: `${code}/${v}`,
        engine: code,
        name: `design ${v}`,
        share: 1 + Math.floor(random() * 9),
        built: { slackDays: 0 },
        markets: [],
        features: {
          [`f${first}`]: pickOption(0),
          [`f${first + 1}`]: pickOption(1),
          [`f${first + 2}`]: [any(['a', 'b', 'c'])],
        },
      });
    }
  }
  const kits = Math.ceil(rows / 10);
  for (let k = 0; k < kits; k++) {
    pack.parts.push({
      number: `GP${k}`,
      kind: 'belt',
      name: `Belt ${80 + (k % 150)} teeth`,
      attributes: { teeth: 80 + (k % 150), pitchMm: 8 },
    });
    pack.kits.push({
      number: `GK${k}`,
      name: `Kit ${k}`,
      revision: 1,
      options: [],
      status: 'current',
      contents: [{ part: `GP${k}`, quantity: 1 }],
      terms: { months: 24, km: 60000 },
    });
  }
  const seen = new Set<string>();
  for (let r = 0; pack.applications.length < rows; r++) {
    const variant = nth(pack.variants, r % pack.variants.length).id;
    const kit = `GK${Math.floor(random() * kits)}`;
    if (seen.has(`${kit} ${variant}`)) continue;
    seen.add(`${kit} ${variant}`);
    pack.applications.push({ kit, variant });
  }
  return pack;
}
