import { judgePointer } from '@core/examination/tensioners';
import { cat } from '@core/answer/demo-case.fixture';

describe('pointer', () => {
  const carrier = cat.pack.layouts[0]!.wheels.find((w) => w.carrier)!.carrier!;
  it('is judged with its uncertainty', () => {
    expect(judgePointer(90, 3, carrier, -102)).toBe('right');
    expect(judgePointer(97, 3, carrier, -102)).toBe('cannot_tell');
    expect(judgePointer(-96, 3, carrier, -102)).toBe('wrong_way');
    expect(judgePointer(40, 3, carrier, -102)).toBe('slack');
    expect(judgePointer(125, 3, carrier, -102)).toBe('beyond');
    expect(judgePointer(158, 3, carrier, -102)).toBe('end');
  });
});
