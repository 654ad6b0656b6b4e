import { ChangeDetectionStrategy, Component, type ElementRef, inject, viewChild } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { HouseStore, type HouseSettings } from '../data/house';
import { OverlayDialog } from './dialog-base';

@Component({
  selector: 'hs-house-dialog',
  imports: [NzButtonComponent, NzInputDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <dialog #dialog aria-labelledby="house-title" (close)="close()">
      <h2 id="house-title">House settings</h2>
      <div class="grid">
        <label for="house-by">Your name on facts</label>
        <input nz-input id="house-by" #by maxlength="120" [value]="house.settings().by" (change)="name(by)" />
        <label for="house-date">Dates are written</label>
        <select
          id="house-date"
          #date
          [value]="house.settings().dateOrder"
          (change)="house.change({ dateOrder: order(date.value) })"
        >
          <option value="dmy" [selected]="house.settings().dateOrder === 'dmy'">31.12.2026</option>
          <option value="mdy" [selected]="house.settings().dateOrder === 'mdy'">12/31/2026</option>
          <option value="ymd" [selected]="house.settings().dateOrder === 'ymd'">2026-12-31</option>
        </select>
        <label for="house-distance">Distance in</label>
        <select
          id="house-distance"
          #dist
          (change)="house.change({ distance: dist.value === 'mi' ? 'mi' : 'km' })"
        >
          <option value="km" [selected]="house.settings().distance === 'km'">km</option>
          <option value="mi" [selected]="house.settings().distance === 'mi'">miles</option>
        </select>
        <label for="house-step">Labels round down to</label>
        <input
          nz-input
          id="house-step"
          #step
          inputmode="numeric"
          [value]="house.settings().labelStep"
          (change)="labelStep(step)"
        />
        <label for="house-density">Targets</label>
        <select
          id="house-density"
          #density
          (change)="house.change({ density: density.value === 'bench' ? 'bench' : 'compact' })"
        >
          <option value="compact" [selected]="house.settings().density === 'compact'">Compact</option>
          <option value="bench" [selected]="house.settings().density === 'bench'">
            Bench: large, for gloves
          </option>
        </select>
        <label for="house-theme">Light or dark</label>
        <select id="house-theme" #theme (change)="house.setTheme(theme.value === 'dark' ? 'dark' : 'light')">
          <option value="light" [selected]="house.theme() === 'light'">Light</option>
          <option value="dark" [selected]="house.theme() === 'dark'">Dark</option>
        </select>
      </div>
      <button nz-button nzType="primary" (click)="close()">Done</button>
    </dialog>
  `,
  styles: `
    .grid {
      display: grid;
      grid-template-columns: auto 1fr;
      gap: 8px 14px;
      align-items: center;
      margin-bottom: 14px;
      min-width: 340px;
    }
    select {
      min-height: var(--target);
      background: var(--paper-2);
      border: 1px solid var(--rule-strong);
      border-radius: 3px;
    }
  `,
})
export class HouseDialog extends OverlayDialog {
  protected readonly house = inject(HouseStore);
  protected readonly dialog = viewChild.required<ElementRef<HTMLDialogElement>>('dialog');
  protected readonly overlay = 'house' as const;

  protected name(input: HTMLInputElement): void {
    const by = input.value.trim();
    if (by) this.house.change({ by });
    else input.value = this.house.settings().by;
  }

  protected labelStep(input: HTMLInputElement): void {
    this.house.change({ labelStep: Number(input.value) });
    input.value = String(this.house.settings().labelStep);
  }

  protected order(value: string): HouseSettings['dateOrder'] {
    return value === 'mdy' || value === 'ymd' ? value : 'dmy';
  }
}
