import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  assignmentNames,
  basisWith,
  digCover,
  formatQuantity,
  isLook,
  judgeInspection,
  judgePlanting,
  lookContext,
  sayReason,
  type Move,
  type RecordFacts,
  type RecordKind,
} from '@sombra/core';
import { v7 as uuidv7 } from 'uuid';
import { AskQuestion } from '../ask/ask-question';
import type { Answer, Answers, Ask } from '../ask/ask';
import { benchOf, StopsService, type AssignedStop } from '../along/stops.service';
import { WhereService } from '../along/where.service';
import { readRoots } from '../collar/collar-roots';
import { TeamWord } from '../day/team-word';
import { textOf } from '../fields/event-values';
import { PhotoButton } from '../fields/photo-button';
import { shrinkPhoto } from '../fields/shrink-photo';
import { AlongService } from '../offline/along.service';
import { DraftsService } from '../offline/drafts.service';
import { ParcelsService } from '../offline/parcels.service';
import { SessionService } from '../session/session.service';
import { HazardNow } from '../spot/hazard-now';
import { RecordSender, sendsRecords } from '../spot/record-sender';
import { SpotStore } from '../spot/spot-store';
import { FindingsList } from '../ui/findings-list';
import { sayProblem } from '../ui/problem';
import { sayDate } from '../ui/say-date';
import { StopPlan } from './stop-plan';
import { CompassService } from './compass.service';
import { MoveIt } from './move-it';
import { paces, plantingOf, plantingQuestions, type Pace } from './planting-questions';
import { lookOf, lookQuestions } from './walk-questions';
import { RemedyStop } from './remedy-stop';
import { WaterStop } from './water-stop';
import { WhichTree } from './which-tree';

interface Kept {
  readonly stopId: string | null;
  readonly order: 'plan' | 'near';
  readonly set: readonly string[];
}
interface Begun {
  readonly answers: Answers;
  readonly at: number;
}
const usualReasons = ['gate locked', 'car in the way', 'not found', 'unsafe', 'no water'] as const;
const orders = [
  { value: 'plan', name: 'As planned' },
  { value: 'near', name: 'Nearest next' },
] as const;
const hands = [
  { value: 'left', name: 'Left hand' },
  { value: 'right', name: 'Right hand' },
] as const;
const handKey = 'sombra.hand';
const paceKey = 'sombra.pace';
const keptPace = (): Pace => {
  const kept = localStorage.getItem(paceKey) ?? '';
  return kept in paces ? (kept as Pace) : 'led';
};

/**
 * A walk of several things: where one is, how many are left, the next by distance or by plan; at each which tree it is,
 * then one question at a time. Left half-way it goes on where it was.
 */
@Component({
  selector: 's-walk-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    RouterLink,
    AskQuestion,
    FindingsList,
    HazardNow,
    MoveIt,
    PhotoButton,
    RemedyStop,
    StopPlan,
    TeamWord,
    WaterStop,
    WhichTree,
  ],
  providers: [StopsService, WhereService, CompassService, SpotStore, sendsRecords],
  templateUrl: './walk-page.html',
  styleUrl: './walk-page.scss',
  host: { '[class.left]': "hand() === 'left'" },
})
export class WalkPage {
  protected readonly textOf = textOf;
  readonly assignmentId = input.required<string>();
  protected readonly session = inject(SessionService);
  protected readonly where = inject(WhereService);
  protected readonly sender = inject(RecordSender);
  protected readonly say = sayProblem;
  protected readonly reasons = usualReasons;
  protected readonly orders = orders;
  protected readonly hands = hands;
  protected readonly paces = Object.entries(paces).map(([value, name]) => ({ value: value as Pace, name }));
  private readonly compass = inject(CompassService);
  private readonly stopsHere = inject(StopsService);
  private readonly along = inject(AlongService);
  private readonly store = inject(SpotStore);
  private readonly drafts = inject(DraftsService);
  private readonly parcels = inject(ParcelsService);

  protected readonly assignment = computed(
    () => this.along.assignments().find(({ id }) => id === this.assignmentId()) ?? null,
  );
  protected readonly names = assignmentNames;
  private readonly kept = signal<Kept>({ stopId: null, order: 'plan', set: [] });
  protected readonly order = computed(() => this.kept().order);
  /** Whoever does not know the work yet is led; each device keeps how its person goes. */
  protected readonly pace = signal<Pace>(keptPace());
  protected readonly hand = signal<'left' | 'right'>(localStorage.getItem(handKey) === 'left' ? 'left' : 'right');

  protected readonly stops = computed<readonly AssignedStop[]>(() => {
    const assignment = this.assignment();
    return assignment ? this.stopsHere.of(assignment) : [];
  });
  /** Before, nobody can say what is left, nor that nothing is. */
  protected readonly areRead = this.stopsHere.areRead;
  /** The work cannot be shown: what it is made of did not come. */
  protected readonly cameNot = this.stopsHere.fault;
  protected readonly isKnown = this.along.isRead;
  protected readonly left = computed(() => this.stops().filter(({ state }) => state === 'open').length);
  /** Those that are open, the next one first; what was set aside for now comes last. */
  private readonly ahead = computed(() => {
    const later = new Set(this.kept().set);
    const open = this.stops().filter(({ state, stop }) => state === 'open' && stop !== null);
    const near = (one: AssignedStop) => (one.stop ? (this.where.distanceM(one.stop.position) ?? 0) : 0);
    const sorted = this.order() === 'near' && this.where.here() ? [...open].sort((a, b) => near(a) - near(b)) : open;
    return [...sorted.filter(({ id }) => !later.has(id)), ...sorted.filter(({ id }) => later.has(id))];
  });
  protected readonly current = computed(() => {
    const chosen = this.stops().find(({ id }) => id === this.kept().stopId);
    return chosen?.stop ? chosen : (this.ahead()[0] ?? null);
  });
  protected readonly here = computed(() => {
    const current = this.current();
    return current ? [current] : [];
  });
  /** The stop is worked out anew with each record; it is another one only by its id. */
  private readonly currentId = computed(() => this.current()?.id ?? null);
  protected readonly number = computed(() => this.stops().findIndex(({ id }) => id === this.current()?.id) + 1);

  /** Questions are asked one at a time here; other work has an instrument of its own. */
  protected readonly questions = computed<readonly Ask[] | null>(() => {
    const [kind, life] = [this.assignment()?.kind, this.current()?.stop?.life];
    if (kind === 'looks' && life?.planting) {
      const last = life.inspections.at(-1)?.record.facts ?? null;
      const pathDeg = life.assessment?.pavementDeg ?? null;
      return lookQuestions({ answers: this.answers(), last, units: this.session.units(), pathDeg });
    }
    const work = this.current()?.stop?.detail?.rules.work;
    if (kind !== 'planting' || !life || life.planting || !work) return null;
    const headingDeg = this.compass.headingDeg();
    const asked = { life, answers: this.answers(), units: this.session.units(), pace: this.pace(), work };
    return plantingQuestions({ ...asked, headingDeg });
  });
  protected readonly bench = computed(() => {
    const kind = this.assignment()?.kind;
    return kind && kind !== 'delivery' ? benchOf[kind] : 'town';
  });
  private readonly begun = signal<Begun>({ answers: {}, at: -1 });
  protected readonly at = computed(() => this.begun().at);
  protected readonly answers = computed(() => this.begun().answers);
  protected readonly ask = computed(() => this.questions()?.[this.at()] ?? null);
  /** What a look found, judged on the device; `null` while it says nothing. */
  protected readonly verdict = computed(() => {
    const life = this.current()?.stop?.life;
    const plantedOn = life?.planting?.record.facts.plantedOn;
    if (this.assignment()?.kind !== 'looks' || !life || !plantedOn) return null;
    const look = lookOf(this.answers(), this.session.today());
    return isLook(look) && look.inspectedOn >= plantedOn ? judgeInspection(look, lookContext(life, plantedOn)) : null;
  });
  protected readonly nextLook = computed(() => {
    const next = this.verdict()?.nextLook;
    return next ? `Next look ${sayDate(next.on)}. ${sayReason(next.because, this.session.units())}` : null;
  });
  /** What was built against the plan, before it is stored: what is wrong can still be mended. */
  protected readonly judged = computed(() => {
    const life = this.current()?.stop?.life;
    if (this.assignment()?.kind === 'looks') return this.verdict()?.findings ?? null;
    if (this.assignment()?.kind !== 'planting' || !life) return null;
    const built = plantingOf(this.answers(), life, this.session.today());
    if ('missing' in built) return null;
    const { putBackMm } = built.facts;
    return judgePlanting(built.facts, putBackMm === undefined ? life : basisWith(life, { putBackMm })).findings;
  });
  /** Something is not as planned: whoever stands there knows why. */
  protected readonly departs = computed(
    () => this.assignment()?.kind === 'planting' && (this.judged() ?? []).some(({ level }) => level !== 'good'),
  );
  /** A question is open: all else makes room for it. */
  protected readonly asking = computed(() => this.ask() !== null);
  protected readonly photos = signal<readonly string[]>([]);
  protected readonly fault = signal<string | null>(null);
  protected readonly cannot = signal(false);
  protected readonly reason = signal('');

  /** What covers digging here today; `null` where nothing is asked. */
  protected readonly cover = computed(() => {
    const detail = this.current()?.stop?.detail;
    const today = this.session.today();
    if (this.assignment()?.kind !== 'planting' || !detail || today < detail.ticketsSince) return null;
    return digCover(detail.leave, today, detail.rules.ground);
  });
  /** Where nobody may dig today a planting is not begun. */
  protected readonly noCover = computed(() => {
    const cover = this.cover();
    if (cover?.kind !== 'none') return null;
    return cover.because.map((reason) => sayReason(reason, this.session.units())).join(' ');
  });

  constructor() {
    inject(DestroyRef).onDestroy(() => this.where.stop());
    this.readStops();
    this.where.follow();
    effect(() => {
      const id = this.assignmentId();
      untracked(() => this.restoreWalk(id));
    });
    effect(() => {
      const id = this.currentId();
      untracked(() => this.openStop(id));
    });
  }

  protected readStops(): void {
    void this.stopsHere.read();
  }

  private restoreWalk(id: string): void {
    const draft = this.drafts.read(`walk.${id}`)?.value as Partial<Kept> | undefined;
    this.kept.set({
      stopId: typeof draft?.stopId === 'string' ? draft.stopId : null,
      order: draft?.order === 'near' ? 'near' : 'plan',
      set: Array.isArray(draft?.set) ? draft.set : [],
    });
  }

  private keepWalk(change: Partial<Kept>): void {
    this.kept.update((before) => ({ ...before, ...change }));
    this.drafts.keep(`walk.${this.assignmentId()}`, this.kept());
  }

  private openStop(id: string | null): void {
    this.photos.set([]);
    this.fault.set(null);
    this.cannot.set(false);
    this.reason.set('');
    this.sender.forget();
    if (!id) return;
    this.store.open({ kind: 'spot', id });
    const draft = this.drafts.read(this.stopDraft(id))?.value as Partial<Begun> | undefined;
    this.begun.set({ answers: draft?.answers ?? {}, at: draft?.at ?? -1 });
  }

  private readonly stopDraft = (id: string): string => `walk.${this.assignmentId()}.${id}`;

  private keepBegun(change: Partial<Begun>): void {
    this.begun.update((before) => ({ ...before, ...change }));
    const id = this.current()?.id;
    if (id) this.drafts.keep(this.stopDraft(id), this.begun());
  }

  protected setOrder(order: Kept['order']): void {
    this.keepWalk({ order, stopId: null });
    if (order === 'near') this.where.follow();
  }

  protected setPace(pace: Pace): void {
    this.pace.set(pace);
    localStorage.setItem(paceKey, pace);
  }

  /** What the short way leaves out is asked as well, for this tree. */
  protected sayMore(): void {
    this.pace.set('more');
    this.keepBegun({ at: 0 });
  }

  protected setHand(hand: 'left' | 'right'): void {
    this.hand.set(hand);
    localStorage.setItem(handKey, hand);
  }

  protected begin(): void {
    this.keepWalk({ stopId: this.current()?.id ?? null });
    this.keepBegun({ at: 0 });
  }

  protected answer(value: Answer): void {
    const key = this.ask()?.key;
    if (key) this.keepBegun({ answers: { ...this.answers(), [key]: value } });
  }

  protected go(step: number): void {
    this.fault.set(null);
    const last = this.questions()?.length ?? 0;
    this.keepBegun({ at: Math.min(last, Math.max(-1, this.at() + step)) });
  }

  /** The question has a press of its own that says there is nothing. */
  protected saysNone(asked: Ask): boolean {
    return asked.kind === 'many' && asked.none !== undefined && !this.answers()[asked.key];
  }

  /** What was answered so far, to be read over and gone back to. */
  protected readonly said = computed(() =>
    (this.questions() ?? []).flatMap((ask, i) =>
      ask.kind === 'step' ? [] : [{ i, title: ask.title, value: this.sayAnswer(ask) }],
    ),
  );

  private sayAnswer(ask: Ask): string {
    if (ask.kind === 'photo') return this.photos().length > 0 ? `${this.photos().length} taken` : 'none';
    const value = this.answers()[ask.key] ?? null;
    if (value === null) return 'not looked at';
    if (ask.kind === 'many')
      return (
        ask.options
          .filter((one) => String(value).split(',').includes(one.value))
          .map(({ name }) => name)
          .join(', ') ||
        (ask.none ?? 'nothing')
      );
    if (ask.kind === 'step') return '';
    if (ask.kind === 'dial') return `${readRoots(value)?.roots.length ?? 0} drawn`;
    if (ask.kind === 'words') return ask.options.find((one) => one.value === value)?.name ?? '';
    const number = Number(value);
    const side = ask.signs ? ` ${number < 0 ? ask.signs.minus : ask.signs.plus}` : '';
    return `${formatQuantity(ask.signs ? Math.abs(number) : number, ask.quantity, this.session.units())}${side}`;
  }

  /** A photo goes to this device first; it knows the step it was taken at. */
  protected async photo(file: File, step: string): Promise<void> {
    const stop = this.current()?.stop;
    if (!stop) return;
    this.fault.set(null);
    try {
      const id = uuidv7();
      const url = `/api/spots/${stop.id}/photos/${id}?step=${this.assignment()?.kind ?? 'walk'}.${step}`;
      const body = await shrinkPhoto(file);
      const name = `Photo of ${stop.ref}`;
      const sent = await this.parcels.send({ id, method: 'PUT', url, body, name, about: stop.ref });
      if (sent.kind === 'refused') this.fault.set(sayProblem(sent.problem));
      else this.photos.update((before) => [...before, id]);
    } catch (error) {
      this.fault.set(error instanceof TypeError ? `${error.message}.` : 'This picture could not be read.');
    }
  }

  protected async keepRecord(): Promise<void> {
    const stop = this.current()?.stop;
    const kind = this.assignment()?.kind;
    if (!stop || !kind) return;
    const today = this.session.today();
    if (kind === 'looks') {
      const facts = lookOf(this.answers(), today);
      if (!isLook(facts)) {
        this.fault.set('Nothing was looked at yet: answer one question at least, or say why it cannot be done.');
        return;
      }
      await this.send('inspection', facts, `Look at ${stop.ref} stored.`);
      return;
    }
    if (!stop.life) {
      this.fault.set('What this device holds of it is of another version: take it along anew.');
      return;
    }
    const planting = plantingOf(this.answers(), stop.life, today);
    if ('missing' in planting) {
      const at = this.questions()?.findIndex(({ key }) => key === planting.missing) ?? 0;
      this.keepBegun({ at });
      this.fault.set('This is needed before the planting is stored.');
      return;
    }
    await this.send('planting', planting.facts, `Planting of ${stop.ref} stored.`);
  }

  /** Sends what this stop was for; once it is safe the walk goes on to the next one. */
  private async send<K extends RecordKind>(kind: K, facts: RecordFacts[K], done: string): Promise<void> {
    const id = this.current()?.id ?? '';
    if (await this.sender.send({ kind, facts, supersedes: null }, done)) this.leaveStop(id);
  }

  /** On to the next one; what was begun here is done. */
  private leaveStop(id: string): void {
    this.drafts.drop(this.stopDraft(id));
    this.begun.set({ answers: {}, at: -1 });
    this.cannot.set(false);
    this.reason.set('');
    this.keepWalk({ stopId: null });
  }

  /** Watered, in one tap; the walk goes on to the next tree. */
  protected async keepWatering(facts: RecordFacts['watering']): Promise<void> {
    await this.send('watering', facts, `Watering of ${this.current()?.stop?.ref ?? 'it'} stored.`);
  }

  /** One thing carried out; the walk stays at the tree until somebody goes on: there may be more to do. */
  protected async keepRemedy(facts: RecordFacts['remedy']): Promise<void> {
    const ref = this.current()?.stop?.ref ?? 'it';
    this.keepWalk({ stopId: this.current()?.id ?? null });
    await this.sender.send({ kind: 'remedy', facts, supersedes: null }, `Done at ${ref}: stored.`);
  }

  /** On to the next tree. */
  protected onward(): void {
    this.leaveStop(this.current()?.id ?? '');
  }

  /** A spot that cannot be dug, set aside on the device; the walk stays at it. */
  protected async moveIt(facts: Move): Promise<void> {
    await this.sender.send({ kind: 'move', facts, supersedes: null }, 'Moved, with its reason.');
  }

  /** Why it was built otherwise than planned. */
  protected depart(text: string): void {
    this.keepBegun({ answers: { ...this.answers(), departure: text } });
  }

  protected later(): void {
    const id = this.current()?.id;
    if (id) this.keepWalk({ stopId: null, set: [...this.kept().set.filter((one) => one !== id), id] });
  }

  protected pick(id: string): void {
    this.keepWalk({ stopId: id });
  }

  protected async couldNot(reason: string): Promise<void> {
    const task = this.assignment()?.kind;
    if (!task) return;
    const facts = { task, triedOn: this.session.today(), reason: reason.trim() };
    await this.send('not_done', facts, 'Kept, with its reason.');
  }
}
