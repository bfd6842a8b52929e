import type { KeptRules, Practices, SeasonMaterials } from '@sombra/contract';
import {
  addDaysTo,
  defaultWorkRules,
  fieldDefault,
  formatQuantity,
  pitPlan,
  unknownAssessment,
  type WorkRules,
  sayIsoDay,
} from '@sombra/core';
import { v7 as uuidv7 } from 'uuid';
import { pdfText } from '../../testing/pdf-text';
import { container, loam, openTestTown, sending, Visitor, type TestTown } from '../../testing/test-town';
import { programmeToday } from '../programme/today';

let town: TestTown;
let cora: Visitor;
let vic: Visitor;
beforeAll(async () => {
  town = await openTestTown();
  cora = await Visitor.signedIn(town.url, 'cora');
  vic = await Visitor.signedIn(town.url, 'vic');
});
afterAll(() => town.stop());

async function ready(ref: string, change: object = {}): Promise<string> {
  const { spotId } = await town.addSpot(ref);
  const version = async () => (await cora.spot(spotId)).spot.version;
  await cora.record(sending(spotId, { kind: 'ground', facts: { ...loam, ...change } }, await version()));
  await cora.record(sending(spotId, { kind: 'stock', facts: container }, await version()));
  return spotId;
}
const materials = async (query = '') => (await cora.send<SeasonMaterials>('GET', `/api/materials${query}`)).body;
const cards = async (body: object) => {
  const { status, headers, bytes } = await cora.bytes('POST', '/api/cards', body);
  return { status, count: headers.get('x-cards'), pages: status === 200 ? pdfText(bytes) : [] };
};

describe('what is ready to plant', () => {
  it('is summed over spots and held against the store, by any practice', async () => {
    await ready('S-0001');
    await ready('S-0002');
    const sum = await materials();
    const plan = pitPlan({ ground: loam, stock: container, practice: fieldDefault });
    if (plan.kind === 'no_plan') throw new Error('no plan');
    const mulch = sum.lines.find(({ code }) => code === 'mulch');
    expect(mulch).toMatchObject({ packs: 1, inStore: 0, version: 0 });
    expect(mulch?.needed).toBeCloseTo(2 * plan.mulchL.value, 6);
    expect(sum.lines.some(({ code }) => code === 'coarse_compost')).toBe(false);
    const enriched = await materials('?practice=garden-enriched');
    expect(enriched.lines.find(({ code }) => code === 'coarse_compost')?.packs).toBeGreaterThan(0);
    expect(enriched.practice.name).toBe('Garden enriched');
  });

  it('takes the store into account once it is counted, one count after another', async () => {
    const count = (amount: number, version: number) =>
      cora.send('PUT', '/api/store', { material: 'mulch', amount, version });
    expect((await count(5000, 0)).status).toBe(204);
    expect((await count(10, 0)).status).toBe(409);
    expect((await materials()).lines.find(({ code }) => code === 'mulch')).toMatchObject({
      inStore: 5000,
      packs: 0,
      version: 1,
    });
    expect((await count(0, 1)).status).toBe(204);
    expect((await count(-1, 2)).status).toBe(400);
    expect((await vic.send('PUT', '/api/store', { material: 'mulch', amount: 1, version: 2 })).status).toBe(403);
  });

  it('leaves out a spot without a plan and says why', async () => {
    await ready('S-0003', { slopePct: 55 });
    const sum = await materials();
    expect(sum.spots.map(({ ref }) => ref)).toEqual(['S-0001', 'S-0002']);
    expect(sum.without).toMatchObject([{ ref: 'S-0003', why: expect.stringContaining('Terrace') as string }]);
    const file = await cora.send<string>('GET', '/api/materials.csv');
    expect(file.body).toMatch(/^material,unit,needed,in_store,pack,packs,bought\r\nmulch,L,/);
  });
});

describe('the programme’s rules of work', () => {
  const ada = () => Visitor.signedIn(town.url, 'ada');
  const change = async (made: (work: WorkRules) => WorkRules) => {
    const admin = await ada();
    const { rules } = (await admin.send<KeptRules>('GET', '/api/rules')).body;
    return admin.send<{ issues?: { path: string }[] }>('PUT', '/api/rules', { ...rules, work: made(rules.work) });
  };

  it('are the shipped ones where rules were kept before there were any of work', async () => {
    const row = await town.db('rules').orderBy('version', 'desc').first<{ body: object }>('body');
    expect(row?.body).not.toHaveProperty('work');
    expect((await (await ada()).send<KeptRules>('GET', '/api/rules')).body.rules.work).toEqual(defaultWorkRules);
  });

  it('make hours, packs and comparisons follow what is kept, not what was shipped', async () => {
    const before = await materials();
    const slowly = (rates: WorkRules['labour']['volunteers']) => ({
      ...rates,
      digLPerH: { ...rates.digLPerH, loam: rates.digLPerH.loam / 2 },
    });
    const slow = ({ labour, packs, ...rest }: WorkRules): WorkRules => ({
      ...rest,
      labour: { ...labour, volunteers: slowly(labour.volunteers) },
      packs: { ...packs, mulch: 100 },
    });
    expect((await change(slow)).status).toBe(200);
    const after = await materials();
    const plan = pitPlan({ ground: loam, stock: container, practice: fieldDefault });
    if (plan.kind === 'no_plan') throw new Error('no plan');
    // Once more what digging took at 300 L an hour, with a quarter of all hours looking on.
    const more = (before.spots.length * plan.pitL.value) / 300 / 0.75;
    expect(after.hours - before.hours).toBeCloseTo(more, 6);
    const mulch = after.lines.find(({ code }) => code === 'mulch');
    expect(mulch).toMatchObject({ packSize: 100, packs: Math.ceil((mulch?.needed ?? 0) / 100) });
    expect((await cora.send<string>('GET', '/api/materials.csv')).body).toContain('loose load of 100 L');
    const { work } = (await cora.send<Practices>('GET', '/api/practices')).body;
    expect(work.labour.volunteers.digLPerH.loam).toBe(150);
  });

  it('are not set back by a page that does not know of them', async () => {
    const admin = await ada();
    const { work: _left, ...rest } = (await admin.send<KeptRules>('GET', '/api/rules')).body.rules;
    const answer = await admin.send<{ issues?: { path: string }[] }>('PUT', '/api/rules', rest);
    expect([answer.status, answer.body.issues?.[0]?.path]).toEqual([400, 'work']);
  });

  it('are refused where a rate or a pack cannot be, and stay as they were', async () => {
    const none = await change((work) => ({ ...work, packs: { ...work.packs, mulch: 0 } }));
    expect([none.status, none.body.issues?.[0]?.path]).toEqual([400, 'work.packs.mulch']);
    const still = await change((work) => ({
      ...work,
      labour: { ...work.labour, volunteers: { ...work.labour.volunteers, fillLPerH: 0 } },
    }));
    expect([still.status, still.body.issues?.[0]?.path]).toEqual([400, 'work.labour.volunteers.fillLPerH']);
    expect((await materials()).lines.find(({ code }) => code === 'mulch')?.packSize).toBe(100);
  });
});

describe('spot cards', () => {
  it('carry the numbers of the plan, the ticket, the steps and the way back, as text', async () => {
    const spotId = await ready('C-0001');
    const { count, pages } = await cards({ spots: [spotId] });
    expect([count, pages.length]).toEqual(['1', 1]);
    const plan = pitPlan({ ground: loam, stock: container, practice: fieldDefault });
    if (plan.kind === 'no_plan') throw new Error('no plan');
    const [card = ''] = pages;
    const mm = (value: number) => formatQuantity(value, 'lengthMm', 'metric');
    expect(card).toContain('C-0001');
    expect(card).toContain(`Depth at the uphill edge ${mm(plan.depthMm.value)}`);
    expect(card).toContain(`Width at grade ${mm(plan.widthMm.value)}`);
    expect(card).toContain('NOBODY MAY DIG HERE TODAY');
    expect(card).toContain('Find the flare');
    const { tree } = await cora.spot(spotId);
    expect(card).toContain(`${new URL(town.url).host}/tree/${tree?.id}`);
  });

  it('show the pit from above where a strip stretches it', async () => {
    const spotId = await ready('C-0002', { stripWidthMm: 700 });
    const { pages } = await cards({ spots: [spotId] });
    expect(pages[0]).toContain('from above, along the strip');
    // Ball 450, 2.5 ×: 700 wide, 700 + (π/4·1125² − π/4·700²)/700 = 1,570 long.
    expect(pages[0]).toContain('700 mm by 1570 mm');
  });

  it('say who may dig on the day the spot is booked for, by the number of its ticket', async () => {
    const spotId = await ready('C-0003');
    const dayId = uuidv7();
    const today = await programmeToday(town.db);
    const onDay = addDaysTo(today, 8);
    await town.db('planting_day').insert({ id: dayId, on_day: onDay, title: 'Mole Street' });
    await town.db('planting_day_spot').insert({ day_id: dayId, spot_id: spotId });
    const [bare = ''] = (await cards({ day: dayId })).pages;
    expect(bare).toContain(`NOBODY MAY DIG HERE ON ${sayIsoDay(onDay).toUpperCase()}`);
    await town.db('lawful_clearance').insert({
      id: uuidv7(),
      spot_id: spotId,
      document: 'RA-17',
      cleared_by: 'road authority',
      valid_from: today,
      valid_until: addDaysTo(today, 20),
      stored_as: 'ra-17.pdf',
      content_type: 'application/pdf',
      added_by: 'cora',
    });
    const [cleared = ''] = (await cards({ day: dayId })).pages;
    expect(cleared).toContain(`Cleared on ${sayIsoDay(onDay)}`);
    expect(cleared).toContain('RA-17');
  });

  it('stand four on a sheet, and a spot without a plan says so on its card', async () => {
    const { count, pages } = await cards({ layout: 'four' });
    // S-0003 has no plan and waits in the pit stage; it gets a card too.
    expect([count, pages.length]).toEqual(['6', 2]);
    expect(pages.join()).toContain('No plan.');
  });

  it('warn of rock above the base of the pit', async () => {
    const spotId = await ready('C-0004');
    const facts = { ...unknownAssessment('2026-06-01'), rockAtMm: 200 };
    const { version } = (await cora.spot(spotId)).spot;
    await cora.record(sending(spotId, { kind: 'assessment', facts }, version));
    const [card = ''] = (await cards({ spots: [spotId] })).pages;
    expect(card).toContain('Rock at 200 mm, the pit goes down 300 mm');
  });

  it.each([
    [{ spots: ['not-an-id'] }, 400],
    [{ layout: 'a3' }, 400],
    [{ spots: ['0190a5c2-0000-7000-8000-000000000999'] }, 404],
  ])('refuses %j', async (body, status) => {
    expect((await cards(body)).status).toBe(status);
  });
});
