import { type Pack, PackSchema } from '@core/catalogue/pack';
import { singleCam } from './layouts';
import procedures from './data/procedures.json';

const kit = (number: string, name: string, belt: string, tensioner: string, guide: string) => ({
  number,
  name,
  contents: [belt, tensioner, guide, 'MF-SB10-55'].map((part) => ({ part, quantity: 1 })),
  terms: { months: 24, km: 60000 },
});
const belt = (teeth: number) => ({
  number: `MF-TB${teeth}-22`,
  kind: 'belt' as const,
  name: `Timing belt ${teeth} teeth`,
  attributes: { teeth, pitchMm: 8, widthMm: 22, profile: 'rounded' },
});

/** The invented catalogue: one family of belt engines with its kits. */
export function demoPack(): Pack {
  return PackSchema.parse({
    format: 'hollow-sprocket-catalogue',
    formatVersion: 1,
    name: 'Marrowfen',
    version: '2026.3',
    issued: '2026-09-01',
    source: 'Marrowfen Drive Parts, invented demonstration data',
    engines: [
      {
        code: 'TE16-CORM',
        maker: 'Tessarine',
        family: 'Cormorant',
        vehicles: ['Tessarine Orchardman', 'Tessarine Causeway school bus'],
        interference: 'yes',
      },
      {
        code: 'TE14-CORM',
        maker: 'Tessarine',
        family: 'Cormorant',
        vehicles: ['Tessarine Dinghy van'],
        interference: 'unknown',
      },
    ],
    features: [
      {
        id: 'cover-screws',
        wording: 'Screws of the upper cover',
        say: 'Please count the screws round the upper belt cover: five or seven?',
        look: 'eye',
        options: [
          { key: 'five', wording: 'Five' },
          { key: 'seven', wording: 'Seven' },
        ],
      },
      {
        id: 'guide-roller',
        wording: 'Lower guide roller',
        say: 'With the cover off: is the lower guide roller steel and shiny, or black plastic?',
        look: 'cover',
        options: [
          { key: 'steel', wording: 'Steel, 48 mm' },
          { key: 'plastic', wording: 'Black plastic, 58 mm' },
        ],
      },
    ],
    variants: [
      {
        id: 'TE16-CORM/A',
        engine: 'TE16-CORM',
        name: 'first design, 121 teeth',
        share: 62,
        built: { to: '2019-06-30', slackDays: 120 },
        features: { 'cover-screws': ['five'], 'guide-roller': ['steel'] },
        layout: 'corm-121',
        procedure: 'corm-belt',
      },
      {
        id: 'TE16-CORM/B',
        engine: 'TE16-CORM',
        name: 'second design, 123 teeth',
        share: 38,
        built: { from: '2019-05-01', slackDays: 120 },
        features: { 'cover-screws': ['seven'], 'guide-roller': ['plastic'] },
        layout: 'corm-123',
        procedure: 'corm-belt',
      },
      {
        id: 'TE14-CORM/A',
        engine: 'TE14-CORM',
        name: 'low block, 117 teeth',
        share: 100,
        built: { from: '2016-01-01', slackDays: 60 },
        features: { 'cover-screws': ['five'], 'guide-roller': ['steel'] },
        layout: 'corm-117',
        procedure: 'corm-belt',
      },
    ],
    layouts: [
      singleCam({
        id: 'corm-121',
        count: 121,
        camY: 330,
        guide: { x: -78, y: 92, outsideMm: 24 },
        pumpX: 52,
        pivot: { x: -70, y: 160 },
        nominalCarrierDeg: 52,
      }),
      singleCam({
        id: 'corm-123',
        count: 123,
        camY: 330,
        guide: { x: -80, y: 100, outsideMm: 29 },
        pumpX: 52,
        pivot: { x: -60, y: 170 },
        nominalCarrierDeg: 68,
      }),
      singleCam({
        id: 'corm-117',
        count: 117,
        camY: 314,
        guide: { x: -78, y: 92, outsideMm: 24 },
        pumpX: 52,
        pivot: { x: -70, y: 160 },
        nominalCarrierDeg: 52,
      }),
    ],
    parts: [
      belt(117),
      belt(121),
      belt(123),
      {
        number: 'MF-ET58-A',
        kind: 'tensioner',
        name: 'Automatic eccentric tensioner 58 mm',
        attributes: { outsideMm: 58, boltM: 10, tab: 'left' },
      },
      {
        number: 'MF-ET58-B',
        kind: 'tensioner',
        name: 'Automatic eccentric tensioner 58 mm, tab right',
        attributes: { outsideMm: 58, boltM: 10, tab: 'right' },
      },
      { number: 'MF-GR48', kind: 'idler', name: 'Guide roller 48 mm, steel', attributes: { outsideMm: 48 } },
      {
        number: 'MF-GR58',
        kind: 'idler',
        name: 'Guide roller 58 mm, plastic',
        attributes: { outsideMm: 58 },
      },
      {
        number: 'MF-SB10-55',
        kind: 'bolt',
        name: 'Bolt M10 × 55, single use',
        attributes: { boltM: 10, lengthMm: 55 },
      },
    ],
    kits: [
      kit('MF-K121-1', 'Belt kit 121 teeth', 'MF-TB121-22', 'MF-ET58-A', 'MF-GR48'),
      kit('MF-K123-1', 'Belt kit 123 teeth', 'MF-TB123-22', 'MF-ET58-B', 'MF-GR58'),
      kit('MF-K117-1', 'Belt kit 117 teeth', 'MF-TB117-22', 'MF-ET58-A', 'MF-GR48'),
    ],
    applications: [
      { kit: 'MF-K121-1', variant: 'TE16-CORM/A' },
      { kit: 'MF-K123-1', variant: 'TE16-CORM/B' },
      { kit: 'MF-K117-1', variant: 'TE14-CORM/A' },
    ],
    procedures,
  });
}
