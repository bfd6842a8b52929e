import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { receivedTreeSchema, type Delivery, type Problem } from '@sombra/contract';
import {
  formatQuantity,
  judgeReceived,
  receivingNames,
  rootNatureNames,
  samplingPlan,
  stockNames,
  unseenTree,
  type ReceivedTree,
} from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { BecauseList } from '../ui/because-list';
import { LevelMark } from '../ui/level-mark';
import { readProblem, sayProblem } from '../ui/problem';
import { StateNote } from '../ui/state-note';
import { ToastsService } from '../ui/toasts.service';
import { DraftsService } from '../offline/drafts.service';
import { ParcelsService } from '../offline/parcels.service';
import { SessionService } from '../session/session.service';
import { StockService } from './stock.service';
import { TreePhoto, type TakenPhoto } from './tree-photo';
import { TreeQuestion } from './tree-question';
import { questionsFor, type Question } from './tree-questions';

/** One tree of a lot, opened and gone over by hand: one question at a time, its verdict growing below. */
@Component({
  selector: 's-receive-tree-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, BecauseList, LevelMark, StateNote, TreePhoto, TreeQuestion],
  templateUrl: './receive-tree-page.html',
  styleUrl: './receive-tree-page.scss',
})
export class ReceiveTreePage {
  readonly deliveryId = input.required<string>();
  readonly lotId = input.required<string>();
  /** The tree that is looked at again; a new one where missing. */
  readonly again = input<string>();
  private readonly doors = inject(StockService);
  private readonly drafts = inject(DraftsService);
  private readonly parcels = inject(ParcelsService);
  private readonly session = inject(SessionService);
  private readonly toasts = inject(ToastsService);
  private readonly router = inject(Router);

  protected readonly stockNames = stockNames;
  protected readonly verdictNames = receivingNames;
  protected readonly delivery = signal<Delivery | null>(null);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly tree = signal<ReceivedTree>(unseenTree);
  protected readonly key = signal<Question['key'] | null>(null);
  protected readonly photo = signal<TakenPhoto | null>(null);
  protected readonly keepPlace = signal(false);
  protected readonly busy = signal(false);
  protected readonly fault = signal<string | null>(null);

  protected readonly lot = computed(() => this.delivery()?.lots.find(({ id }) => id === this.lotId()) ?? null);
  private readonly corrected = computed(() => this.lot()?.trees.find(({ id }) => id === this.again()) ?? null);
  protected readonly before = computed(() => {
    const kept = this.corrected();
    return kept?.hasPhoto ? `/api/lot-trees/${kept.id}/photo` : null;
  });
  protected readonly number = computed(() => {
    const [trees, kept] = [this.lot()?.trees ?? [], this.corrected()];
    return kept ? trees.indexOf(kept) + 1 : trees.length + 1;
  });
  protected readonly sample = computed(() => {
    const [lot, delivery] = [this.lot(), this.delivery()];
    const arrived = lot?.arrived ?? lot?.expected ?? 0;
    return delivery && arrived > 0 ? samplingPlan(arrived, delivery.rules).open : 0;
  });
  protected readonly questions = computed(() => {
    const [lot, delivery] = [this.lot(), this.delivery()];
    return lot && delivery
      ? questionsFor(
          { kind: lot.stockKind, caliperMm: lot.caliperMm, species: lot.species, sign: lot.sign },
          this.tree(),
          delivery.rules,
          this.session.units(),
        )
      : [];
  });
  protected readonly at = computed(() =>
    Math.max(
      0,
      this.questions().findIndex(({ key }) => key === this.key()),
    ),
  );
  protected readonly question = computed(() => this.questions()[this.at()] ?? null);
  protected readonly judged = computed(() => {
    const [lot, delivery] = [this.lot(), this.delivery()];
    return lot && delivery
      ? judgeReceived(this.tree(), { kind: lot.stockKind, caliperMm: lot.caliperMm }, delivery.rules)
      : null;
  });
  protected readonly answers = computed(() =>
    this.questions().flatMap((question) => {
      const value = this.say(question);
      return value === null ? [] : [{ key: question.key, title: question.title, value }];
    }),
  );
  protected readonly orderedWords = computed(() =>
    formatQuantity(this.lot()?.caliperMm ?? 0, 'lengthMm', this.session.units()),
  );

  constructor() {
    effect(() => {
      this.deliveryId();
      this.lotId();
      this.again();
      untracked(() => void this.read());
    });
  }

  protected async read(): Promise<void> {
    try {
      this.delivery.set(await firstValueFrom(this.doors.delivery(this.deliveryId())));
      this.problem.set(null);
      this.start();
    } catch (error) {
      this.problem.set(readProblem(error));
    }
  }

  /** Begins where it was left: the draft of this device, else the tree that is corrected, else nothing. */
  private start(): void {
    const draft = receivedTreeSchema.safeParse(this.drafts.read(this.draftName())?.value);
    this.tree.set(draft.success ? draft.data : (this.corrected()?.tree ?? unseenTree));
    this.key.set(null);
    this.photo.set(null);
    this.fault.set(null);
  }

  private draftName(): string {
    return `tree.${this.lotId()}.${this.again() ?? 'new'}`;
  }

  protected answer(part: Partial<ReceivedTree>): void {
    this.tree.update((tree) => ({ ...tree, ...part }));
    this.drafts.keep(this.draftName(), this.tree());
  }

  protected go(step: 1 | -1): void {
    const next = this.questions()[this.at() + step];
    if (next) this.key.set(next.key);
    this.fault.set(null);
  }

  protected jump(key: Question['key']): void {
    this.key.set(key);
  }

  private say(question: Question): string | null {
    const [tree, units] = [this.tree(), this.session.units()];
    switch (question.kind) {
      case 'number': {
        const value = tree[question.key];
        return value === null ? null : formatQuantity(value, question.quantity, units);
      }
      case 'probes':
        return tree.probes.length === 0
          ? null
          : tree.probes
              .map(({ depthMm, nature }) => `${formatQuantity(depthMm, 'lengthMm', units)} ${rootNatureNames[nature]}`)
              .join(', ');
      case 'circling':
        return tree.circlingPct === null ? null : `${tree.circlingPct} %`;
      case 'words': {
        const value = tree[question.key];
        return value === null ? null : (question.names[value] ?? value);
      }
      case 'yes_no': {
        const value = tree[question.key];
        return value === null ? null : value ? 'yes' : 'no';
      }
      case 'photo':
        return this.photo() || this.before() ? 'taken' : null;
    }
  }

  protected async store(): Promise<void> {
    const parsed = receivedTreeSchema.safeParse(this.tree());
    if (!parsed.success) {
      const issue = parsed.error.issues[0];
      const question = this.questions().find(({ key }) => key === issue?.path[0]);
      if (question) this.key.set(question.key);
      this.fault.set(`${question?.title ?? 'The tree'} ${issue?.message ?? 'is wrong'}.`);
      return;
    }
    const id = uuidv7();
    const name = `Tree ${this.number()} of ${this.lot()?.species ?? ''}`;
    const body = {
      id,
      seenAt: new Date().toISOString(),
      supersedes: this.corrected()?.id ?? null,
      tree: parsed.data,
    };
    this.busy.set(true);
    const sent = await this.parcels.send({ id, method: 'POST', url: `/api/lots/${this.lotId()}/trees`, body, name });
    if (sent.kind === 'refused') {
      await this.parcels.drop(id);
      this.busy.set(false);
      this.fault.set(sayProblem(sent.problem));
      return;
    }
    await this.sendPhoto(id, name);
    this.busy.set(false);
    this.drafts.drop(this.draftName());
    this.toasts.say(
      sent.kind === 'stored'
        ? `${name} stored.`
        : `${name} is kept on this device: ${sayProblem(sent.problem)} It is sent by itself when that is over.`,
    );
    await this.router.navigate(['/deliveries', this.deliveryId()]);
  }

  private async sendPhoto(treeId: string, name: string): Promise<void> {
    const photo = this.photo();
    if (!photo) return;
    const place = photo.place && this.keepPlace() ? `?lng=${photo.place[0]}&lat=${photo.place[1]}` : '';
    await this.parcels.send({
      id: uuidv7(),
      method: 'PUT',
      url: `/api/lot-trees/${treeId}/photo${place}`,
      body: photo.picture,
      name: `Photo of ${name.toLowerCase()}`,
    });
  }
}
