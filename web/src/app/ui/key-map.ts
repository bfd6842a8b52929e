import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { KeysService, type KeyBinding } from './keys.service';

/** Keys that fields and lists answer by themselves. */
const always: readonly Omit<KeyBinding, 'run'>[] = [
  { where: 'Lists', keys: '↑ ↓', does: 'walk the lines' },
  { where: 'Lists', keys: 'Enter', does: 'open the line on the bench' },
  { where: 'Lists', keys: 'Shift+↑↓ Ctrl+A', does: 'choose several, or all that were read' },
  { where: 'Lists', keys: 'Shift+← →', does: 'on a heading: make its column narrower or wider' },
  { where: 'Lists', keys: 'Space', does: 'choose the line for an act or a comparison' },
  { where: 'Season band', keys: '← →', does: 'a day back or on; with Shift a week, Page keys four weeks, Home today' },
  { where: 'Map', keys: '+ − arrows', does: 'zoom and pan' },
];

/** What each key does, here and now. */
@Component({
  selector: 's-key-map',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="modal-header">
      <h2 class="modal-title" id="key-map-title">Keys</h2>
      <button type="button" class="btn-close" aria-label="Close" (click)="modal.dismiss()"></button>
    </div>
    <div class="modal-body">
      @for (group of groups(); track group.where) {
        <h3>{{ group.where }}</h3>
        <dl>
          @for (one of group.keys; track one.keys + one.does) {
            <div>
              <dt>
                @for (key of one.keys.split(' '); track $index) {
                  <kbd>{{ key }}</kbd>
                }
              </dt>
              <dd>{{ one.does }}</dd>
            </div>
          }
        </dl>
      }
    </div>
  `,
  styles: `
    dl {
      columns: 2;
      margin-bottom: 0.75rem;
    }
    dl div {
      display: grid;
      grid-template-columns: 6.5rem 1fr;
      break-inside: avoid;
      padding: 0.15rem 0;
    }
    dd {
      margin: 0;
    }
    kbd {
      background: var(--shade);
      color: var(--ink);
      border: 1px solid var(--line);
      margin-right: 0.2rem;
    }
    @media (max-width: 720px) {
      dl {
        columns: 1;
      }
    }
  `,
})
export class KeyMap {
  protected readonly modal = inject(NgbActiveModal);
  private readonly keys = inject(KeysService);
  protected readonly groups = computed(() => {
    const all = [...this.keys.bindings(), ...always];
    return [...new Set(all.map(({ where }) => where))].map((where) => ({
      where,
      keys: all.filter((one) => one.where === where),
    }));
  });
}
