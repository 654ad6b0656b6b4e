import { zipSync } from 'fflate';
import { boxCapture } from '@core/simulate/capture-box';
import { VIEW_STEP } from '@core/trace/cycle-view';
import { failureWords, readWords } from '../messages/capture';
import { traceOf } from './read-trace';
import type { TraceAsk } from './trace.protocol';

const quiet = { progress: () => undefined, cancelled: () => false };
const text = boxCapture({ engine: 'QU13-STOA', fault: 'good', dialect: 'comma', seed: 2, zCrank: 20 });
const read = async (content: BlobPart, more: Partial<TraceAsk> = {}) =>
  traceOf({ blob: new Blob([content]), name: 'x.csv', ...more }, quiet);

describe('the thread that reads captures', () => {
  it('gives what the page needs of a capture, in a zip too, and tells how far it is', async () => {
    const shares: number[] = [];
    const r = await traceOf(
      { blob: new Blob([text]), name: 'x.csv' },
      { ...quiet, progress: (s) => shares.push(s) },
    );
    if (!r.ok) return fail(JSON.stringify(r.error));
    expect([r.value.wheel, r.value.period, r.value.cams.length]).toEqual(['60-2', 360, 1]);
    expect(shares.at(-1)).toBe(1);
    // one cycle, no step without a value, every edge of the cam in it
    expect(r.value.view.cams[0]!.length).toBe((2 * 720) / VIEW_STEP);
    expect(r.value.view.cams[0]!.every(Number.isFinite)).toBeTrue();
    const cam = r.value.view.cams[0]!;
    let crossed = 0;
    for (let k = 3; k < cam.length; k += 2) if (cam[k]! > 2.5 !== cam[k - 2]! > 2.5) crossed++;
    expect(crossed).toBe(r.value.cams[0]!.pattern!.edges.length);
    const zipped = await read(zipSync({ 'export.csv': new TextEncoder().encode(text) }));
    expect(zipped.ok && zipped.value.cams[0]!.pattern).toEqual(r.value.cams[0]!.pattern);
    expect(readWords(r.value).length).toBe(2);
  });

  it('says of what it cannot read why and where, each in a sentence of its own', async () => {
    const lines = text.split('\r\n');
    const bad: BlobPart[] = [
      '',
      'a letter about an engine',
      lines.map((l) => l.split(';').slice(0, 2).join(';')).join('\r\n'),
      lines.slice(0, 300).join('\r\n'),
      lines.map((l, i) => (i === 900 ? '0,1;2,0;3,0' : l)).join('\r\n'),
      lines.map((l, i) => (i < 2 ? l : `${l.split(';')[0]};2,5;${l.split(';')[2]}`)).join('\r\n'),
      zipSync({ 'a.pdf': new Uint8Array(3) }),
      new Uint8Array([0x50, 0x4b, 3, 4, 9, 9]),
    ];
    const said = new Set<string>();
    for (const content of bad) {
      const r = await read(content);
      if (r.ok) return fail(`read: ${JSON.stringify(r.value.cams)}`);
      said.add(failureWords('x.csv', r.error));
    }
    expect(said.size).toBe(bad.length);
    const other = await read(text, { wheel: '36-1' });
    expect(other.ok ? '' : other.error.code).toBe('crank');
  });

  it('reads what is said instead of found, and refuses what cannot be so, by its name', async () => {
    const code = async (more: Partial<TraceAsk>) => {
      const r = await read(text, more);
      return r.ok ? r.value.roles : r.error.code;
    };
    expect(await code({ roles: { crank: 1, cams: [0] } })).toBe('swapped');
    expect(await code({ roles: { crank: 0, cams: [] } })).toBe('one_channel');
    // channels that this capture has not are passed over
    expect(await code({ roles: { crank: 0, cams: [1, 7] } })).toEqual({ crank: 0, cams: [1] });
    expect(await code({ wheel: 'sixty' })).toBe('no_wheel');
    const pattern = '1'.repeat(58) + '00';
    const typed = await read(text, { wheel: pattern });
    // wherever a pattern begins, angles and the slots that are drawn begin at the first tooth behind the gap
    const turned = await read(text, { wheel: `1100${'1'.repeat(56)}` });
    expect(turned.ok && turned.value.teeth.slice(56)).toEqual([true, true, false, false]);
    expect(turned.ok && turned.value.cams[0]!.pattern).toEqual(typed.ok && typed.value.cams[0]!.pattern);
    expect(typed.ok && typed.value.wheel).toBe(pattern);
    const slow = await read(text, { timeUnit: 's' });
    if (!slow.ok || !typed.ok) return fail('not read');
    const rpm = (r: typeof slow) => r.value.speed[3]!.rpm;
    expect(rpm(typed) / rpm(slow)).toBeCloseTo(1000, 3);
    expect(rpm(typed)).toBeGreaterThan(200);
    expect(rpm(typed)).toBeLessThan(280);
  });
});
