import Papa from 'papaparse';
import { demoPack } from '../../demo/catalogue';
import { nextDue } from '@core/catalogue/interval';
import { catalogueOf } from '@core/catalogue/find-records';
import { tableCells } from '@core/catalogue/tables';
import { METRIC } from '@core/facts/read-value';
import { jobList } from '@core/match/job-list';
import { writeCsv } from './csv';
import { readTableText } from '../workers/read-pack-files';
import { LABEL, type LabelModel, labelSvg } from './label';
import { breakLines, fitText, measureText } from './measure-text';
import { orderCsv } from './order-list';

const due = nextDue({ km: 120_000, months: 72 }, { day: '2026-03-04', km: 96_420 }, { day: '2026-11-25' });
const model = (more: Partial<LabelModel>): LabelModel => ({
  engine: 'TE16-CORM',
  vehicle: 'Tessarine Orchardman',
  fittedDay: '2026-03-04',
  fittedKm: 96_420,
  parts: ['Timing belt 121 teeth', 'Automatic eccentric tensioner'],
  due,
  step: 1000,
  ...more,
});

describe('the service label', () => {
  const longest = [
    model({}),
    model({
      vehicle: 'Brackwater Harbour pilot launch tender with the long trailer and the second axle of 2019',
      parts: demoPack()
        .parts.map((p) => p.name)
        .slice(0, 30),
      fittedKm: 2_999_999,
    }),
    model({
      vehicle: 'Wideworkshopvehiclenamewithoutanyblankatallthatgoesonandonandonandonandon',
      parts: [],
    }),
    model({ vehicle: 'WWWWWWWW WWWWWWWW WWWWWWWW WWWWWWWW', parts: ['WWWW WWWW WWWW WWWW WWWW WWWW WWWW'] }),
  ];

  it('keeps every text inside its box and off every other, whatever the names: positions read back', async () => {
    const measure = await measureText();
    for (const m of longest)
      for (const unit of ['km', 'mi']) {
        const holder = document.createElement('div');
        holder.innerHTML = labelSvg(m, { ...METRIC, units: { distance: unit } }, measure);
        document.body.append(holder);
        const boxes = [...holder.querySelectorAll('text')].map((t) => ({
          text: t.textContent,
          box: t.getBBox(),
        }));
        for (const { text, box } of boxes) {
          expect(box.x)
            .withContext(text)
            .toBeGreaterThan(LABEL.margin - 0.5);
          expect(box.x + box.width)
            .withContext(text)
            .toBeLessThan(LABEL.width - LABEL.margin + 0.5);
          expect(box.y + box.height)
            .withContext(text)
            .toBeLessThan(LABEL.height);
        }
        const baselines = [...holder.querySelectorAll('text')].map((t) => [
          Number(t.getAttribute('y')),
          Number(t.getAttribute('font-size')),
        ]);
        baselines.forEach(([y, size], i) => {
          const before = baselines[i - 1];
          if (before)
            expect(y! - size! * 0.75)
              .withContext(boxes[i]!.text)
              .toBeGreaterThan(before[0]!);
        });
        holder.remove();
      }
  });

  it('writes days that nobody can misread, and promises no more than the interval', async () => {
    const svg = labelSvg(model({}), METRIC, await measureText()).replace(/\u00a0/g, ' ');
    expect(svg).toContain('4 Mar 2026');
    expect(svg).toContain('216 000 km or 4 Mar 2032');
    expect(svg).not.toMatch(/\d{2}[./]\d{2}[./]\d{4}/);
  });
});

describe('text in lines', () => {
  // one unit a sign: widths can be counted
  const signs = (t: string) => t.length;
  it('is broken between words, inside a word that is too long, and cut at the smallest size', () => {
    expect(breakLines('aa bb cccc d', 5, signs)).toEqual(['aa bb', 'cccc', 'd']);
    expect(breakLines('abcdefgh ij', 3, signs)).toEqual(['abc', 'def', 'gh', 'ij']);
    const measure = (t: string, size: number) => t.length * size;
    expect(fitText('aaaa bbbb', { width: 10, lines: 1, sizes: [2, 1], weight: 400 }, measure)).toEqual({
      size: 1,
      lines: ['aaaa bbbb'],
    });
    expect(
      fitText('aaaa bbbb cccc', { width: 6, lines: 1, sizes: [2, 1], weight: 400 }, measure).lines,
    ).toEqual(['aaaa…']);
  });
});

describe('CSV that leaves the house', () => {
  it('cannot be taken for a formula by a spreadsheet, and numbers stay numbers', () => {
    const rows = [['=1+1', '+49', '-rail', '@home', '\tx', '\ry', 'plain', -3.5, 12, "it's"]];
    const [cells] = Papa.parse<string[]>(writeCsv(rows)).data;
    expect(cells!.slice(0, 6)).toEqual(["'=1+1", "'+49", "'-rail", "'@home", "'\tx", "'\ry"]);
    expect(cells!.slice(6)).toEqual(['plain', '-3.5', '12', "it's"]);
  });

  it('comes back from a catalogue table as it went, apostrophe off', () => {
    const cross = [{ number: '=SUM(1)', names: '-K1' }];
    const back = readTableText('cross', writeCsv(tableCells('cross', cross)));
    expect(back.rows).toEqual(cross);
  });

  it('lists every line of an order, read back cell by cell', () => {
    const pack = demoPack();
    const cat = catalogueOf(pack);
    const lines = jobList(cat, 'TE16-CORM/A', cat.kits.get('MF-K121-1'));
    const text = orderCsv(
      { tag: '2027', engine: 'TE16-CORM', variant: 'first', kit: 'MF-K121-1', today: '' },
      lines,
    );
    const { data } = Papa.parse<string[]>(text);
    expect(data.length).toBe(lines.length + 2);
    lines.forEach(({ item }, i) => {
      const row = data[i + 2]!;
      expect([row[0], row[2], Number(row[4]), Number(row[7]), Number(row[8])]).toEqual([
        '2027',
        item.item,
        item.quantity,
        item.costNow,
        item.costLater,
      ]);
    });
  });
});
