import { Injectable, signal } from '@angular/core';
import type { Instrument } from './instrument';
import { serialInstrument } from './serial';
import { simulatedInstruments } from './simulated';

/** The instruments of this bench. How the stand-ins behave may be said in the address: ?instruments=pace=10&unplug=40. */
@Injectable({ providedIn: 'root' })
export class Instruments {
  private readonly own = signal<readonly Instrument[]>([]);
  readonly all = this.own.asReadonly();
  private asked: Promise<void> | undefined;

  /** Looks once which there are. */
  look(): Promise<void> {
    this.asked ??= simulatedInstruments(behaviourIn(location.search)).then((simulated) => {
      const serial = serialInstrument();
      this.own.set([...simulated, ...(serial ? [serial] : [])]);
    });
    return this.asked;
  }
}

/** The instrument that an instruction names ("Dial gauge at the rim"), else the first. */
export function namedIn(
  instruments: readonly Instrument[],
  observe: string | undefined,
): Instrument | undefined {
  const said = (observe ?? '').toLowerCase();
  const name = (i: Instrument) =>
    i.wording
      .replace(/[,(].*$/, '')
      .trim()
      .toLowerCase();
  return instruments.find((i) => said.includes(name(i))) ?? instruments[0];
}

/** What the address says of the stand-ins, as their query. */
export function behaviourIn(search: string): string {
  const said = new URLSearchParams(search).get('instruments');
  return said ? `?${said}` : '';
}
