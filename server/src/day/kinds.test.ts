import { keptDayOf, type BuiltReports, type OpenReport, type Problem, type SpotDetail } from '@sombra/contract';
import { addDaysTo, readinessOf } from '@sombra/core';
import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { v7 as uuidv7 } from 'uuid';
import { dayEvent, openDayTown, type DayTown } from '../../testing/day-town';
import { planting, sending, Visitor } from '../../testing/test-town';

let day: DayTown;
let stranger: Visitor;
beforeAll(async () => {
  day = await openDayTown();
  stranger = new Visitor(day.town.url);
});
afterAll(() => day.town.stop());

/** Whether a ticket is asked for at all: history from before `since` is not. */
const askTicketsSince = (since: string) => day.town.db('programme').update({ tickets_since: since });
const happened = (id: string, one: object) => day.leo.send('POST', `/api/planting-days/${id}/events`, one);

async function cleared(spotId: string): Promise<void> {
  const clearance = new URLSearchParams({
    id: randomUUID(),
    document: 'Private ground, lines located',
    clearedBy: 'Locator of Praia Cinza',
    validFrom: day.today,
    validUntil: addDaysTo(day.today, 30),
  });
  const answer = await day.cora.send(
    'PUT',
    `/api/spots/${spotId}/clearances?${clearance.toString()}`,
    Buffer.from('%PDF-1.4 cleared'),
    {
      'content-type': 'application/pdf',
    },
  );
  expect(answer.status).toBe(201);
}

describe('a contractor’s day', () => {
  it('asks for neither people nor teams, and is registered for by nobody', async () => {
    const made = await day.makeDay({ kind: 'contractor', spotIds: [await day.readySpot()] });
    const topics = readinessOf(keptDayOf(made)).lines.map(({ topic }) => topic);
    expect(topics).toEqual(expect.arrayContaining(['cover', 'stock', 'materials']));
    for (const topic of ['people', 'teams', 'tools']) expect(topics).not.toContain(topic);
    const link = await day.cora.send<Problem>('POST', `/api/planting-days/${made.id}/link`, { open: true });
    expect([link.status, link.body.title]).toEqual([
      400,
      'A contractor’s day has no registration: make it a day of volunteers first',
    ]);
    expect((await day.cora.send('POST', `/api/planting-days/${made.id}/link`, { open: false })).status).toBe(200);
  });
});

describe('a hand-out', () => {
  it('gives a tree only to a spot that may be dug on the day, and only on a day that hands out', async () => {
    const spotId = await day.readySpot();
    const ours = await day.makeDay();
    expect((await happened(ours.id, dayEvent('handed_out', { spotId, to: 'R. Vale' }))).status).toBe(400);
    const made = await day.makeDay({ kind: 'hand_out', onDay: day.today, spotIds: [spotId] });
    const refused = await happened(made.id, dayEvent('handed_out', { spotId, to: 'R. Vale' }));
    expect([refused.status, refused.body.title]).toEqual([400, expect.stringMatching(/may not be dug on that day/)]);
    await cleared(spotId);
    expect((await happened(made.id, dayEvent('handed_out', { spotId: randomUUID(), to: 'R. Vale' }))).status).toBe(404);
    const given = dayEvent('handed_out', { spotId, to: 'R. Vale' });
    expect([(await happened(made.id, given)).status, (await happened(made.id, given)).status]).toEqual([201, 201]);
    const twice = await happened(made.id, dayEvent('handed_out', { spotId, to: 'S. Moor' }));
    expect([twice.status, twice.body.title]).toEqual([409, 'This tree was handed to R. Vale already']);
    expect((await day.read(made.id)).events.map(({ kind }) => kind)).toEqual(['handed_out']);
  });
});

describe('what the keeper of a tree tells by a link', () => {
  async function asked(): Promise<{ spotId: string; token: string; id: string }> {
    const [spotId, id] = [await day.readySpot(), uuidv7()];
    const { body } = await day.leo.send<{ path: string }>('POST', `/api/spots/${spotId}/built-reports`, {
      id,
      owner: 'R. Vale',
    });
    return { spotId, id, token: body.path.replace('/planted/', '') };
  }
  const told = (change: object = {}) => ({
    plantedOn: day.today,
    flareAboveGradeMm: [45],
    holeWidthMm: 1100,
    firstWaterL: 40,
    words: 'beside the gate',
    signedBy: 'Rosa Vale',
    ...change,
  });
  const reports = async (spotId: string) =>
    (await day.leo.send<BuiltReports>('GET', `/api/spots/${spotId}/built-reports`)).body;
  const spotOf = async (spotId: string) => (await day.cora.send<SpotDetail>('GET', `/api/spots/${spotId}`)).body;

  it('shows the numbers of that tree, and whether its ground may be dug', async () => {
    const { spotId, token } = await asked();
    const before = await stranger.send<OpenReport>('GET', `/api/open/planted/${token}`);
    expect(before.body).toMatchObject({ owner: 'R. Vale', state: 'asked', mayDig: false });
    // A ball of 400 mm less 60 of surplus stands 40 mm proud: 300 mm deep.
    expect(before.body.plan).toMatchObject({ digMm: 300, flareAboveGradeMm: 40 });
    await cleared(spotId);
    expect((await stranger.send<OpenReport>('GET', `/api/open/planted/${token}`)).body.mayDig).toBe(true);
  });

  it('is a report, no planting, until somebody records it under the same leave to dig', async () => {
    const { spotId, token } = await asked();
    const answer = await stranger.send<OpenReport>('POST', `/api/open/planted/${token}`, told());
    expect([answer.status, answer.body.state]).toEqual([200, 'reported']);
    expect(await reports(spotId)).toMatchObject([
      { state: 'reported', signedBy: 'Rosa Vale', words: 'beside the gate', facts: { flareAboveGradeMm: [45] } },
    ]);
    expect((await spotOf(spotId)).records.map(({ kind }) => kind)).not.toContain('planting');
    // Told anew it is corrected.
    await stranger.send('POST', `/api/open/planted/${token}`, told({ firstWaterL: 60 }));
    expect((await reports(spotId))[0]?.facts?.firstWaterL).toBe(60);

    await askTicketsSince('2020-01-01');
    const early = await day.leo.send('POST', '/api/records', sending(spotId, planting(day.today)));
    expect(early.status).toBe(400);
    await cleared(spotId);
    expect((await day.leo.send('POST', '/api/records', sending(spotId, planting(day.today)))).status).toBeLessThan(300);
    expect((await reports(spotId))[0]?.state).toBe('verified');
    expect((await stranger.send('POST', `/api/open/planted/${token}`, told())).status).toBe(400);
  });

  it('opens nothing by another link, one taken back, or one that has run out', async () => {
    const { id, token } = await asked();
    expect((await stranger.send('GET', `/api/open/planted/${'x'.repeat(32)}`)).status).toBe(404);
    expect((await day.leo.send('POST', `/api/built-reports/${id}/revoke`)).status).toBe(204);
    expect((await stranger.send('POST', `/api/open/planted/${token}`, told())).status).toBe(400);
    const late = await asked();
    await day.town.db('built_report').where({ id: late.id }).update({ expires_on: '2020-01-01' });
    expect((await stranger.send('POST', `/api/open/planted/${late.token}`, told())).status).toBe(400);
    const audited = await day.town.db('audit').where({ table_name: 'built_report' }).select('after');
    expect(JSON.stringify(audited)).not.toContain(token);
  });

  it('names the field of what cannot be, and keeps nothing of it', async () => {
    const { spotId, token } = await asked();
    const tell = async (change: object) => {
      const answer = await stranger.send('POST', `/api/open/planted/${token}`, told(change));
      return [answer.status, JSON.stringify(answer.body)] as const;
    };
    for (const [change, field] of [
      [{ plantedOn: addDaysTo(day.today, 9) }, 'plantedOn'],
      [{ flareAboveGradeMm: [] }, 'flareAboveGradeMm'],
      [{ holeWidthMm: 20_000 }, 'holeWidthMm'],
      [{ signedBy: '' }, 'signedBy'],
    ] as const) {
      const [status, said] = await tell(change);
      expect(status).toBe(400);
      expect(said).toContain(field);
    }
    expect((await reports(spotId))[0]).toMatchObject({ state: 'asked', facts: null });
  });

  it('takes one photo, drawn anew, and no file that is none', async () => {
    const { spotId, token } = await asked();
    const put = (body: Buffer) =>
      stranger.send('PUT', `/api/open/planted/${token}/photo`, body, { 'content-type': 'application/octet-stream' });
    expect((await put(Buffer.from('<script>alert(1)</script>'))).status).toBe(400);
    const red = await sharp({ create: { width: 40, height: 30, channels: 3, background: 'red' } })
      .png()
      .toBuffer();
    const blue = await sharp({ create: { width: 40, height: 30, channels: 3, background: 'blue' } })
      .png()
      .toBuffer();
    expect([(await put(red)).status, (await put(blue)).status]).toEqual([200, 200]);
    const [one] = await reports(spotId);
    expect(one?.photoId).not.toBeNull();
    expect(await day.town.db('spot_photo').where({ spot_id: spotId }).pluck('step')).toEqual(['planting.keeper']);
  });
});

describe('the end of a day', () => {
  it('takes what was planted out of the store, once, and never under nothing', async () => {
    await askTicketsSince('2099-01-01');
    const spotId = await day.readySpot();
    const made = await day.makeDay({ onDay: day.today, spotIds: [spotId] });
    await day.leo.send('POST', '/api/records', sending(spotId, planting(day.today)));
    const { materialsUsed } = await day.read(made.id);
    const [first] = materialsUsed;
    if (!first) throw new Error('no material was used');
    const store = (material: string) => day.town.db('material_store').where({ material });
    // Nothing is counted in this town yet.
    await day.town
      .db('material_store')
      .insert(
        materialsUsed.map(({ code, amount }, i) => ({ material: code, amount: i === 0 ? amount + 5 : amount / 2 })),
      );
    await happened(made.id, dayEvent('closed', { hours: 3, note: '' }));
    await happened(made.id, dayEvent('closed', { hours: 4, note: 'counted anew' }));
    expect((await store(first.code).first<{ amount: number }>('amount'))?.amount).toBeCloseTo(5, 6);
    for (const { code } of materialsUsed.slice(1)) {
      expect((await store(code).first<{ amount: number }>('amount'))?.amount).toBe(0);
    }
  });

  it('keeps each tick of the close-down list', async () => {
    const spotId = await day.readySpot();
    const made = await day.makeDay({ spotIds: [spotId] });
    await happened(made.id, dayEvent('close_down', { task: 'heeled_in', spotId }));
    await happened(made.id, dayEvent('close_down', { task: 'holes_fenced', spotId: null }));
    const after = await day.read(made.id);
    expect(after.events.map(({ facts }) => facts)).toEqual([
      { task: 'heeled_in', spotId },
      { task: 'holes_fenced', spotId: null },
    ]);
    expect(
      (
        await happened(made.id, {
          ...dayEvent('close_down', { task: 'all_home', spotId: null }),
          facts: { task: 'burnt', spotId: null },
        })
      ).status,
    ).toBe(400);
  });
});

describe('the packet of a day', () => {
  it('holds sheets, materials and a card for each open tree in one file, and counts them as printed', async () => {
    const spotIds = [await day.readySpot(), await day.readySpot()];
    for (const kind of ['volunteers', 'contractor', 'hand_out']) {
      const made = await day.makeDay({ kind, spotIds, onDay: day.onDay });
      const answer = await day.leo.bytes('GET', `/api/planting-days/${made.id}/packet.pdf`);
      const bytes = Buffer.from(answer.bytes);
      expect([answer.status, bytes.subarray(0, 5).toString()]).toEqual([200, '%PDF-']);
      // Two trees: one sheet of cards behind the day's own sheet and the list of materials, and two more for people.
      const pages = bytes.toString('latin1').match(/\/Type \/Page\b(?!s)/g)?.length;
      expect(pages).toBe(kind === 'volunteers' ? 5 : 3);
      expect((await day.read(made.id)).trees.every(({ carded }) => carded)).toBe(true);
      await day.town.db('planting_day_spot').where({ day_id: made.id }).del();
    }
  });
});
