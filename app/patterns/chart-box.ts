import { ChangeDetectionStrategy, Component, input, output, viewChild } from '@angular/core';
import type { EChartsCoreOption } from 'echarts/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { writeCsv } from '../report/csv';
import { download } from '../report/download';
import type { Inks } from '../ui/chart-in-host';
import { PatternChart } from './pattern-chart';

/** A chart with what it says in a line, and its ways out: as a picture, as a drawing, as a table. */
@Component({
  selector: 'hs-chart-box',
  imports: [NzButtonComponent, PatternChart],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-pattern-chart [label]="label()" [option]="option()" (pressed)="pressed.emit($event)" />
    <div class="row">
      <small class="quiet">{{ note() }}</small>
      <span class="grow"></span>
      <button nz-button nzSize="small" (click)="png()">PNG</button>
      <button nz-button nzSize="small" (click)="svg()">SVG</button>
      <button nz-button nzSize="small" (click)="csv()">CSV</button>
    </div>
  `,
  styles: `
    :host {
      display: block;
    }
    .grow {
      flex: 1;
    }
  `,
})
export class ChartBox {
  readonly label = input.required<string>();
  readonly note = input('');
  readonly option = input.required<(inks: Inks) => EChartsCoreOption>();
  /** Name of the files. */
  readonly name = input.required<string>();
  readonly table = input.required<readonly (readonly (string | number)[])[]>();
  readonly pressed = output<string>();
  private readonly chart = viewChild.required(PatternChart);

  protected async png(): Promise<void> {
    const url = this.chart().png();
    if (url) download(`${this.name()}.png`, await (await fetch(url)).blob());
  }

  protected async svg(): Promise<void> {
    const svg = await this.chart().svg();
    if (svg) download(`${this.name()}.svg`, new Blob([svg], { type: 'image/svg+xml' }));
  }

  protected csv(): void {
    download(`${this.name()}.csv`, new Blob([writeCsv(this.table())], { type: 'text/csv' }));
  }
}
