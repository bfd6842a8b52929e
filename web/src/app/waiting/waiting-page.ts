import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import type { Aside } from '@sombra/contract';
import { startWith } from 'rxjs';
import { OutboxService } from '../offline/outbox.service';
import { OwnQueues } from '../offline/own-queues.service';
import { networkKind, ParcelsService, type PhotosLeave } from '../offline/parcels.service';
import { SealingService } from '../offline/sealing.service';
import { SessionService } from '../session/session.service';
import { downloadText } from '../ui/download';
import { readProblem, sayProblem } from '../ui/problem';
import { localMoment, sayMoment } from '../ui/say-date';
import { AsideService } from '../offline/aside.service';
import { ReadSealedFile } from './read-sealed-file';
import { waitingGroups, type WaitingLine } from './waiting-lines';

/** All that is on this device alone: what waits, what was refused and why, and the ways on. */
@Component({
  selector: 's-waiting-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, ReadSealedFile],
  templateUrl: './waiting-page.html',
  styleUrl: './waiting-page.scss',
})
export class WaitingPage {
  protected readonly outbox = inject(OutboxService);
  protected readonly parcels = inject(ParcelsService);
  protected readonly sealing = inject(SealingService);
  protected readonly session = inject(SessionService);
  private readonly asideDoor = inject(AsideService);
  protected readonly asides = signal<readonly Aside[]>([]);
  protected readonly fault = signal<string | null>(null);
  protected readonly told = signal<string | null>(null);
  protected readonly say = sayProblem;
  protected readonly moment = sayMoment;
  protected readonly tellsNetwork = networkKind() !== null;
  protected readonly at = (ms: number): string => sayMoment(ms);

  private readonly groupsOf = (
    records: Parameters<typeof waitingGroups>[0],
    parcels: Parameters<typeof waitingGroups>[1],
  ) => waitingGroups(records, parcels, this.session.units());
  protected readonly waiting = computed(() => this.groupsOf(this.outbox.waiting(), this.parcels.waiting()));
  protected readonly refused = computed(() => this.groupsOf(this.outbox.refused(), this.parcels.refused()));
  protected readonly binned = computed(() => this.groupsOf(this.outbox.binned(), this.parcels.binned()));
  protected readonly queues = inject(OwnQueues);
  protected readonly count = this.queues.waiting;
  protected readonly own = computed(() => this.queues.waiting() + this.queues.refused());
  protected readonly photos = computed(() => this.parcels.waiting().filter(({ body }) => body instanceof Blob).length);
  protected readonly sealed = computed(() => this.sealing.sealed().length);
  protected readonly refusedSeals = computed(() => this.sealing.sealed().filter(({ refused }) => refused !== null));

  constructor() {
    this.session.signedIn$.pipe(startWith(null), takeUntilDestroyed()).subscribe(() => void this.readAsides());
  }

  protected async readAsides(): Promise<void> {
    if (this.session.away()) return;
    // Read beside what lies here: where nothing is reached there is nothing to say of it.
    const read = await this.asideDoor.all().catch(() => null);
    if (read) this.asides.set(read);
  }

  protected async decide(id: string, decision: 'again' | 'bin'): Promise<void> {
    await this.run(async () => this.asides.set(await this.asideDoor.decide(id, decision)));
  }

  protected setPhotos(event: Event): void {
    const { checked } = event.target as HTMLInputElement;
    const when: PhotosLeave = checked ? 'always' : this.tellsNetwork ? 'not_mobile' : 'never';
    this.parcels.setPhotosLeave(when);
  }
  protected readonly photosAlways = computed(
    () => this.parcels.photosLeave() === 'always' || (!this.tellsNetwork && this.parcels.photosLeave() !== 'never'),
  );

  /** Sends a thing as it is; a record that somebody was before goes over what is there. */
  protected async again({ id, kind, stumbled }: WaitingLine): Promise<void> {
    await this.run(async () => {
      if (kind === 'parcel') {
        const parcel = [...this.parcels.refused(), ...this.parcels.binned()].find((one) => one.id === id);
        if (parcel) await this.parcels.again(parcel);
        return;
      }
      const entry = [...this.outbox.refused(), ...this.outbox.binned()].find((one) => one.id === id);
      if (!entry) return;
      if (stumbled) await this.outbox.again(entry);
      else await this.outbox.sendOver(entry);
    });
  }

  protected bin({ id, kind }: WaitingLine, into = true): void {
    void (kind === 'record' ? this.outbox.bin(id, into) : this.parcels.bin(id, into));
  }

  /** Its words for somebody else, by whatever this device passes words on with. */
  protected async show(about: string, line: WaitingLine): Promise<void> {
    const text = [`${about}: ${line.name}, ${this.at(line.madeAt)}`, line.facts, line.why].filter(Boolean).join('\n');
    await this.run(async () => {
      if (typeof navigator.share === 'function') await navigator.share({ text });
      else {
        await navigator.clipboard.writeText(text);
        this.told.set('Its words are copied: paste them into a message.');
      }
    });
  }

  protected async saveFile(): Promise<void> {
    await this.run(async () => {
      const file = await this.sealing.file(this.session.user()?.id ?? '');
      if (!file) {
        const why = 'this device was never signed in over https, so it has no key to seal with';
        this.fault.set(`It could not be saved: ${why}.`);
        return;
      }
      downloadText(`sombra-waiting-${localMoment(Date.now()).replace('T', '-').replace(':', '')}.sealed`, file.text);
      this.told.set(
        `${file.count} saved, sealed: only the programme’s server reads it. They stay here too, until they were sent.`,
      );
    });
  }

  private async run(act: () => Promise<unknown>): Promise<void> {
    this.fault.set(null);
    this.told.set(null);
    try {
      await act();
    } catch (error) {
      if ((error as { name?: unknown }).name !== 'AbortError') this.fault.set(sayProblem(readProblem(error)));
    }
  }
}
