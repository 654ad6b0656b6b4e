import { found } from '@core/quantity/must';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  effect,
  type ElementRef,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { FileButton } from '../ui/file-button';
import { Modal } from '../ui/modal';

/** Width that a camera is asked for, pixels: what it has less of, it gives. */
const WIDTH = 4096;

/** What a camera of this machine sees, live; taken pictures are given out, and the camera is let go when it is closed. */
@Component({
  selector: 'hs-camera-dialog',
  imports: [FileButton, Modal, NzButtonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-modal [open]="true" [title]="title()" [width]="820" (closed)="closed.emit()">
      @if (trouble()) {
        <p class="caution">
          No camera could be opened here: {{ trouble() }}. Allow the browser to use it, or take the picture
          with the device’s own camera.
        </p>
        <hs-file-button
          wording="The device’s own camera"
          label="Picture from the device’s own camera"
          accept="image/*"
          capture="environment"
          (chosen)="give($event)"
        />
      } @else {
        <video #video autoplay muted playsinline aria-label="What the camera sees"></video>
        <div class="row">
          <button nz-button nzType="primary" [disabled]="!live()" (click)="take()">Take it</button>
          <span class="quiet" aria-live="polite">{{ taken() ? taken() + ' taken. ' : '' }}{{ says() }}</span>
        </div>
      }
    </hs-modal>
  `,
  styles: `
    video {
      display: block;
      width: 100%;
      max-height: 60vh;
      background: #000;
    }
  `,
})
export class CameraDialog {
  readonly title = input('Take a picture');
  readonly says = input('A ruler or a rectangle of known sides in the part’s plane gives it a scale.');
  readonly picture = output<File>();
  readonly closed = output();
  protected readonly trouble = signal('');
  protected readonly live = signal(false);
  protected readonly taken = signal(0);
  private readonly stream = signal<MediaStream | undefined>(undefined);
  private readonly video = viewChild<ElementRef<HTMLVideoElement>>('video');
  private gone = false;

  constructor() {
    inject(DestroyRef).onDestroy(() => {
      this.gone = true;
      this.release(this.stream());
    });
    effect(() => {
      const [video, stream] = [this.video()?.nativeElement, this.stream()];
      if (!video || !stream) return;
      video.onplaying = () => this.live.set(true);
      video.srcObject = stream;
    });
    void this.open();
  }

  private async open(): Promise<void> {
    try {
      const wanted = { width: { ideal: WIDTH }, facingMode: { ideal: 'environment' } };
      const stream = await navigator.mediaDevices.getUserMedia({ video: wanted });
      // Closed while the browser still asked.
      if (this.gone) this.release(stream);
      else this.stream.set(stream);
    } catch (e) {
      this.trouble.set(e instanceof Error ? e.message : String(e));
    }
  }

  /** Pictures that the device's own camera made. */
  protected give(files: readonly File[]): void {
    for (const f of files) this.picture.emit(f);
    this.closed.emit();
  }

  private release(stream: MediaStream | undefined): void {
    for (const track of stream?.getTracks() ?? []) track.stop();
  }

  protected async take(): Promise<void> {
    const video = this.video()?.nativeElement;
    if (!video || video.videoWidth === 0) return;
    const canvas = new OffscreenCanvas(video.videoWidth, video.videoHeight);
    found(canvas.getContext('2d')).drawImage(video, 0, 0);
    const blob = await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.95 });
    this.taken.update((n) => n + 1);
    this.picture.emit(new File([blob], `picture-${this.taken()}.jpg`, { type: blob.type }));
  }
}
