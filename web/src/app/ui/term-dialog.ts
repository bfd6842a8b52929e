import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { glossary, termPicture, type TermCode } from '@sombra/core';
import { DrawingView } from '../drawing/drawing-view';

/** What a word of the work means, with a small drawing where one says it better. */
@Component({
  selector: 's-term-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DrawingView, RouterLink],
  template: `
    <div class="modal-header">
      <h2 class="modal-title" id="term-title">{{ term().name }}</h2>
      <button type="button" class="btn-close" aria-label="Close" (click)="modal.dismiss()"></button>
    </div>
    <div class="modal-body">
      @if (picture(); as drawing) {
        <s-drawing [drawing]="drawing" />
      }
      <p>{{ term().what }}</p>
      <a routerLink="/help" (click)="modal.dismiss()">All words of the work</a>
    </div>
  `,
  styles: `
    s-drawing {
      display: block;
      width: 13rem;
      margin: 0 auto 0.75rem;
    }
  `,
})
export class TermDialog {
  protected readonly modal = inject(NgbActiveModal);
  readonly code = signal<TermCode>('flare');
  protected readonly term = computed(() => glossary[this.code()]);
  protected readonly picture = computed(() => termPicture(this.code()));
}
