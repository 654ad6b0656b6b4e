import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import qrcode from 'qrcode-generator';
import { factsOf, textOf } from '@core/facts/read';
import { type SheetAnswers, writeCode } from '@core/fitting/sheet-code';
import { sheetQuestions, caseMark, checkOf, sheetDigest, type SheetReturn } from '@core/fitting/sheet-return';
import type { CaseDesk } from '../data/case-desk';
import { closeDesk, openDesk, until } from '../testing/demo-desk';
import { readQr } from './read-qr';
import { SheetReturns } from './sheet-returns';
import { Incoming } from './incoming';

const CASE = 'demo-2036';

/** A picture of a square code, as a telephone shows it. */
async function photo(text: string): Promise<Blob> {
  const qr = qrcode(0, 'M');
  qr.addData(text.replace(/ /g, ''), 'Alphanumeric');
  qr.make();
  const [cell, edge] = [6, 40];
  const size = qr.getModuleCount() * cell + 2 * edge;
  const canvas = new OffscreenCanvas(size, size);
  const paint = canvas.getContext('2d')!;
  paint.fillStyle = '#f4f1ea';
  paint.fillRect(0, 0, size, size);
  paint.fillStyle = '#202020';
  for (let r = 0; r < qr.getModuleCount(); r++)
    for (let c = 0; c < qr.getModuleCount(); c++)
      if (qr.isDark(r, c)) paint.fillRect(edge + c * cell, edge + r * cell, cell, cell);
  return canvas.convertToBlob({ type: 'image/png' });
}

describe('a filled sheet at the door', () => {
  let desk: CaseDesk;
  beforeEach(async () => (desk = await openDesk()));
  afterEach(closeDesk);
  const state = () => desk.current()!.state;

  /** The sheet of the case, all done but one step. */
  async function filled(left: RegExp): Promise<{ file: string; code: string }> {
    await desk.open(CASE);
    const sheet = desk.current()!.answers!.sheet!;
    const went = (id: string) => (left.test(id) ? ('skipped' as const) : ('done' as const));
    let place = 0;
    const rest: Omit<SheetReturn, 'check'> = {
      format: 'hollow-sprocket-sheet',
      formatVersion: 1,
      case: CASE,
      tag: '2036',
      sheet: sheetDigest(sheet),
      fitter: 'Wren Oxley',
      day: '2026-11-26',
      steps: sheet.steps.map((s) =>
        went(s.id) === 'skipped'
          ? { id: s.id, state: 'skipped' }
          : { id: s.id, state: 'done', place: ++place },
      ),
    };
    const steps: SheetAnswers[] = sheet.steps.map((s) => ({
      state: went(s.id),
      values: (s.proof?.asks ?? []).map(() => undefined),
    }));
    const code = writeCode({ sheet: rest.sheet, case: caseMark(CASE), steps }, sheetQuestions(sheet.steps));
    return { file: JSON.stringify({ ...rest, check: checkOf(rest) }), code };
  }

  it('opens its case from the start page, whether it came as a file, as a typed code or as a picture', async () => {
    const { file, code } = await filled(/^build\.release/);
    const picture = new File([await photo(code)], 'photo.png', { type: 'image/png' });
    const ways: (() => Promise<unknown>)[] = [
      () =>
        TestBed.inject(Incoming).files([
          new File([file], 'filled-sheet-2036.json', { type: 'application/json' }),
        ]),
      () => TestBed.inject(Incoming).text(code.toLowerCase()),
      () => TestBed.inject(SheetReturns).file(picture),
    ];
    for (const way of ways) {
      await desk.open(undefined);
      if (way === ways[2]) await desk.open(CASE);
      await way();
      await until(() => desk.current()?.answers?.fitted?.faults.some((f) => f.code === 'REL-NONE') === true);
      if (way !== ways[2]) expect(TestBed.inject(Router).url).toBe(`/case/${CASE}/fit`);
      expect(textOf(state(), 'claim.sheet')).toBe('yes');
      expect(factsOf(state(), 'fit.sheet_back').length).toBe(1);
      await desk.undo();
      await until(() => desk.current()!.answers!.fitted === undefined);
      expect(factsOf(state(), 'fit.sheet_back').length).toBe(0);
    }
  });

  it('is not taken into another case that is in hand, nor where its case is not here; a picture without a code says so', async () => {
    const { file, code } = await filled(/^close/);
    const returns = TestBed.inject(SheetReturns);
    await desk.open('demo-2027');
    const facts = state().log.length;
    expect(await returns.text(file)).toContain('case 2036');
    expect(await returns.text(code)).toContain('case 2036');
    const foreign = JSON.parse(file) as SheetReturn;
    const { check, ...rest } = { ...foreign, case: 'elsewhere' };
    expect(check).toMatch(/^[0-9a-f]{64}$/);
    await desk.open(undefined);
    expect(await returns.text(JSON.stringify({ ...rest, check: checkOf(rest) }))).toContain('No case here');
    await desk.open('demo-2027');
    expect(state().log.length).toBe(facts);
    const blank = new OffscreenCanvas(200, 200);
    blank.getContext('2d')!.fillRect(0, 0, 50, 50);
    const picture = new File([await blank.convertToBlob()], 'nothing.png', { type: 'image/png' });
    expect(await returns.file(picture)).toContain('No code was found on nothing.png');
    const broken = new File(['no picture at all'], 'broken.png', { type: 'image/png' });
    expect(await returns.file(broken)).toContain('No code was found on broken.png');
  });

  it('a square code is read off a picture as it was written, and off none there is nothing', async () => {
    const text = 'HS1 RQ9W E3G4 TM00 2000 0000';
    expect(await readQr(await photo(text))).toBe(text.replace(/ /g, ''));
    expect(await readQr(new Blob(['x']))).toBeUndefined();
  });
});
