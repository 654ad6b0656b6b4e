import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Router } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { Commands } from '../commands/commands';
import { Modal } from '../ui/modal';
import { PLACE_KEYS, placeOf } from '../messages/keys';

/** The keys of the place one is in, and those that work everywhere. */
@Component({
  selector: 'hs-keys-dialog',
  imports: [NzButtonComponent, Modal],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-modal title="Keys" [width]="720" [open]="commands.overlay() === 'keys'" (closed)="close()">
      <div class="both">
        <section>
          <h3>Here</h3>
          <dl class="pairs">
            @for (k of here(); track k.does) {
              <dt>
                <kbd>{{ k.key }}</kbd>
              </dt>
              <dd>{{ k.does }}</dd>
            }
          </dl>
          @if (inCase()) {
            <p class="quiet">
              On the fact line type a name and a value: <span class="mono">ptr -96</span>,
              <span class="mono">edge front frayed</span>, <span class="mono">odo 48200 km</span>. A last word
              such as <span class="mono">reported</span> says how it is known.
            </p>
          }
        </section>
        <section>
          <h3>Everywhere</h3>
          <dl class="pairs">
            @for (c of keys(); track c.name) {
              <dt>
                <kbd>{{ c.key }}</kbd>
              </dt>
              <dd>{{ c.name }}</dd>
            }
          </dl>
        </section>
      </div>
      <button nz-button cdkFocusInitial (click)="close()">Close</button>
    </hs-modal>
  `,
  styles: `
    .both {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 22px;
      margin-bottom: 10px;
    }
    @media (max-width: 700px) {
      .both {
        grid-template-columns: 1fr;
      }
    }
  `,
})
export class KeysDialog {
  protected readonly commands = inject(Commands);
  private readonly router = inject(Router);
  private readonly place = computed(() => {
    this.commands.overlay();
    return placeOf(this.router.url);
  });
  protected readonly inCase = computed(() => this.place() === 'case');
  protected readonly here = computed(() => PLACE_KEYS[this.place()]);
  protected readonly keys = computed(() => {
    this.commands.overlay();
    return this.commands.list().filter((c) => c.key);
  });

  protected close(): void {
    this.commands.close('keys');
  }
}
