import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { BackupDue } from '../data/backup-due';
import { ShelfState } from '../data/shelf-state';
import { standingLine } from '../messages/shelf';

/** What the desk itself wants seen to, below its cases: backups that are due, and how it stands with the shelf. */
@Component({
  selector: 'hs-rack-notes',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (backupDue.days(); as days) {
      <a routerLink="/safety">▲ No backup for {{ days }} days</a>
    }
    @switch (backupDue.folder().is) {
      @case ('asleep') {
        <a routerLink="/safety">▲ The folder for backups has to be allowed again</a>
      }
      @case ('failed') {
        <a routerLink="/safety">▲ Backups by themselves have stopped</a>
      }
    }
    @if (shelfLine(); as words) {
      <a routerLink="/together"
        ><span role="status">{{ words }}</span></a
      >
    }
  `,
  styles: `
    :host {
      display: grid;
    }
    a {
      padding: 4px 10px;
      color: var(--ink-2);
      font-size: 0.92em;
    }
  `,
})
export class RackNotes {
  protected readonly backupDue = inject(BackupDue);
  private readonly shelf = inject(ShelfState);
  protected readonly shelfLine = computed(() => standingLine(this.shelf.standing(), this.shelf.waiting()));
}
