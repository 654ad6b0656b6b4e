import { demoPack } from '../../demo/catalogue';
import type { Layout } from '@core/drive/layout';
import { AS_MADE, driveState } from '@core/drive/what-if';
import { closeDesk, openDesk, paint, until } from '../testing/demo-desk';
import { DialField } from './dial-field';
import { drivePicture, pictureSvg } from './drive-picture';
import { driveScene } from './drive-scene';
import { FactField } from '../entry/fact-field';
import { LimitStrip } from './limit-strip';
import { has, standing } from '@core/facts/read';

const layouts = demoPack().layouts;
const solved = (l: Layout) => {
  const s = driveState(l, AS_MADE);
  if (!s.ok) throw new Error(s.error.code);
  return s.value;
};
/** Every number of a path, in order. */
const numbers = (d: string) => (d.match(/-?\d+\.?\d*/g) ?? []).map(Number);

describe('a drive as a scene', () => {
  it('draws as many teeth as the belt has, each as deep as they are, all inside its box', () => {
    for (const l of layouts) {
      const scene = driveScene(solved(l), 37);
      const teeth = scene.teeth.split('M').slice(1).map(numbers);
      expect(teeth.length).withContext(l.id).toBe(l.count);
      for (const [x1, y1, x2, y2] of teeth as [number, number, number, number][]) {
        expect(Math.hypot(x2 - x1, y2 - y1)).toBeCloseTo(l.toothMm, 1);
        expect(x1).toBeGreaterThan(scene.box.x);
        expect(x1).toBeLessThan(scene.box.x + scene.box.width);
      }
    }
  });

  it('puts paint where the marks point when the crank stands at its own, and runs it on with the belt', () => {
    const l = layouts.find((x) => x.id === 'fletcher-a')!;
    const state = solved(l);
    const at = driveScene(state, 0);
    for (const [k, p] of [{ wheel: 0, teeth: 0 }, ...state.phases].entries()) {
      const w = at.wheels[p.wheel]!;
      const a = (w.markDeg! * Math.PI) / 180;
      const r = state.circles[p.wheel]!.r;
      const paint = at.painted[k]!;
      // the paint sits at the rim, in the direction of the wheel's own mark
      expect(Math.hypot(paint.x - (w.x + r * Math.cos(a)), paint.y - (w.y + r * Math.sin(a))))
        .withContext(w.name)
        .toBeLessThan(0.5);
    }
    const round = driveScene(state, (l.count / l.wheels[0]!.teeth!) * 360);
    round.painted.forEach((p, i) =>
      expect(Math.hypot(p.x - at.painted[i]!.x, p.y - at.painted[i]!.y)).toBeLessThan(1e-6),
    );
  });

  it('turns every wheel as its teeth say, the cam half as fast, and keeps shoes still', () => {
    const l = layouts.find((x) => x.id === 'stoat-a')!;
    const [a, b] = [driveScene(solved(l), 0), driveScene(solved(l), 90)];
    const turned = (id: string) => {
      const [p, q] = [a, b].map((s) => s.wheels.find((w) => w.id === id)!.turnDeg);
      return q! - p!;
    };
    // the crank runs clockwise: positive on a sheet whose y runs down
    expect(turned('crank')).toBeCloseTo(90, 9);
    expect(turned('intake')).toBeCloseTo(45, 9);
    expect(turned('arm')).toBeCloseTo(0, 9);
    expect(b.wheels.find((w) => w.id === 'arm')!.shoe).toContain('A');
  });

  it('goes on paper with every wheel named and nothing undefined', () => {
    for (const l of layouts) {
      const s = solved(l);
      if (!s.setting) continue;
      const svg = pictureSvg(drivePicture(l, s.setting, 'T'), 235);
      for (const w of l.wheels) expect(svg).withContext(l.id).toContain(`${w.name} `);
      expect(svg).not.toMatch(/NaN|undefined/);
    }
  });
});

describe('a dial', () => {
  beforeEach(() => openDesk(false));
  afterEach(closeDesk);

  it('takes figures as people type them and refuses the rest with the range', async () => {
    const dial = await paint(DialField, { label: 'Head', unit: 'mm', min: -2, max: 3, value: 0 });
    const heard: number[] = [];
    dial.fixture.componentInstance.turned.subscribe((v) => heard.push(v));
    await dial.type('Head', '0,75');
    await dial.type('Head', 'much');
    expect(dial.words).toContain('“much” is not a number.');
    await dial.type('Head', '12');
    expect(dial.words).toContain('12 is outside -2 to 3 mm.');
    expect(new Set(heard)).toEqual(new Set([0.75]));
    const slide = dial.one<HTMLInputElement>('input[type=range]');
    slide.value = '1.5';
    slide.dispatchEvent(new Event('input'));
    await dial.fixture.whenStable();
    expect(heard.at(-1)).toBe(1.5);
    expect(dial.words).not.toContain('outside');
  });
});

describe('a limit strip', () => {
  beforeEach(() => openDesk(false));
  afterEach(closeDesk);

  it('says in words what it shows, places the window to scale and keeps the pin on the strip', async () => {
    const strip = {
      label: 'Extension',
      min: 0,
      max: 30,
      window: { from: 6, to: 15 },
      end: 27,
      value: 45,
      u: 1,
      text: '45 mm',
      good: false,
    };
    const painted = await paint(LimitStrip, { strip });
    expect(painted.words).toContain('▲ 45 mm');
    const box = painted.one<HTMLElement>('.window');
    expect([Number(box.getAttribute('x')), Number(box.getAttribute('width'))]).toEqual([60, 90]);
    expect(Number(painted.one('.pin').getAttribute('cx'))).toBe(300);
    expect(painted.one('svg').getAttribute('aria-label')).toBe('Extension: 45 mm');
  });
});

describe('a field', () => {
  afterEach(closeDesk);

  it('files what is typed in its unit, keeps what it cannot read, and says why', async () => {
    const desk = await openDesk();
    await desk.open('demo-2041');
    const field = await paint(FactField, { key: 'vehicle.odometer' });
    await field.type('Distance now', '31 000 mi');
    await until(() => has(desk.current()!.state, 'vehicle.odometer'));
    expect(standing(desk.current()!.state, 'vehicle.odometer')?.value).toBeCloseTo(31000 * 1.609344, 6);
    await field.type('Distance now', 'far');
    expect(field.words).toContain('“far” is not a number');
    expect(field.one<HTMLInputElement>('input').value).toBe('far');
    expect(standing(desk.current()!.state, 'vehicle.odometer')?.value).toBeCloseTo(31000 * 1.609344, 6);
  });

  it('offers the nearest engine codes for one that is not there', async () => {
    const desk = await openDesk();
    await desk.open('demo-2041');
    const field = await paint(FactField, { key: 'engine.code' });
    await field.type('Engine code', 'TE16-CARM');
    expect(field.words).toContain('is not in the catalogue');
    await field.press('TE14-CORM');
    await until(() => standing(desk.current()!.state, 'engine.code')?.value !== 'TE16-CORM');
    expect(standing(desk.current()!.state, 'engine.code')?.value).toBe('TE14-CORM');
  });
});
