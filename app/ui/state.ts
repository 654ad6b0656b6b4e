import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

/** The states that a view, or a part of it, can be in beside its usual one. */
export type StateKind = 'empty' | 'loading' | 'failed' | 'offline' | 'read_only' | 'sealed' | 'contradicted';

const SIGNS: Record<StateKind, string> = {
  empty: '○',
  loading: '◔',
  failed: '▲',
  offline: '▲',
  read_only: '◇',
  sealed: '◆',
  contradicted: '▲',
};

/** Says in which state something is and what can be done about it; the same everywhere. */
@Component({
  selector: 'hs-state',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[class]': 'kind()', '[attr.role]': 'role()', '[attr.aria-busy]': "kind() === 'loading' || null" },
  template: `
    <span class="sign" aria-hidden="true">{{ sign() }}</span>
    <div>
      <b>{{ title() }}</b>
      <ng-content />
    </div>
  `,
  styles: `
    :host {
      display: flex;
      gap: 10px;
      padding: 10px 12px;
      border: 1px dashed var(--rule-strong);
      border-radius: 4px;
      background: var(--paper-2);
    }
    .sign {
      font-size: 1.4em;
      line-height: 1;
      color: var(--ink-2);
    }
    :host(.failed),
    :host(.offline),
    :host(.contradicted) {
      border: 1px solid var(--brass);
      border-left-width: 4px;
      background: var(--brass-soft);
    }
    :host(.failed) .sign,
    :host(.offline) .sign,
    :host(.contradicted) .sign {
      color: var(--brass-ink);
    }
    :host(.sealed) {
      border: 1px solid var(--verdigris);
      border-left-width: 4px;
    }
    :host(.sealed) .sign {
      color: var(--verdigris);
    }
  `,
})
export class StateCard {
  readonly kind = input.required<StateKind>();
  readonly title = input.required<string>();
  /** It came while somebody works here: it is spoken at once. */
  readonly urgent = input(false);
  protected readonly sign = computed(() => SIGNS[this.kind()]);
  /** What happens by itself is spoken; what a place simply is, is read when one comes to it. */
  protected readonly role = computed(() => {
    if (this.urgent()) return 'alert';
    return this.kind() === 'loading' ? 'status' : null;
  });
}
