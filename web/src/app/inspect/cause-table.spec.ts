import { HttpErrorResponse } from '@angular/common/http';
import { saveRulesSchema, shippedRules, type KeptRules, type Rules } from '@sombra/contract';
import { defaultCauseRules, defaultLookRules } from '@sombra/core';
import { of, throwError } from 'rxjs';
import { PageRig } from '../../../testing/page-rig';
import { GroundService } from '../ground/ground.service';
import { JudgementPage } from './judgement-page';

const rules: Rules = { ...shippedRules, causes: { parts: {}, likelyPct: { pests: { pest: 80 } } } };
const kept: KeptRules = { rules, madeBy: 'Sombra', madeAt: '2026-01-01T00:00:00.000Z' };

let rig: PageRig<JudgementPage>;
let saved: Rules[];
let refusal: HttpErrorResponse | null;
const show = async (role: 'administrator' | 'inspector' = 'administrator') => {
  const doors = {
    rules: () => of(kept),
    saveRules: (sent: Rules) => {
      saved.push(sent);
      return refusal ? throwError(() => refusal) : of({ ...kept, rules: sent, madeBy: 'Admin' });
    },
  };
  rig.session.user.update((user) => user && { ...user, role });
  await rig.show(JudgementPage, { providers: [{ provide: GroundService, useValue: doors }] });
};
const cell = (name: string): HTMLInputElement => {
  const found = rig.element.querySelector<HTMLInputElement>(`input[aria-label^="${name}"]`);
  if (!found) throw new Error(`no cell ${name}`);
  return found;
};
const type = async (name: string, text: string) => {
  cell(name).value = text;
  cell(name).dispatchEvent(new Event('change'));
  await rig.settle();
};

beforeEach(() => {
  rig = new PageRig();
  localStorage.clear();
  [saved, refusal] = [[], null];
});

describe('the table of causes', () => {
  it('shows what the programme holds otherwise beside what ships', async () => {
    await show();
    expect(cell('pests or their traces, a pest or disease').value).toBe('80');
    expect(rig.text).toContain('1 number differs from the table that ships');
    expect(cell('leaves hang, too dry').value).toBe('65');
  });

  it('stores only what differs, with all other rules as they are', async () => {
    await show();
    await type('leaves hang, too dry', '40');
    await type('Before anything is known, parts of all, too wet', '30');
    await type('pests or their traces, a pest or disease', '');
    await rig.press('Store the table');
    expect(saved).toHaveLength(1);
    expect(saveRulesSchema.safeParse(saved[0]).success).toBe(true);
    expect(saved[0]?.causes).toEqual({ parts: { drowned: 30 }, likelyPct: { wilting: { too_dry: 40 } } });
    expect(saved[0]?.looks).toEqual(defaultLookRules);
  });

  it.each(['96', '4', 'x', '-1'])('refuses %s before anything is sent, and says what may be', async (text) => {
    await show();
    await type('leaves hang, too dry', text);
    expect(rig.text).toContain(`leaves hang, too dry: must be within 5–95, got ${text}.`);
    await rig.press('Store the table');
    expect(saved).toEqual([]);
    expect(cell('leaves hang, too dry').value).toBe(text);
  });

  it('keeps what was typed where the server refuses, and says why', async () => {
    await show();
    refusal = new HttpErrorResponse({
      status: 422,
      error: {
        type: 'urn:sombra:problem:invalid_input',
        title: 'Rules were not stored',
        status: 422,
        code: 'invalid_input',
        issues: [{ path: 'causes.likelyPct.probe_dry.too_dry', message: 'answers of probe must be 100 % at most' }],
      },
    });
    await type('probe dry, too dry', '90');
    await rig.press('Store the table');
    expect(rig.text).toContain('Rules were not stored');
    expect(rig.text).toContain('probe dry, too dry: answers of probe must be 100 % at most.');
    expect(cell('probe dry, too dry').value).toBe('90');
  });

  it('tells at once which trees come out otherwise than practitioners hold', async () => {
    await show();
    expect(rig.text).not.toContain('come out otherwise');
    await type('probe dry, too dry', '5');
    await type('leaves hang, too dry', '5');
    expect(rig.text).toContain('come out otherwise than practitioners hold');
    await rig.press('Discard what is typed');
    expect(rig.text).not.toContain('come out otherwise');
  });

  it('is read, not changed, by who does not keep the rules', async () => {
    await show('inspector');
    expect(rig.element.querySelector('s-cause-table input')).toBeNull();
    expect(rig.text).toContain('of a hundred trees with that cause');
  });
});

it('ships as it is', () => {
  expect(defaultCauseRules).toEqual({ parts: {}, likelyPct: {} });
});
