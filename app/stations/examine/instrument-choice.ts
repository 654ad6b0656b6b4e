import { computed, inject, Injectable, signal } from '@angular/core';
import type { Dimension } from '@core/quantity/units';
import type { Instrument } from '../../instruments/instrument';
import { Instruments, namedIn } from '../../instruments/instruments';

/** Which instrument is listened to for a reading: of those that measure its dimension the one that its instruction names, until another is picked. */
@Injectable()
export class InstrumentChoice {
  private readonly instruments = inject(Instruments);
  /** What is wanted, and how it is observed. */
  readonly wanted = signal<{ dimension: Dimension; observe: string | undefined } | undefined>(undefined);
  readonly wished = signal<string | undefined>(undefined);
  private readonly fitting = computed(() =>
    this.instruments
      .all()
      .filter((i) => i.dimension === undefined || i.dimension === this.wanted()?.dimension),
  );
  readonly choices = computed(() => this.fitting().map((i) => ({ key: i.key, wording: i.wording })));
  readonly picked = computed<Instrument | undefined>(
    () =>
      this.fitting().find((i) => i.key === this.wished()) ?? namedIn(this.fitting(), this.wanted()?.observe),
  );

  inspection(): void {
    void this.instruments.look();
  }
}
