import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { levelNames, type Level } from '@sombra/core';

const icons: Readonly<Record<Level, string>> = {
  good: 'bi-check-circle-fill',
  watch: 'bi-eye-fill',
  act: 'bi-triangle-fill',
  urgent: 'bi-diamond-fill',
};

/** A level as shape and word, so that it never rests on colour. */
@Component({
  selector: 's-level-mark',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<i class="bi {{ icon() }}" aria-hidden="true"></i> {{ name() }}`,
  host: { '[class]': 'level()' },
  styles: `
    :host {
      white-space: nowrap;
      font-weight: 600;
    }
    :host.good {
      color: var(--good);
    }
    :host.watch {
      color: var(--watch);
    }
    :host.act {
      color: var(--act);
    }
    :host.urgent {
      color: var(--urgent);
    }
  `,
})
export class LevelMark {
  readonly level = input.required<Level>();
  protected readonly icon = computed(() => icons[this.level()]);
  protected readonly name = computed(() => levelNames[this.level()]);
}
