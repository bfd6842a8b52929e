import { ChangeDetectionStrategy, Component, inject, input, signal } from '@angular/core';
import type { Subscription } from 'rxjs';
import { ToastsService } from '../ui/toasts.service';
import { CardStreamService, type CardsAsk, type CardsNews } from './card-stream.service';

/** Prints spot cards: says how many are drawn so far, and can be cancelled. */
@Component({
  selector: 's-cards-button',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (drawing(); as now) {
      <span role="status">{{ now.of === 0 ? 'Drawing cards…' : now.done + ' of ' + now.of + ' cards' }}</span>
      @if (now.of > 1) {
        <progress [max]="now.of" [value]="now.done" aria-label="Cards drawn"></progress>
      }
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
  readonly ask = input.required<Omit<CardsAsk, 'layout'>>();
  private readonly stream = inject(CardStreamService);
  private readonly toasts = inject(ToastsService);
  protected readonly drawing = signal<{ readonly done: number; readonly of: number } | null>(null);
  private running: Subscription | null = null;

  protected print(layout: CardsAsk['layout']): void {
    this.drawing.set({ done: 0, of: 0 });
    this.running = this.stream.cards({ ...this.ask(), layout }).subscribe({
      next: (news) => this.hear(news),
      error: (error: unknown) => {
        this.drawing.set(null);
        this.toasts.say(error instanceof Error ? error.message : 'The cards could not be drawn.');
      },
    });
  }

  protected cancel(): void {
    this.running?.unsubscribe();
    this.drawing.set(null);
  }

  private hear(news: CardsNews): void {
    if (news.kind === 'drawing') {
      this.drawing.set(news);
      return;
    }
    this.drawing.set(null);
    const url = URL.createObjectURL(news.pdf);
    const link = document.createElement('a');
    link.href = url;
    link.download = 'spot-cards.pdf';
    link.click();
    setTimeout(() => URL.revokeObjectURL(url), 60_000);
  }
}
