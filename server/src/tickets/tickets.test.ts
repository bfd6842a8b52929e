import type { Desk, Ticket, TicketList } from '@sombra/contract';
import { addDaysTo, addWorkingDays, defaultGroundRules } from '@sombra/core';
import { v7 as uuidv7 } from 'uuid';
import { TestCentre } from '../../testing/centre';
import { container, loam, openTestTown, planting, sending, Visitor, type TestTown } from '../../testing/test-town';
import { handDigZones } from './repository';
import { tendTickets } from './tend';
import { programmeToday } from '../programme/today';

let town: TestTown;
let cora: Visitor;
let vic: Visitor;
let today: string;
let centre: TestCentre;
beforeAll(async () => {
  town = await openTestTown();
  cora = await Visitor.signedIn(town.url, 'cora');
  vic = await Visitor.signedIn(town.url, 'vic');
  today = await programmeToday(town.db);
});
afterAll(() => town.stop());
beforeEach(async () => {
  centre = new TestCentre();
  await town.db('locate_ticket').update({ state: 'withdrawn', next_try_at: null });
});

const square = (lng: number, lat: number): [number, number][] => [
  [lng - 0.0005, lat - 0.0005],
  [lng + 0.0005, lat - 0.0005],
  [lng + 0.0005, lat + 0.0005],
  [lng - 0.0005, lat + 0.0005],
];
const request = (change: object = {}) => ({
  id: uuidv7(),
  purpose: 'Planting',
  ring: square(-25.4, 36.9),
  renews: null,
  ...change,
});
const raise = async (change: object = {}) => (await cora.send<Ticket>('POST', '/api/tickets', request(change))).body;
const read = async (id: string) => (await cora.send<Ticket>('GET', `/api/tickets/${id}`)).body;
const again = (id: string) => town.db('locate_ticket').where({ id }).update({ next_try_at: town.db.fn.now() });
/** As if the ticket had been raised long enough ago. */
const backdate = (id: string) =>
  town
    .db('locate_ticket')
    .where({ id })
    .update({ valid_from: addDaysTo(today, -1), valid_until: addDaysTo(today, 20) });

describe('a locate ticket', () => {
  it('is kept first, taken by the centre from there, and gathers the replies one by one', async () => {
    const sent = await raise();
    expect(sent).toMatchObject({ state: 'unsent', number: null, replies: [], problem: null });
    centre.reply('Water', 'clear');
    centre.reply('Gas', 'waiting');
    await tendTickets(town.db, centre);
    const open = await read(sent.id);
    expect(open).toMatchObject({ state: 'open', number: `T-${sent.id.slice(-6)}` });
    expect(open.validFrom).toBe(addWorkingDays(today, 3, defaultGroundRules.holidays));
    expect(open.replies.map(({ utility, state }) => [utility, state])).toEqual([
      ['Gas', 'waiting'],
      ['Water', 'clear'],
    ]);
    centre.reply('Gas', 'marked', {
      toleranceMm: 750,
      marks: {
        type: 'MultiLineString',
        coordinates: [
          [
            [-25.4, 36.8999],
            [-25.4, 36.9001],
          ],
        ],
      },
    });
    await again(sent.id);
    await tendTickets(town.db, centre);
    expect((await read(sent.id)).replies[0]).toMatchObject({ utility: 'Gas', state: 'marked', toleranceMm: 750 });
    const zones = await handDigZones(town.db, today);
    expect(zones).toHaveLength(1);
    expect(zones[0]?.rings[0]?.length).toBeGreaterThan(8);
  });

  it('waits with its state shown while the centre is away, loses nothing, and is sent once', async () => {
    centre.away = true;
    const sent = await raise();
    await tendTickets(town.db, centre);
    expect(await read(sent.id)).toMatchObject({
      state: 'unsent',
      tries: 1,
      problem: 'The locate centre cannot be reached',
    });
    await tendTickets(town.db, centre);
    expect((await read(sent.id)).tries).toBe(1);
    centre.away = false;
    expect((await cora.send('POST', `/api/tickets/${sent.id}/retry`)).status).toBe(200);
    await tendTickets(town.db, centre);
    expect(await read(sent.id)).toMatchObject({ state: 'open', tries: 0, problem: null });
    expect(centre.raised.map(({ requestId }) => requestId)).toEqual([sent.id]);
  });

  it('holds nothing in the database while the centre takes its time, and stays taken back', async () => {
    const sent = await raise();
    centre.beforeAnswer = async () => {
      const { rows } = await town.db.raw<{ rows: { held: number }[] }>(
        `select count(*)::int as held from pg_locks join pg_class on pg_class.oid = relation
         where relname = 'locate_ticket' and mode in ('RowShareLock', 'RowExclusiveLock')`,
      );
      expect(rows[0]?.held).toBe(0);
      expect((await cora.send('POST', `/api/tickets/${sent.id}/withdraw`)).status).toBe(200);
    };
    expect(await tendTickets(town.db, centre)).toBe(1);
    expect(await read(sent.id)).toMatchObject({ state: 'withdrawn', number: null });
    expect(centre.withdrawn).toEqual([`T-${sent.id.slice(-6)}`]);
  });

  it('is given to one server at a time, and comes back from one that died', async () => {
    const sent = await raise();
    let others = 0;
    centre.beforeAnswer = async () => {
      others += await tendTickets(town.db, new TestCentre());
      throw new Error('the server dies');
    };
    await expect(tendTickets(town.db, centre)).rejects.toThrow('the server dies');
    expect(others).toBe(0);
    await town.db.raw(`update locate_ticket set next_try_at = next_try_at - interval '60 s' where id = ?`, [sent.id]);
    centre.beforeAnswer = () => Promise.resolve();
    await tendTickets(town.db, centre);
    expect(await read(sent.id)).toMatchObject({ state: 'open' });
  });

  it('keeps a refusal as it is until somebody acts', async () => {
    centre.refuses = 'the area lies outside our district';
    const sent = await raise();
    await tendTickets(town.db, centre);
    expect(await read(sent.id)).toMatchObject({
      state: 'unsent',
      problem: expect.stringContaining('outside our district') as string,
    });
    expect(await tendTickets(town.db, centre)).toBe(0);
  });

  it('refuses what overlaps another ticket, unless it renews it', async () => {
    const first = await raise();
    const clash = await cora.send('POST', '/api/tickets', request({ ring: square(-25.4002, 36.9001) }));
    expect([clash.status, clash.body.title]).toEqual([409, expect.stringMatching(/holds \d+ m² of this area already/)]);
    const renewal = await cora.send('POST', '/api/tickets', request({ renews: first.id }));
    expect(renewal.status).toBe(201);
    const beside = await cora.send('POST', '/api/tickets', request({ ring: square(-25.39, 36.9) }));
    expect(beside.status).toBe(201);
  });

  it.each([
    [
      {
        ring: [
          [-25.4, 36.9],
          [-25.39, 36.91],
          [-25.4, 36.91],
          [-25.39, 36.9],
        ],
      },
      400,
      /crosses itself/,
    ],
    [{ ring: square(-25.4, 36.9).map(([x, y]) => [x + (x > -25.4 ? 0.1 : 0), y]) }, 400, /must hold 1 to 200000 m²/],
    [{ ring: undefined, spotIds: [uuidv7()] }, 404, /no such thing/i],
    [{ spotIds: [uuidv7()] }, 400, /outside its limits/],
    [{ purpose: '' }, 400, /outside its limits/],
  ])('refuses %j', async (change, status, title) => {
    const answer = await cora.send('POST', '/api/tickets', request(change));
    expect([answer.status, answer.body.title]).toEqual([status, expect.stringMatching(title)]);
  });

  it('sent twice is one ticket, and a viewer raises none', async () => {
    const sent = request({ ring: square(-25.38, 36.9) });
    const first = await cora.send<Ticket>('POST', '/api/tickets', sent);
    const second = await cora.send<Ticket>('POST', '/api/tickets', sent);
    expect(second.body.id).toBe(first.body.id);
    expect((await vic.send('POST', '/api/tickets', request({ ring: square(-25.3, 36.9) }))).status).toBe(403);
  });

  it('is drawn around the spots it is raised for', async () => {
    const { spotId } = await town.addSpot('T-0001');
    const ticket = await raise({ ring: undefined, spotIds: [spotId] });
    // A circle of 2.5 m: π · 2.5², less what its corners cut.
    expect(ticket.areaM2).toBeGreaterThan(18);
    expect(ticket.areaM2).toBeLessThanOrEqual(20);
    expect(ticket.spots).toBeGreaterThanOrEqual(1);
  });
});

describe('planting without a ticket', () => {
  async function readySpot(ref: string): Promise<string> {
    const { spotId } = await town.addSpot(ref);
    const ground = await cora.record(
      sending(spotId, { kind: 'ground', facts: loam }, (await cora.spot(spotId)).spot.version),
    );
    await cora.record(sending(spotId, { kind: 'stock', facts: container }, ground.body.spotVersion));
    return spotId;
  }
  const plant = async (spotId: string, day = today) => {
    const { status, body } = await cora.send('POST', '/api/records', sending(spotId, planting(day)));
    return { status, issue: body.issues?.[0] };
  };
  async function coveredBy(spotId: string, states: readonly ('clear' | 'waiting' | 'conflict')[]): Promise<Ticket> {
    states.forEach((state, i) => centre.reply(`Utility ${i}`, state));
    const ticket = await raise({ ring: undefined, spotIds: [spotId] });
    await tendTickets(town.db, centre);
    await backdate(ticket.id);
    return ticket;
  }

  it('is refused with the reason, for everybody, and leaves nothing behind', async () => {
    const spotId = await readySpot('T-0101');
    const { status, issue } = await plant(spotId);
    expect([status, issue?.path]).toEqual([400, 'record.facts.plantedOn']);
    expect(issue?.message).toMatch(/locate ticket or a lawful clearance covers this spot: No locate ticket covers/);
    const ada = await Visitor.signedIn(town.url, 'ada');
    expect((await ada.send('POST', '/api/records', sending(spotId, planting(today)))).status).toBe(400);
    expect((await cora.spot(spotId)).records.map(({ kind }) => kind)).toEqual(['ground', 'stock']);
  });

  it('says how far a spot may move within its ticket: the radius of the dig area drawn around it', async () => {
    const spotId = await readySpot('T-0110');
    const { id } = await coveredBy(spotId, ['clear']);
    const ticket = (await cora.spot(spotId)).leave.tickets.find((one) => one.id === id);
    // Drawn as a polygon of 2.5 m radius: its sides come a little nearer than its corners.
    expect(ticket?.roomM).toBeGreaterThan(2.3);
    expect(ticket?.roomM).toBeLessThanOrEqual(2.5);
  });

  it('goes ahead under a ticket whose replies are all in, and not while one is missing or in conflict', async () => {
    const spotId = await readySpot('T-0102');
    const ticket = await coveredBy(spotId, ['clear', 'waiting']);
    expect((await plant(spotId)).issue?.message).toMatch(/Reply missing from Utility 1/);
    centre.reply('Utility 1', 'conflict');
    await again(ticket.id);
    await tendTickets(town.db, centre);
    await backdate(ticket.id);
    expect((await plant(spotId)).issue?.message).toMatch(/in conflict/);
    centre.reply('Utility 1', 'clear');
    await again(ticket.id);
    await tendTickets(town.db, centre);
    await backdate(ticket.id);
    expect((await plant(spotId)).status).toBe(201);
  });

  it('is refused before the first day of digging and after the last', async () => {
    const spotId = await readySpot('T-0103');
    const ticket = await coveredBy(spotId, ['clear']);
    await town
      .db('locate_ticket')
      .where({ id: ticket.id })
      .update({ valid_from: addDaysTo(today, 1), valid_until: addDaysTo(today, 9) });
    expect((await plant(spotId)).issue?.message).toMatch(/digging from/);
    await town
      .db('locate_ticket')
      .where({ id: ticket.id })
      .update({ valid_from: addDaysTo(today, -9), valid_until: addDaysTo(today, -1) });
    expect((await plant(spotId)).issue?.message).toMatch(/ended on/);
  });

  it('is refused once the spot was moved out of the cleared area', async () => {
    const spotId = await readySpot('T-0104');
    await coveredBy(spotId, ['clear']);
    const { spot } = await cora.spot(spotId);
    const to: [number, number] = [spot.position[0] + 0.0001, spot.position[1]];
    const move = { kind: 'move', facts: { movedOn: today, from: spot.position, to, reason: 'rock' } } as const;
    expect((await cora.record(sending(spotId, move))).status).toBe(201);
    expect((await plant(spotId)).issue?.message).toMatch(/No locate ticket covers/);
  });

  it('is history before the programme kept its tickets here', async () => {
    const spotId = await readySpot('T-0105');
    expect((await plant(spotId, addDaysTo(today, -200))).status).toBe(201);
  });

  it('goes ahead under a lawful clearance with its document', async () => {
    const spotId = await readySpot('T-0106');
    const query = new URLSearchParams({
      id: uuidv7(),
      document: 'Letter 12/26',
      clearedBy: 'Roads office',
      validFrom: addDaysTo(today, -3),
      validUntil: addDaysTo(today, 3),
    });
    const attach = (bytes: string, change: Record<string, string> = {}) => {
      const asked = new URLSearchParams({ ...Object.fromEntries(query), ...change });
      return cora.send('PUT', `/api/spots/${spotId}/clearances?${asked}`, new TextEncoder().encode(bytes), {
        'content-type': 'application/pdf',
      });
    };
    expect((await attach('hello')).status).toBe(400);
    expect((await attach('%PDF-1.7 …', { validUntil: addDaysTo(today, -9) })).status).toBe(400);
    expect((await plant(spotId)).status).toBe(400);
    expect((await attach('%PDF-1.7 …')).status).toBe(201);
    expect((await cora.spot(spotId)).leave.clearances).toMatchObject([
      { document: 'Letter 12/26', clearedBy: 'Roads office' },
    ]);
    const file = await cora.send<string>('GET', `/api/clearances/${query.get('id')}`);
    expect(file.headers.get('content-type')).toContain('application/pdf');
    expect((await plant(spotId)).status).toBe(201);
  });

  it('cannot be slipped in by a file either', async () => {
    const { spotId } = await town.addSpot('T-0107');
    const row = (plantedOn: string) =>
      `ref,place,lng,lat,planted_on,flare_above_grade_mm,hole_width_mm,first_water_l,stock_kind,caliper_mm,height_m,ball_diameter_mm,ball_height_mm,top_roots_depth_mm,soil\nT-0107,Mole Street,-25.41,36.91,${plantedOn},40,1100,50,container,50,3,450,400,20,loam\n`;
    const preview = await cora.send<{ counts: { bad: number }; issues: { column: string; message: string }[] }>(
      'POST',
      '/api/imports/preview?fileName=a.csv',
      new TextEncoder().encode(row(today)),
      { 'content-type': 'text/csv' },
    );
    expect(preview.body.counts.bad).toBe(1);
    expect(preview.body.issues[0]).toMatchObject({
      column: 'planted_on',
      message: expect.stringMatching(/locate ticket/) as string,
    });
    expect((await cora.spot(spotId)).records).toEqual([]);
  });
});

describe('cover of planting days', () => {
  it('is looked at ahead: the desk and the tickets name the spots nobody may dig at that day', async () => {
    const { spotId } = await town.addSpot('T-0201');
    const dayId = uuidv7();
    await town.db('planting_day').insert({ id: dayId, on_day: addDaysTo(today, 8), title: 'Mole Street' });
    await town.db('planting_day_spot').insert({ day_id: dayId, spot_id: spotId });
    const { body } = await cora.send<TicketList>('GET', '/api/tickets');
    expect(body.uncovered).toMatchObject([{ dayId, spots: [{ ref: 'T-0201' }] }]);
    const desk = await cora.send<Desk>('GET', '/api/desk');
    expect(desk.body.uncovered[0]?.spots[0]?.why).toMatch(/No locate ticket covers this spot/);
    centre.reply('Water', 'clear');
    const ticket = await raise({ ring: undefined, spotIds: [spotId] });
    await tendTickets(town.db, centre);
    expect((await cora.send<TicketList>('GET', '/api/tickets')).body.uncovered).toEqual([]);
    await cora.send('POST', `/api/tickets/${ticket.id}/withdraw`);
    expect((await cora.send<TicketList>('GET', '/api/tickets')).body.uncovered).toHaveLength(1);
    expect((await vic.send('POST', `/api/tickets/${ticket.id}/withdraw`)).status).toBe(403);
  });
});
