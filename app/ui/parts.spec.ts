import { demoPack } from '../../demo/catalogue';
import type { Layout } from '@core/drive/layout';
import { AS_MADE, driveState } from '@core/drive/what-if';
import { TestBed } from '@angular/core/testing';
import { closeDesk, openDesk, paint, until } from '../testing/demo-desk';
import { DialField } from './dial-field';
import { drivePicture, pictureSvg } from './drive-picture';
import { driveScene, turnScene } from './drive-scene';
import { flip } from './drive-shapes';
import { crosses, labelPlaces, stillFree } from './label-places';
import { DeskSession } from '../entry/desk-session';
import { Field } from '../entry/field';
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
      const scene = driveScene(solved(l));
      const teeth = turnScene(solved(l), 37).teeth.split('M').slice(1).map(numbers);
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
    const scene = driveScene(state);
    const at = turnScene(state, 0);
    for (const [k, p] of [{ wheel: 0, teeth: 0 }, ...state.phases].entries()) {
      const w = scene.wheels[p.wheel]!;
      const a = (at.wheels[p.wheel]!.markDeg! * Math.PI) / 180;
      const r = state.circles[p.wheel]!.r;
      const paint = at.painted[k]!;
      // the paint sits at the rim, in the direction of the wheel's own mark
      expect(Math.hypot(paint.x - (w.x + r * Math.cos(a)), paint.y - (w.y + r * Math.sin(a))))
        .withContext(w.name)
        .toBeLessThan(0.5);
    }
    const round = turnScene(state, (l.count / l.wheels[0]!.teeth!) * 360);
    round.painted.forEach((p, i) =>
      expect(Math.hypot(p.x - at.painted[i]!.x, p.y - at.painted[i]!.y)).toBeLessThan(1e-6),
    );
  });

  it('turns every wheel as its teeth say, the cam half as fast, and keeps shoes still', () => {
    const l = layouts.find((x) => x.id === 'stoat-a')!;
    const [a, b] = [turnScene(solved(l), 0), turnScene(solved(l), 90)];
    const turned = (id: string) => {
      const at = l.wheels.findIndex((w) => w.id === id);
      return b.wheels[at]!.turnDeg - a.wheels[at]!.turnDeg;
    };
    // the crank runs clockwise: positive on a sheet whose y runs down
    expect(turned('crank')).toBeCloseTo(90, 9);
    expect(turned('intake')).toBeCloseTo(45, 9);
    expect(turned('arm')).toBeCloseTo(0, 9);
    expect(driveScene(solved(l)).wheels.find((w) => w.id === 'arm')!.shoe).toContain('A');
  });

  it('goes on paper with every wheel named and nothing undefined', () => {
    for (const l of layouts) {
      const s = solved(l);
      if (!s.setting) continue;
      const svg = pictureSvg(drivePicture(l, s.setting, 'T'), 235);
      for (const w of l.wheels) expect(svg).withContext(l.id).toContain(`${w.name} `);
      expect(svg).not.toMatch(/NaN|undefined/);
      // names stand off the strands and inside the sheet
      const { names, box } = drivePicture(l, s.setting, 'T');
      for (const n of names) {
        for (const span of s.path.spans)
          expect(crosses(n, flip(span.a), flip(span.b), 0))
            .withContext(`${l.id} ${n.name}`)
            .toBeFalse();
        expect(n.x - n.width / 2 >= box.x - 1e-9 && n.x + n.width / 2 <= box.x + box.width + 1e-9).toBeTrue();
      }
    }
  });
});

describe('names on a drawing', () => {
  it('lie on no strand and on no other name, over the whole catalogue, in a wide and in a narrow pane', () => {
    for (const l of layouts)
      for (const [room, tall] of [
        [560, 440],
        [300, 440],
        [760, 300],
      ] as const) {
        const { box, named, obstacles } = driveScene(solved(l));
        const labels = labelPlaces(named, obstacles, Math.max(box.width / room, box.height / tall));
        expect(labels.map((x) => x.id).sort()).toEqual(l.wheels.map((w) => w.id).sort());
        expect(stillFree(labels, named, { lines: [], discs: [] })).toBeTrue();
        const on0 = labels[0]!;
        const through = { a: { x: on0.x - 99, y: on0.y }, b: { x: on0.x + 99, y: on0.y }, half: 0 };
        expect(stillFree(labels, named, { lines: [through], discs: [] })).toBeFalse();
        const spans = obstacles.lines.slice(0, l.wheels.length);
        for (const [i, a] of labels.entries()) {
          const on = `${l.id}, ${room}: ${a.name}`;
          for (const s of spans)
            expect(crosses(a, s.a, s.b, 0))
              .withContext(on)
              .toBeFalse();
          for (const b of labels.slice(i + 1))
            expect(
              Math.abs(a.x - b.x) >= (a.width + b.width) / 2 ||
                Math.abs(a.y - b.y) >= (a.height + b.height) / 2,
            )
              .withContext(`${on} and ${b.name}`)
              .toBeTrue();
        }
      }
  });

  it('knows a line that passes from one that crosses', () => {
    const label = { id: '', name: '', x: 0, y: 0, width: 10, height: 4 };
    expect(crosses(label, { x: -20, y: 0 }, { x: 20, y: 0 }, 0)).toBeTrue();
    expect(crosses(label, { x: -20, y: 3 }, { x: 20, y: 3 }, 0)).toBeFalse();
    expect(crosses(label, { x: -20, y: 3 }, { x: 20, y: 3 }, 1.5)).toBeTrue();
    // ends before it
    expect(crosses(label, { x: -20, y: 0 }, { x: -6, y: 0 }, 0)).toBeFalse();
    // within it
    expect(crosses(label, { x: -1, y: 0 }, { x: 1, y: 1 }, 0)).toBeTrue();
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
    dial.fixture.componentRef.setInput('value', 0.75);
    await dial.fixture.whenStable();
    const handle = dial.one('[role=slider]');
    expect(handle.getAttribute('aria-valuetext')).toBe('0.75 mm');
    expect(handle.getAttribute('aria-label')).toContain('Head');
    handle.dispatchEvent(new KeyboardEvent('keydown', { keyCode: 39, bubbles: true }));
    await dial.fixture.whenStable();
    // one step of the slider from where it stood
    expect(heard.at(-1)).toBeCloseTo(0.76, 9);
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
    const field = await paint(Field, { session: TestBed.inject(DeskSession), key: 'vehicle.odometer' });
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
    const field = await paint(Field, { session: TestBed.inject(DeskSession), key: 'engine.code' });
    await field.type('Engine code', 'TE16-CARM');
    expect(field.words).toContain('is not in the catalogue');
    await field.press('TE14-CORM');
    await until(() => standing(desk.current()!.state, 'engine.code')?.value !== 'TE16-CORM');
    expect(standing(desk.current()!.state, 'engine.code')?.value).toBe('TE14-CORM');
  });
});
