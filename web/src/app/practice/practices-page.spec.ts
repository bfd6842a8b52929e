import { provideHttpClient } from '@angular/common/http';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import type { MeasuredSettlement, Practices } from '@sombra/contract';
import { defaultWorkRules, choices, fieldDefault, presets, type Practice } from '@sombra/core';
import { concat, NEVER, of, throwError } from 'rxjs';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { PracticeService } from './practice.service';
import { PracticesPage } from './practices-page';
import { choiceText, choiceUnit, readChoice, sayChoice } from './say-choice';

let fixture: ComponentFixture<PracticesPage>;
let saved: Practice[];
let adopted: string[];
let settled: MeasuredSettlement = null;
let unending = false;
let half: Practices['adoption'] = null;
let stops = 0;
let stopFails = false;
const element = () => fixture.nativeElement as HTMLElement;
const text = () => element().textContent.replace(/\s+/g, ' ');
const button = (name: string) => [...element().querySelectorAll('button')].find((b) => b.textContent.trim() === name);
const row = (name: string) =>
  [...element().querySelectorAll('tr')]
    .map((tr) => tr.textContent.replace(/\s+/g, ' ').trim())
    .find((words) => words.startsWith(name)) ?? '';

beforeEach(() => localStorage.clear());

async function type(id: string, value: string): Promise<void> {
  const field = [...element().querySelectorAll('input')].find((one) => one.id === id);
  if (!field) throw new Error(`no field ${id}`);
  field.value = value;
  field.dispatchEvent(new Event('input'));
  await fixture.whenStable();
}
const valueOf = (id: string) => [...element().querySelectorAll('input')].find((one) => one.id === id)?.value;

async function render(
  query = '',
  role: 'coordinator' | 'viewer' = 'coordinator',
  { fails = false, units = 'metric' as 'metric' | 'us' } = {},
): Promise<void> {
  saved = [];
  adopted = [];
  const session = new FakeSession();
  session.user.update((user) => user && { ...user, role });
  session.units.set(units);
  const all = {
    work: defaultWorkRules,
    current: { id: 'field-default', version: 1 },
    adoption: half,
    practices: presets.map((practice) => ({ practice, madeBy: 'Sombra', shipped: true, planted: 0 })),
  };
  const doors = {
    practices: () => of(all),
    settlement: () => of(settled),
    save: (practice: Practice) => {
      saved.push(practice);
      return fails ? throwError(() => new Error('gone')) : of(all);
    },
    stopAdopting: () => {
      stops += 1;
      return stopFails ? throwError(() => new Error('gone')) : of(all);
    },
    adopt: ({ id }: Practice) => {
      adopted.push(id);
      const done = { kind: 'done' as const, practices: all };
      return unending ? concat(of({ kind: 'progress' as const, done: 50, of: 200 }), NEVER) : of(done);
    },
  };
  TestBed.configureTestingModule({
    providers: [
      provideHttpClient(),
      provideRouter([{ path: '**', children: [] }]),
      provideFakeSession(session),
      { provide: PracticeService, useValue: doors },
    ],
  });
  await TestBed.inject(Router).navigateByUrl(`/practices${query}`);
  fixture = TestBed.createComponent(PracticesPage);
  await fixture.whenStable();
}

describe('practices', () => {
  it('shows the programme’s own with every choice, who holds it and what research tends to say', async () => {
    await render();
    expect(text()).toContain('the programme');
    expect(row('Flare above grade')).toContain('40 mm');
    expect(text()).toContain('Most research trials: an amended hole in tight soil fills like a basin');
  });

  it('puts two side by side on one tree and names where they choose otherwise', async () => {
    await render('?b=garden-enriched');
    expect(row('Width of the pit')).toBe('Width of the pit1125 mm900 mm');
    expect(row('coarse compost')).toMatch(/none\d+ L/);
    expect(text()).toContain('Where they choose otherwise');
    expect(text()).not.toContain('Structural');
  });

  it('says when a practice does not cover the stock, and which does', async () => {
    await render('?a=dormant-bare-root&kind=container');
    expect(text()).toContain('Dormant bare-root does not cover container stock');
    expect(text()).toMatch(/The nearest that does: [A-Z]/);
  });

  it('copies a shipped one and stores what was changed', async () => {
    await render();
    button('Copy and change')?.click();
    await fixture.whenStable();
    await type('pitWidth.ballFactor', '9');
    button('Store as a new practice')?.click();
    await fixture.whenStable();
    expect(saved).toEqual([]);
    expect(text()).toContain('must be within 1–6 ×, got 9');
    await type('pitWidth.ballFactor', '3');
    button('Store as a new practice')?.click();
    await fixture.whenStable();
    expect(saved).toMatchObject([{ id: 'field-default-ours', version: 0, pitWidth: { ballFactor: 3 } }]);
    expect(fieldDefault.pitWidth.ballFactor).toBe(2.5);
  });

  it('keeps what was typed through a reload, and forgets it once it is stored', async () => {
    await render('?copy=field-default');
    await type('practice-name', 'Harbour way');
    await type('mulch.thicknessMm', '60');
    TestBed.resetTestingModule();
    await render('?copy=field-default');
    expect([valueOf('practice-name'), valueOf('mulch.thicknessMm')]).toEqual(['Harbour way', '60']);
    button('Store as a new practice')?.click();
    await fixture.whenStable();
    expect(saved).toMatchObject([{ name: 'Harbour way', mulch: { thicknessMm: 60 } }]);
    TestBed.resetTestingModule();
    await render('?copy=field-default');
    expect(valueOf('practice-name')).toBe('Field default, ours');
  });

  it('reads what was typed in other units as what was meant', async () => {
    await render('?copy=field-default', 'coordinator', { units: 'us' });
    await type('mulch.thicknessMm', '2');
    TestBed.resetTestingModule();
    await render('?copy=field-default');
    expect(valueOf('mulch.thicknessMm')).toBe('50.8');
  });

  it('names an empty name, no kind of stock, and two choices that contradict each other', async () => {
    await render('?copy=field-default');
    await type('practice-name', ' ');
    await type('lifting.onePersonKg', '40');
    button('Store as a new practice')?.click();
    await fixture.whenStable();
    expect(text()).toContain('Name must not be empty');
    expect(text()).toContain('must be at most two lift up to (Lifting), 30, got 40');
    expect(saved).toEqual([]);
  });

  it('takes lengths in inches from who reads inches', async () => {
    await render('?copy=field-default', 'coordinator', { units: 'us' });
    // 75 mm of mulch are 2.95 in, to the nearest eighth 3.
    expect(valueOf('mulch.thicknessMm')).toBe('3');
    await type('mulch.thicknessMm', '9');
    button('Store as a new practice')?.click();
    await fixture.whenStable();
    expect(text()).toContain('mulch thickness must be within 0–5 7/8 in, got 9');
    await type('mulch.thicknessMm', '2');
    button('Store as a new practice')?.click();
    await fixture.whenStable();
    expect(saved[0]?.mulch.thicknessMm).toBeCloseTo(50.8, 6);
  });

  it('is adopted only once somebody says so, and never by a viewer', async () => {
    await render('?a=native-soil');
    jest.spyOn(window, 'confirm').mockReturnValueOnce(false).mockReturnValueOnce(true);
    button('Plant by it')?.click();
    button('Plant by it')?.click();
    await fixture.whenStable();
    expect(adopted).toEqual(['native-soil']);
    TestBed.resetTestingModule();
    await render('?a=native-soil', 'viewer');
    expect(button('Plant by it')).toBeUndefined();
  });
});

describe('adopting a practice', () => {
  it('tells how many spots are worked out, and can be stopped', async () => {
    unending = true;
    await render('?a=native-soil');
    jest.spyOn(window, 'confirm').mockReturnValueOnce(true);
    button('Plant by it')?.click();
    await fixture.whenStable();
    expect(text()).toContain('50 of 200 spots worked out by Native soil, hands off');
    expect(button('Plant by it')?.disabled).toBe(true);
    button('Stop')?.click();
    await fixture.whenStable();
    expect([stops, text()]).toEqual([1, expect.not.stringContaining('worked out by')]);
    expect(button('Plant by it')?.disabled).toBe(false);
    unending = false;
  });

  it('shows one that stands half done, with the ways on and back', async () => {
    half = { id: 'native-soil', version: 1, done: 50, of: 200, running: false, askedBy: 'Inês' };
    await render('?a=native-soil');
    expect(text()).toContain('The change to Native soil, hands off stands half done: 50 of 200 spots go by it');
    expect(button('Plant by it')?.disabled).toBe(true);
    adopted.length = 0;
    button('Go on')?.click();
    await fixture.whenStable();
    button('Take it back')?.click();
    await fixture.whenStable();
    expect(adopted).toEqual(['native-soil', 'field-default']);
    half = null;
  });

  it('offers neither while somebody is at it', async () => {
    half = { id: 'native-soil', version: 1, done: 50, of: 200, running: true, askedBy: 'Inês' };
    await render('?a=native-soil');
    expect(text()).toContain('Inês is changing the programme to Native soil, hands off: 50 of 200');
    expect(button('Go on')).toBeUndefined();
    button('Stop')?.click();
    await fixture.whenStable();
    expect(stops).toBe(2);
    TestBed.resetTestingModule();
    await render('?a=native-soil', 'viewer');
    half = null;
    expect(button('Stop')).toBeUndefined();
  });

  it('goes on being shown where it could not be stopped, and says why', async () => {
    [unending, stopFails] = [true, true];
    await render('?a=native-soil');
    jest.spyOn(window, 'confirm').mockReturnValueOnce(true);
    button('Plant by it')?.click();
    await fixture.whenStable();
    button('Stop')?.click();
    await fixture.whenStable();
    [unending, stopFails] = [false, false];
    expect(text()).toContain('50 of 200 spots worked out by Native soil, hands off');
    expect(element().querySelector('[role=alert]')?.textContent).toContain('Something went wrong');
  });
});

describe('a choice as it is typed', () => {
  const choiceOf = (path: string) => {
    const choice = choices.find((one) => one.path === path);
    if (!choice) throw new Error(`no choice ${path}`);
    return choice;
  };
  it.each([
    ['backfill.share', 0.5, '50', '%'],
    ['firstSoak.fixedL', 40, '40', 'L'],
    ['staking.unstakedUnderM', 2.5, '2.5', 'm'],
    ['berm.where', 'none', 'none', ''],
  ] as const)('%s stands as typed and is read back', (path, value, shown, unit) => {
    const choice = choiceOf(path);
    expect([choiceText(choice, value, 'metric'), choiceUnit(choice, 'metric')]).toEqual([shown, unit]);
    expect(readChoice(choice, shown, 'metric')).toBe(value);
  });
  it('takes a comma for a point, and gallons from who reads gallons', () => {
    expect(readChoice(choiceOf('pitWidth.ballFactor'), '2,5', 'metric')).toBe(2.5);
    expect(readChoice(choiceOf('firstSoak.fixedL'), '10', 'us')).toBeCloseTo(37.854, 3);
  });
});

describe('a choice in words', () => {
  const say = (path: string, value: string | number | boolean, units: 'metric' | 'us' = 'metric') => {
    const choice = choices.find((one) => one.path === path);
    return choice ? sayChoice(choice, value, units) : '';
  };
  it.each([
    ['pitWidth.ballFactor', 2.5, '2.5 ×'],
    ['backfill.share', 0.5, '50 %'],
    ['berm.where', 'none', 'none'],
    ['berm.notInSlowSoil', true, 'yes'],
    ['mulch.thicknessMm', 75, '75 mm'],
    ['staking.offAfterMonths', 12, '12 months'],
  ] as const)('%s = %s', (path, value, words) => {
    expect(say(path, value)).toBe(words);
  });
  it('reads inches to who reads inches', () => {
    expect(say('mulch.thicknessMm', 76.2, 'us')).toBe('3 in');
  });

  it('takes the settlement that was measured into a copy, beside its uncertainty', async () => {
    settled = { share: 0.146, measuredShare: 0.26, standardError: 0.045, drops: 2 };
    await render();
    expect(text()).toContain('under 2 balls settled 26 % ± 9 %');
    button('Take it into a copy of Field default')?.click();
    await fixture.whenStable();
    button('Store as a new practice')?.click();
    await fixture.whenStable();
    expect(saved[0]).toMatchObject({ version: 0, flareAboveGrade: { settlementFirmed: 0.146 } });
    settled = null;
  });
});
