import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { ofKind, standing, unknownAssessment } from '@sombra/core';
import { v7 as uuidv7 } from 'uuid';
import { PhotoButton } from '../fields/photo-button';
import { readProblem, sayProblem } from '../ui/problem';
import { ParcelsService } from '../offline/parcels.service';
import { SessionService } from '../session/session.service';
import { RecordSender } from '../spot/record-sender';
import { SpotStore } from '../spot/spot-store';
import { shrinkPhoto } from '../fields/shrink-photo';

/** A photo of the place in one tap: made smaller here, its hidden data left behind. */
@Component({
  selector: 's-spot-photo',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [PhotoButton],
  template: `
    @if (photoId(); as id) {
      <img [src]="'/api/photos/' + id" alt="The place as photographed" />
    }
    @if (session.may('add_photo')) {
      <s-photo-button [words]="busy() ? 'Storing…' : photoId() ? 'New photo' : 'Photo'" (picked)="take($event)" />
    }
    @if (fault(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
  `,
  styles: `
    :host {
      display: block;
      margin-top: 0.8rem;
    }
    img {
      display: block;
      max-width: 100%;
      max-height: 16rem;
      margin-bottom: 0.5rem;
      border: 1px solid var(--line);
    }
  `,
})
export class SpotPhoto {
  protected readonly session = inject(SessionService);
  private readonly store = inject(SpotStore);
  private readonly sender = inject(RecordSender);
  private readonly parcels = inject(ParcelsService);
  protected readonly busy = signal(false);
  protected readonly fault = signal<string | null>(null);
  private readonly newest = computed(() => ofKind(standing(this.store.detail()?.records ?? []), 'assessment').at(-1));
  protected readonly photoId = computed(() => this.newest()?.facts.photoId ?? null);

  protected async take(file: File): Promise<void> {
    const spotId = this.store.detail()?.spot.id;
    if (!spotId) return;
    this.busy.set(true);
    this.fault.set(null);
    try {
      const photoId = uuidv7();
      const sent = await this.parcels.send({
        id: photoId,
        method: 'PUT',
        url: `/api/spots/${spotId}/photos/${photoId}`,
        body: await shrinkPhoto(file),
        name: `Photo of ${this.store.detail()?.spot.ref ?? 'a spot'}`,
      });
      if (sent.kind === 'refused') {
        await this.parcels.drop(photoId);
        this.fault.set(sayProblem(sent.problem));
        return;
      }
      const facts = { ...(this.newest()?.facts ?? unknownAssessment(this.session.today())), photoId };
      await this.sender.send({ kind: 'assessment', facts, supersedes: this.newest()?.id ?? null }, 'Photo stored.');
    } catch (error) {
      this.fault.set(error instanceof TypeError ? error.message : sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }
}
