import { nth } from '@core/quantity/must';
import { own } from '@core/quantity/own';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzTableModule } from 'ng-zorro-antd/table';
import { slotDegrees, slotRoom, slotTravel } from '@core/drive/slots';
import {
  deflectionFromTension,
  frequencyFromTension,
  tensionFromDeflection,
  tensionFromFrequency,
} from '@core/drive/strand-tension';
import { strandKinds } from '@core/drive/strands';
import { DialField } from '../../ui/dial-field';
import { STRAND_WORDS, tensionSentence } from '../../messages/drive-results';
import { DriveStore } from '../drive-store';

/** Tension of a strand, whichever way it is measured; and what slotted sprockets have left. */
@Component({
  selector: 'hs-strands-panel',
  imports: [NzTableModule, NzButtonComponent, DialField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nz-table nzTemplateMode nzSize="small">
      <thead>
        <tr>
          <th>Strand</th>
          <th>Kind</th>
          <th class="num">mm</th>
        </tr>
      </thead>
      <tbody>
        @for (s of spans(); track s.i) {
          <tr>
            <td>
              <button
                nz-button
                nzType="text"
                nzSize="small"
                [attr.aria-pressed]="s.i === at()"
                (click)="at.set(s.i)"
              >
                {{ s.i === at() ? '◆ ' : '' }}{{ s.name }}
              </button>
            </td>
            <td>{{ s.kind }}</td>
            <td class="num">{{ s.mm }}</td>
          </tr>
        }
      </tbody>
    </nz-table>
    @if (strand(); as s) {
      <h3>Tension of that strand</h3>
      <hs-dial-field
        label="Tension"
        unit="N"
        [min]="10"
        [max]="1500"
        [step]="1"
        [digits]="0"
        [value]="tension()"
        (turned)="tension.set($event)"
      />
      <hs-dial-field
        label="Pressed with"
        unit="N"
        [min]="2"
        [max]="200"
        [step]="1"
        [digits]="0"
        [value]="force()"
        (turned)="force.set($event)"
      />
      <hs-dial-field
        label="Gives way by"
        unit="mm"
        [min]="0.1"
        [max]="60"
        [step]="0.1"
        [digits]="1"
        [value]="within(s.deflection, 0.1, 60)"
        (turned)="fromDeflection($event)"
      />
      <hs-dial-field
        label="Rings at"
        unit="Hz"
        [min]="5"
        [max]="500"
        [step]="0.5"
        [digits]="1"
        [value]="within(s.hz, 5, 500)"
        (turned)="fromFrequency($event)"
      />
      @if (s.trouble) {
        <p class="caution" role="alert">{{ s.trouble }}</p>
      }
      <p class="quiet">{{ s.words }}</p>
    } @else {
      <p class="quiet">
        The catalogue gives no mass of this {{ store.layout()?.kind }}: tension cannot be converted.
      </p>
    }
    @for (s of slotted(); track s.id) {
      <h3>{{ s.name }}: slots</h3>
      <hs-dial-field
        label="Bolts off mid-slot"
        unit="mm"
        [min]="-s.half"
        [max]="s.half"
        [step]="0.1"
        [digits]="1"
        [value]="s.at"
        (turned)="slide(s.id, $event)"
      />
      <hs-dial-field
        label="Shaft off mid-slot"
        unit="°"
        [min]="-s.halfDeg"
        [max]="s.halfDeg"
        [step]="0.1"
        [value]="s.deg"
        (turned)="turn(s.id, $event)"
      />
      <p>{{ s.words }}</p>
    }
  `,
  styles: ':host { display: grid; gap: 6px; align-content: start; grid-template-columns: minmax(0, 1fr); }',
})
export class StrandsPanel {
  protected readonly store = inject(DriveStore);
  protected readonly at = signal(0);
  protected readonly force = signal(30);
  private readonly typed = signal<number | undefined>(undefined);
  protected readonly tension = Object.assign(
    computed(() => this.typed() ?? this.store.layout()?.strand?.setN ?? 250),
    { set: (v: number) => this.typed.set(v) },
  );
  private readonly slid = signal<Readonly<Record<string, number>>>({});
  protected readonly spans = computed(() => {
    const s = this.store.state();
    if (!s) return [];
    const kinds = strandKinds(s.layout);
    const n = s.layout.wheels.length;
    return s.path.spans.map((x, i) => ({
      i,
      name: `${nth(s.layout.wheels, i).name} – ${nth(s.layout.wheels, (i + 1) % n).name}`,
      kind: STRAND_WORDS[nth(kinds, i)],
      mm: x.lengthMm.toFixed(1),
    }));
  });
  private readonly span = computed(() => {
    const spans = this.store.state()?.path.spans;
    return spans?.[this.at()] ?? spans?.[0];
  });
  protected readonly strand = computed(() => {
    const [span, data] = [this.span(), this.store.layout()?.strand];
    if (!span || !data) return undefined;
    const s = { spanMm: span.lengthMm, kgPerM: data.kgPerM };
    const hz = frequencyFromTension(this.tension(), s);
    const set = frequencyFromTension(data.setN, s);
    const pressed = deflectionFromTension(this.tension(), this.force(), span.lengthMm);
    const small = pressed.ok
      ? ` By the usual form for small deflections ${pressed.value.small.toFixed(1)} mm, ${(-pressed.value.smallError * 100).toFixed(1)} % short of the exact one.`
      : '';
    const failed = !pressed.ok ? pressed.error : !hz.ok ? hz.error : undefined;
    return {
      hz: hz.ok ? hz.value : undefined,
      deflection: pressed.ok ? pressed.value.exact : undefined,
      trouble: failed ? tensionSentence(failed) : '',
      words: `Free length ${span.lengthMm.toFixed(1)} mm, ${data.kgPerM} kg/m. New and set: ${data.setN} N${set.ok ? `, ${set.value.toFixed(1)} Hz` : ''}. The procedure’s own method governs.${small}`,
    };
  });
  protected readonly slotted = computed(() => {
    const layout = this.store.layout();
    return (layout?.wheels ?? []).flatMap((w) => {
      if (!w.slots) return [];
      const at = own(this.slid(), w.id) ?? 0;
      const room = slotRoom(w.slots, at);
      return [
        {
          id: w.id,
          name: w.name,
          half: w.slots.halfMm,
          at,
          deg: slotDegrees(at, w.slots.radiusMm),
          halfDeg: slotDegrees(w.slots.halfMm, w.slots.radiusMm),
          words: `Advanced is plus. Left: ${room.advanceDeg.toFixed(2)}° to advance, ${room.retardDeg.toFixed(2)}° to retard.${room.atEnd ? ' ▲ At the end of its slots: no adjustment left, the timing is forced.' : ''}`,
        },
      ];
    });
  });

  /** What lies beyond the field is not shown as its end: that would be another value. */
  protected within(v: number | undefined, min: number, max: number): number | undefined {
    return v !== undefined && v >= min && v <= max ? v : undefined;
  }

  protected fromDeflection(mm: number): void {
    const span = this.span();
    const t = span && tensionFromDeflection(this.force(), span.lengthMm, mm);
    if (t?.ok) this.typed.set(t.value.exact);
  }

  protected fromFrequency(hz: number): void {
    const [span, data] = [this.span(), this.store.layout()?.strand];
    const t = span && data && tensionFromFrequency(hz, { spanMm: span.lengthMm, kgPerM: data.kgPerM });
    if (t?.ok) this.typed.set(t.value);
  }

  protected turn(id: string, deg: number): void {
    const slots = this.store.layout()?.wheels.find((w) => w.id === id)?.slots;
    if (slots) this.slide(id, slotTravel(deg, slots.radiusMm));
  }

  protected slide(id: string, mm: number): void {
    this.slid.update((s) => ({ ...s, [id]: mm }));
  }
}
