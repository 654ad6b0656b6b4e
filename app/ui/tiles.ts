import { ActiveDescendantKeyManager, type Highlightable } from '@angular/cdk/a11y';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  Directive,
  inject,
  Injector,
  input,
  output,
  signal,
  viewChildren,
} from '@angular/core';
import { type TileChoice, lettersOf } from './letters';
import { TileDrawing } from './tile-drawing';

/**
 * One tile, as the list of keys walks over it.
 * The compiler of templates imports it by name where the tiles stand: knip is told so.
 */
@Directive({ selector: '[hsTile]', exportAs: 'tile' })
export class Tile implements Highlightable {
  readonly key = input.required<string>({ alias: 'hsTile' });
  readonly active = signal(false);

  setActiveStyles(): void {
    this.active.set(true);
  }

  setInactiveStyles(): void {
    this.active.set(false);
  }
}

/**
 * Choices as tiles, each with a letter. One press or its letter picks, the same again takes back. Arrows walk, Space
 * presses, Enter presses the tile walked to or goes on. While it has the focus every plain letter belongs to it.
 */
@Component({
  selector: 'hs-tiles',
  imports: [Tile, TileDrawing],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { 'data-letters': '' },
  template: `
    <div
      role="listbox"
      tabindex="0"
      class="entry"
      [id]="id()"
      [attr.aria-labelledby]="labelledby()"
      [attr.aria-describedby]="describedby() || null"
      [attr.aria-multiselectable]="many() ? 'true' : null"
      [attr.aria-readonly]="readOnly() ? 'true' : null"
      [attr.aria-activedescendant]="at() ? id() + '-' + at() : null"
      (keydown)="press($event)"
      (blur)="leave()"
    >
      @for (c of choices(); track c.key) {
        <span
          role="option"
          tabindex="-1"
          [hsTile]="c.key"
          #tile="tile"
          [id]="id() + '-' + c.key"
          [class.active]="tile.active()"
          [class.drawn]="c.picture"
          [attr.aria-selected]="isPicked(c.key)"
          [attr.aria-label]="c.wording"
          [attr.aria-keyshortcuts]="c.letter"
          (mousedown)="$event.preventDefault(); focus($event)"
          (click)="pick(c.key)"
          (keydown.enter)="pick(c.key)"
          ><b aria-hidden="true">{{ c.letter }}</b>
          @if (c.picture; as p) {
            <hs-tile-drawing [picture]="p" />
          }
          <span>{{ c.wording }}</span>
        </span>
      }
    </div>
  `,
  styles: `
    [role='listbox'] {
      display: flex;
      flex-wrap: wrap;
      gap: 3px;
      border-radius: 3px;
    }
    [role='option'] {
      display: inline-flex;
      align-items: center;
      gap: 5px;
      min-height: calc(var(--target) - 2px);
      padding: 0 8px 0 5px;
      border: 1px solid var(--rule-strong);
      border-radius: 3px;
      background: var(--paper-2);
      cursor: pointer;
      user-select: none;
    }
    .drawn {
      position: relative;
      flex-direction: column;
      justify-content: flex-start;
      width: 104px;
      padding: 4px;
      gap: 2px;
      text-align: center;
      line-height: 1.2;
    }
    .drawn b {
      position: absolute;
      left: 5px;
      top: 3px;
    }
    b {
      font: 11px var(--mono);
      color: var(--ink-2);
      min-width: 8px;
    }
    [aria-selected='true'] {
      background: var(--verdigris-soft);
      border-color: var(--verdigris);
      box-shadow: inset 0 -3px 0 var(--verdigris);
      font-weight: 600;
    }
    @media (forced-colors: active) {
      [aria-selected='true'] {
        border: 3px solid Highlight;
      }
    }
    .active {
      outline: 2px solid var(--verdigris);
    }
    [aria-readonly] [role='option'] {
      cursor: default;
    }
    [aria-readonly] [role='option']:not([aria-selected='true']) {
      display: none;
    }
  `,
})
export class Tiles {
  readonly id = input.required<string>();
  readonly options = input.required<readonly TileChoice[]>();
  readonly picked = input.required<readonly string[]>();
  readonly many = input(false);
  readonly readOnly = input(false);
  readonly labelledby = input.required<string>();
  readonly describedby = input('');
  /** A tile was pressed: the one that is picked already asks to be taken back. */
  readonly pressed = output<string>();
  /** Enter with nothing to press: on to the next. */
  readonly goOn = output();
  protected readonly choices = computed(() => lettersOf(this.options()));
  private readonly tiles = viewChildren(Tile);
  protected readonly at = signal<string | undefined>(undefined);
  private readonly keys = new ActiveDescendantKeyManager(this.tiles, inject(Injector))
    .withHorizontalOrientation('ltr')
    .withVerticalOrientation()
    .withHomeAndEnd()
    .withWrap();

  protected isPicked(key: string): boolean {
    return this.picked().includes(key);
  }

  protected pick(key: string): void {
    if (!this.readOnly()) this.pressed.emit(key);
  }

  protected focus(e: Event): void {
    (e.currentTarget as HTMLElement).parentElement?.focus();
  }

  protected leave(): void {
    this.keys.setActiveItem(-1);
    this.at.set(undefined);
  }

  protected press(e: KeyboardEvent): void {
    if (e.ctrlKey || e.altKey || e.metaKey) return;
    const at = this.at();
    if (e.key === 'Enter') {
      if (at !== undefined && !this.isPicked(at)) this.pick(at);
      else this.goOn.emit();
    } else if (e.key === ' ') {
      if (at !== undefined) this.pick(at);
    } else if (/^[a-z]$/i.test(e.key)) {
      const meant = this.choices().find((c) => c.letter === e.key.toLowerCase());
      if (meant) this.pick(meant.key);
    } else {
      this.keys.onKeydown(e);
      this.at.set(this.keys.activeItem?.key());
      return;
    }
    e.preventDefault();
    e.stopPropagation();
  }
}
