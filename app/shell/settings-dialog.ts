import { ChangeDetectionStrategy, Component, computed, effect, inject, untracked } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import { Router } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { NzInputNumberModule } from 'ng-zorro-antd/input-number';
import { Commands } from '../commands/commands';
import { DeskSettingsStore, type DeskSettings, type Theme } from '../data/desk-settings';
import { Modal } from '../ui/modal';
import { Segmented } from '../ui/segmented';

/** How this desk writes and looks; every change is kept at once. */
@Component({
  selector: 'hs-settings-dialog',
  imports: [Modal, NzButtonComponent, NzInputDirective, NzInputNumberModule, ReactiveFormsModule, Segmented],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-modal title="Settings" [open]="commands.overlay() === 'settings'" (closed)="close()">
      <form class="grid" [formGroup]="form" (ngSubmit)="close()">
        <label for="settings-by">Your name on facts</label>
        <input
          nz-input
          id="settings-by"
          cdkFocusInitial
          maxlength="120"
          formControlName="by"
          (blur)="fill()"
        />
        <label for="settings-house">The house, as it signs letters</label>
        <textarea
          nz-input
          id="settings-house"
          rows="3"
          maxlength="400"
          placeholder="Name, then address, a line each"
          formControlName="house"
          (blur)="fill()"
        ></textarea>
        <span>Dates are written</span>
        <hs-segmented
          label="Dates are written"
          [options]="dates"
          [value]="value().dateOrder"
          (picked)="form.controls.dateOrder.setValue($event)"
        />
        <span>Distance in</span>
        <hs-segmented
          label="Distance in"
          [options]="distances"
          [value]="value().distance"
          (picked)="form.controls.distance.setValue($event)"
        />
        <label for="settings-step">Labels round down to, {{ value().distance }}</label>
        <nz-input-number
          nzId="settings-step"
          formControlName="labelStep"
          [nzMin]="1"
          [nzMax]="50000"
          [nzStep]="500"
          [nzPrecision]="0"
          (nzBlur)="fill()"
        />
        <span>Targets</span>
        <hs-segmented
          label="Targets"
          [options]="densities"
          [value]="value().density"
          (picked)="form.controls.density.setValue($event)"
        />
        <span>Hand that works</span>
        <hs-segmented
          label="Hand that works"
          [options]="hands"
          [value]="value().hand"
          (picked)="form.controls.hand.setValue($event)"
        />
        <span>Dictation is heard by</span>
        <hs-segmented
          label="Dictation is heard by"
          [options]="dictations"
          [value]="value().dictation"
          (picked)="form.controls.dictation.setValue($event)"
        />
        <span>Light or dark</span>
        <hs-segmented
          label="Light or dark"
          [options]="themes"
          [value]="value().theme"
          (picked)="form.controls.theme.setValue($event)"
        />
        <span>Safety</span>
        <div class="row">
          <button nz-button type="button" (click)="go('/safety')">Backups and room</button>
          <button nz-button type="button" (click)="go('/together')">Together: the shelf</button>
          <button nz-button type="button" (click)="go('/proof')">Verify, and keys to sign with</button>
        </div>
        <button nz-button nzType="primary">Done</button>
      </form>
    </hs-modal>
  `,
  styles: `
    .grid {
      display: grid;
      grid-template-columns: auto 1fr;
      gap: 8px 14px;
      align-items: center;
      justify-items: start;
    }
  `,
})
export class SettingsDialog {
  protected readonly commands = inject(Commands);
  private readonly settings = inject(DeskSettingsStore);
  private readonly router = inject(Router);
  protected readonly dates = [
    { value: 'dmy', label: '31.12.2026' },
    { value: 'mdy', label: '12/31/2026' },
    { value: 'ymd', label: '2026-12-31' },
  ] as const;
  protected readonly distances = [
    { value: 'km', label: 'km' },
    { value: 'mi', label: 'miles' },
  ] as const;
  protected readonly densities = [
    { value: 'compact', label: 'Compact' },
    { value: 'large', label: 'Large, for gloves' },
  ] as const;
  protected readonly hands = [
    { value: 'right', label: 'Right' },
    { value: 'left', label: 'Left' },
  ] as const;
  protected readonly dictations = [
    { value: 'here', label: 'This machine only' },
    { value: 'service', label: 'The browser’s service too' },
  ] as const;
  protected readonly themes = [
    { value: 'light', label: 'Light' },
    { value: 'dark', label: 'Dark' },
  ] as const;
  protected readonly form = new FormGroup({
    by: new FormControl('', { nonNullable: true }),
    house: new FormControl('', { nonNullable: true }),
    dateOrder: new FormControl<DeskSettings['dateOrder']>('dmy', { nonNullable: true }),
    distance: new FormControl<DeskSettings['distance']>('km', { nonNullable: true }),
    labelStep: new FormControl<number | null>(1000),
    density: new FormControl<DeskSettings['density']>('compact', { nonNullable: true }),
    hand: new FormControl<DeskSettings['hand']>('right', { nonNullable: true }),
    dictation: new FormControl<DeskSettings['dictation']>('here', { nonNullable: true }),
    theme: new FormControl<Theme>('light', { nonNullable: true }),
  });

  /** What is kept, for the controls that are no inputs. */
  protected readonly value = computed(() => ({ ...this.settings.settings(), theme: this.settings.theme() }));

  constructor() {
    effect(() => {
      if (this.commands.overlay() === 'settings') untracked(() => this.fill());
    });
    this.form.valueChanges.pipe(takeUntilDestroyed()).subscribe(() => this.keep());
  }

  /** Shows what is kept: also after a box was left empty. */
  protected fill(): void {
    this.form.patchValue(this.value(), { emitEvent: false });
  }

  private keep(): void {
    const { theme, labelStep, by, ...others } = this.form.getRawValue();
    // What was left empty stays as it was; it does not keep the others back.
    this.settings.change({
      ...others,
      ...(by.trim() === '' ? {} : { by: by.trim() }),
      ...(labelStep === null ? {} : { labelStep }),
    });
    if (theme !== this.settings.theme()) this.settings.setTheme(theme);
  }

  /** A page of its own, instead of this. */
  protected go(path: string): void {
    this.close();
    void this.router.navigate([path]);
  }

  protected close(): void {
    this.commands.close('settings');
  }
}
