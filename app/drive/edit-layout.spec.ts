import { demoPack } from '../../demo/catalogue';
import { driveState, AS_MADE } from '@core/drive/what-if';
import { carriedBy, newDrive, newWheel, withWheelField } from './edit-layout';

const layout = demoPack().layouts[0]!;

describe('drawing up a drive', () => {
  it('refuses with the wheel, the field and the reason, and changes nothing', () => {
    expect(withWheelField(layout, 1, 'x', 'ten')).toContain('Guide roller, x: “ten” is not a number');
    expect(withWheelField(layout, 0, 'teeth', '19,5')).toContain('Crank sprocket: 19,5 teeth cannot be');
    expect(withWheelField(layout, 0, 'outsideMm', '40')).toContain(
      '20 teeth at 8 mm give a pitch radius of 25.5 mm, not 40 mm',
    );
    expect(withWheelField(layout, 1, 'outsideMm', '0')).toContain('must be above zero');
    const moved = withWheelField(layout, 1, 'x', '-80,5');
    expect(typeof moved === 'string' ? moved : moved.wheels[1]!.x).toBe(-80.5);
    expect(layout.wheels[1]!.x).toBe(-78);
  });

  it('makes a wheel the tensioner so that it stands at its nominal mark where it was drawn', () => {
    const index = layout.wheels.findIndex((w) => w.carrier);
    const bare = { ...layout, wheels: layout.wheels.map((w) => ({ ...w, carrier: undefined })) };
    const old = layout.wheels[index]!.carrier!;
    const made = carriedBy(bare, index, {
      pivot: old.pivot,
      turn: 'cw',
      from: 80,
      nominal: 90,
      to: 100,
      end: 150,
    });
    if (typeof made === 'string') throw new Error(made);
    const state = driveState(made, AS_MADE);
    expect(state.ok && Math.abs(state.value.setting!.reading - 90) < 0.01).toBeTrue();
    expect(
      carriedBy(bare, index, {
        pivot: bare.wheels[index]!,
        turn: 'cw',
        from: 80,
        nominal: 90,
        to: 100,
        end: 150,
      }),
    ).toContain('pivot');
  });

  it('begins with two wheels that can run, and adds beside the last', () => {
    const fresh = newDrive();
    expect(driveState(fresh, AS_MADE).ok).toBeTrue();
    const more = newWheel(newWheel(fresh));
    expect(new Set(more.wheels.map((w) => w.id)).size).toBe(4);
  });
});
