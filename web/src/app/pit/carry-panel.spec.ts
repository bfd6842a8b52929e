import { defaultWorkRules, fieldDefault, plantingPlan, type PlantingPlan, type Stock } from '@sombra/core';
import { loam } from '../../../testing/bench-rig';
import { PageRig } from '../../../testing/page-rig';
import { CarryPanel, type Route } from './carry-panel';
import { PlantingNeeds } from './planting-needs';
import { PlantingSteps } from '../drawing/planting-steps';

const balled: Stock = {
  kind: 'balled',
  caliperMm: 60,
  heightM: 4,
  ballDiameterMm: 600,
  ballHeightMm: 400,
  topRootsDepthMm: 30,
};
const planFor = (stock: Stock, route: Route = {}): PlantingPlan => {
  const plan = plantingPlan({
    practice: fieldDefault,
    stock,
    ground: loam,
    assessment: null,
    route,
    work: defaultWorkRules,
  });
  if (plan.kind === 'no_plan') throw new Error('no plan');
  return plan;
};

describe('how a tree comes to its pit', () => {
  const show = async (plan: PlantingPlan) => {
    const rig = new PageRig<CarryPanel>();
    await rig.show(CarryPanel, { inputs: { planting: plan, kerbM: 8, slopePct: 3 } });
    const routes: Route[] = [];
    rig.fixture.componentInstance.route.subscribe((route) => routes.push(route));
    return { rig, routes };
  };

  it('names the means, the people and why', async () => {
    const { rig } = await show(planFor(balled));
    expect(rig.element.querySelector('h2')?.textContent).toMatch(/^\d+ kg: trolley and boards, 2 people$/);
    expect(rig.text).toContain('never by the trunk');
    expect((rig.field('From the kerb, m') as HTMLInputElement).placeholder).toBe('8');
  });

  it('asks for the way as it really is, and takes none that cannot be', async () => {
    const { rig, routes } = await show(planFor(balled));
    await rig.fill('Slope of the way, %', '20');
    await rig.fill('From the kerb, m', '12');
    expect(routes).toEqual([{ slopePct: 20 }, { slopePct: 20, distanceM: 12 }]);
    await rig.fill('Slope of the way, %', '300');
    expect(rig.text).toContain('Slope of the way: must be within 0–100 %, got 300.');
    expect(routes).toHaveLength(2);
    await rig.fill('Slope of the way, %', '');
    expect(routes.at(-1)).toEqual({ distanceM: 12 });
  });

  it('goes by machine up a steep way', async () => {
    const { rig } = await show(planFor(balled, { distanceM: 12, slopePct: 20 }));
    expect(rig.element.querySelector('h2')?.textContent).toContain('by machine');
  });
});

describe('the steps of a tree', () => {
  it('each say what to do, the check and the mistake, some with a picture of their numbers', async () => {
    const rig = new PageRig<PlantingSteps>();
    const { steps } = planFor(balled);
    await rig.show(PlantingSteps, { inputs: { steps, name: 'Field default' } });
    expect(rig.text).toContain(`${steps.length} steps by Field default`);
    const items = [...rig.element.querySelectorAll('li')];
    expect(items).toHaveLength(steps.length);
    expect(items.every((item) => item.querySelector('.check') && item.querySelector('.avoid'))).toBe(true);
    const depth = items.find((item) => item.textContent.includes('Check the depth'));
    expect(depth?.querySelector('svg')?.textContent).toContain('330 mm');
    expect(items.at(-1)?.querySelector('svg')).toBeNull();
  });
});

describe('what a tree takes', () => {
  it('is said in the units of the reader, with the pit from above and the hours by task', async () => {
    const rig = new PageRig<PlantingNeeds>();
    const tall: Stock = { ...balled, kind: 'container', heightM: 5, ballDiameterMm: 400, firstBranchM: 1.2 };
    await rig.show(PlantingNeeds, { inputs: { planting: planFor(tall), ground: loam, windsDeg: [250] } });
    expect(rig.element.querySelector('h2')?.textContent).toMatch(/tie at 1100 mm$/);
    expect(rig.rows().some((row) => /^mulch \d+ L$/.test(row))).toBe(true);
    expect(rig.rows().find((row) => row.startsWith('Person-hours'))).toMatch(/dig \d+ min, .* \d\.\d$/);
    rig.session.units.set('us');
    await rig.settle();
    expect(rig.rows().some((row) => /^mulch [\d.]+ gal$/.test(row))).toBe(true);
  });
});
