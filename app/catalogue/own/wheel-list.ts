import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzCheckboxComponent } from 'ng-zorro-antd/checkbox';
import { LayoutSchema } from '@core/drive/layout';
import { USUAL } from '@core/drive/usual';
import type { PickedWheel } from '@core/examination/photo-sheet';
import { readNumber } from '@core/quantity/parse-quantity';
import { own } from '@core/quantity/own';
import { SENSE_CHOICES } from '../../messages/drive';
import { mm } from '../../messages/own-engine';
import { counted } from '../../language/plural';
import type { TileChoice } from '../../ui/letters';
import { LineField } from '../../ui/line-field';
import { Pick } from '../../ui/pick';
import { Segmented } from '../../ui/segmented';
import { ShortField } from '../../ui/short-field';
import { OwnStore } from './own-store';

const ROLES = LayoutSchema.shape.wheels.element.shape.role.options;
/** What a new wheel of a kind begins with. */
const BEGINS: Readonly<Record<string, Partial<PickedWheel>>> = {
  tensioner: { name: 'Tensioner', side: -1 },
  idler: { name: 'Guide roller', side: -1 },
  guide: { name: 'Guide', side: -1, shoe: true },
  pump: { name: 'Pump', side: -1 },
  cam: { name: 'Cam sprocket', side: 1 },
};
const ADD = ['tensioner', 'idler', 'pump', 'guide', 'cam'] as const;

/** The wheels in the order in which the belt meets them; one is in hand, and presses on the picture are its spots. */
@Component({
  selector: 'hs-wheel-list',
  imports: [LineField, NzButtonComponent, NzCheckboxComponent, Pick, Segmented, ShortField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './wheel-list.html',
  styleUrl: './wheel-list.less',
})
export class WheelList {
  protected readonly store = inject(OwnStore);
  protected readonly roles = ROLES.map((key): TileChoice => ({ key, wording: key }));
  protected readonly add = ADD.map((role) => ({ role, word: own(BEGINS, role)?.name ?? role }));
  protected readonly sides = [
    { value: 'inside', label: 'inside' },
    { value: 'back', label: 'back' },
  ] as const;
  protected readonly senses = SENSE_CHOICES;
  protected readonly marks = [
    { key: 'from', label: 'from' },
    { key: 'nominal', label: 'nominal' },
    { key: 'to', label: 'to' },
    { key: 'end', label: 'end' },
  ] as const;
  protected readonly wrong = signal('');
  protected readonly at = this.store.inHand;
  protected readonly rows = computed(() => {
    const m = this.store.measured();
    return this.store.photo().wheels.map((w, i) => {
      const seen = m?.ok ? m.value.wheels[i] : undefined;
      const size = w.teeth === undefined ? '' : counted(w.teeth, 'tooth', 'teeth');
      const rim = seen?.rimMm === undefined ? '' : `Ø ${mm(2 * seen.rimMm, 2 * (seen.rimU ?? 0))}`;
      const far = i === 0 || !seen ? '' : `${mm(Math.hypot(seen.x, seen.y), seen.u)} from the driving wheel`;
      const spots = w.spots.length === 0 ? 'not picked' : counted(w.spots.length, 'spot', 'spots');
      return { w, says: [size, rim, far].filter(Boolean).join(' · ') || spots, spots };
    });
  });
  protected readonly names = computed(() =>
    this.store.photo().wheels.map((w) => ({ key: w.id, wording: w.name })),
  );

  protected take(i: number): void {
    this.store.picking.set({ what: 'wheel', wheel: i });
  }

  protected put(role: string): void {
    const { name = 'Wheel', side = 1, shoe } = own(BEGINS, role) ?? {};
    const known = ROLES.find((r) => r === role) ?? 'idler';
    this.store.add({ name, role: known, side, ...(shoe ? { shoe } : {}) });
  }

  protected role(i: number, role: string): void {
    const known = ROLES.find((r) => r === role);
    if (known) this.store.wheel(i, { role: known });
  }

  protected teeth(i: number, text: string): void {
    const v = readNumber(text);
    const whole = v !== undefined && Number.isInteger(v) && v > 2 && v < 1000;
    this.wrong.set(
      whole || text.trim() === '' ? '' : `“${text}” is no number of teeth: a whole number above two.`,
    );
    if (whole || text.trim() === '') this.store.wheel(i, { teeth: whole ? v : undefined });
  }

  protected eccentric(i: number, on: boolean): void {
    this.store.wheel(i, { eccentric: on ? { turn: 'cw', ...USUAL.marks } : undefined });
    if (on) this.store.picking.set({ what: 'pivot', wheel: i });
  }

  protected pointer(i: number, w: PickedWheel, turn: 'cw' | 'ccw'): void {
    if (w.eccentric) this.store.wheel(i, { eccentric: { ...w.eccentric, turn } });
  }

  protected mark(i: number, w: PickedWheel, key: (typeof this.marks)[number]['key'], text: string): void {
    const v = readNumber(text);
    if (v !== undefined && w.eccentric) this.store.wheel(i, { eccentric: { ...w.eccentric, [key]: v } });
    else this.wrong.set(`“${text}” is no angle.`);
  }

  protected addDistance(): void {
    const { wheels, distances } = this.store.photo();
    const [a, b] = [wheels[0]?.id, wheels.find((w) => w.role === 'cam')?.id ?? wheels[1]?.id];
    if (a !== undefined && b !== undefined)
      this.store.draw({ distances: [...distances, { a, b, mm: 100, u: 0.5 }] });
  }

  protected distance(i: number, part: { a?: string; b?: string; mm?: string; u?: string }): void {
    const before = this.store.photo().distances[i];
    if (!before) return;
    const read = (text: string | undefined, before: number) => {
      const v = text === undefined ? before : readNumber(text);
      if (v !== undefined && v > 0) return v;
      this.wrong.set(`“${text ?? ''}” is no length: millimetres above zero.`);
      return before;
    };
    this.wrong.set('');
    const [from, to] = [part.a ?? before.a, part.b ?? before.b];
    if (from === to) return this.wrong.set('A distance is between two wheels: choose another one.');
    this.store.draw({
      distances: this.store
        .photo()
        .distances.map((d, k) =>
          k === i ? { a: part.a ?? d.a, b: part.b ?? d.b, mm: read(part.mm, d.mm), u: read(part.u, d.u) } : d,
        ),
    });
  }

  protected dropDistance(i: number): void {
    this.store.draw({ distances: this.store.photo().distances.filter((_, k) => k !== i) });
  }
}
