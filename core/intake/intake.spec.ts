import { registryFor, worldOf } from '@core/answer/world';
import { catalogueOf } from '@core/catalogue/find-records';
import { fileFacts } from '@core/facts/change';
import type { FactValue } from '@core/facts/fact';
import { rivalsOf, valueOf } from '@core/facts/read';
import { reduce } from '@core/facts/state';
import type { Observable } from '@core/facts/observable';
import { demoPack } from '../../demo/catalogue';
import messages from '../../demo/data/messages.json';
import { randomFrom } from '@core/quantity/random';
import type { IntakeContext } from './context';
import type { Proposal } from './proposal';
import { readText, type TextRead } from './read-text';
import { scoreOf } from './score';
import { toFile } from './to-file';
import { plainText } from '@core/facts/value';

const cat = catalogueOf(demoPack());
const ctx: IntakeContext = {
  catalogue: cat,
  registry: registryFor(worldOf(cat)),
  notation: { dateOrder: 'dmy', units: {} },
  today: '2026-11-25',
};
const read = (text: string, c: IntakeContext = ctx): TextRead => {
  const out = readText(text, c);
  if ('code' in out) throw new Error(out.code);
  return out;
};
let ids = 0;
const find = (list: readonly Proposal[], key: string): Proposal[] => list.filter((p) => p.key === key);
const value = (text: string, key: string): FactValue | undefined => find(read(text).proposals, key)[0]?.value;

describe('a message read into facts', () => {
  it('keeps precision and recall on the messages that it was not tuned on', () => {
    const total = { right: 0, ticked: 0, wanted: 0 };
    const registers = new Set<string>();
    // What nobody labelled anywhere is neither right nor wrong; what is asked is not ticked.
    const labelled = new Set(messages.flatMap((m) => m.facts.map((f) => f.key)));
    for (const m of messages.filter((x) => x.set === 'held')) {
      const all = read(m.text).proposals.filter((p) => labelled.has(p.key));
      total.right += scoreOf(all, m.facts).right;
      total.wanted += scoreOf(all, m.facts).wanted;
      const ticked = scoreOf(
        all.filter((p) => p.sure !== 'ask'),
        m.facts,
      );
      total.ticked += ticked.proposed - ticked.right;
      registers.add(m.register);
    }
    expect(registers.size).toBe(4);
    expect(messages.length).toBeGreaterThanOrEqual(80);
    expect(total.right / (total.right + total.ticked)).toBeGreaterThanOrEqual(0.95);
    expect(total.right / total.wanted).toBeGreaterThanOrEqual(0.92);
  });

  it('gives values that their observables take, at places that are in the text, the same each time', () => {
    for (const m of messages) {
      const first = read(m.text);
      expect(read(m.text)).toEqual(first);
      for (const p of first.proposals) {
        const o = ctx.registry.get(p.key);
        expect(o).withContext(p.key).toBeDefined();
        for (const s of p.spans) expect(m.text.slice(s.from, s.to).trim()).not.toBe('');
        if (o!.type.kind === 'choice')
          expect(o!.type.options.map((x) => x.key))
            .withContext(p.key)
            .toContain(plainText(p.value));
      }
    }
  });

  it('does not take what is denied, and takes a denial that is itself a finding', () => {
    expect(value('No noise at all from the drive.', 'symptom')).toBeUndefined();
    expect(value('It makes a noise.', 'symptom')).toBe('noise');
    expect(value('The belt is not broken.', 'belt.break')).toBe('whole');
    expect(value('The front edge is not frayed.', 'belt.edge_front')).toBeUndefined();
    expect(value('A fitting sheet is not available.', 'claim.sheet')).toBe('no');
  });

  it('takes turns for turns of the engine only', () => {
    for (const said of [
      'Turned two turns by hand.',
      'We turned the engine 2 turns with the crank bolt.',
      'Crank turned 2 times.',
      'We let the tensioner go, then the engine was turned 2 turns.',
    ])
      expect(value(said, 'fit.turned')).withContext(said).toBe(2);
    for (const said of [
      'The plunger screw was turned in 2 turns.',
      'Key turned 2 turns anticlockwise.',
      'Turned it two turns with the starter.',
      'We backed the adjuster off, it turned 2 turns.',
      'The plunger was pressed, and then turned in two turns.',
      'Bolt 3 turns by hand.',
    ])
      expect(value(said, 'fit.turned')).withContext(said).toBeUndefined();
  });

  it('marks hearsay as such, and prefers what the writer saw', () => {
    const [quoted] = find(read('The driver says the engine stopped while running.').proposals, 'symptom');
    expect(quoted?.value).toBe('stopped');
    expect(quoted?.hearsay).toContain('driver');
    const both = find(read('The mechanic says it makes a noise. It does not start.').proposals, 'symptom');
    expect(both.filter((p) => p.sure !== 'ask').map((p) => p.value)).toEqual(['no_start']);
    expect(both.filter((p) => p.sure === 'ask').map((p) => [p.value, p.doubt])).toEqual([
      ['noise', 'witness'],
    ]);
  });

  it('keeps the words of two people side by side when they are filed, each with its source; the writer’s stands', () => {
    const { proposals } = read('The mechanic says it makes a noise. It does not start.');
    const state = reduce(
      fileFacts(
        reduce([]),
        'c',
        toFile(proposals, [], ctx.registry, () => 'x'),
        { by: 'T', now: () => '2026-11-25T08:00:00.000Z', newId: () => `f${++ids}` },
      ),
    );
    expect(valueOf(state, 'symptom')).toBe('no_start');
    const [rival, ...more] = rivalsOf(state, 'symptom');
    expect(more).toEqual([]);
    expect([rival?.value, rival?.note]).toEqual(['noise', jasmine.stringContaining('mechanic')]);
  });

  it('asks instead of guessing: two engines, a code with a stroke wrong', () => {
    const two = find(read('Is it the TE16-CORM or the OL25-FLET?').proposals, 'engine.code');
    expect(two.map((p) => [p.value, p.sure])).toEqual([
      ['TE16-CORM', 'ask'],
      ['OL25-FLET', 'ask'],
    ]);
    const [near] = find(read('Engine TE16-CORN, which kit?').proposals, 'engine.code');
    expect(near).toEqual(jasmine.objectContaining({ value: 'TE16-CORM', sure: 'ask', doubt: 'near_code' }));
    // a number that may be the one or the other
    const bare = read('TE16-CORM, 88 150, stopped while running').proposals.filter(
      (p) => p.doubt === 'bare_number',
    );
    expect(bare.map((p) => [p.key, p.value, p.sure])).toEqual([
      ['vehicle.odometer', 88150, 'ask'],
      ['kit.fitted_odometer', 88150, 'ask'],
    ]);
    expect(read('TE16-CORM, order no 88150').proposals.some((p) => p.doubt === 'bare_number')).toBeFalse();
    expect(read('M8 or M10? BR19-SHAW').proposals.some((p) => p.key === 'feature.head-bolt')).toBeFalse();
  });

  it('says a mark only of a wheel that the engine has, with its sense', () => {
    const seen = (text: string) => find(read(text).proposals, 'mark').map((p) => [p.about, p.value] as const);
    expect(seen('OL25-FLET: upper right a quarter of a tooth behind')).toEqual([
      ['wheel:right-upper', -0.25],
    ]);
    expect(seen('TE16-CORM: upper right half a tooth ahead')).toEqual([]);
    expect(seen('OL25-FLET, right side good both')).toEqual([
      ['wheel:right-lower', 0],
      ['wheel:right-upper', 0],
    ]);
  });

  it('takes days against today, by what they are of', () => {
    // 25 November 2026 is a Wednesday
    expect(value('The belt was fitted last March.', 'kit.fitted')).toBe('2026-03-01');
    expect(value('Fitted on 3.11. at 51 000 km', 'kit.fitted')).toBe('2026-11-03');
    expect(value('Kit fitted two weeks ago.', 'kit.fitted')).toBe('2026-11-11');
    expect(value('It failed on Tuesday', 'case.date')).toBe('2026-11-24');
    expect(value('It failed on 28.12.', 'case.date')).toBe('2025-12-28');
    expect(value('I phoned you yesterday.', 'case.date')).toBeUndefined();
  });

  it('tells distances apart, and takes a difference from the reading', () => {
    const text = 'Fitted at 90 120 km, now 96,420 km, we do 30 000 km a year.';
    expect(value(text, 'kit.fitted_odometer')).toBe(90120);
    expect(value(text, 'vehicle.odometer')).toBe(96420);
    expect(value(text, 'vehicle.yearly')).toBe(30000);
    expect(value('Odometer 100 000 miles', 'vehicle.odometer')).toBe(160934);
    expect(value('Clock says 50 000 km, 6 000 km since the belt', 'kit.fitted_odometer')).toBe(44000);
    expect(read('6 000 km since the belt', { ...ctx, odometerKm: 20000 }).proposals[0]?.value).toBe(14000);
  });

  it('reads a new observable at once, from its row alone', () => {
    const row: Observable = {
      key: 'belt.smell',
      wording: 'Belt smell',
      aliases: ['smell'],
      part: 'belt',
      station: 'examine',
      type: {
        kind: 'choice',
        options: [
          { key: 'fuel', wording: 'Fuel' },
          { key: 'none', wording: 'None' },
        ],
      },
      how: 'seen',
    };
    const registry = new Map([...ctx.registry, [row.key, row]]);
    const got = read('The belt smell is fuel, I think.', { ...ctx, registry }).proposals;
    expect(find(got, 'belt.smell')[0]?.value).toBe('fuel');
  });

  it('keeps the words that it did not use, and says when a language is not read', () => {
    const some = read('TE16-CORM. My aunt sold the van in spring.');
    expect(some.left).toContain('aunt');
    expect(some.left).not.toContain('TE16');
    const other = read(
      'Buenos tardes, necesito la correa para TE16-CORM porque manana tengo que entregar el camion al cliente.',
    );
    expect(other.foreign).toBeTrue();
    expect(other.proposals.map((p) => p.key)).toEqual(['engine.code']);
  });

  it('refuses what is too long, and survives any text', () => {
    expect(readText('x'.repeat(200_000), ctx)).toEqual({ code: 'too_long', length: 200_000, most: 20_000 });
    expect(readText('  \n', ctx)).toEqual({ code: 'empty' });
    const pieces =
      'TE16-CORM 1 000 km ° ± −0.5 t , . ; lot 7 claim 31.2. half a tooth ahead left 🔧 \u0000 P0016 (('.split(
        ' ',
      );
    for (let seed = 1; seed <= 300; seed++) {
      const random = randomFrom(seed);
      const text = Array.from({ length: 30 }, () => pieces[Math.floor(random() * pieces.length)]).join(
        random() < 0.5 ? ' ' : '',
      );
      const out = readText(text, ctx);
      expect('proposals' in out || 'code' in out)
        .withContext(`seed ${seed}: ${text}`)
        .toBeTrue();
    }
  });
});
