import { provideHttpClient } from '@angular/common/http';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import { fieldDefault, presets, type Practice } from '@sombra/core';
import { of, throwError } from 'rxjs';
import { FakeSession, provideFakeSession } from '../../testing/fake-session';
import { PracticeService } from './practice.service';
import { PracticesPage } from './practices-page';
import { sayChoice } from './say-choice';
import { choices } from '@sombra/core';

let fixture: ComponentFixture<PracticesPage>;
let saved: Practice[];
let adopted: string[];
const element = () => fixture.nativeElement as HTMLElement;
const text = () => element().textContent.replace(/\s+/g, ' ');
const button = (name: string) => [...element().querySelectorAll('button')].find((b) => b.textContent.trim() === name);
const row = (name: string) =>
  [...element().querySelectorAll('tr')]
    .map((tr) => tr.textContent.replace(/\s+/g, ' ').trim())
    .find((words) => words.startsWith(name)) ?? '';

async function render(query = '', role: 'coordinator' | 'viewer' = 'coordinator', fails = false): Promise<void> {
  saved = [];
  adopted = [];
  const session = new FakeSession();
  session.user.update((user) => user && { ...user, role });
  const all = {
    current: { id: 'field-default', version: 1 },
    practices: presets.map((practice) => ({ practice, madeBy: 'Sombra', shipped: true, planted: 0 })),
  };
  const doors = {
    practices: () => of(all),
    save: (practice: Practice) => {
      saved.push(practice);
      return fails ? throwError(() => new Error('gone')) : of(all);
    },
    adopt: ({ id }: Practice) => {
      adopted.push(id);
      return of(all);
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
    const width = [...element().querySelectorAll('input')].find(({ id }) => id === 'pitWidth.ballFactor');
    if (!width) throw new Error('no width');
    width.value = '9';
    width.dispatchEvent(new Event('input'));
    button('Store as a new practice')?.click();
    await fixture.whenStable();
    expect(saved).toEqual([]);
    expect(text()).toContain('must be within 1–6 ×, got 9');
    width.value = '3';
    width.dispatchEvent(new Event('input'));
    button('Store as a new practice')?.click();
    await fixture.whenStable();
    expect(saved).toMatchObject([{ id: 'field-default-ours', version: 0, pitWidth: { ballFactor: 3 } }]);
    expect(fieldDefault.pitWidth.ballFactor).toBe(2.5);
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
    expect(say('mulch.thicknessMm', 76.2, 'us')).toBe('3.0 in');
  });
});
