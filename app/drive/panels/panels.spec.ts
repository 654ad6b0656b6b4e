import { TestBed } from '@angular/core/testing';
import { closeDesk, openDesk, paint, until } from '../../testing/demo-desk';
import type { CaseDesk } from '../../data/case-desk';
import { DriveStore } from '../drive-store';
import { ValveBand } from '../valve-band';
import { EditPanel } from './edit-panel';
import { HeadsPanel } from './heads-panel';
import { DriveHeatPanel } from './heat-panel';
import { MarksPanel } from './marks-panel';
import { SettingPanel } from './setting-panel';
import { StrandsPanel } from './strands-panel';
import { TablePanel } from './table-panel';
import { ValvesPanel } from './valves-panel';
import { WearPanel } from './wear-panel';
import { standing as standingOf } from '@core/facts/read';

describe('the drive bench', () => {
  let desk: CaseDesk;
  let store: DriveStore;
  const standing = (key: string, about?: string) => standingOf(desk.current()!.state, key, about);

  beforeEach(async () => {
    desk = await openDesk(true, [DriveStore]);
    store = TestBed.inject(DriveStore);
  });
  afterEach(closeDesk);

  it('begins with the case’s own drive, and is free where there is none', async () => {
    expect(store.inCase()).toBeFalse();
    expect(store.layout()?.id).toBe('corm-121');
    await desk.open('demo-2036');
    expect(store.layout()?.id).toBe('stoat-a');
    expect(store.inCase()).toBeTrue();
    store.pick('vasker-a');
    expect(store.inCase()).toBeFalse();
    expect(store.stages().map((s) => s.layout.id)).toEqual(['vasker-a', 'vasker-a-left', 'vasker-a-right']);
  });

  it('takes back knob by knob, not movement by movement', () => {
    for (const mm of [0.1, 0.2, 0.3]) store.set({ nearerMm: { head: mm } });
    store.set({ elongation: 0.001 });
    store.undo();
    expect(store.what()).toEqual(jasmine.objectContaining({ elongation: 0, nearerMm: { head: 0.3 } }));
    store.undo();
    expect(store.changed()).toBeFalse();
    expect(store.past().length).toBe(0);
  });

  it('keeps the picture while a value cannot be, and names the wheel at fault', () => {
    store.pick('stoat-a');
    store.set({ elongation: 0.03 });
    expect(store.present()!.ok).toBeFalse();
    expect(store.state()?.layout.id).toBe('stoat-a');
    expect([...store.faulty()]).toEqual(['arm']);
    store.reset();
    expect(store.faulty().size).toBe(0);
  });

  it('compares with a kept state instead of the one as made', () => {
    store.set({ elongation: 0.0005 });
    store.keep();
    store.set({ elongation: 0.001 });
    const [kept, now] = [store.compared()!.setting!.reading, store.state()!.setting!.reading];
    expect(kept).toBeLessThan(now);
    store.reset();
    expect(store.compared()!.setting!.reading).toBeCloseTo(90, 1);
  });

  describe('setting', () => {
    it('offers both ways round, holds the tensioner and says how slack that is', async () => {
      const panel = await paint(SettingPanel);
      expect(panel.words).toContain('Pointer 90.0°, in its window');
      await panel.press('Draw this one');
      expect(store.what().wrongWay).toBeTrue();
      await panel.type('Held at', '60');
      expect(panel.words).toMatch(/▲ \d+\.\d\d mm slack/);
      await panel.type('Held at', '130');
      expect(panel.words).toMatch(/▲ \d+\.\d\d mm too short/);
      await panel.press('Let it follow');
      expect(panel.words).toContain('belt and path are equally long');
    });

    it('files what the returned part shows, with the reading behind it', async () => {
      await desk.open('demo-2027');
      const panel = await paint(SettingPanel);
      await panel.press('File: it shows the wrong way round');
      await until(() => standing('drive.setting_shown') !== undefined);
      expect(standing('drive.setting_shown')).toEqual(
        jasmine.objectContaining({
          value: 'wrong_way',
          how: 'computed',
          basis: [standing('tensioner.pointer')!.id],
        }),
      );
    });

    it('judges a stand-out from two lengths with both uncertainties', async () => {
      store.pick('stoat-a');
      const panel = await paint(SettingPanel);
      // nothing is judged before both lengths are there
      expect(panel.words).not.toMatch(/\d ± 0\.04/);
      await panel.type('Overall', '61');
      expect(panel.words).not.toMatch(/\d ± 0\.04/);
      await panel.type('Body alone', '52');
      expect(panel.words).toMatch(/9\.00 ± 0\.04 mm: ✓/);
      await panel.type('Overall', '58');
      expect(panel.words).toMatch(/6\.00 ± 0\.04 mm: \?/);
      await panel.type('Overall', '55');
      expect(panel.words).toMatch(/3\.00 ± 0\.04 mm: ▲/);
      // inches are read like anything else; what cannot be read takes the verdict away with it
      await panel.type('Overall', '2.4016 in');
      expect(panel.words).toMatch(/9\.00 ± 0\.04 mm: ✓/);
      await panel.type('Overall', '61 ells');
      expect(panel.words).not.toMatch(/\d ± 0\.04/);
    });
  });

  describe('marks', () => {
    it('say go for what geometry brings and no go for a tooth, before and without a case', async () => {
      store.pick('fletcher-a');
      const panel = await paint(MarksPanel);
      expect(panel.words).toContain('come back in line after 211 turns');
      store.tried.set({ 'right-upper': 0.5 });
      await panel.fixture.whenStable();
      expect(panel.words).toMatch(/Go so far, 1 of 4 marks/);
      store.tried.set({ 'right-upper': 0.5, 'left-upper': -1 });
      await panel.fixture.whenStable();
      expect(panel.words).toContain('✕ 1 tooth out, retarded');
      expect(panel.words).toMatch(/No go, 2 of 4 marks/);
      expect(panel.words).toContain('Never turn one shaft alone');
      expect(panel.words).not.toContain('File:');
    });

    it('draw what one tooth looks like', async () => {
      store.pick('fletcher-a');
      const before = store.state()!.phases.find((p) => p.wheel === 5)!.wheelDeg;
      const panel = await paint(MarksPanel);
      const row = panel.all('.one').find((r) => r.textContent.includes('Left upper cam'))!;
      row.querySelectorAll('button')[1]!.click();
      expect(store.state()!.phases.find((p) => p.wheel === 5)!.wheelDeg - before).toBeCloseTo(9, 9);
    });
  });

  describe('heads', () => {
    it('show each cam’s phase, the idlers in order, and the one that does not reach', async () => {
      store.pick('fletcher-a');
      const panel = await paint(HeadsPanel);
      await panel.type('Left head nearer by', '1');
      await panel.type('Right head nearer by', '1');
      expect(panel.words).toMatch(/Right upper cam\s*−2\.98\s*−5\.95\s*−0\.331/);
      await panel.press('Compute and set');
      expect(store.what().idlers['idler-right']).toBe(180);
      expect(panel.all('li').map((l) => l.textContent.includes('out of range'))).toEqual([false, true]);
    });

    it('work back from marks to millimetres and file them with their uncertainty', async () => {
      await desk.open('demo-2044');
      for (const [id, teeth] of [
        ['left-lower', -0.08],
        ['left-upper', -0.08],
        ['right-upper', 0.13],
        ['right-lower', -0.29],
      ] as const)
        await desk.file({ key: `mark.${id}`, value: teeth, u: 0.02, how: 'measured' });
      const panel = await paint(HeadsPanel);
      await panel.press('File it');
      await until(() => standing('bank.nearer', 'bank:right') !== undefined);
      expect(Number(standing('bank.nearer', 'bank:left')!.value)).toBeCloseTo(0.97, 1);
      expect(standing('bank.nearer', 'bank:left')!.u!).toBeGreaterThan(0.05);
      expect(standing('bank.nearer', 'bank:left')!.basis?.length).toBe(4);
    });

    it('say what is missing, and where there is nothing to machine', async () => {
      store.pick('fletcher-a');
      const panel = await paint(HeadsPanel);
      expect(panel.words).toContain('Enter the offsets of at least 2 marks; none is here.');
      store.pick('brine-b');
      store.pickStage(1);
      await panel.fixture.whenStable();
      expect(panel.words).toContain('no head that could come nearer');
    });
  });

  describe('wear', () => {
    it('adds all stages to a cam and names the limit', async () => {
      store.pick('vasker-a');
      store.set({ elongation: 0.004 });
      const panel = await paint(WearPanel);
      expect(panel.words).toContain('Within the limit of 0.50 %');
      const rows = panel.all('tbody tr').map((r) => r.textContent.trim());
      expect(rows.length).toBe(4);
      for (const r of rows) expect(Number(/−\d+\.\d+$/.exec(r)![0].replace('−', '-'))).toBeLessThan(-3);
      store.set({ elongation: 0.006 });
      await panel.fixture.whenStable();
      expect(panel.words).toContain('▲ Past the limit');
    });

    it('leaves guide wear with an interval, and files it on the three facts it stands on', async () => {
      await desk.open('demo-2036');
      const panel = await paint(WearPanel);
      expect(panel.words).toMatch(/As even wear of the guides it is 3\.\d* ± 0\.\d+ mm/);
      await panel.press('File the guide wear');
      await until(() => standing('guide.wear') !== undefined);
      expect(standing('guide.wear')!.basis?.length).toBe(3);
    });
  });

  it('heat: warns of a setting made warm, and computes the wait', async () => {
    const panel = await paint(DriveHeatPanel);
    await panel.type('Engine at', '90');
    expect(panel.words).toMatch(/A setting made at 90 °C and held leaves 0\.\d\d mm slack when cold/);
    expect(panel.words).not.toMatch(/Wait \d/);
    for (const [label, value] of [
      ['First reading', '78'],
      ['Minutes between', '20'],
      ['Air', '18'],
      ['Second reading', '79'],
    ] as const)
      await panel.type(label, value);
    expect(panel.words).toContain('The second reading is not cooler');
    await panel.type('Second reading', '48');
    // τ = 20/ln(60/30) = 28.9 min; τ·ln(30/5) = 51.7 min
    expect(panel.words).toMatch(/Wait 52 ± \d+ min more/);
  });

  it('valves: a quarter turn is safe on this engine, and one tooth early meets nothing while two do', async () => {
    const panel = await paint(ValvesPanel);
    expect(panel.words).toContain('26° to 154°');
    const intake = panel.all('tbody tr').find((r) => r.textContent.includes('intake'))!;
    expect([...intake.querySelectorAll('td')].map((c) => c.textContent.includes('✕'))).toEqual([
      false,
      false,
      false,
      false,
      true,
      false,
    ]);
    const band = await paint(ValveBand);
    expect(band.words).toContain('▲ crank at 0°');
    store.driverDeg.set(90);
    await band.fixture.whenStable();
    expect(band.words).toContain('✓ crank at 90°: no piston can reach a valve');
    const { valves: known, ...bare } = store.layout()!;
    expect(known).toBeDefined();
    store.take(bare);
    await band.fixture.whenStable();
    expect(band.words).toContain('counts as an interference engine at every angle');
  });

  it('strands: one measurement in all four ways, and slots both ways', async () => {
    store.pick('dray-a');
    const panel = await paint(StrandsPanel);
    await panel.type('Tension', '300');
    const hz = () =>
      Number(
        panel
          .all('label')
          .find((l) => l.textContent === 'Rings at')!
          .parentElement!.querySelector<HTMLInputElement>('.typed input')!.value,
      );
    const before = hz();
    await panel.type('Tension', '75');
    // a quarter of the tension rings half as high
    expect(hz() / before).toBeCloseTo(0.5, 1);
    await panel.type('Bolts off mid-slot', '3');
    expect(panel.words).toContain('▲ At the end of its slots');
    await panel.type('Shaft off mid-slot', '0');
    expect(panel.words).toContain('Left: 5.37° to advance, 5.37° to retard');
  });

  it('table: says in figures what is drawn, and lights the wheel in hand', async () => {
    store.driverDeg.set(90);
    const panel = await paint(TablePanel);
    const cam = panel.all('tbody tr').find((r) => r.textContent.includes('Cam sprocket'))!;
    expect(cam.textContent).toContain('-45.0');
    cam.dispatchEvent(new Event('focus'));
    expect(store.lit()).toBe('cam');
  });

  it('draw up: a change is tried before it is laid on, and then it is the drive', async () => {
    const panel = await paint(EditPanel);
    const count = panel.one<HTMLInputElement>('input');
    count.value = '140';
    count.dispatchEvent(new Event('change'));
    await panel.fixture.whenStable();
    expect(panel.words).toMatch(/▲ The belt is \d+\.\d mm too long for any setting/);
    expect(store.layout()?.count).toBe(121);
    count.value = '12½';
    count.dispatchEvent(new Event('change'));
    await panel.fixture.whenStable();
    expect(panel.words).toContain('“12½” is not a number of teeth');
    await panel.press('Lay it on the bench');
    expect(store.layout()?.count).toBe(140);
    expect(store.inCase()).toBeFalse();
  });
});
