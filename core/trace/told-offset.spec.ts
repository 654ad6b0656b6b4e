import { toldOffset } from './told-offset';

const told = (text: string, wheel?: string, explicit?: boolean) => {
  const r = toldOffset(text, wheel, explicit);
  return r.ok ? [Number(r.value.deg.toFixed(9)), r.value.wheel] : r.error.code;
};

describe('an offset told by telephone', () => {
  it('is counted in degrees of the crank: teeth of the sensor’s wheel by its slots, degrees of the cam twice, early below nought', () => {
    expect(told('2.75 teeth of the 60 wheel late')).toEqual([16.5, '60']);
    expect(told('about 2,75 teeth of the 60-2 wheel late')).toEqual([16.5, '60-2']);
    expect(told('the cam is 3 teeth on the 58 tooth wheel behind')).toEqual([18, '58']);
    expect(told('16 degrees crank late')).toEqual([16, undefined]);
    expect(told('16° late')).toEqual([16, undefined]);
    expect(told('cam retarded by 8 degrees of the camshaft')).toEqual([16, undefined]);
    expect(told('4.5 deg cam early')).toEqual([-9, undefined]);
    expect(told('advanced, 9° crank')).toEqual([-9, undefined]);
    expect(told('-9° of the crank')).toEqual([-9, undefined]);
  });

  it('takes the drive’s own wheel where none is named, and calls it as the drive does', () => {
    expect(told('2.75 teeth late', '60-2')).toEqual([16.5, '60-2']);
    expect(told('2.75 teeth of the 60 wheel late', '60-2')).toEqual([16.5, '60-2']);
    expect(told('2 teeth of the 36 wheel late', '60-2')).toEqual([20, '36']);
  });

  it('is good to a tenth of a tooth or half a degree, and to no more than its digits', () => {
    const u = (text: string) => {
      const r = toldOffset(text, '60-2');
      return r.ok ? r.value.u : NaN;
    };
    expect(u('2.75 teeth late')).toBeCloseTo(0.6, 9);
    expect(u('3 teeth late')).toBeCloseTo(0.6, 9);
    expect(u('16 degrees crank late')).toBeCloseTo(0.5, 9);
    expect(u('8 degrees cam late')).toBeCloseTo(1, 9);
  });

  it('is asked for what it lacks, and in a message only read where shaft or wheel is named', () => {
    expect(told('the cam is late')).toBe('no_figure');
    expect(told('16 degrees crank')).toBe('no_side');
    expect(told('2.75 teeth late')).toBe('which_teeth');
    expect(told('one tooth late, 2 teeth behind', '60-2', true)).toBe('no_figure');
    expect(told('engine at 90 degrees, cam 16 degrees crank late', undefined, true)).toEqual([16, undefined]);
  });
});
