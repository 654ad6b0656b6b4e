import { catalogueOf, stagesFor } from '@core/catalogue/find-records';
import { typedSense } from '@core/drive/sense';
import { sheetFor } from '@core/fitting/sheet';
import { spring, trapsOf } from '@core/practice/fitting';
import { calibration } from '@core/practice/record';
import { demoPack } from '../../demo/catalogue';
import {
  agreementWords,
  calibrationWords,
  fairnessWords,
  minutesBesideWords,
  patienceWords,
} from './practice';
import { sprungWords, trapWords } from './trainer';

const cat = catalogueOf(demoPack());
const BROKEN = /[{}]|undefined|NaN|\bnull\b|\[object/;

describe('what follows of a sprung trap', () => {
  it('is said whole for every trap of every procedure, and names no sense that its sheet does not', () => {
    let said = 0;
    for (const v of cat.pack.variants) {
      const stages = v.layout === undefined ? [] : stagesFor(cat, v.layout);
      const sheet = sheetFor(cat, v, stages);
      if (sheet.status !== 'ready') continue;
      const own = sheet.steps.map((s) => JSON.stringify(s)).join(' ') + JSON.stringify(sheet.gates);
      for (const trap of trapsOf(sheet, stages)) {
        const at = sheet.steps.findIndex((s) => s.id === trap.step);
        const r = spring(
          sheet,
          stages,
          trap,
          sheet.steps.slice(0, at).map((s) => s.id),
        );
        const lines = [trapWords(trap, sheet), ...sprungWords(r, sheet)];
        expect(lines.length).withContext(`${v.id} ${trap.step}`).toBeGreaterThan(1);
        for (const line of lines) {
          expect(line).withContext(`${v.id} ${trap.step}`).not.toMatch(BROKEN);
          expect(line)
            .withContext(`${v.id} ${trap.step}`)
            .toMatch(/^[A-Z“0-9].*/);
          // a sense is the sheet's own, computed of the drive; none is typed into these words
          if (typedSense(line)) expect(own.includes('clockwise')).withContext(line).toBeTrue();
        }
        said++;
      }
    }
    expect(said).toBeGreaterThan(1000);
  });
});

describe('words on practice', () => {
  it('judge nothing where nothing is decided, and carry units where something is', () => {
    expect(calibrationWords(calibration([]))).not.toMatch(/%|\d/);
    expect(agreementWords({ n: 0, observed: 0, expected: 0, apart: [] }, 'Bram')).not.toMatch(/%|κ/);
    expect(minutesBesideWords(12, 8)).toMatch(/12 min.*4 minutes/);
    expect(minutesBesideWords(8, 8)).not.toMatch(/more/);
    expect(patienceWords(0)).not.toMatch(/\d/);
    for (const by of ['fitter', 'supplier', 'engine', 'owner', 'carrier', 'dealer', 'nobody'] as const)
      expect(fairnessWords({ by, truly: by, fair: true })).not.toMatch(BROKEN);
  });
});
