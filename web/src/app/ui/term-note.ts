import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import type { TermCode } from '@sombra/core';

/** A word of the work that explains itself where it stands; what it says is loaded when somebody asks. */
@Component({
  selector: 's-term',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<button type="button" aria-label="What this word means" (click)="explain()">?</button>`,
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
  `,
})
export class TermNote {
  readonly code = input.required<TermCode>();
  private readonly modals = inject(NgbModal);

  protected async explain(): Promise<void> {
    const { TermDialog } = await import('./term-dialog');
    const dialog = this.modals.open(TermDialog, { size: 'sm', ariaLabelledBy: 'term-title' });
    (dialog.componentInstance as InstanceType<typeof TermDialog>).code.set(this.code());
  }
}
