import { nth } from '@core/quantity/must';
import { inject, Injectable, signal } from '@angular/core';
import { inverse } from '@core/examination/flatten';
import { project, type PicturePoint } from '@core/examination/photo';
import { Pictures } from '../../commands/pictures';
import type { Flattened } from '../../workers/photo.protocol';
import { type PhotoOverlay, scaleOf } from '@core/examination/photo-overlay';

/** A photograph seen from straight above its plane, while one looks at it so: what is picked are still spots of the original. */
@Injectable()
export class PhotoFlat {
  private readonly pictures = inject(Pictures);
  readonly flat = signal<(Flattened & { url: string }) | undefined>(undefined);
  readonly busy = signal(false);

  /** Lays the picture flat by the corners of its rectangle. False when it could not be. @param stillWanted asked once it is done */
  async lay(blob: Blob, o: PhotoOverlay, stillWanted: () => boolean): Promise<boolean> {
    const scale = scaleOf(o);
    if (scale?.kind !== 'rectangle' || this.busy()) return true;
    this.busy.set(true);
    const laid = await this.pictures.flatten({ blob, corners: o.marks, sides: scale });
    this.busy.set(false);
    if (laid.ok && stillWanted()) this.flat.set({ ...laid.value, url: URL.createObjectURL(laid.value.blob) });
    return laid.ok;
  }

  end(): void {
    const flat = this.flat();
    if (flat) URL.revokeObjectURL(flat.url);
    this.flat.set(undefined);
  }

  /** Where a spot of what is shown lies in the original. */
  original(spot: PicturePoint): PicturePoint {
    const flat = this.flat();
    const at = flat && project(flat.back, spot);
    return flat && at ? { x: at.x / flat.sourcePx, y: at.y / flat.sourcePx } : spot;
  }

  /** What was picked, where it is shown. */
  shown(o: PhotoOverlay): PhotoOverlay {
    const flat = this.flat();
    if (!flat) return o;
    const forth = inverse(flat.back, nth(o.marks, 0));
    const there = (spots: readonly PicturePoint[]) =>
      spots.flatMap(({ x, y }) => {
        const p = project(forth, { x: x * flat.sourcePx, y: y * flat.sourcePx });
        return p ? [p] : [];
      });
    return { ...o, marks: there(o.marks), spots: there(o.spots) };
  }
}
