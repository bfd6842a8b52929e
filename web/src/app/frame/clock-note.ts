import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { agreesWithinMs, aheadMs } from '../session/device-clock';

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
    const off = `${sayOff(Math.abs(ahead))} ${ahead > 0 ? 'ahead' : 'behind'}`;
    return `The clock of this device is ${off}. Set it right; records made until then get the corrected time beside what it says.`;
  });
}

/** `2 h`, `3 days`, `1 year`: as exact as somebody needs to set a clock right. */
export function sayOff(ms: number): string {
  const steps: readonly (readonly [number, string, string])[] = [
    [365 * 86_400_000, 'year', 'years'],
    [86_400_000, 'day', 'days'],
    [3_600_000, 'hour', 'hours'],
    [60_000, 'minute', 'minutes'],
  ];
  const [size, one, many] = steps.find(([step]) => ms >= step) ?? [60_000, 'minute', 'minutes'];
  const count = Math.round(ms / size);
  return `${count} ${count === 1 ? one : many}`;
}
