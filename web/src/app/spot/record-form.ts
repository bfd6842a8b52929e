import { computed, DestroyRef, Directive, effect, inject, signal, untracked } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import type { FormGroup } from '@angular/forms';
import type { Act } from '@sombra/contract';
import { ofKind, sayFacts, standing, type RecordFacts, type RecordKind, type RecordOfKind } from '@sombra/core';
import { SessionService } from '../session/session.service';
import { FormDraft } from './form-draft';
import type { Difference } from './form-foot';
import { RecordSender } from './record-sender';
import { SpotStore } from './spot-store';

/**
 * What the forms of the stages share: filling from the newest record or the draft, live facts for the
 * computed side, and sending with drafts cleared only once the record is safe.
 */
@Directive()
export abstract class RecordForm<K extends RecordKind> {
  /** The spot whose values stand in the form. */
  private filled = '';
  protected readonly store = inject(SpotStore);
  protected readonly sender = inject(RecordSender);
  protected readonly draft = inject(FormDraft);
  protected readonly session = inject(SessionService);
  private readonly destroyed = inject(DestroyRef);
  /** Counts changes of the form, so that computed values follow it. */
  protected readonly changes = signal(0);
  protected readonly tried = signal(false);

  protected abstract readonly kind: K;
  protected abstract readonly form: FormGroup;
  /** What the form shows of the newest record, or an empty form. */
  protected abstract stored(): object;
  /** Facts as typed, or `null` while something is missing or wrong. */
  protected abstract readFacts(): RecordFacts[K] | null;
  /** The newest standing record of this form's kind. */
  protected newest(): RecordOfKind<K> | undefined {
    return ofKind(standing(this.store.detail()?.records ?? []), this.kind).at(-1);
  }

  /** Id of the record a save corrects. */
  protected corrects(): string | null {
    return this.newest()?.id ?? null;
  }

  /** Whoever may only look sees what is stored, in fields that take nothing. */
  protected readonly looksOn = computed(() => !this.session.may(`record_${this.kind}` as Act));

  readonly facts = computed<RecordFacts[K] | null>(() => {
    this.changes();
    return this.readFacts();
  });

  /** What another person stored in the meantime, beside what is typed here. */
  readonly differences = computed<readonly Difference[]>(() => {
    const conflict = this.sender.conflict();
    const mine = this.facts();
    if (!conflict || !mine) return [];
    const theirs = ofKind(standing(conflict.theirs.records), this.kind).at(-1)?.facts as RecordFacts[K] | undefined;
    const said = (facts: RecordFacts[K] | undefined) =>
      new Map((facts ? sayFacts(facts, this.session.units()) : []).map((f) => [f.name, f.value]));
    const [a, b] = [said(theirs), said(mine)];
    return [...new Set([...a.keys(), ...b.keys()])]
      .map((name) => ({ name, theirs: a.get(name) ?? '–', mine: b.get(name) ?? '–' }))
      .filter((difference) => difference.theirs !== difference.mine);
  });

  protected keepMine(): void {
    this.sender.acceptTheirs();
  }

  protected takeTheirs(): void {
    this.draft.clear();
    this.sender.acceptTheirs();
  }

  /** Call once from the constructor of the form, when its fields exist. */
  protected start(): void {
    this.form.valueChanges.pipe(takeUntilDestroyed(this.destroyed)).subscribe(() => {
      this.changes.update((n) => n + 1);
      this.store.setEditing(this.form.dirty);
    });
    this.destroyed.onDestroy(() => this.store.setEditing(false));
    const spotAndVersion = computed(() => {
      const spot = this.store.detail()?.spot;
      return spot ? `${spot.id}/${spot.version}` : null;
    });
    effect(() => {
      const key = spotAndVersion();
      if (key === null) return;
      untracked(() => this.fill(key.split('/')[0] ?? ''));
    });
  }

  private fill(spotId: string): void {
    this.draft.bind(this.form, `${this.kind}.${spotId}`, this.stored());
    if (this.looksOn()) this.form.disable({ emitEvent: false });
    // A newer state of the same spot leaves what is typed, and what was said of it.
    if (spotId !== this.filled || !this.draft.restored()) this.tried.set(false);
    this.filled = spotId;
    this.store.setEditing(this.draft.restored());
    this.changes.update((n) => n + 1);
  }

  protected discard(): void {
    this.draft.clear();
    const id = this.store.detail()?.spot.id;
    if (id) this.fill(id);
  }

  protected async save(done: string): Promise<boolean> {
    if (this.looksOn()) return false;
    this.tried.set(true);
    this.form.markAllAsTouched();
    const facts = this.facts();
    if (!facts) return false;
    const safe = await this.sender.send({ kind: this.kind, facts, supersedes: this.corrects() }, done);
    if (safe) this.draft.clear();
    return safe;
  }
}
