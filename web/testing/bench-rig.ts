import { spotLeave } from './spot-leave';
import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { signal, type Type } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { KeptRecord, RecordReceipt, SendRecord } from '@sombra/contract';
import { fieldDefault, type FieldRecord, type RecordFacts, type RecordKind } from '@sombra/core';
import { Subject } from 'rxjs';
import type { OutboxEntry } from '../src/app/offline/outbox-store';
import { OutboxService, type Delivery } from '../src/app/offline/outbox.service';
import { SpotStore } from '../src/app/spot/spot-store';
import { FakeSession, provideFakeSession } from './fake-session';

export const spotId = '0190a5c2-0000-7000-8000-000000000001';
export const treeId = '0190a5c2-0000-7000-8000-000000000002';

/** Takes what a form delivers, and answers as the test says. */
export class FakeOutbox {
  readonly delivered$ = new Subject<RecordReceipt>();
  readonly waiting = signal<readonly OutboxEntry[]>([]);
  readonly refused = signal<readonly OutboxEntry[]>([]);
  readonly binned = signal<readonly OutboxEntry[]>([]);
  readonly sent: SendRecord[] = [];
  /** Records that come back to their form where the server refuses them. */
  readonly comingBack: string[] = [];
  answer: Delivery = {
    kind: 'stored',
    receipt: { id: '0190a5c2-0000-7000-8000-00000000000f', stored: true, spotVersion: 2 },
  };

  stamped(sent: SendRecord): SendRecord {
    return sent;
  }

  deliver(sent: SendRecord, refusedGoes = 'aside'): Promise<Delivery> {
    this.sent.push(sent);
    if (refusedGoes === 'back') this.comingBack.push(sent.record.id);
    return Promise.resolve(this.answer);
  }
}

let made = 0;
export function kept<K extends RecordKind>(kind: K, facts: RecordFacts[K], supersedes: string | null = null) {
  made += 1;
  const id = `0190a5c2-0000-7000-8000-1${String(made).padStart(11, '0')}`;
  const recordedAt = new Date(1.75e12 + made * 60_000).toISOString();
  return keptBy('Marta', { id, kind, facts, supersedes, recordedAt } as FieldRecord);
}

/** A record as the server keeps it. */
export const keptBy = (recordedBy: string, record: FieldRecord): KeptRecord => ({
  ...record,
  recordedBy,
  recordedById: null,
  device: 'phone',
  receivedAt: record.recordedAt,
  deviceSaid: record.recordedAt,
  clock: 'kept',
});

export const loam: RecordFacts['ground'] = {
  soil: 'loam',
  stony: false,
  compacted: false,
  percolation: [0, 1, 2, 3].map((i) => ({ minute: i * 30, levelMm: 300 - 20 * i })),
  slopePct: 0,
  fallsTowardsDeg: null,
  stripWidthMm: 'open',
  wireHeightM: 'none',
};
export const container: RecordFacts['stock'] = {
  kind: 'container',
  caliperMm: 50,
  heightM: 3,
  ballDiameterMm: 450,
  ballHeightMm: 400,
  topRootsDepthMm: 60,
};
export const planted: RecordFacts['planting'] = {
  plantedOn: '2026-01-10',
  flareAboveGradeMm: [40],
  holeWidthMm: 1125,
  firstWaterL: 52,
  practiceId: 'field-default',
  practiceVersion: 1,
};

export const detailOf = (records: readonly object[], version = 1) => ({
  spot: { id: spotId, ref: 'A-1', place: 'Mole Street', position: [-25.4, 36.9], version, withdrawnOn: null },
  tree: { id: treeId, species: 'Celtis australis' },
  practice: fieldDefault,
  plantedUnder: null,
  ...spotLeave,
  records,
});

export class BenchRig<T> {
  /** What the spot's detail holds otherwise: another practice, offers, rules. */
  detail: object = {};
  readonly session = new FakeSession();
  readonly outbox = new FakeOutbox();
  fixture!: ComponentFixture<T>;
  http!: HttpTestingController;

  /** Shows a bench for a spot with these records. */
  async show(
    component: Type<T>,
    records: readonly object[],
    prepare?: (fixture: ComponentFixture<T>) => Promise<void>,
  ): Promise<void> {
    localStorage.clear();
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({
      providers: [
        SpotStore,
        provideRouter([{ path: '**', children: [] }]),
        provideHttpClient(),
        provideHttpClientTesting(),
        provideFakeSession(this.session),
        { provide: OutboxService, useValue: this.outbox },
      ],
    });
    this.http = TestBed.inject(HttpTestingController);
    TestBed.inject(SpotStore).open({ kind: 'spot', id: spotId });
    this.http.expectOne(`/api/spots/${spotId}`).flush({ ...detailOf(records), ...this.detail });
    this.fixture = TestBed.createComponent(component);
    await prepare?.(this.fixture);
    await this.fixture.whenStable();
  }

  get element(): HTMLElement {
    return this.fixture.nativeElement as HTMLElement;
  }

  get text(): string {
    return this.element.textContent.replace(/\s+/g, ' ');
  }

  async type(label: string, value: string): Promise<void> {
    const labels = [...this.element.querySelectorAll('label')];
    const id = labels.find((found) => found.textContent.trim() === label)?.getAttribute('for');
    const input = id ? this.element.querySelector<HTMLInputElement>(`#${id}`) : null;
    if (!input) throw new Error(`no field ${label}`);
    input.value = value;
    input.dispatchEvent(new Event(input.type === 'date' ? 'change' : 'input'));
    input.dispatchEvent(new Event('blur'));
    await this.fixture.whenStable();
  }

  async choose(group: string, choice: string): Promise<void> {
    const sets = [...this.element.querySelectorAll('fieldset')];
    const set = sets.find((found) => found.querySelector('legend')?.textContent.trim() === group);
    const label = [...(set?.querySelectorAll('label') ?? [])].find((found) => found.textContent.trim() === choice);
    const radio = label?.querySelector('input');
    if (!radio) throw new Error(`no choice ${group}: ${choice}`);
    radio.checked = true;
    radio.dispatchEvent(new Event('change'));
    await this.fixture.whenStable();
  }

  async submit(): Promise<void> {
    this.element.querySelector('form')?.dispatchEvent(new Event('submit'));
    for (let i = 0; i < 5; i++) await this.fixture.whenStable();
  }

  async press(button: string): Promise<void> {
    const found = [...this.element.querySelectorAll('button')].find((b) => b.textContent.trim() === button);
    if (!found) throw new Error(`no button ${button}`);
    found.click();
    for (let i = 0; i < 5; i++) await this.fixture.whenStable();
  }
}
