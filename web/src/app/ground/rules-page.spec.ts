import { HttpErrorResponse } from '@angular/common/http';
import { saveRulesSchema, shippedRules, type KeptRules, type Rules } from '@sombra/contract';
import { defaultGroundRules } from '@sombra/core';
import { of, throwError } from 'rxjs';
import { PageRig } from '../../../testing/page-rig';
import { GroundService } from './ground.service';
import { RulesPage } from './rules-page';

const rules = shippedRules;
const kept: KeptRules = { rules, madeBy: 'Sombra', madeAt: '2026-01-01T00:00:00.000Z' };

let rig: PageRig<RulesPage>;
let saved: Rules[];
let refusal: HttpErrorResponse | null;
const show = async (role: 'administrator' | 'coordinator' = 'administrator') => {
  const doors = {
    rules: () => of(kept),
    saveRules: (sent: Rules) => {
      saved.push(sent);
      return refusal ? throwError(() => refusal) : of({ ...kept, rules: sent, madeBy: 'Admin' });
    },
  };
  rig.session.user.update((user) => user && { ...user, role });
  await rig.show(RulesPage, { providers: [{ provide: GroundService, useValue: doors }] });
};
const headroom = 'Headroom under a wire';
const store = () =>
  rig.press(
    [...rig.element.querySelectorAll('button')]
      .find((one) => /^\s*Store/.test(one.textContent))
      ?.textContent.replace(/\s+/g, ' ')
      .trim() ?? '',
  );

beforeEach(() => {
  rig = new PageRig();
  localStorage.clear();
  [saved, refusal] = [[], null];
});

describe('the rules of the programme', () => {
  it('are shown as they stand, with who made them', async () => {
    await show();
    expect(rig.field(headroom).value).toBe(String(defaultGroundRules.wireHeadroomM));
    expect(rig.text).toMatch(/by Sombra on (Thu )?1 Jan 2026/);
    expect(rig.text).toContain('Local codes, permits and licensed practice come before');
  });

  it('are stored as a whole with what was changed, commas taken for points', async () => {
    await show();
    await rig.fill(headroom, '2,5');
    await store();
    expect(saved).toHaveLength(1);
    expect(saved[0]?.ground.wireHeadroomM).toBe(2.5);
    expect({ ...saved[0]?.ground, wireHeadroomM: 0 }).toEqual({ ...rules.ground, wireHeadroomM: 0 });
    expect(saved[0]?.match).toEqual(rules.match);
    // What was read is not changed under the page.
    expect(rules.ground.wireHeadroomM).toBe(defaultGroundRules.wireHeadroomM);
  });

  it('list pests that have to be told of, a line each, and name the line that says nobody', async () => {
    refusal = new HttpErrorResponse({
      status: 400,
      error: {
        ...{ type: 'x', title: 'A value is outside its limits', status: 400, code: 'invalid_input' },
        issues: [{ path: 'pests.list.1', message: 'must be a pest, a colon, and whom to tell' }],
      },
    });
    await show();
    await rig.fill('One a line: the pest, a colon, and whom to tell', 'Red beetle: plant health office\nCanker');
    await store();
    expect(saved[0]?.pests.list).toEqual(['Red beetle: plant health office', 'Canker']);
    expect(rig.element.querySelector('[role=alert]')?.textContent).toContain('Pest in line 2: must be a pest');
    const issues = saveRulesSchema.safeParse(saved[0]).error?.issues.map(({ path }) => path.join('.'));
    expect(issues).toEqual(['pests.list.1']);
  });

  it('send what is no number as it is typed, and keep it beside the answer', async () => {
    refusal = new HttpErrorResponse({
      status: 400,
      error: {
        type: 'urn:sombra:problem:invalid_input',
        title: 'A value is outside its limits',
        status: 400,
        code: 'invalid_input',
        issues: [{ path: 'ground.wireHeadroomM', message: 'must be a number' }],
      },
    });
    await show();
    await rig.fill(headroom, 'high');
    await store();
    expect(saved[0]?.ground.wireHeadroomM).toBe('high');
    expect(rig.element.querySelector('[role=alert]')?.textContent).toContain('Headroom under a wire: must be a number');
    expect(rig.field(headroom).value).toBe('high');
    expect(rig.field(headroom).classList.contains('wrong')).toBe(true);
  });

  it('hold how fast work goes, gusts and packs, and what is typed outlives the page until it is stored', async () => {
    await show();
    expect(rig.field('One person digs in clay').value).toBe('170');
    await rig.fill('One person digs in clay', '140');
    await rig.fill('mulch, by the loose load', '250');
    rig = new PageRig();
    await show();
    expect(rig.field('One person digs in clay').value).toBe('140');
    await store();
    expect(saved[0]?.work.labour.volunteers.digLPerH.clay).toBe(140);
    expect(saved[0]?.work.packs.mulch).toBe(250);
    expect(saved[0]?.work.wind).toEqual(rules.work.wind);
    rig = new PageRig();
    await show();
    expect(rig.field('One person digs in clay').value).toBe('170');
  });

  it('are read only to everybody but the administrator', async () => {
    await show('coordinator');
    expect((rig.field(headroom) as HTMLInputElement).readOnly).toBe(true);
  });
});
