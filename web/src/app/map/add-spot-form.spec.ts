import { TestBed } from '@angular/core/testing';
import { HttpErrorResponse } from '@angular/common/http';
import { of, Subject, throwError, type Observable } from 'rxjs';
import { FakeOutbox } from '../../../testing/bench-rig';
import { PageRig } from '../../../testing/page-rig';
import { ToastsService } from '../ui/toasts.service';
import { OutboxService } from '../offline/outbox.service';
import { SpotListService } from '../spot/spot-list.service';
import { AddSpotForm } from './add-spot-form';

interface Sent {
  readonly id: string;
  readonly ref: string;
}
let rig: PageRig<AddSpotForm>;
let sent: Sent[];
let withdrawn: unknown[];
let told: string[];
let refusal: HttpErrorResponse | null;
let late: Subject<{ ref: string; place: string | null }> | null;
async function show(
  near: { ref: string; place: string | null } | null = { ref: 'M-0181', place: 'Saltmakers Street' },
) {
  const doors = {
    near: () => late ?? (near ? of(near) : throwError(() => new HttpErrorResponse({ status: 0 }))),
    add: (spot: Sent): Observable<unknown> => {
      sent.push(spot);
      return refusal ? throwError(() => refusal) : of(null);
    },
    withdraw: (ask: unknown) => {
      withdrawn.push(ask);
      return of(null);
    },
  };
  await rig.show(AddSpotForm, {
    inputs: { at: [-25.40591234567, 36.9] },
    providers: [
      { provide: SpotListService, useValue: doors },
      { provide: OutboxService, useValue: new FakeOutbox() },
    ],
  });
  rig.fixture.componentInstance.added.subscribe((id) => told.push(`added ${id}`));
  rig.fixture.componentInstance.done.subscribe(() => told.push('done'));
}
const send = async () => {
  rig.element.querySelector('form')?.dispatchEvent(new Event('submit', { cancelable: true }));
  await rig.settle();
};

beforeEach(() => {
  rig = new PageRig();
  [sent, withdrawn, told, refusal, late] = [[], [], [], null, null];
});

describe('a spot added on the map', () => {
  it('takes the number and place proposed from what lies near, where it was tapped', async () => {
    await show();
    expect([rig.field('Number').value, rig.field('Place').value]).toEqual(['M-0181', 'Saltmakers Street']);
    await send();
    expect(sent).toMatchObject([
      { ref: 'M-0181', place: 'Saltmakers Street', position: [-25.4059123, 36.9], species: null },
    ]);
    expect(told).toEqual([`added ${sent[0]?.id}`, 'done']);
  });

  it('keeps what was typed while the proposal was still asked for', async () => {
    late = new Subject();
    await show();
    // About to type: nothing is put under the hands.
    rig.field('Number').dispatchEvent(new Event('focus'));
    late.next({ ref: 'M-0181', place: 'Saltmakers Street' });
    late.complete();
    await rig.settle();
    expect([rig.field('Number').value, rig.field('Place').value]).toEqual(['', 'Saltmakers Street']);
    expect((rig.field('Number') as HTMLInputElement).placeholder).toBe('M-0181');
    await rig.fill('Number', 'Q-0001');
    expect(rig.field('Number').value).toBe('Q-0001');
  });

  it('is typed where nothing lies near, and its species trimmed', async () => {
    await show(null);
    await rig.fill('Number', 'X-1');
    await rig.fill('Place', 'Mole Street');
    await rig.fill('Species, if known', ' Celtis australis ');
    await send();
    expect(sent).toMatchObject([{ ref: 'X-1', place: 'Mole Street', species: 'Celtis australis' }]);
  });

  it('says what was refused, keeps what was typed, and is the same spot when sent again', async () => {
    const error = {
      type: 'urn:sombra:problem:conflict',
      title: 'Number M-0181 is taken by another spot',
      status: 409,
      code: 'conflict',
    };
    refusal = new HttpErrorResponse({ status: 409, error });
    await show();
    await send();
    expect(rig.element.querySelector('[role=alert]')?.textContent).toContain('Number M-0181 is taken');
    expect(told).toEqual([]);
    refusal = null;
    await rig.fill('Number', 'M-0182');
    await send();
    expect(sent.map(({ id }) => id)).toEqual([sent[0]?.id, sent[0]?.id]);
    expect(told).toContain('done');
  });

  it('is taken back from the note', async () => {
    await show();
    await send();
    const toasts = TestBed.inject(ToastsService);
    const said = toasts.toasts().at(-1);
    expect(said?.text).toBe('M-0181 added on Saltmakers Street.');
    if (said) toasts.act(said);
    await rig.settle();
    expect(withdrawn).toEqual([{ spotIds: [sent[0]?.id], withdrawn: true }]);
  });

  it('is left without a word to the server', async () => {
    await show();
    await rig.press('Cancel');
    expect([told, sent]).toEqual([['done'], []]);
  });
});
