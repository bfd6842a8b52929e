import { deviceTimeHeader, type ClockQuestion, type SendRecord, type SpotDetail } from '@sombra/contract';
import { addDaysTo, ofKind, standing } from '@sombra/core';
import { look, openTestTown, planting, sending, Visitor, type TestTown } from '../../testing/test-town';

let town: TestTown;
let cora: Visitor;
let iva: Visitor;
beforeAll(async () => {
  town = await openTestTown();
  cora = await Visitor.signedIn(town.url, 'cora');
  iva = await Visitor.signedIn(town.url, 'iva');
});
afterAll(() => town.stop());

const hours = 3_600_000;
const at = (ms: number): string => new Date(Date.now() + ms).toISOString();

let made = 0;
async function plantedSpot(): Promise<string> {
  const { spotId } = await town.addSpot(`K-${String(++made).padStart(4, '0')}`);
  const stock = {
    kind: 'container',
    caliperMm: 50,
    heightM: 3,
    ballDiameterMm: 450,
    ballHeightMm: 400,
    topRootsDepthMm: 60,
  };
  await cora.record(sending(spotId, { kind: 'stock', facts: stock as never }, (await cora.spot(spotId)).spot.version));
  await town.db('field_record').where({ spot_id: spotId }).count();
  const { status } = await cora.record(sending(spotId, planting('2025-01-10')));
  expect(status).toBe(201);
  return spotId;
}

/** A look as a device with its own idea of the time sends it. */
function looked(spotId: string, recordedAt: string, stake: 'none' | 'tight'): SendRecord {
  const { record, ...sent } = sending(spotId, look('2026-01-10'));
  return { ...sent, record: { ...record, recordedAt, facts: { ...record.facts, stake } } as SendRecord['record'] };
}
const send = (sent: SendRecord, deviceNow?: string) =>
  iva.send('POST', '/api/records', sent, deviceNow ? { [deviceTimeHeader]: deviceNow } : {});
const newestStake = (detail: SpotDetail) => ofKind(standing(detail.records), 'inspection').at(-1)?.facts.stake;

describe('a device whose clock is wrong', () => {
  it('a year ahead, is put where it belongs and wins no argument', async () => {
    const spotId = await plantedSpot();
    const year = 365 * 24 * hours;
    expect((await send(looked(spotId, at(year - 3 * hours), 'tight'), at(year))).status).toBe(201);
    expect((await send(looked(spotId, at(-1 * hours), 'none'), at(0))).status).toBe(201);
    const detail = await cora.spot(spotId);
    expect(newestStake(detail)).toBe('none');
    const [first] = ofKind(detail.records, 'inspection');
    expect(Math.abs(Date.parse(first?.recordedAt ?? '') - Date.parse(at(-3 * hours)))).toBeLessThan(60_000);
    expect(detail.records.find(({ id }) => id === first?.id)).toMatchObject({ clock: 'measured', recordedBy: 'iva' });
  });

  it('and nobody knows by how much, stands where it arrived until the desk says', async () => {
    const spotId = await plantedSpot();
    const fromTheFuture = looked(spotId, '2190-01-01T00:00:00Z', 'tight');
    expect((await send(fromTheFuture)).status).toBe(201);
    const detail = await cora.spot(spotId);
    const kept = detail.records.find(({ id }) => id === fromTheFuture.record.id);
    expect(kept).toMatchObject({ clock: 'asked', deviceSaid: '2190-01-01T00:00:00.000Z' });
    expect(kept?.recordedAt.slice(0, 16)).toBe(kept?.receivedAt.slice(0, 16));

    const { body: asked } = await cora.send<ClockQuestion[]>('GET', '/api/clock-questions');
    expect(asked.map(({ recordId }) => recordId)).toContain(fromTheFuture.record.id);
    const answer = (happenedAt: string) =>
      cora.send<ClockQuestion[]>('POST', `/api/clock-questions/${fromTheFuture.record.id}`, { happenedAt });
    expect((await answer(at(hours))).status).toBe(400);
    const before = addDaysTo('2026-01-20', 1);
    expect((await answer(`${before}T08:00:00Z`)).body).toEqual([]);
    expect((await answer(`${before}T09:00:00Z`)).status).toBe(409);
    const after = await cora.spot(spotId);
    expect(after.records.find(({ id }) => id === fromTheFuture.record.id)?.recordedAt).toBe(`${before}T08:00:00.000Z`);
  });

  it.each(['yesterday', '2026-13-01T00:00:00Z'])('is refused where it sends no time at all: %s', async (deviceNow) => {
    const spotId = await plantedSpot();
    expect((await send(looked(spotId, at(0), 'none'), deviceNow)).status).toBe(400);
  });

  it('is asked about by the desk alone', async () => {
    expect((await iva.send('GET', '/api/clock-questions')).status).toBe(403);
  });
});

it('names the person by id beside the name', async () => {
  const spotId = await plantedSpot();
  const { user } = await cora.arrive();
  const detail = await cora.spot(spotId);
  expect(detail.records.at(-1)).toMatchObject({ recordedBy: 'cora', recordedById: user?.id });
});
