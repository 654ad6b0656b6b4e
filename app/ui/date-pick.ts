import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { CdkConnectedOverlay, CdkOverlayOrigin, type ConnectedPosition } from '@angular/cdk/overlay';
import { FormsModule } from '@angular/forms';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzDatePickerModule } from 'ng-zorro-antd/date-picker';
import { English } from './english';

/** Below its button, else above it; its right edge at the button's. */
const PLACES: ConnectedPosition[] = [
  { originX: 'end', originY: 'bottom', overlayX: 'end', overlayY: 'top' },
  { originX: 'end', originY: 'top', overlayX: 'end', overlayY: 'bottom' },
];

/** A calendar beside a typed date. It is fetched when it is first opened. */
@Component({
  selector: 'hs-date-pick',
  imports: [CdkConnectedOverlay, CdkOverlayOrigin, FormsModule, NzButtonComponent, NzDatePickerModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button
      nz-button
      cdkOverlayOrigin
      #beside="cdkOverlayOrigin"
      type="button"
      tabindex="-1"
      [attr.aria-label]="'Calendar: ' + label()"
      title="Calendar"
      (mousedown)="$event.preventDefault()"
      (click)="open.set(!open())"
    >
      <svg width="13" height="13" viewBox="0 0 13 13" aria-hidden="true">
        <path d="M1 3h11v9H1zM1 5.5h11M4 1v3M9 1v3" fill="none" stroke="currentColor" />
      </svg>
    </button>
    @defer (when open()) {
      <ng-template
        cdkConnectedOverlay
        [cdkConnectedOverlayOrigin]="beside"
        [cdkConnectedOverlayOpen]="open()"
        [cdkConnectedOverlayPositions]="places"
        (overlayOutsideClick)="leave($event)"
        (detach)="open.set(false)"
      >
        <div class="sheet">
          <nz-date-picker nzInline [nzId]="null" [ngModel]="date()" (ngModelChange)="choose($event)" />
        </div>
      </ng-template>
    }
  `,
  styles: `
    :host {
      position: relative;
      flex: none;
    }
    button {
      padding: 2px 6px;
    }
    .sheet {
      background: var(--paper-2);
      border: 1px solid var(--rule-strong);
      box-shadow: 0 3px 10px rgb(10 18 18 / 28%);
    }
  `,
})
export class DatePick {
  /** What the day is of. */
  readonly label = input.required<string>();
  /** Calendar day, year-month-day. */
  readonly day = input<string>();
  readonly picked = output<string>();
  protected readonly places = PLACES;
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  protected readonly open = signal(false);
  protected readonly date = computed(() => {
    const [y, m, d] = (this.day() ?? '').split('-').map(Number);
    return y && m && d ? new Date(y, m - 1, d) : null;
  });

  /** A press anywhere else closes it. */
  protected leave(e: Event): void {
    if (this.open() && !this.host.nativeElement.contains(e.target as Node)) this.open.set(false);
  }

  constructor() {
    inject(English);
  }

  protected choose(date: Date | null): void {
    this.open.set(false);
    if (!date) return;
    const two = (n: number) => String(n).padStart(2, '0');
    this.picked.emit(`${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`);
  }
}
