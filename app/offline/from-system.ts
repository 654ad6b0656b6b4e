import { inject, Injectable } from '@angular/core';
import { Incoming } from '../commands/incoming';
import { SHARE_PATH, takeShared } from './shared-in';

type LaunchParams = { readonly files?: readonly { getFile(): Promise<File> }[] };
type LaunchQueue = { setConsumer(take: (p: LaunchParams) => void): void };

/** Files that the system opens with this program, and what other programs share with it: they go through the one door for what came in. */
@Injectable({ providedIn: 'root' })
export class FromSystem {
  private readonly incoming = inject(Incoming);

  async start(): Promise<void> {
    const { launchQueue } = window as unknown as { launchQueue?: LaunchQueue };
    launchQueue?.setConsumer((p) => void this.opened(p));
    if (new URLSearchParams(location.search).has(SHARE_PATH.slice(1))) {
      const files = await takeShared();
      if (files.length > 0) await this.incoming.files(files);
    }
  }

  private async opened({ files = [] }: LaunchParams): Promise<void> {
    const read = await Promise.all(files.map((f) => f.getFile()));
    if (read.length > 0) await this.incoming.files(read);
  }
}
