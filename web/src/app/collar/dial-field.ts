import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  signal,
  viewChild,
  type ElementRef,
} from '@angular/core';
import {
  arcLengthDeg,
  collarDial,
  compassPoint,
  DialFrame,
  mostRoots,
  rootNatureNames,
  rootTouchNames,
  stagedCuts,
  type Anchor,
  type CirclingRoot,
  type RootNature,
  type RootTouch,
} from '@sombra/core';
import { DrawingView } from '../drawing/drawing-view';
import { QuantityInput } from '../fields/quantity-input';
import { numberOf } from '../fields/event-values';
import { SessionService } from '../session/session.service';
import { DialUp } from './dial-up';
import { fingers, growsNames, limitsOf, rootWords, type CollarRoots, type CutLimits } from './collar-roots';

const sidePx = 400;
/** A stroke of less than this is a tap. Degrees */
const tapDeg = 8;
const usualMm = 15;
const eighthDeg = 45;
/** Nearer to the trunk than this, of half the side, a stroke begins at the trunk; further out there is only soil. */
const [leastOut, mostOut] = [0.22, 0.98];

/**
 * The collar from above: a root is put down by drawing it from where it starts to where it ends, or by its numbers; each
 * says how thick it is and how near it lies. What holds the tree is tapped in.
 */
@Component({
  selector: 's-dial-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DrawingView, QuantityInput],
  templateUrl: './dial-field.html',
  styleUrl: './dial-field.scss',
})
export class DialField {
  readonly value = input.required<CollarRoots>();
  /** As the look before found them. */
  readonly before = input<readonly CirclingRoot[]>([]);
  /** Which way the path runs past, from the tree; `null` where nobody said. Bearing */
  readonly pathDeg = input<number | null>(null);
  /** Where cuts are to be shown, by what they are planned. */
  readonly cutBy = input<CutLimits | null>(null);
  readonly changed = output<CollarRoots>();

  protected readonly numberOf = numberOf;
  private readonly session = inject(SessionService);
  private readonly sheet = viewChild<ElementRef<HTMLElement>>('sheet');
  private readonly up = inject(DialUp);
  /** Turned by hand, where neither north nor the path is where one stands. */
  private readonly turned = signal<number | null>(null);
  protected readonly upDeg = computed(() => this.turned() ?? (this.up.isPath() ? (this.pathDeg() ?? 0) : 0));
  protected readonly isUp = computed(() => {
    if (this.turned() !== null) return 'turned';
    return this.up.isPath() && this.pathDeg() !== null ? 'path' : 'north';
  });
  protected readonly upWords = computed(() => compassPoint(this.upDeg()));
  private readonly frame = computed(() => new DialFrame(sidePx, this.upDeg()));
  protected readonly putting = signal<'root' | 'anchor'>('root');
  protected readonly chosen = signal<number | null>(null);
  protected readonly chosenAnchor = signal<number | null>(null);
  protected readonly fault = signal<string | null>(null);
  /** What is being drawn: where it began, and how far round it has gone since, clockwise positive. */
  private readonly stroke = signal<{ readonly fromDeg: number; readonly sweepDeg: number } | null>(null);
  private lastDeg = 0;

  protected readonly touches = Object.entries(rootTouchNames).map(([value, name]) => ({
    value: value as RootTouch,
    name,
  }));
  protected readonly natures = Object.entries(rootNatureNames).map(([value, name]) => ({
    value: value as RootNature,
    name,
  }));
  protected readonly grows = Object.entries(growsNames).map(([value, name]) => ({
    value: value as 'away' | 'towards',
    name,
  }));

  protected readonly roots = computed(() => this.value().roots);
  protected readonly anchors = computed(() => this.value().anchors ?? []);
  protected readonly root = computed(() => {
    const at = this.chosen();
    return at === null ? null : (this.roots()[at] ?? null);
  });
  protected readonly anchor = computed(() => {
    const at = this.chosenAnchor();
    return at === null ? null : (this.anchors()[at] ?? null);
  });
  private readonly drawn = computed((): CirclingRoot | null => {
    const stroke = this.stroke();
    return stroke && Math.abs(stroke.sweepDeg) >= tapDeg ? { ...rootOf(stroke), diameterMm: usualMm } : null;
  });
  private readonly plan = computed(() => {
    const by = this.cutBy();
    return by && stagedCuts({ roots: this.roots(), anchors: this.anchors(), ...limitsOf(by) });
  });
  protected readonly drawing = computed(() => {
    const drawn = this.drawn();
    const roots = drawn ? [...this.roots(), drawn] : this.roots();
    return collarDial({
      roots,
      anchors: this.anchors(),
      before: this.before(),
      plan: this.plan() ?? undefined,
      chosen: drawn ? roots.length - 1 : this.chosen(),
      pathDeg: this.pathDeg(),
      upDeg: this.upDeg(),
      units: this.session.units(),
      sidePx,
    });
  });
  protected readonly lines = computed(() => this.roots().map((root) => rootWords(root, this.session.units())));
  protected readonly fingers = computed(() => fingers(this.root()?.diameterMm ?? this.anchor()?.diameterMm ?? usualMm));

  private pointAt(event: PointerEvent): { bearingDeg: number; out: number } | null {
    const box = this.sheet()?.nativeElement.getBoundingClientRect();
    if (!box || box.width === 0) return null;
    const scale = sidePx / box.width;
    return this.frame().of([(event.clientX - box.left) * scale, (event.clientY - box.top) * scale]);
  }

  protected putUp(path: boolean): void {
    this.turned.set(null);
    this.up.put(path);
  }
  protected turn(): void {
    this.turned.set((Math.round(this.upDeg() / eighthDeg) * eighthDeg + eighthDeg) % 360);
  }

  protected begin(event: PointerEvent): void {
    const at = this.pointAt(event);
    this.fault.set(null);
    if (!at) return;
    if (at.out < leastOut || at.out > mostOut) {
      this.fault.set('Begin beside the trunk: within the ring, outside the share in its middle.');
      return;
    }
    event.preventDefault();
    this.sheet()?.nativeElement.setPointerCapture(event.pointerId);
    this.lastDeg = at.bearingDeg;
    this.stroke.set({ fromDeg: at.bearingDeg, sweepDeg: 0 });
  }

  protected draw(event: PointerEvent): void {
    const stroke = this.stroke();
    const at = stroke && this.pointAt(event);
    if (!stroke || !at) return;
    const turn = ((at.bearingDeg - this.lastDeg + 540) % 360) - 180;
    this.lastDeg = at.bearingDeg;
    // Once round is all there is.
    this.stroke.set({ ...stroke, sweepDeg: Math.max(-350, Math.min(350, stroke.sweepDeg + turn)) });
  }

  protected end(): void {
    const stroke = this.stroke();
    this.stroke.set(null);
    if (!stroke) return;
    if (this.putting() === 'anchor') {
      this.addAnchor(stroke.fromDeg);
      return;
    }
    if (Math.abs(stroke.sweepDeg) < tapDeg) {
      const hit = this.roots().findIndex((root) => within(root, stroke.fromDeg));
      this.chosen.set(hit < 0 ? null : hit);
      if (hit < 0) this.fault.set('Draw along the root, from where it starts to where it ends.');
      return;
    }
    this.addRoot(rootOf(stroke));
  }

  protected lost(): void {
    this.stroke.set(null);
  }

  protected addRoot(root: Pick<CirclingRoot, 'arc'> = { arc: { fromDeg: 0, toDeg: 30 } }): void {
    if (this.isFull()) return;
    const roots = [...this.roots(), { ...root, diameterMm: usualMm, touch: 'pressing' as const }];
    this.put({ roots });
    this.chosenAnchor.set(null);
    this.chosen.set(roots.length - 1);
  }

  protected addAnchor(bearingDeg = 0): void {
    if (this.isFull()) return;
    const anchors = [...this.anchors(), { bearingDeg, diameterMm: usualMm * 2 }];
    this.put({ anchors });
    this.chosen.set(null);
    this.chosenAnchor.set(anchors.length - 1);
  }

  private isFull(): boolean {
    const full = this.roots().length + this.anchors().length >= mostRoots;
    if (full) this.fault.set(`${mostRoots} roots are the most one look takes.`);
    return full;
  }

  protected choose(at: number): void {
    this.chosenAnchor.set(null);
    this.chosen.set(this.chosen() === at ? null : at);
  }
  protected chooseAnchor(at: number): void {
    this.chosen.set(null);
    this.chosenAnchor.set(this.chosenAnchor() === at ? null : at);
  }

  protected change(change: Partial<CirclingRoot>): void {
    const at = this.chosen();
    this.put({ roots: this.roots().map((root, i) => (i === at ? { ...root, ...change } : root)) });
  }
  protected bearing(key: 'fromDeg' | 'toDeg', deg: number | null): void {
    const root = this.root();
    if (root && deg !== null) this.change({ arc: { ...root.arc, [key]: deg } });
  }
  protected changeAnchor(change: Partial<Anchor>): void {
    const at = this.chosenAnchor();
    this.put({ anchors: this.anchors().map((one, i) => (i === at ? { ...one, ...change } : one)) });
  }
  protected thick(mm: number | null): void {
    if (mm === null) return;
    if (this.root()) this.change({ diameterMm: mm });
    else this.changeAnchor({ diameterMm: mm });
  }
  protected drop(): void {
    const [at, anchorAt] = [this.chosen(), this.chosenAnchor()];
    if (at !== null) this.put({ roots: this.roots().filter((_, i) => i !== at) });
    if (anchorAt !== null) this.put({ anchors: this.anchors().filter((_, i) => i !== anchorAt) });
    this.chosen.set(null);
    this.chosenAnchor.set(null);
  }

  private put(change: Partial<CollarRoots>): void {
    this.fault.set(null);
    this.changed.emit({ ...this.value(), ...change });
  }
}

/** A stroke as an arc, which is always told clockwise. */
function rootOf({
  fromDeg,
  sweepDeg,
}: {
  readonly fromDeg: number;
  readonly sweepDeg: number;
}): Pick<CirclingRoot, 'arc'> {
  const other = (((fromDeg + Math.round(sweepDeg)) % 360) + 360) % 360;
  return { arc: sweepDeg >= 0 ? { fromDeg, toDeg: other } : { fromDeg: other, toDeg: fromDeg } };
}

const within = ({ arc }: CirclingRoot, deg: number): boolean => (deg - arc.fromDeg + 360) % 360 <= arcLengthDeg(arc);
