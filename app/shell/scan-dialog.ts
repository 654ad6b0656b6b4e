import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { BoxCodes } from '../commands/box-codes';
import { Commands } from '../commands/commands';
import { Incoming } from '../commands/incoming';
import { Notices } from '../commands/notices';
import { looksLikeCode } from '@core/fitting/looks-like-code';
import { CameraDialog } from '../entry/camera-dialog';

/** Reads the square code of a label or a filled sheet that the camera sees. */
@Component({
  selector: 'hs-scan-dialog',
  imports: [CameraDialog],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (commands.overlay() === 'scan') {
      <hs-camera-dialog
        title="Read a code"
        says="Hold the whole square into the picture, straight and sharp."
        (picture)="read($event)"
        (closed)="commands.close('scan')"
      />
    }
  `,
})
export class ScanDialog {
  protected readonly commands = inject(Commands);
  private readonly codes = inject(BoxCodes);
  private readonly incoming = inject(Incoming);
  private readonly notices = inject(Notices);

  protected async read(picture: File): Promise<void> {
    const { readQr } = await import('../commands/read-qr');
    const text = await readQr(picture);
    const sheet = text !== undefined && looksLikeCode(text);
    if (text === undefined || !(this.codes.take(text) || (sheet && (await this.incoming.text(text)))))
      this.notices.refuse(
        text === undefined
          ? 'No code was found on the picture. Hold the whole square into it, straight and sharp, and take it again.'
          : 'The code on the picture is none of a label or a filled sheet. That of an issued paper is read at Verify.',
      );
    else this.commands.close('scan');
  }
}
