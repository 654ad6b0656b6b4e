import { demoPack } from '../../demo/catalogue';
import { expandProcedure } from './expand-procedure';
import { catalogueOf, stagesFor } from './find-records';
import type { Procedure, StepRow } from './procedure';

const cat = catalogueOf(demoPack());
const drive = (variant: string) => stagesFor(cat, cat.variants.get(variant)!.layout!);
const step = (id: string, more: Partial<StepRow> = {}): StepRow => ({
  id,
  kind: 'fit',
  text: `${id} {what}`,
  ...more,
});
const block = (id: string, steps: Procedure['steps'], more: Partial<Procedure> = {}): Procedure => ({
  id,
  name: id,
  block: true,
  steps,
  ...more,
});
const expand = (p: Partial<Procedure>, blocks: Procedure[], variant: string, chosen = {}) =>
  expandProcedure(
    { id: 'p', name: 'p', steps: [], ...p },
    new Map(blocks.map((b) => [b.id, b])),
    drive(variant),
    chosen,
  );

describe('a procedure laid out on a drive', () => {
  it('lays a block at every stage, cam or eccentric idler that the drive has, in or against their order', () => {
    const one = [block('b', [step('s')])];
    const ids = (each: 'stage' | 'cam' | 'idler', variant: string, inward = false) =>
      expand({ steps: [{ use: 'b', each, inward }] }, one, variant).steps.map((s) => s.id);
    expect(ids('stage', 'TE47-MOOR/A')).toEqual([
      'b.s.crank',
      'b.s.left-intake-rear',
      'b.s.crank-rear',
      'b.s.right-intake-rear',
    ]);
    expect(ids('stage', 'TE47-MOOR/A', true)).toEqual([...ids('stage', 'TE47-MOOR/A')].reverse());
    expect(ids('cam', 'OL25-FLET/A')).toEqual(
      ['right-lower', 'right-upper', 'left-upper', 'left-lower'].map((w) => `b.s.${w}`),
    );
    expect(ids('idler', 'OL25-FLET/A')).toEqual(['b.s.idler-right', 'b.s.idler-left']);
    expect(ids('idler', 'TE16-CORM/A')).toEqual([]);
  });

  it('asks a stage for what that stage has, not for what the drive has somewhere', () => {
    const b = [block('b', [step('s', { needs: ['plunger'] }), step('t')])];
    const { steps } = expand({ steps: [{ use: 'b', each: 'stage' }] }, b, 'OL20-BRIN/A');
    expect(steps.map((s) => s.id)).toEqual(['b.t.crank', 'b.s.crank-rear', 'b.t.crank-rear']);
    const only = expand({ steps: [{ use: 'b', each: 'stage', needs: ['chain'] }] }, b, 'OL20-BRIN/A');
    expect(only.steps.map((s) => s.spot.stage)).toEqual([1, 1]);
  });

  it('fills parameters in wherever a text stands, through a block in a block, and leaves the layout’s own names', () => {
    const inner = block(
      'inner',
      [
        step('s', {
          torque: { fastener: '{bolt} of {driver}', stages: ['{nm}'] },
          tool: { name: '{bolt} key' },
        }),
      ],
      { params: ['bolt', 'nm'] },
    );
    const outer = block('outer', [{ use: 'inner', with: { bolt: '{size} bolt', nm: '9 N·m' } }], {
      params: ['size'],
    });
    const { steps, errors } = expand(
      { steps: [{ use: 'outer', as: 'o', with: { size: 'small' } }] },
      [inner, outer],
      'TE16-CORM/A',
    );
    expect(errors).toEqual([]);
    expect(steps[0]).toEqual(
      jasmine.objectContaining({
        id: 'o.inner.s',
        torque: { fastener: 'small bolt of {driver}', stages: ['9 N·m'] },
        tool: { name: 'small bolt key' },
      }),
    );
  });

  it('draws a gate between all places of two blocks, and within one between its own', () => {
    const own = block('b', [step('a'), step('z')], { gates: [{ before: 'a', after: 'z', why: 'own' }] });
    const { gates } = expand(
      {
        steps: [{ use: 'b', as: 'x', each: 'stage' }, step('end')],
        gates: [{ before: 'x.z', after: ['end'], why: 'all' }],
      },
      [own],
      'QU30-VASK/A',
    );
    const pairs = (why: string) => gates.filter((g) => g.why === why).map((g) => [g.before, g.after]);
    expect(pairs('own').length).toBe(3);
    for (const [a, z] of pairs('own')) expect(a!.replace('.a.', '.z.')).toBe(z!);
    expect(pairs('all').map(([a]) => a)).toEqual(pairs('own').map(([, z]) => z));
  });

  it('has what the house chose, and a gate with it', () => {
    const p: Partial<Procedure> = {
      steps: [step('a', { rule: ['turning_back', 'procedure'] }), step('z')],
      gates: [{ before: 'a', after: 'z', why: '', rule: ['turning_back', 'procedure'] }],
    };
    const yes = expand(p, [], 'TE16-CORM/A', { turning_back: 'procedure' });
    const no = expand(p, [], 'TE16-CORM/A', { turning_back: 'never' });
    expect([yes.steps.length, yes.gates.length, no.steps.length, no.gates.length]).toEqual([2, 1, 1, 0]);
    expect([...yes.errors, ...no.errors]).toEqual([]);
    const bare = expand({ ...p, gates: [{ before: 'a', after: 'z', why: '' }] }, [], 'TE16-CORM/A', {});
    expect(bare.errors.map((e) => e.code)).toEqual(['gate_step_lacking']);
  });
});
