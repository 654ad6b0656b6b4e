import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { rulesEntry } from '@core/answer/sealing';
import { valueOf } from '@core/facts/read';
import { POLICY_QUESTIONS, type Policy, policyFrom } from '@core/policy/policy';
import { Commands } from '../commands/commands';
import { Notices } from '../commands/notices';
import { CaseDesk } from '../data/case-desk';
import { DeskSettingsStore } from '../data/desk-settings';
import { DeskPolicy } from '../data/desk-policy';
import { troubleSentence } from '../data/store-trouble';
import { Modal } from '../ui/modal';
import { Segmented } from '../ui/segmented';

/** What practitioners disagree on, and how this house decides: each with its default and the reason for it. */
@Component({
  selector: 'hs-rules-dialog',
  imports: [Modal, NzButtonComponent, Segmented],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-modal title="Policy" [width]="920" [open]="commands.overlay() === 'policy'" (closed)="close()">
      <p class="quiet">
        What is decided here shapes sheets and advice, and is printed on them. A case keeps the policy that
        its sheet was sent or its report was issued by. ◦ marks the default.
      </p>
      @if (kept(); as k) {
        <p class="caution">
          The case in hand keeps its own: {{ k }}.
          <button nz-button nzSize="small" (click)="renew()">Judge it by the rules below</button>
        </p>
      }
      <div class="rules">
        @for (c of list(); track c.key) {
          <div>
            <b>{{ c.question }}</b>
            <small class="quiet">{{ c.why }}</small>
          </div>
          <hs-segmented
            [label]="c.question"
            [options]="c.options"
            [value]="c.value"
            (picked)="pick(c.key, $event)"
          />
        }
      </div>
    </hs-modal>
  `,
  styles: `
    .rules {
      display: grid;
      grid-template-columns: minmax(0, 5fr) minmax(0, 6fr);
      gap: 8px 16px;
      align-items: center;
    }
    small {
      display: block;
    }
    @media (max-width: 760px) {
      .rules {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class PolicyDialog {
  protected readonly commands = inject(Commands);
  private readonly settings = inject(DeskSettingsStore);
  private readonly ruled = inject(DeskPolicy);
  private readonly desk = inject(CaseDesk);
  private readonly notices = inject(Notices);

  protected readonly list = computed(() => {
    const { chosen } = this.ruled.rules();
    return POLICY_QUESTIONS.map((c) => ({
      key: c.key,
      question: c.question,
      why: c.why,
      value: chosen[c.key] ?? c.default,
      options: c.options.map((o) => ({
        value: o.key,
        label: o.key === c.default ? `${o.wording} ◦` : o.wording,
      })),
    }));
  });
  /** Answers that the case keeps, where they are not today's. */
  protected readonly kept = computed(() => {
    const view = this.desk.current();
    const kept = view && policyFrom(valueOf(view.state, 'case.rules'));
    // Rules with the same answers are one object.
    return kept && kept !== this.ruled.rules() ? differing(kept) : undefined;
  });

  protected pick(key: string, value: string): void {
    this.settings.change({ chosen: { ...this.settings.settings().chosen, [key]: value } });
  }

  protected async renew(): Promise<void> {
    const filed = await this.desk.file(rulesEntry(this.ruled.rules()));
    if (!filed.ok) this.notices.refuse(troubleSentence(filed.error));
  }

  protected close(): void {
    this.commands.close('policy');
  }
}

/** What they answer otherwise than as shipped, in words. */
function differing(policy: Policy): string {
  const own = POLICY_QUESTIONS.filter((c) => policy.chosen[c.key] !== c.default);
  if (own.length === 0) return 'as shipped';
  return own
    .map((c) => `${c.question} ${c.options.find((o) => o.key === policy.chosen[c.key])?.wording ?? ''}`)
    .join('; ');
}
