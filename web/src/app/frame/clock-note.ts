import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { agreesWithinMs } from '@sombra/core';
import { aheadMs } from '../session/device-clock';
import { sayAbout } from '../ui/say-date';

/** Tells on opening that the clock of this device is off; records get a corrected time beside the one it says. */
@Component({
  selector: 's-clock-note',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (words(); as text) {
      <p role="status">{{ text }}</p>
    }
  `,
  styles: `
    p {
      margin: 0;
      padding: 0.3rem 1rem;
      background: var(--caution-paper);
      border-bottom: 1px solid var(--line);
    }
  `,
})
export class ClockNote {
  protected readonly words = computed(() => {
    const ahead = aheadMs();
    if (ahead === null || Math.abs(ahead) <= agreesWithinMs) return null;
    const off = `${sayAbout(ahead)} ${ahead > 0 ? 'ahead' : 'behind'}`;
    return `The clock of this device is ${off}. Set it right; records made until then get the corrected time beside what it says.`;
  });
}
