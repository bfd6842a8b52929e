import { TestBed } from '@angular/core/testing';
import type { Leave } from '@sombra/contract';
import { unknownAssessment, type GroundOwner } from '@sombra/core';
import { HttpErrorResponse } from '@angular/common/http';
import { of, throwError, type Observable } from 'rxjs';
import { detailOf, kept, loam, spotId } from '../../../testing/bench-rig';
import { PageRig } from '../../../testing/page-rig';
import { OutboxService } from '../offline/outbox.service';
import { FakeOutbox } from '../../../testing/bench-rig';
import { ToastsService } from '../ui/toasts.service';
import { SpotStore } from '../spot/spot-store';
import { GroundService } from './ground.service';
import { LeavePanel } from './leave-panel';

const id = (n: number) => `0190a5c2-0000-7000-8000-00000000000${n}`;
const none: Leave = { tickets: [], clearances: [], permits: [], consents: [] };
const clear = (utility: string, state: 'clear' | 'waiting' | 'marked' = 'clear') => ({
  utility,
  state,
  repliedOn: state === 'waiting' ? null : '2026-06-01',
  toleranceMm: state === 'marked' ? 500 : null,
  note: '',
});
const ticket = (replies: Leave['tickets'][number]['replies']): Leave['tickets'][number] => ({
  id: id(1),
  number: 'LC-2214',
  validFrom: '2026-06-01',
  validUntil: '2026-06-28',
  withdrawn: false,
  roomM: 1.2,
  replies,
});
const consent: Leave['consents'][number] = {
  id: id(5),
  owner: 'Rosa Belver',
  askedBy: 'Inês',
  askedOn: '2026-06-10',
  expiresOn: '2026-07-10',
  state: 'asked',
  answeredAt: null,
  signedBy: null,
  remark: '',
};

let rig: PageRig<LeavePanel>;
let asked: unknown[][];
async function show(leave: Leave, { fails = null as HttpErrorResponse | null, owner = 'yard' as GroundOwner } = {}) {
  asked = [];
  const door =
    (name: string, answer: unknown = none) =>
    (...args: unknown[]): Observable<unknown> => {
      asked.push([name, ...args]);
      return fails ? throwError(() => fails) : of(answer);
    };
  const doors = {
    raise: door('raise'),
    attachClearance: door('attachClearance'),
    addPermit: door('addPermit'),
    askConsent: door('askConsent', { consent, path: '/consent/once' }),
    revokeConsent: door('revokeConsent'),
  };
  await rig.show(LeavePanel, {
    providers: [
      SpotStore,
      { provide: OutboxService, useValue: new FakeOutbox() },
      { provide: GroundService, useValue: doors },
    ],
  });
  TestBed.inject(SpotStore).open({ kind: 'spot', id: spotId });
  const seen = { ...unknownAssessment('2026-06-01'), owner };
  rig.http
    .expectOne(`/api/spots/${spotId}`)
    .flush({ ...detailOf([kept('ground', loam), kept('assessment', seen)]), leave });
  await rig.settle();
}
async function send(act: string): Promise<void> {
  rig
    .button(act)
    .closest('form')
    ?.dispatchEvent(new Event('submit', { cancelable: true }));
  await rig.settle();
}
const fill = async (values: Readonly<Record<string, string>>, form: string) => {
  const at = rig.button(form).closest('form');
  for (const [name, value] of Object.entries(values)) {
    const field = at?.querySelector<HTMLInputElement>(`input[name=${name}]`);
    if (!field) throw new Error(`no field ${name}`);
    // A day is typed into the entry beside the field that tells it.
    const entry = field.type === 'hidden' ? field.parentElement?.querySelector('input') : field;
    if (!entry) throw new Error(`no entry of ${name}`);
    entry.value = value;
    entry.dispatchEvent(new Event('input'));
  }
  await rig.settle();
  await send(form);
};

beforeEach(() => {
  rig = new PageRig();
});

describe('leave to dig', () => {
  it('is nobody’s where nothing covers the spot', async () => {
    await show(none);
    expect(rig.text).toContain('Nobody may dig here today');
    expect(rig.text).toContain('No digging without a valid ticket or clearance');
  });

  it('is there once every utility has answered; marked lines are dug by hand', async () => {
    await show({ ...none, tickets: [ticket([clear('Gas'), clear('Water Works', 'marked')])] });
    expect(rig.text).toContain('Digging is covered today');
    expect(rig.text).toMatch(/by hand within 500 mm/);
    expect(rig.text).toContain('Rock or a root: the spot may move 1.2 m and still be covered');
  });

  it('is not there while one utility has not answered', async () => {
    await show({ ...none, tickets: [ticket([clear('Gas'), clear('Island Grid', 'waiting')])] });
    expect(rig.text).toContain('Nobody may dig here today');
    expect(rig.text).toContain('Island Grid');
  });

  it('is asked for by a ticket around this spot', async () => {
    await show(none);
    await rig.press('Raise a ticket for this spot');
    expect(asked).toEqual([['raise', { purpose: 'Planting, A-1', spotIds: [spotId], renews: null }]]);
    expect(TestBed.inject(ToastsService).toasts().at(-1)?.text).toBe('Ticket raised; the locate centre is asked.');
  });

  it('asks the owner of a yard by a link that is shown once', async () => {
    await show(none);
    expect(rig.text).toContain('Not asked.');
    await fill({ owner: ' Rosa Belver ' }, 'Make a link');
    expect(asked).toEqual([['askConsent', spotId, 'Rosa Belver']]);
    const link = rig.field('Send this link to the owner; it is shown once and opens once');
    expect(link.value).toBe(`${location.origin}/consent/once`);
  });

  it('shows what owners answered, and takes a link back', async () => {
    const given = { ...consent, id: id(6), state: 'given' as const, signedBy: 'R. Belver', remark: 'mind the tap' };
    await show({ ...none, consents: [consent, given] });
    expect(rig.text).toContain('asked, no answer yet');
    expect(rig.text).toContain('consents , signed R. Belver mind the tap');
    await rig.press('Revoke the link');
    expect(asked).toEqual([['revokeConsent', id(5)]]);
  });

  it('needs no owner on the road’s ground', async () => {
    await show(none, { owner: 'road' });
    expect(rig.text).toContain("Not needed: the ground is the road's.");
  });

  it('records a road permit for this spot', async () => {
    await show(none);
    const dates = { validFrom: '2026-06-15', validUntil: '2026-06-20' };
    await fill({ number: 'RP-7', authority: 'Road office', ...dates }, 'Record');
    expect(asked[0]?.[1]).toMatchObject({ number: 'RP-7', authority: 'Road office', ...dates, spotIds: [spotId] });
  });

  it('says what was refused, by its field, and shows no link that was not made', async () => {
    const refusal = {
      type: 'urn:sombra:problem:invalid_input',
      title: 'A value is outside its limits',
      status: 400,
      code: 'invalid_input',
      issues: [{ path: 'owner', message: 'must not be empty' }],
    };
    await show(none, { fails: new HttpErrorResponse({ status: 400, error: refusal }) });
    await fill({ owner: '' }, 'Make a link');
    expect(rig.element.querySelector('[role=alert]')?.textContent).toContain('owner: must not be empty');
    expect(rig.element.querySelector('#co-link')).toBeNull();
  });

  it('lets somebody who only reads see it, and change nothing', async () => {
    rig.session.user.update((user) => user && { ...user, role: 'viewer' });
    await show({ ...none, consents: [consent] });
    expect(rig.text).toContain('Rosa Belver');
    expect(rig.element.querySelectorAll('button, form')).toHaveLength(0);
  });
});
