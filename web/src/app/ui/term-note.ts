import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { NgbPopover } from '@ng-bootstrap/ng-bootstrap/popover';
import { glossary, termPicture, type TermCode } from '@sombra/core';
import { DrawingView } from '../drawing/drawing-view';

/** A word of the work that explains itself where it stands, with a small drawing. */
@Component({
  selector: 's-term',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DrawingView, NgbPopover],
  template: `
    <ng-template #said>
      <div class="term">
        @if (picture(); as drawing) {
          <s-drawing [drawing]="drawing" />
        }
        <p>{{ term().what }}</p>
      </div>
    </ng-template>
    <button
      type="button"
      [ngbPopover]="said"
      [popoverTitle]="term().name"
      container="body"
      autoClose="true"
      [attr.aria-label]="'What is: ' + term().name"
    >
      ?
    </button>
  `,
  styles: `
    :host {
      display: inline-block;
    }
    button {
      width: 24px;
      height: 24px;
      line-height: 1;
      border: 1px solid var(--edge);
      border-radius: 50%;
      background: none;
      color: var(--quiet);
      font-size: 0.85rem;
      font-weight: 600;
      position: relative;
    }
    /* A finger finds it by what it reaches over. */
    button::after {
      content: '';
      position: absolute;
      inset: -11px;
    }
    .term {
      display: grid;
      gap: 0.5rem;
    }
    s-drawing {
      width: 11rem;
      justify-self: center;
    }
    p {
      margin: 0;
    }
  `,
})
export class TermNote {
  readonly code = input.required<TermCode>();
  protected readonly term = computed(() => glossary[this.code()]);
  protected readonly picture = computed(() => termPicture(this.code()));
}
