import { inject, Injectable } from '@angular/core';
import {
  type Bulletin,
  bulletinsOf,
  BulletinsSchema,
  standingBulletins,
  writeBulletin,
} from '@core/patterns/bulletin';
import type { Result } from '@core/quantity/result';
import { SETTING } from '../records/records';
import { Clock } from './clock';
import { DeskSettingsStore } from './desk-settings';
import { FactRepository } from './fact-repository';
import { GrownList } from './grown-list';
import type { StoreTrouble } from './store-trouble';

/** What this house tells everybody about steps of its kits, and took back again. */
@Injectable({ providedIn: 'root' })
export class Bulletins {
  private readonly settings = inject(DeskSettingsStore);
  private readonly clock = inject(Clock);
  private readonly list = new GrownList<Bulletin>(inject(FactRepository), SETTING.bulletins, BulletinsSchema);

  /** Every entry. @param invented those of an invented population, where it was only tried */
  all(invented = false): readonly Bulletin[] {
    return this.list.in(invented);
  }

  standing(invented = false): Bulletin[] {
    return standingBulletins(this.list.in(invented));
  }

  /** What stands about a kit. */
  of(kit: string | undefined): Bulletin[] {
    return bulletinsOf(this.list.entries(), kit);
  }

  file(
    said: Pick<Bulletin, 'kit' | 'step' | 'code' | 'does' | 'text'>,
    invented = false,
  ): Promise<Result<Bulletin, StoreTrouble>> {
    const act = { at: this.clock.now(), by: this.settings.settings().by };
    return this.list.add((before) => writeBulletin(before, { ...said, ...act }), invented);
  }
}
