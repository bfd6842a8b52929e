import type { Practices } from '@sombra/contract';
import { fieldDefault, presets, spotLife, withChoice, type FieldRecord } from '@sombra/core';
import { container, loam, openTestTown, sending, Visitor, type TestTown } from '../testing/test-town';

let town: TestTown;
let cora: Visitor;
let vic: Visitor;
beforeAll(async () => {
  town = await openTestTown();
  cora = await Visitor.signedIn(town.url, 'cora');
  vic = await Visitor.signedIn(town.url, 'vic');
});
afterAll(() => town.stop());

const read = async () => (await cora.send<Practices>('GET', '/api/practices')).body;
const enriched = presets.find(({ id }) => id === 'garden-enriched') ?? fieldDefault;
const ours = { ...withChoice(enriched, 'mulch.thicknessMm', 60), id: 'our-way', name: 'Our way', version: 0 };

describe('practices', () => {
  it('ship as six schools, one of which the programme works by', async () => {
    const { current, practices } = await read();
    expect(current).toEqual({ id: 'field-default', version: 1 });
    expect(practices.map(({ practice, shipped }) => [practice.id, shipped])).toEqual(
      presets.map(({ id }) => [id, true]),
    );
  });

  it('are copied, changed one version after another, and never the shipped ones', async () => {
    expect((await cora.send('PUT', '/api/practices', { practice: fieldDefault })).status).toBe(400);
    expect((await vic.send('PUT', '/api/practices', { practice: ours })).status).toBe(403);
    expect((await cora.send('PUT', '/api/practices', { practice: ours })).status).toBe(200);
    expect((await cora.send('PUT', '/api/practices', { practice: ours })).status).toBe(409);
    const next = { ...ours, version: 1, name: 'Our new way' };
    expect((await cora.send('PUT', '/api/practices', { practice: next })).status).toBe(200);
    const mine = (await read()).practices.filter(({ shipped }) => !shipped);
    expect(mine.map(({ practice }) => [practice.name, practice.version])).toEqual([['Our new way', 2]]);
  });

  it('refuses a value outside its limits by name and limit', async () => {
    const odd = { ...ours, id: 'odd', flareAboveGrade: { ...ours.flareAboveGrade, baseMm: 400 } };
    const { status, body } = await cora.send('PUT', '/api/practices', { practice: odd });
    expect([status, JSON.stringify(body)]).toEqual([400, expect.stringContaining('within 0–150 mm')]);
  });

  it('work out every spot afresh when one is adopted', async () => {
    const { spotId } = await town.addSpot('P-0001');
    const version = async () => (await cora.spot(spotId)).spot.version;
    await cora.record(sending(spotId, { kind: 'ground', facts: loam }, await version()));
    await cora.record(sending(spotId, { kind: 'stock', facts: container }, await version()));
    const stage = async () =>
      (await town.db('spot_period').where({ spot_id: spotId, until_day: null }).first<{ stage: string }>('stage'))
        .stage;
    expect(await stage()).toBe('day');
    // A practice for bare-root stock alone has no plan for a container.
    expect((await cora.send('POST', '/api/practices/adopt', { id: 'dormant-bare-root', version: 1 })).status).toBe(200);
    expect(await stage()).toBe('pit');
    expect((await cora.send('POST', '/api/practices/adopt', { id: 'nowhere', version: 1 })).status).toBe(404);
    await cora.send('POST', '/api/practices/adopt', { id: 'field-default', version: 1 });
    expect(await stage()).toBe('day');
  });

  it('are made otherwise for one spot with a reason, and taken back', async () => {
    const { spotId } = await town.addSpot('P-0002');
    const version = async () => (await cora.spot(spotId)).spot.version;
    await cora.record(sending(spotId, { kind: 'ground', facts: loam }, await version()));
    await cora.record(sending(spotId, { kind: 'stock', facts: container }, await version()));
    const life = async () => {
      const detail = await cora.spot(spotId);
      return spotLife(detail.records as FieldRecord[], detail.practice);
    };
    const override = (value: unknown, reason = 'ponds in winter') =>
      sending(spotId, {
        kind: 'override',
        facts: { decidedOn: '2026-11-20', path: 'berm.where', value, reason } as never,
      });
    expect((await cora.send('POST', '/api/records', override('moat'))).status).toBe(400);
    expect((await cora.send('POST', '/api/records', override('none', ''))).status).toBe(400);
    expect((await life()).plan).toMatchObject({ berm: { heightMm: 90 } });
    await cora.record(override('none'));
    expect(await life()).toMatchObject({ plan: { berm: null }, overrides: [{ reason: 'ponds in winter' }] });
  });
});
