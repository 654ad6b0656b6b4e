import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  inject,
  signal,
  viewChild,
} from '@angular/core';
import { NzDrawerModule } from 'ng-zorro-antd/drawer';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { Commands } from '../commands/commands';
import { controlsStyles } from '../ui/controls-styles';
import { StateCard } from '../ui/state';
import { termsWith } from '../messages/glossary';

/** What the words of the field and of this desk mean. */
@Component({
  selector: 'hs-glossary-drawer',
  imports: [NzDrawerModule, NzInputDirective, StateCard],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nz-drawer
      nzTitle="Glossary"
      nzPlacement="right"
      [nzWidth]="420"
      [nzVisible]="ready() && commands.overlay() === 'glossary'"
      (nzOnClose)="commands.close('glossary')"
    >
      <ng-container *nzDrawerContent>
        <div #content></div>
        <input
          nz-input
          #box
          cdkFocusInitial
          aria-label="Find a word"
          placeholder="Find a word"
          [value]="typed()"
          (input)="typed.set(box.value)"
        />
        <dl>
          @for (t of found(); track t.term) {
            <dt>
              {{ t.term }}
              @if (t.also; as also) {
                <small>{{ also.join(', ') }}</small>
              }
            </dt>
            <dd>{{ t.means }}</dd>
          }
        </dl>
        @if (found().length === 0) {
          <hs-state kind="empty" title="No such word here." />
        }
      </ng-container>
    </nz-drawer>
  `,
  styles: `
    dt {
      font-weight: 600;
      margin-top: 8px;
    }
    dt small {
      font-weight: 400;
    }
    dd {
      margin: 0;
    }
  `,
})
export class GlossaryDrawer {
  protected readonly commands = inject(Commands);
  protected readonly typed = signal('');
  protected readonly ready = signal(false);
  protected readonly found = computed(() => termsWith(this.typed()));

  private readonly content = viewChild<ElementRef<HTMLElement>>('content');

  constructor() {
    // The library's drawer bears neither a role nor a name.
    afterRenderEffect(() => {
      const drawer = this.content()?.nativeElement.closest('.ant-drawer-content');
      drawer?.setAttribute('role', 'dialog');
      drawer?.setAttribute('aria-label', 'Glossary');
    });
    void controlsStyles().then(() => this.ready.set(true));
  }
}
