import { ChangeDetectionStrategy, Component, computed, effect, inject, input, resource, signal } from '@angular/core';
import { formatQuantity, compassPoint } from '@sombra/core';
import { WhereService } from '../along/where.service';
import { StopsService } from '../along/stops.service';
import type { Stop } from '../along/stop';
import { geodesicBearingDeg, geodesicLengthM } from '../map/measure';
import { AlongService } from '../offline/along.service';
import { SessionService } from '../session/session.service';
import { toldWords } from '../told/told-words';
import { CompassService } from './compass.service';
import { readTag } from './tag-code';
import { TagReader } from '../fields/tag-reader';

/** Further from the tree than this, and further than the position is unsure, it may be another one. m */
const farFromTreeM = 25;

/** What tells this tree from its neighbours, before anything is recorded at it. */
@Component({
  selector: 's-which-tree',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [TagReader],
  template: `
    @let one = stop();
    <div class="which">
      @if (photo.value(); as url) {
        <img [src]="url" alt="This place as it was photographed last" />
      }
      <div>
        <p class="ref">{{ one.ref }}</p>
        <p>
          <i>{{ one.species || 'no species yet' }}</i>, {{ one.place }}
        </p>
        <p>{{ inRow() }}</p>
        @if (where.here()) {
          <p class="way">
            @if (turnDeg(); as turn) {
              <span class="arrow" [style.transform]="'rotate(' + turn.deg + 'deg)'" aria-hidden="true">▲</span>
            }
            {{ where.way(one.position) }}
          </p>
          @if (compass.needsAsking()) {
            <button type="button" class="btn btn-outline-primary" (click)="compass.ask()">Point the way</button>
          }
        }
      </div>
    </div>
    @if (told(); as words) {
      <p class="caution">{{ words }}</p>
    }
    @if (away(); as text) {
      <p class="caution" role="status">{{ text }}</p>
    }
    @if (verdict(); as said) {
      <p [class]="said.right ? 'right' : 'problem'" role="alert">{{ said.text }}</p>
    }
    <s-tag-reader (seen)="compare($event)" />
  `,
  styles: `
    .which {
      display: flex;
      gap: 0.8rem;
    }
    img {
      width: 120px;
      height: 120px;
      object-fit: cover;
      border: 1px solid var(--line);
    }
    p {
      margin: 0.1rem 0;
    }
    .ref {
      font-family: 'Bitter Variable', serif;
      font-size: 1.7rem;
      font-weight: 700;
    }
    .way,
    .right {
      font-weight: 700;
    }
    .right {
      color: var(--good);
    }
    .arrow {
      display: inline-block;
      font-size: 1.4rem;
      margin-right: 0.3rem;
    }
  `,
})
export class WhichTree {
  readonly stop = input.required<Stop>();
  protected readonly where = inject(WhereService);
  private readonly stops = inject(StopsService);
  private readonly along = inject(AlongService);
  private readonly session = inject(SessionService);
  protected readonly compass = inject(CompassService);
  private readonly read = signal<{ readonly of: string; readonly right: boolean; readonly text: string } | null>(null);

  protected readonly photo = resource({
    params: () => this.stop().detail?.photos?.[0]?.id,
    loader: async ({ params }) => {
      // A storage that fails must not take the tree with it: the photo is then the server's.
      const kept = await this.along.photo(params).catch(() => null);
      return kept ? URL.createObjectURL(kept) : `/api/photos/${params}?px=400`;
    },
  });

  constructor() {
    // A day has a hundred trees, and each photo weighs until it is let go.
    effect((onCleanup) => {
      const url = this.photo.value();
      if (url?.startsWith('blob:')) onCleanup(() => URL.revokeObjectURL(url));
    });
    // Once for each tree: a position comes each second, and the field of the earth is the same there.
    const knowsWhere = computed(() => this.where.here() !== null);
    effect(() => {
      if (knowsWhere()) void this.compass.follow(this.stop().position);
    });
  }

  protected readonly told = computed(() => toldWords(this.stop().life, this.session.units()));

  /** Its nearest neighbours that lie here, with what lies between. */
  protected readonly inRow = computed(() => {
    const one = this.stop();
    const units = this.session.units();
    const near = this.stops
      .stops()
      .filter(({ id }) => id !== one.id)
      .map((other) => ({ other, m: geodesicLengthM([one.position, other.position]) }))
      .filter(({ m }) => m < 60)
      .sort((a, b) => a.m - b.m)
      .slice(0, 2)
      .map(({ other, m }) => {
        const towards = compassPoint(geodesicBearingDeg(one.position, other.position));
        return `${other.ref} stands ${formatQuantity(m, 'distanceM', units)} ${towards} of it`;
      });
    return near.length > 0 ? `${near.join(', ')}.` : 'No other of these trees is near.';
  });

  /** Where the tree lies from the top of this device; only a compass knows. */
  protected readonly turnDeg = computed(() => {
    const [here, heading] = [this.where.here(), this.compass.headingDeg()];
    return here && heading !== null
      ? { deg: (geodesicBearingDeg(here, this.stop().position) - heading + 360) % 360 }
      : null;
  });

  protected readonly away = computed(() => {
    const fix = this.where.fix();
    const m = this.where.distanceM(this.stop().position);
    if (!fix || m === null || m <= farFromTreeM + fix.accuracyM) return null;
    const say = (metres: number) => formatQuantity(metres, 'distanceM', this.session.units());
    return `This device says you are ${say(m)} away, give or take ${say(fix.accuracyM)}: is it this tree?`;
  });

  protected readonly verdict = computed(() => (this.read()?.of === this.stop().id ? this.read() : null));

  protected compare(text: string): void {
    const one = this.stop();
    const tag = readTag(text);
    const say = (right: boolean, words: string) => this.read.set({ of: one.id, right, text: words });
    if (!tag) return say(false, 'This code is none of the programme’s tags.');
    const found = this.stops
      .stops()
      .find(({ id, ref, treeId }) =>
        tag.kind === 'ref' ? ref === tag.ref : tag.kind === 'spot' ? id === tag.id : treeId === tag.id,
      );
    if (found?.id === one.id) return say(true, `The tag says ${one.ref}: this is the tree.`);
    say(
      false,
      found
        ? `This is ${found.ref}, not ${one.ref}.`
        : `This tag is of a tree that is not on this device; not of ${one.ref}.`,
    );
  }
}
