import { HttpClient, HttpEventType } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, inject, input, signal } from '@angular/core';
import type { Subscription } from 'rxjs';
import { readProblem, sayProblem } from '../frame/problem';
import { ToastsService } from '../frame/toasts.service';

/** Prints spot cards: says how much has come so far, and can be cancelled. */
@Component({
  selector: 's-cards-button',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (loaded(); as text) {
      <span role="status">{{ text }}</span>
      <button type="button" class="btn btn-outline-primary" (click)="cancel()">Cancel</button>
    } @else {
      <button type="button" class="btn btn-outline-primary" (click)="print('a5')">Spot cards</button>
      <button type="button" class="btn btn-outline-primary" (click)="print('four')">four a sheet</button>
    }
  `,
  host: { style: 'display: inline-flex; gap: 0.4rem; align-items: center' },
})
export class CardsButton {
  /** Spots, a planting day, or nothing for all that are ready to plant. */
  readonly ask = input.required<{ readonly spots?: readonly string[]; readonly day?: string }>();
  private readonly http = inject(HttpClient);
  private readonly toasts = inject(ToastsService);
  protected readonly loaded = signal<string | null>(null);
  private running: Subscription | null = null;

  protected print(layout: 'a5' | 'four'): void {
    this.loaded.set('Drawing cards…');
    let cards = '';
    this.running = this.http
      .post('/api/cards', { ...this.ask(), layout }, { observe: 'events', reportProgress: true, responseType: 'blob' })
      .subscribe({
        next: (event) => {
          if (event.type === HttpEventType.ResponseHeader) cards = event.headers.get('x-cards') ?? '';
          if (event.type === HttpEventType.DownloadProgress) {
            this.loaded.set(`${cards} cards, ${Math.round(event.loaded / 1024)} kB so far…`);
          }
          if (event.type === HttpEventType.Response && event.body) this.hand(event.body);
        },
        error: (error: unknown) => {
          this.loaded.set(null);
          void this.tell(error);
        },
      });
  }

  protected cancel(): void {
    this.running?.unsubscribe();
    this.loaded.set(null);
  }

  private hand(pdf: Blob): void {
    this.loaded.set(null);
    const url = URL.createObjectURL(pdf);
    const link = document.createElement('a');
    link.href = url;
    link.download = 'spot-cards.pdf';
    link.click();
    setTimeout(() => URL.revokeObjectURL(url), 60_000);
  }

  private async tell(error: unknown): Promise<void> {
    const body = (error as { error?: unknown }).error;
    const text = body instanceof Blob ? await body.text() : null;
    const title = text ? ((JSON.parse(text) as { title?: string }).title ?? null) : null;
    this.toasts.say(title ?? sayProblem(readProblem(error)));
  }
}
