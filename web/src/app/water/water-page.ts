import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import { waterGroupNames, waterGroups, type Problem, type WaterGroup, type WaterList } from '@sombra/contract';
import { formatQuantity } from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { textOf } from '../fields/event-values';
import { SessionService } from '../session/session.service';
import { readProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { StateNote } from '../ui/state-note';
import { ViewState } from '../ui/view-state.service';
import { BallGauge } from './ball-gauge';
import { DroughtNote } from './drought-note';
import { sayNext } from './say-next';
import { WaterDays } from './water-days';
import { waterCsvUrl, WaterService } from './water.service';

const pageLines = 100;

/** All followed trees by when they ask for water: who is dry today, who will be, who drowns, and how much that is by day. */
@Component({
  selector: 's-water-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, StateNote, BallGauge, DroughtNote, WaterDays],
  templateUrl: './water-page.html',
  styleUrls: ['../ui/group-buttons.scss', './water-page.scss'],
})
export class WaterPage {
  protected readonly textOf = textOf;
  protected readonly say = sayDay;
  protected readonly names = waterGroupNames;
  protected readonly groups = waterGroups;
  protected readonly view = inject(ViewState);
  private readonly doors = inject(WaterService);
  private readonly session = inject(SessionService);
  protected readonly list = signal<WaterList | null>(null);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly busy = signal(false);

  protected readonly group = computed((): WaterGroup | undefined => {
    const asked = this.view.text('group');
    return waterGroups.find((one) => one === asked);
  });
  protected readonly place = computed(() => this.view.text('place') ?? undefined);
  protected readonly unread = computed(() => (this.view.text('unread') === 'yes' ? ('yes' as const) : undefined));
  private readonly filter = computed(() => ({ group: this.group(), place: this.place(), unread: this.unread() }));
  protected readonly csv = computed(() => waterCsvUrl(this.filter()));
  protected readonly title = computed(() => {
    const all = this.list();
    const group = this.group();
    const trees = `${all?.total ?? 0} ${all?.total === 1 ? 'tree' : 'trees'}`;
    const litres = all && all.litres > 0 ? `, ${formatQuantity(all.litres, 'volumeL', this.session.units())}` : '';
    return `${group ? `${waterGroupNames[group]}: ` : ''}${trees}${litres}`;
  });
  protected readonly emptyWords = computed(() =>
    this.group() ? 'No tree is in this group.' : 'No planted tree is followed here.',
  );
  protected readonly lines = computed(() => {
    const of = { today: this.session.today(), units: this.session.units() };
    const days = (count: number) => (count === 0 ? '' : `${count} d`);
    return (this.list()?.lines ?? []).map((line) => ({
      ...line,
      next: sayNext(line.next, of),
      stress: days(line.stressDays),
      waterlogged: days(line.waterloggedDays),
    }));
  });

  constructor() {
    effect(() => {
      this.filter();
      untracked(() => void this.read());
    });
  }

  protected async read(): Promise<void> {
    await this.fetch(0);
  }

  protected async more(): Promise<void> {
    await this.fetch(this.list()?.lines.length ?? 0);
  }

  private async fetch(offset: number): Promise<void> {
    const asked = this.filter();
    this.busy.set(true);
    try {
      const found = await firstValueFrom(this.doors.list({ ...asked, offset, limit: pageLines }));
      // Another filter was chosen meanwhile: its own answer is on its way.
      if (asked !== this.filter()) return;
      const before = offset > 0 ? (this.list()?.lines ?? []) : [];
      this.list.set({ ...found, lines: [...before, ...found.lines] });
      this.problem.set(null);
    } catch (error) {
      this.problem.set(readProblem(error));
    } finally {
      this.busy.set(false);
    }
  }
}
