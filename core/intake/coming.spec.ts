import { registryFor, worldOf } from '@core/answer/world';
import { catalogueOf } from '@core/catalogue/find-records';
import { demoPack } from '../../demo/catalogue';
import type { IntakeContext } from './context';
import { readLabel } from './read-label';
import { readText } from './read-text';
import { recognise } from './recognise';
import { tableOf } from './table';

const catalogue = catalogueOf(demoPack());
const registry = registryFor(worldOf(catalogue));
const ctx: IntakeContext = {
  catalogue,
  registry,
  notation: { dateOrder: 'dmy', units: {} },
  today: '2026-11-25',
};

describe('what came in', () => {
  it('is recognised by how it begins, whatever its name says', () => {
    const of = (name: string, begins: string, type = '') => recognise({ name, type, begins });
    expect(of('x.json', '{"format": "hollow-sprocket-case", "edition": 2')).toBe('case');
    expect(of('x.txt', '{ "format":"hollow-sprocket-catalogue"')).toBe('catalogue');
    expect(of('x', '{"format":"hollow-sprocket-desk"')).toBe('desk');
    expect(of('filled.txt', '{\n "format": "hollow-sprocket-sheet",\n')).toBe('sheet');
    expect(of('bundle.bin', 'PK\u0003\u0004rest')).toBe('zip');
    expect(of('kits.csv', 'number,name,revision\nMF-1,a,1\n')).toBe('catalogue');
    expect(of('photo.JPG', '\u00ff\u00d8')).toBe('picture');
    expect(of('invoice.pdf', '%PDF-1.7')).toBe('paper');
    expect(of('m.eml', 'From: a\n\nhello')).toBe('mail');
    expect(of('note.txt', 'Belt is frayed, which kit?')).toBe('text');
    const rows = Array.from({ length: 20 }, (_, i) => `${i * 0.1};${Math.sin(i).toFixed(3)};0.2`).join('\n');
    expect(of('scope.csv', `Time;A;B\n(ms);(V);(V)\n\n${rows}\n`)).toBe('capture');
    expect(of('thing.bin', '\u0000\u0001\u0002')).toBe('unknown');
    expect(of('empty', '')).toBe('unknown');
  });

  it('may be a row of a sheet: one with its heading is a form, more are told by their number', () => {
    const head = 'Claim number;Kit;Distance now;Symptom;Fitted on';
    const one = tableOf(`${head}\nC-20500;MF-K121-1;96 420 km;Noise from the drive;30.07.2026`, registry);
    expect(one.kind).toBe('row');
    const read = readText(one.kind === 'row' ? one.text : '', ctx);
    const values = 'proposals' in read ? Object.fromEntries(read.proposals.map((p) => [p.key, p.value])) : {};
    expect(values).toEqual(
      jasmine.objectContaining({
        'claim.number': 'C-20500',
        'kit.number': 'MF-K121-1',
        'vehicle.odometer': 96420,
        symptom: 'noise',
        'kit.fitted': '2026-07-30',
      }),
    );
    expect(tableOf(`${head}\na;b;c;d;e\nf;g;h;i;j\n`, registry)).toEqual({
      kind: 'rows',
      texts: [jasmine.any(String), jasmine.any(String)],
      known: 5,
    });
    expect(tableOf('Hi, the belt, the roller, the pump\nare all worn, noisy, leaking', registry).kind).toBe(
      'none',
    );
    expect(tableOf('one line only', registry).kind).toBe('none');
  });

  it('may be a form: a value that its field does not take is left as words', () => {
    const read = readText('Distance now: far too much\nKit: MF-K123-1\nSymptom: Leak', ctx);
    const keys = 'proposals' in read ? read.proposals.map((p) => [p.key, p.value, p.sure]) : [];
    expect(keys).toContain(['kit.number', 'MF-K123-1', 'sure']);
    expect(keys).toContain(['symptom', 'leak', 'sure']);
    expect(keys.some(([k]) => k === 'vehicle.odometer')).toBeFalse();
  });

  it('may be a label: kit or part with its lot, however it is separated; nothing of the catalogue is nothing', () => {
    const of = (text: string) => readLabel(text, ctx)?.map((f) => [f.key, f.about, f.value]);
    const kit = [
      ['kit.number', undefined, 'MF-K121-1'],
      ['kit.lot', undefined, 'L2507'],
    ];
    for (const text of ['MF-K121-1 L2507', 'mfk1211|L2507', 'L2507;MF-K121-1', 'MF-K121-1\u001dL2507'])
      expect(of(text)).withContext(text).toEqual(kit);
    for (const text of ['ALD 121.A', 'ALD121.A'])
      expect(of(text))
        .withContext(text)
        .toEqual([['kit.number', undefined, 'MF-K121-1']]);
    expect(of('MF-ET58-A L1')).toEqual([['thing.number', 'tensioner', 'MF-ET58-A']]);
    expect(of('MF-GR48 LOT:L24310')).toEqual([
      ['thing.number', 'roller', 'MF-GR48'],
      ['thing.lot', 'roller', 'L24310'],
    ]);
    expect(of('TE16-CORM')).toBeUndefined();
    expect(of('4006381333931')).toBeUndefined();
  });
});

describe('a vehicle in a message', () => {
  const vehicle = (text: string) => {
    const read = readText(text, ctx);
    const found = 'proposals' in read ? read.proposals.find((p) => p.key === 'vehicle.name') : undefined;
    return found && [found.value, found.sure];
  };

  it('is sure by its whole name, the longest of them; likely by maker and the first word, or by its model with an article', () => {
    expect(vehicle('Oldhaven Saltway Pickup, belt is off')).toEqual(['Oldhaven Saltway Pickup', 'sure']);
    expect(vehicle('an Oldhaven Saltway came in')).toEqual(['Oldhaven Saltway', 'sure']);
    expect(vehicle('the Quillon Haymaker rattles when cold')).toEqual([
      'Quillon Haymaker orchard truck',
      'likely',
    ]);
    expect(vehicle('my saltway rattles when cold')).toEqual(['Oldhaven Saltway', 'likely']);
    expect(vehicle('Saltway rattles when cold')).toEqual(['Oldhaven Saltway', 'likely']);
  });

  it('is none where the word is not called one: small and bare, or a part of a longer name', () => {
    expect(vehicle('it stands at saltway rattling')).toBeUndefined();
    expect(vehicle('Saltway Bus Depot wants a kit')).toBeUndefined();
    expect(vehicle('the belt is off')).toBeUndefined();
  });
});

describe('a file of numbers', () => {
  const rows = (n: number) => Array.from({ length: n }, (_, i) => `${i};${i * 2}`).join('\n');
  const kind = (begins: string) => recognise({ name: 'x.csv', type: '', begins });

  it('is a recording from eight rows on, behind at most eight lines of headings', () => {
    expect(kind(`t;v\n${rows(8)}\n`)).toBe('capture');
    expect(kind(`t;v\n${rows(7)}\n`)).toBe('text');
    const head = (n: number) => Array.from({ length: n }, (_, i) => `Heading ${'a'.repeat(i)}`).join('\n');
    expect(kind(`${head(8)}\n${rows(9)}\n`)).toBe('capture');
    expect(kind(`${head(9)}\n${rows(9)}\n`)).toBe('text');
    // One column alone is a list, not a recording.
    expect(kind(`${Array.from({ length: 12 }, (_, i) => i).join('\n')}\n`)).toBe('text');
  });
});
