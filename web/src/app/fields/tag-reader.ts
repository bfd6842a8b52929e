import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  inject,
  output,
  signal,
  viewChild,
} from '@angular/core';

const lookEveryMs = 220;
/** A picture this wide is enough to read a tag at arm's length, and quick to go through. */
const widthPx = 640;

/** Reads the code on a tag through the camera, on this device alone. */
@Component({
  selector: 's-tag-reader',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (open()) {
      <video #video muted playsinline aria-label="What the camera sees: hold it on the tag"></video>
      <button type="button" class="btn btn-outline-primary" (click)="close()">Close the camera</button>
    } @else {
      <button type="button" class="btn btn-outline-primary" (click)="start()">
        <i class="bi bi-qr-code-scan" aria-hidden="true"></i> Read the tag
      </button>
    }
    @if (fault(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
  `,
  styles: `
    video {
      display: block;
      width: 100%;
      max-height: 40vh;
      background: var(--ink);
      margin-bottom: 0.4rem;
    }
    .btn {
      min-height: 52px;
    }
  `,
})
export class TagReader {
  readonly seen = output<string>();
  private readonly video = viewChild<ElementRef<HTMLVideoElement>>('video');
  protected readonly open = signal(false);
  protected readonly fault = signal<string | null>(null);
  private stream: MediaStream | null = null;
  private timer: ReturnType<typeof setTimeout> | null = null;

  constructor() {
    inject(DestroyRef).onDestroy(() => this.close());
  }

  protected async start(): Promise<void> {
    this.fault.set(null);
    try {
      if (!navigator.mediaDevices) throw new DOMException('', 'NotAllowedError');
      const [{ default: jsQR }, stream] = await Promise.all([
        import('jsqr'),
        navigator.mediaDevices.getUserMedia({ video: { facingMode: 'environment' } }),
      ]);
      this.stream = stream;
      this.open.set(true);
      // The picture stands in the page once it is shown.
      setTimeout(() => void this.look(jsQR));
    } catch (error) {
      this.fault.set(whyNot(error));
    }
  }

  private async look(decode: typeof import('jsqr').default): Promise<void> {
    const video = this.video()?.nativeElement;
    if (!video || !this.stream) return;
    if (video.srcObject !== this.stream) {
      video.srcObject = this.stream;
      await video.play().catch(() => undefined);
    }
    const text = video.videoWidth > 0 ? decodeFrame(video, decode) : null;
    if (text) {
      this.close();
      this.seen.emit(text);
    } else this.timer = setTimeout(() => void this.look(decode), lookEveryMs);
  }

  protected close(): void {
    if (this.timer) clearTimeout(this.timer);
    for (const track of this.stream?.getTracks() ?? []) track.stop();
    this.stream = null;
    this.open.set(false);
  }
}

function decodeFrame(video: HTMLVideoElement, decode: typeof import('jsqr').default): string | null {
  const canvas = document.createElement('canvas');
  canvas.width = widthPx;
  canvas.height = Math.round((widthPx * video.videoHeight) / video.videoWidth);
  const context = canvas.getContext('2d', { willReadFrequently: true });
  if (!context) return null;
  context.drawImage(video, 0, 0, canvas.width, canvas.height);
  const { data, width, height } = context.getImageData(0, 0, canvas.width, canvas.height);
  return decode(data, width, height, { inversionAttempts: 'dontInvert' })?.data || null;
}

function whyNot(error: unknown): string {
  const name = error instanceof DOMException ? error.name : '';
  if (name === 'NotAllowedError') {
    return 'The camera may not be used here: allow it in the settings of this page, which must be open over https. Compare the number on the tag instead.';
  }
  if (name === 'NotFoundError') return 'This device has no camera. Compare the number on the tag instead.';
  return 'The camera could not be opened. Compare the number on the tag instead.';
}
