import { partOf, rolesOf, type SaidRoles, withPart } from './said-roles';

describe('what is said of channels', () => {
  const start: SaidRoles = {
    crank: 0,
    cams: [
      { channel: 1, cam: 0 },
      { channel: 2, cam: 1 },
    ],
  };
  it('gives each part to one channel: who had it takes what the other was', () => {
    const swapped = withPart(start, 1, 'crank');
    expect([0, 1, 2].map((c) => partOf(swapped, c))).toEqual(['cam:0', 'crank', 'cam:1']);
    const cams = withPart(start, 1, 'cam:1');
    expect([0, 1, 2].map((c) => partOf(cams, c))).toEqual(['crank', 'cam:1', 'cam:0']);
    expect(rolesOf(cams)).toEqual({ crank: 0, cams: [2, 1] });
    expect([0, 1, 2].map((c) => partOf(withPart(start, 2, 'none'), c))).toEqual(['crank', 'cam:0', 'none']);
    expect(rolesOf(withPart(start, 3, 'cam:1'))).toEqual({ crank: 0, cams: [1, 3] });
  });

  it('never leaves a capture without a crank', () => {
    expect(withPart(start, 0, 'none').crank).toBe(0);
    expect(withPart(withPart(start, 0, 'cam:0'), 1, 'none').crank).toBe(1);
  });
});
