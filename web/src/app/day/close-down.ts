import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { DayDetail } from '@sombra/contract';
import { closeDownOf, type CloseDownItem, type CloseDownTask } from '@sombra/core';

export const closeDownWords: Readonly<Record<CloseDownTask, string>> = {
  heeled_in: 'heeled in and watered, tagged to its spot',
  holes_fenced: 'Open holes fenced and lit',
  tools_back: 'Tools counted back',
  containers_back: 'Containers and wraps collected',
  all_home: 'Everybody gone home, or somebody stays with them',
};

/** What is done before the last one leaves, ticked one by one. */
@Component({
  selector: 's-close-down',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>Before the last one leaves</h2>
    <ul>
      @for (item of items(); track item.key) {
        <li>
          <label>
            <input
              type="checkbox"
              [checked]="item.done"
              [disabled]="item.done || busy() || !mayRun()"
              (change)="ticked.emit({ task: item.task, spotId: item.spotId })"
            />
            {{ item.words }}
          </label>
        </li>
      }
    </ul>
  `,
  styles: `
    ul {
      list-style: none;
      padding: 0;
      margin: 0;
    }
    label {
      display: flex;
      gap: 0.7rem;
      align-items: center;
      min-height: 48px;
      border-bottom: 1px solid var(--line);
    }
    input {
      width: 1.4rem;
      height: 1.4rem;
      flex: none;
    }
  `,
})
export class CloseDown {
  readonly day = input.required<DayDetail>();
  readonly mayRun = input.required<boolean>();
  readonly busy = input(false);
  readonly ticked = output<CloseDownItem>();
  protected readonly items = computed(() => {
    const { events, trees } = this.day();
    const done = events.flatMap((event) => (event.kind === 'close_down' ? [event.facts] : []));
    return closeDownOf(this.day(), done).map((item) => {
      const ref = trees.find(({ spotId }) => spotId === item.spotId)?.ref;
      return {
        ...item,
        key: `${item.task} ${item.spotId}`,
        words: ref ? `${ref} ${closeDownWords[item.task]}` : closeDownWords[item.task],
      };
    });
  });
}
