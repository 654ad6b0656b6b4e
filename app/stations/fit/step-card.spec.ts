import { TestBed } from '@angular/core/testing';
import { CaseDesk } from '../../data/case-desk';
import { closeDesk, openDesk, paint, until } from '../../testing/demo-desk';
import { gatesWords, wantedWords } from '../../messages/fitting';
import { CheckPanel } from './check-panel';
import { FitStore } from './fit-store';
import { FoundCard } from './found-card';
import { StepCard } from './step-card';

describe('one step of a fitting', () => {
  let desk: CaseDesk;
  beforeEach(async () => (desk = await openDesk(true, [FitStore])));
  afterEach(closeDesk);
  const sheet = () => desk.current()!.answers!.sheet!;
  const step = (id: string) => sheet().steps.find((s) => s.id === id)!;
  const card = (id: string) => paint(StepCard, { step: step(id), sheet: sheet() });

  it('says what must be true before and why, what proves it, and what leaving it out leads to, on every step of a drive', async () => {
    await desk.open('demo-2033');
    for (const s of sheet().steps) {
      const page = await card(s.id);
      expect(page.words).toContain(s.text);
      if (s.proof) expect(page.words).toContain(s.proof.text);
      if (s.caution) expect(page.words).toContain(s.caution);
      for (const code of Object.values(s.faults ?? {})) expect(page.words).toContain(code);
      for (const r of gatesWords(s, sheet()).reasons) expect(page.words).toContain(`${r.steps} ${r.why}`);
      for (const a of s.proof?.asks ?? []) expect(page.words).toContain(wantedWords(a));
      expect(page.words).not.toMatch(/\{\w+\}|undefined/);
      page.fixture.destroy();
    }
  });

  it('shows what hands do, played or taken by hand, and stands at its end until then', async () => {
    await desk.open('demo-2033');
    TestBed.inject(FitStore).pick('verify.turn');
    const page = await card('verify.turn');
    const cam = () => page.all('hs-step-stage svg > g > g')[1]!.getAttribute('transform');
    const [play] = page.all('hs-step-stage button');
    const end = cam();
    TestBed.inject(FitStore).pick('bolt');
    await page.fixture.whenStable();
    expect(page.all('hs-step-stage button').length).toBe(0);
    TestBed.inject(FitStore).pick('verify.turn');
    await page.fixture.whenStable();
    page.all('hs-step-stage button')[0]!.click();
    expect(play).toBeDefined();
    await until(() => (page.fixture.detectChanges(), cam() !== end));
    // stopped, it stays where it is
    page.all('hs-step-stage button')[0]!.click();
    await page.fixture.whenStable();
    const at = cam();
    await new Promise(requestAnimationFrame);
    await new Promise(requestAnimationFrame);
    expect(cam()).toBe(at);
  });

  it('takes a figure and a place as told; one that cannot be is refused, and nothing is filed', async () => {
    await desk.open('demo-2033');
    const page = await card('tension');
    const type = async (label: string, text: string) => {
      const field = page.all('hs-short-field').find((f) => f.textContent.includes(label))!;
      const box = field.querySelector('input')!;
      box.value = text;
      box.dispatchEvent(new Event('change'));
      await page.fixture.whenStable();
    };
    const facts = desk.current()!.state.log.length;
    await type('Reading when set', '9000');
    await type('Reading when set', 'tight');
    await type('Done as number', '0');
    await type('Done as number', '2,5');
    expect(desk.current()!.state.log.length).toBe(facts);
    await type('Reading when set', '140');
    const said = () => desk.current()!.answers!.fitted?.said.get('tension');
    await until(() => said()?.values['ptr'] === 140);
    // A reading far outside the window is the fault of the step.
    expect(desk.current()!.answers!.fitted!.faults.map((f) => [f.code, f.step])).toContain([
      'SET-WAY',
      'tension',
    ]);
    await type('Done as number', '1');
    await until(() => said()?.place === 1);
    const found = await paint(FoundCard);
    expect(found.words).toContain('SET-WAY');
    expect(found.words).toContain('140');
  });

  it('is checked by what the sheet says: links where they can be counted, turns, tools, marks', async () => {
    await desk.open('demo-2036');
    const page = await paint(CheckPanel);
    const lines = page.all('.plain li').map((l) => l.textContent.trim());
    expect(lines.some((l) => l.includes('count the links between the marks'))).toBeTrue();
    expect(lines.some((l) => l.includes('Turn by hand 2 turns'))).toBeTrue();
    for (const l of lines)
      expect(sheet().steps.some((s) => l === `${s.number}. ${s.text}`))
        .withContext(l)
        .toBeTrue();
    await desk.open('demo-2041');
    expect((await paint(CheckPanel)).all('.plain li').length).toBe(0);
    expect(TestBed.inject(CaseDesk)).toBe(desk);
  });
});
