import { inject, Injectable } from '@angular/core';
import type { JobLine } from '@core/match/job-list';
import type { BoxLabelModel } from '../report/box-label';
import type { LabelModel } from '../report/label';
import type { OrderHead } from '../report/order-list';
import { download } from '../report/download';
import { Notices } from './notices';
import { DeskSettingsStore } from '../data/desk-settings';

/** Small papers: order list and service label. What sets them is fetched when one is wanted. */
@Injectable({ providedIn: 'root' })
export class Papers {
  private readonly settings = inject(DeskSettingsStore);
  private readonly notices = inject(Notices);

  orderCsv(head: OrderHead, lines: readonly JobLine[]): Promise<void> {
    return this.guard(async () => {
      const { orderCsv } = await import('../report/order-list');
      download(`order-${head.tag}.csv`, new Blob(['\ufeff', orderCsv(head, lines)], { type: 'text/csv' }));
    });
  }

  orderPdf(head: OrderHead, lines: readonly JobLine[]): Promise<void> {
    return this.guard(async () => {
      const [{ orderDocument }, { downloadPdf }] = await Promise.all([
        import('../report/order-list'),
        import('../report/download-pdf'),
      ]);
      await downloadPdf(orderDocument(head, lines), `order-${head.tag}.pdf`);
    });
  }

  label(tag: string, model: LabelModel, as: 'svg' | 'pdf'): Promise<void> {
    return this.guard(async () => {
      const [{ labelSvg }, { measureText }] = await Promise.all([
        import('../report/label'),
        import('../report/measure-text'),
      ]);
      const svg = labelSvg(model, this.settings.notation(), await measureText());
      if (as === 'svg') {
        download(`label-${tag}.svg`, new Blob([svg], { type: 'image/svg+xml' }));
        return;
      }
      const { downloadPdf } = await import('../report/download-pdf');
      const [width, height] = [(74 / 25.4) * 72, (44 / 25.4) * 72];
      await downloadPdf(
        {
          pageSize: { width, height },
          pageMargins: 0,
          defaultStyle: { font: 'Plex' },
          content: [{ svg, width, height }],
        },
        `label-${tag}.pdf`,
      );
    });
  }

  /** Labels for a box and its parts, on a roll or on sheets from a place on. */
  boxLabels(
    tag: string,
    models: readonly BoxLabelModel[],
    on: 'roll' | 'sheet',
    from: number,
  ): Promise<void> {
    return this.guard(async () => {
      const [{ boxLabels, boxLabelSvg }, { measureText }, { downloadPdf }] = await Promise.all([
        import('../report/box-label'),
        import('../report/measure-text'),
        import('../report/download-pdf'),
      ]);
      const measure = await measureText();
      const svgs = models.map((m) => boxLabelSvg(m, measure));
      await downloadPdf(boxLabels(svgs, on, from), `labels-${tag}.pdf`);
    });
  }

  private async guard(make: () => Promise<void>): Promise<void> {
    try {
      await make();
    } catch (e) {
      this.notices.refuse(
        `The paper could not be made: ${e instanceof Error ? e.message : String(e)}. Nothing is lost; try again.`,
      );
    }
  }
}
