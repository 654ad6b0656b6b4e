import { TestBed } from '@angular/core/testing';
import { provideZonelessChangeDetection } from '@angular/core';
import { Subject, toArray, firstValueFrom } from 'rxjs';
import type { Instrument, InstrumentEvent } from './instrument';
import { behaviourIn, namedIn } from './instruments';
import { Reader } from './reader';
import { serialInstrument, type SerialPortLike } from './serial';

const named = (key: string, wording: string): Instrument => ({
  key,
  wording,
  dimension: 'length',
  open: () => new Subject<InstrumentEvent>(),
});

describe('instruments', () => {
  it('the one that the instruction names is offered first, and how stand-ins behave comes from the address', () => {
    const all = [named('d', 'Dial gauge (simulated)'), named('c', 'Caliper (simulated)')];
    expect(namedIn(all, 'Caliper over a tooth.')?.key).toBe('c');
    expect(namedIn(all, 'Dial gauge at the rim.')?.key).toBe('d');
    expect(namedIn(all, undefined)?.key).toBe('d');
    expect(namedIn([], 'Caliper')).toBeUndefined();
    expect(behaviourIn('?x=1')).toBe('');
    expect(behaviourIn('?instruments=pace%3D10%26seed%3D3')).toBe('?pace=10&seed=3');
  });

  it('at a serial port lines are put together again, garbage is told, and a pulled plug ends it', async () => {
    const parts = ['# Gauge; resolution 0.01 mm\r\n7.4', '1 mm\r\n\u00bf!7\n', '3.2 in\nhalf a li'];
    const closed: string[] = [];
    const port: SerialPortLike = {
      open: () => Promise.resolve(),
      close: () => Promise.resolve(void closed.push('closed')),
      readable: new ReadableStream<Uint8Array>({
        start(c) {
          for (const p of parts) c.enqueue(new TextEncoder().encode(p));
          c.close();
        },
      }),
    };
    const serial = serialInstrument({ serial: { requestPort: () => Promise.resolve(port) } })!;
    const events = await firstValueFrom(serial.open('length').pipe(toArray()));
    expect(events.map((e) => e.kind)).toEqual(['resolution', 'reading', 'garbage', 'reading', 'gone']);
    expect(events.flatMap((e) => (e.kind === 'reading' ? [e.value] : []))).toEqual([7.41, 81.28]);
    expect(closed).toEqual(['closed']);
    const refused = serialInstrument({ serial: { requestPort: () => Promise.reject(new Error('no')) } })!;
    expect(await firstValueFrom(refused.open('length').pipe(toArray()))).toEqual([
      { kind: 'gone', why: 'refused' },
    ]);
    expect(serialInstrument({})).toBeUndefined();
  });
});

describe('a reader of an instrument', () => {
  let reader: Reader;
  let says: Subject<InstrumentEvent>;
  const reading = (t: number, value: number): void =>
    says.next({ kind: 'reading', value, dimension: 'length', t });
  beforeEach(() => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection(), Reader] });
    reader = TestBed.inject(Reader);
    says = new Subject();
    reader.start({ ...named('x', 'x'), open: () => says }, 'length');
  });

  it('takes the mean of the latest ten with their spread and the display’s step', () => {
    says.next({ kind: 'resolution', value: 0.01, dimension: 'length' });
    for (let k = 0; k < 30; k++) reading(k, k < 20 ? 5 : 7 + (k % 2) * 0.02);
    reader.stop();
    const v = reader.value()!;
    expect(v.n).toBe(10);
    expect(v.value).toBeCloseTo(7.01, 9);
    // s of five 7.00 and five 7.02 is 0.01·√(10/9)
    const s = 0.01 * Math.sqrt(10 / 9);
    expect(v.u).toBeCloseTo(Math.hypot(s / Math.sqrt(10), 0.01 / Math.sqrt(12)), 9);
  });

  it('keeps what came when the plug is pulled, and counts what it could not use', () => {
    reading(0, 8);
    reading(1, 7.9);
    says.next({ kind: 'garbage', line: '??' });
    says.next({ kind: 'reading', value: 3, dimension: 'mass', t: 2 });
    says.next({ kind: 'gone', why: 'unplugged' });
    says.complete();
    expect(reader.listening()).toBeFalse();
    expect(reader.gone()).toBe('unplugged');
    expect(reader.series()).toEqual([
      { t: 0, x: 8 },
      { t: 1, x: 7.9 },
    ]);
    expect([reader.garbage(), reader.foreign()]).toEqual([1, 1]);
    // connected again it begins anew
    says = new Subject();
    reader.start({ ...named('x', 'x'), open: () => says }, 'length');
    expect([reader.series().length, reader.garbage(), reader.gone()]).toEqual([0, 0, undefined]);
    reader.stop();
    expect(says.observed).toBeFalse();
  });

  it('shows nothing to take before anything came', () => {
    reader.stop();
    expect(reader.value()).toBeUndefined();
    expect(reader.last()).toBeUndefined();
  });
});
