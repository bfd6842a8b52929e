import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { NgbToast } from '@ng-bootstrap/ng-bootstrap/toast';
import { ToastsService } from '../ui/toasts.service';

@Component({
  selector: 's-toasts',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NgbToast],
  template: `
    @for (toast of service.toasts(); track toast.id) {
      <ngb-toast [autohide]="true" [delay]="toast.forMs" (hidden)="service.drop(toast.id)">
        {{ toast.text }}
        @if (toast.act; as act) {
          <button type="button" class="btn btn-sm btn-outline-primary" (click)="service.act(toast)">
            {{ act.name }}
          </button>
          <button type="button" class="btn-close" aria-label="Close" (click)="service.drop(toast.id)"></button>
        }
      </ngb-toast>
    }
  `,
  styles: `
    :host {
      position: fixed;
      right: 1rem;
      bottom: 1rem;
      z-index: 1050;
      display: grid;
      gap: 0.5rem;
    }
    @media (max-width: 720px) {
      :host {
        left: 1rem;
        bottom: 76px;
      }
    }
  `,
})
export class Toasts {
  protected readonly service = inject(ToastsService);
}
