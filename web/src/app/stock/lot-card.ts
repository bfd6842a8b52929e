import { KeyValuePipe } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { receiveLotSchema, type Delivery, type Lot } from '@sombra/contract';
import {
  ballStateNames,
  circlingFace,
  circlingSteps,
  formatQuantity,
  judgeReceived,
  leaderNames,
  receivingNames,
  receivingVerdicts,
  samplingPlan,
  stockNames,
  woundNames,
  wrapKindNames,
  type ReceivedTree,
  type ReceivingVerdict,
} from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { DrawingView } from '../drawing/drawing-view';
import { BecauseList } from '../frame/because-list';
import { LevelMark } from '../frame/level-mark';
import { readProblem, sayProblem } from '../frame/problem';
import { ToastsService } from '../frame/toasts.service';
import { shrinkPhoto } from '../ground/shrink-photo';
import { SessionService } from '../people/session.service';
import { StockService } from './stock.service';

type NumberKey =
  | 'caliperMm'
  | 'heightM'
  | 'ballDiameterMm'
  | 'ballHeightMm'
  | 'rootSpreadMm'
  | 'rootDepthMm'
  | 'thickestCirclingMm'
  | 'graftHeightMm'
  | 'firstBranchM';

interface NumberField {
  readonly key: NumberKey | 'topRoots';
  readonly name: string;
  readonly unit: string;
}
const ballFields: readonly NumberField[] = [
  { key: 'ballDiameterMm', name: 'Ball diameter', unit: 'mm' },
  { key: 'ballHeightMm', name: 'Ball height', unit: 'mm' },
  { key: 'topRoots', name: 'Topmost roots, by probe at several points', unit: 'mm' },
];
const bareFields: readonly NumberField[] = [
  { key: 'rootSpreadMm', name: 'Root spread', unit: 'mm' },
  { key: 'rootDepthMm', name: 'Flare to lowest root', unit: 'mm' },
];
const blank: ReceivedTree = {
  caliperMm: null,
  heightM: null,
  ballDiameterMm: null,
  ballHeightMm: null,
  rootSpreadMm: null,
  rootDepthMm: null,
  topRootsDepthMm: [],
  circlingPct: null,
  thickestCirclingMm: null,
  kinked: null,
  ball: null,
  wrap: null,
  graftHeightMm: null,
  leader: null,
  wounds: null,
  brokenBranches: null,
  firstBranchM: null,
  bestFaceDeg: null,
};
const fieldNames: Readonly<Record<string, string>> = {
  arrived: 'Arrived',
  opened: 'Opened',
  bad: 'Of them bad',
  reason: 'Because',
  heightM: 'Height',
  caliperMm: 'Caliper',
};

/** One lot as it is received: count, sample, what was found on an opened tree, verdict and picture. */
@Component({
  selector: 's-lot-card',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [KeyValuePipe, DrawingView, BecauseList, LevelMark],
  templateUrl: './lot-card.html',
  styleUrl: './lot-card.scss',
})
export class LotCard {
  readonly lot = input.required<Lot>();
  readonly mayReceive = input(false);
  readonly kept = output<Delivery>();
  private readonly doors = inject(StockService);
  private readonly session = inject(SessionService);
  private readonly toasts = inject(ToastsService);
  protected readonly stockNames = stockNames;
  protected readonly verdicts = receivingVerdicts;
  protected readonly verdictNames = receivingNames;
  protected readonly faces = circlingSteps.map((pct) => ({ pct, drawing: circlingFace(pct) }));
  protected readonly words = [
    { key: 'ball', name: 'Ball', names: ballStateNames },
    { key: 'wrap', name: 'Wrap and ties', names: wrapKindNames },
    { key: 'leader', name: 'Leader', names: leaderNames },
    { key: 'wounds', name: 'Wounds', names: woundNames },
  ] as const;
  protected readonly yesNo = [
    { key: 'kinked', name: 'Roots kinked at the stem' },
    { key: 'brokenBranches', name: 'Broken branches' },
  ] as const;

  /** Words stay in the order they are listed. */
  protected readonly keep = (): number => 0;
  protected readonly open = signal(false);
  protected readonly arrived = signal('');
  protected readonly opened = signal('');
  protected readonly bad = signal('');
  protected readonly numbers = signal<Readonly<Record<string, string>>>({});
  protected readonly tree = signal<ReceivedTree>(blank);
  protected readonly reason = signal('');
  protected readonly faults = signal<readonly string[]>([]);
  protected readonly asked = signal<string | null>(null);
  protected readonly busy = signal(false);

  protected readonly fields = computed((): readonly NumberField[] => [
    { key: 'caliperMm', name: 'Caliper', unit: 'mm' },
    { key: 'heightM', name: 'Height', unit: 'm' },
    ...(this.lot().stockKind === 'bare_root' ? bareFields : ballFields),
    { key: 'thickestCirclingMm', name: 'Thickest circling root', unit: 'mm' },
    { key: 'firstBranchM', name: 'First branch', unit: 'm' },
    { key: 'graftHeightMm', name: 'Graft above the roots', unit: 'mm' },
  ]);
  protected readonly sample = computed(() => {
    const lot = Number(this.arrived()) || this.lot().expected;
    return samplingPlan(Math.max(1, Math.min(100_000, Math.round(lot))));
  });
  protected readonly caliper = computed(() => formatQuantity(this.lot().caliperMm, 'lengthMm', this.session.units()));
  protected readonly judged = computed(() =>
    judgeReceived(this.read(), { kind: this.lot().stockKind, caliperMm: this.lot().caliperMm }),
  );

  constructor() {
    effect(() => {
      const lot = this.lot();
      untracked(() => this.start(lot));
    });
  }

  private start(lot: Lot): void {
    const tree = lot.tree ?? blank;
    this.arrived.set(lot.arrived === null ? '' : String(lot.arrived));
    this.opened.set(lot.opened > 0 ? String(lot.opened) : '');
    this.bad.set(lot.arrived === null ? '' : String(lot.bad));
    this.reason.set(lot.reason);
    this.tree.set(tree);
    const shown: Record<string, string> = { topRoots: tree.topRootsDepthMm.join(' ') };
    for (const { key } of this.fields()) {
      if (key !== 'topRoots') shown[key] = tree[key] === null ? '' : String(tree[key]);
    }
    this.numbers.set(shown);
    this.open.set(lot.verdict === null);
  }

  protected type(key: string, text: string): void {
    this.numbers.update((numbers) => ({ ...numbers, [key]: text }));
    this.asked.set(null);
  }

  protected set(change: Partial<ReceivedTree>): void {
    this.tree.update((tree) => ({ ...tree, ...change }));
  }

  protected put(key: keyof ReceivedTree, value: unknown): void {
    this.set({ [key]: value });
  }

  /** The tree as typed so far; what is no number stays out of the judgement. */
  private read(): ReceivedTree {
    const number = (key: string): number | null => {
      const text = (this.numbers()[key] ?? '').trim().replace(',', '.');
      return text === '' || Number.isNaN(Number(text)) ? null : Number(text);
    };
    const numbers = Object.fromEntries(
      this.fields()
        .filter(({ key }) => key !== 'topRoots')
        .map(({ key }) => [key, number(key)]),
    );
    const topRootsDepthMm = (this.numbers()['topRoots'] ?? '')
      .split(/[\s;,]+/)
      .filter((part) => part !== '' && !Number.isNaN(Number(part)))
      .map(Number);
    return { ...this.tree(), ...numbers, topRootsDepthMm };
  }

  /** Numbers that look like inches are asked about, never taken for what they are not. */
  private looksLikeInches(): string | null {
    const { caliperMm } = this.read();
    const ordered = this.lot().caliperMm;
    if (caliperMm === null || caliperMm <= 0 || caliperMm * 2.5 > ordered) return null;
    const asInches = Math.round(caliperMm * 25.4);
    if (Math.abs(asInches - ordered) > ordered * 0.35) return null;
    return `Caliper ${caliperMm} mm, ${ordered} mm were ordered. Inches? ${caliperMm} in are ${asInches} mm.`;
  }

  protected takeInches(): void {
    const { caliperMm } = this.read();
    if (caliperMm !== null) this.type('caliperMm', String(Math.round(caliperMm * 25.4)));
  }

  protected async decide(verdict: ReceivingVerdict | null): Promise<void> {
    const inches = this.asked() === null ? this.looksLikeInches() : null;
    this.asked.set(inches);
    this.faults.set([]);
    if (inches) return;
    const whole = (text: string) => (text.trim() === '' ? NaN : Number(text));
    const parsed = receiveLotSchema.safeParse(
      {
        version: this.lot().version,
        arrived: whole(this.arrived()),
        opened: this.opened().trim() === '' ? 0 : Number(this.opened()),
        bad: this.bad().trim() === '' ? 0 : Number(this.bad()),
        tree: this.read(),
        verdict,
        reason: this.reason(),
      },
      { reportInput: true },
    );
    if (!parsed.success) {
      this.faults.set(
        parsed.error.issues.map(({ path, message }) => {
          const key = String(path.at(-1) ?? '');
          const name = fieldNames[key] ?? this.fields().find((field) => field.key === key)?.name ?? key;
          return `${name}: ${path[0] === 'arrived' && Number.isNaN(whole(this.arrived())) ? 'count what arrived' : message}.`;
        }),
      );
      return;
    }
    this.busy.set(true);
    this.faults.set([]);
    try {
      this.kept.emit(await firstValueFrom(this.doors.receive(this.lot().id, parsed.data)));
      this.toasts.say(verdict ? `${this.lot().species}: ${receivingNames[verdict].toLowerCase()}.` : 'Stored.');
    } catch (error) {
      this.faults.set([sayProblem(readProblem(error))]);
    } finally {
      this.busy.set(false);
    }
  }

  protected async photograph(input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    input.value = '';
    if (!file) return;
    this.busy.set(true);
    try {
      this.kept.emit(await firstValueFrom(this.doors.photo(this.lot().id, await shrinkPhoto(file))));
    } catch (error) {
      this.faults.set([error instanceof TypeError ? error.message : sayProblem(readProblem(error))]);
    } finally {
      this.busy.set(false);
    }
  }
}
