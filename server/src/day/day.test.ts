import {
  keptDayOf,
  type DayDetail,
  type OpenDay,
  type OpenRegistration,
  type PrivateFacts,
  type Problem,
  type SeekProgress,
} from '@sombra/contract';
import { readinessOf, type IsoDate, type Stock } from '@sombra/core';
import { randomUUID } from 'node:crypto';
import { rm } from 'node:fs/promises';
import path from 'node:path';
import { openMailbox, type Mailbox } from '../../testing/mailbox';
import { dayEvent, openDayTown, type DayTown } from '../../testing/day-town';
import { Visitor, container, planting, sending, type TestTown } from '../../testing/test-town';
import { sendMail } from '../mail/sending-service';
import { smtpMail, type MailService } from '../adapters/mail';
import { readWeather } from '../weather/reading-service';
import { replaceLayer } from '../map/repository';
import { walkMatrix } from '../streets/repository';
import { SeasonKeys, seasonOf } from './season-key';

let days: DayTown;
let town: TestTown;
let cora: Visitor;
let leo: Visitor;
let mail: Mailbox;
let today: IsoDate;
let onDay: IsoDate;
let stranger: Visitor;

beforeAll(async () => {
  mail = await openMailbox();
  days = await openDayTown();
  ({ town, cora, leo, today, onDay } = days);
  stranger = new Visitor(town.url);
});
afterAll(async () => {
  await town.stop();
  mail.stop();
});

const readySpot = () => days.readySpot();
const makeDay = (change?: object) => days.makeDay(change);
const read = async (id: string, who = cora) => (await who.send<DayDetail>('GET', `/api/planting-days/${id}`)).body;
const openLink = async (id: string) =>
  (await cora.send<{ path: string }>('POST', `/api/planting-days/${id}/link`, { open: true })).body.path.replace(
    '/join/',
    '',
  );
const helper = (name: string, change: object = {}) => ({
  id: randomUUID(),
  name,
  skill: 'has_planted',
  minor: false,
  together: null,
  noLifting: false,
  photos: true,
  guardianId: null,
  userId: null,
  signedBy: name,
  walkIn: false,
  private: { email: '', phone: '', emergencyContact: '', allergies: '' },
  ...change,
});
const registration = (name: string, change: object = {}) => ({
  id: randomUUID(),
  name,
  skill: 'first_time',
  minor: false,
  together: null,
  noLifting: false,
  photos: false,
  private: {
    email: `${name.toLowerCase().replace(/\W/g, '')}@green.example`,
    phone: '555',
    emergencyContact: 'Somebody',
    allergies: 'wasps',
  },
  waiverVersion: 1,
  signedBy: name,
  minors: [],
  website: '',
  ...change,
});
async function sendAll(service: MailService): Promise<void> {
  while ((await sendMail(town.db, service)) > 0);
}

/** Sends what waits, and gives the links that came to an address, newest first. */
async function lettersTo(address: string): Promise<{ subject: string; token: string; calendar: boolean }[]> {
  const service = smtpMail(mail.smtpUrl, 'trees@sombra.invalid');
  await sendAll(service);
  service.close();
  return (await mail.messages())
    .filter(({ to }) => to === address)
    .map(({ subject, text, attachments }) => ({
      subject,
      token: /\/place\/([\w-]+)/.exec(text)?.[1] ?? '',
      calendar: attachments.some(({ name, content }) => name.endsWith('.ics') && content.includes('BEGIN:VEVENT')),
    }));
}

describe('planning a day', () => {
  it('is made once of spots, date and capacity, and proposes the rest', async () => {
    const spotIds = [await readySpot(), await readySpot()];
    const asked = { id: randomUUID(), title: 'Once', onDay, kind: 'volunteers', capacity: 6, spotIds, copyOf: null };
    for (let i = 0; i < 2; i++) expect((await cora.send('POST', '/api/planting-days', asked)).status).toBe(201);
    const day = await read(asked.id);
    expect(day.trees).toHaveLength(2);
    expect(day.trees[0]).toMatchObject({ planned: true, stock: 'accepted', cover: 'none', planted: false });
    expect(day.trees[0]?.ruledH).toBeGreaterThan(1);
    expect(day.hours).toMatchObject({ beginMin: 540, endMin: 780 });
    const [first] = readinessOf(keptDayOf(day)).lines;
    // Nothing covers the day: a red line before all others.
    expect([first?.topic, first?.level, first?.refs]).toEqual(['cover', 'urgent', day.trees.map(({ ref }) => ref)]);
  });
  it.each([
    ['a day that has passed', { onDay: '2020-01-01' }, 400],
    ['a day too far off', { onDay: '2090-01-01' }, 400],
    ['a spot that is not there', { spotIds: [randomUUID()] }, 404],
    ['a capacity of thousands', { capacity: 5000 }, 400],
  ])('refuses %s', async (_name, change, status) => {
    const asked = {
      id: randomUUID(),
      title: 'x',
      onDay,
      kind: 'volunteers',
      capacity: 6,
      spotIds: [],
      copyOf: null,
      ...change,
    };
    expect((await cora.send('POST', '/api/planting-days', asked)).status).toBe(status);
    expect((await cora.send('GET', `/api/planting-days/${asked.id}`)).status).toBe(404);
  });
  it('plants a spot on one day only', async () => {
    const spotIds = [await readySpot()];
    await makeDay({ spotIds });
    const other = { id: randomUUID(), title: 'Other', onDay, kind: 'volunteers', capacity: 6, spotIds, copyOf: null };
    const { status, body } = await cora.send<Problem>('POST', '/api/planting-days', other);
    expect([status, body.title]).toEqual([409, expect.stringContaining('Mole Street')]);
  });
  it('refuses a change made on an older version, and tells both', async () => {
    const day = await makeDay();
    const { title, kind, capacity, hours, arrangements, gathering, version } = day;
    const change = { title, onDay, kind, capacity, hours, arrangements, gathering, spotIds: [], version };
    expect((await cora.send('PUT', `/api/planting-days/${day.id}`, { ...change, capacity: 11 })).status).toBe(200);
    const late = await cora.send<Problem>('PUT', `/api/planting-days/${day.id}`, { ...change, capacity: 12 });
    expect([late.status, late.body.current]).toEqual([409, expect.objectContaining({ capacity: 11 })]);
    const badHours = { ...change, version: version + 1, hours: { ...hours, endMin: hours.beginMin } };
    expect((await cora.send<Problem>('PUT', `/api/planting-days/${day.id}`, badHours)).body.issues?.[0]?.path).toBe(
      'endMin',
    );
  });
  it('copies hours and arrangements of another day, not its people', async () => {
    const day = await makeDay();
    const { title, kind, capacity, gathering, version } = day;
    const hours = { ...day.hours, endMin: 840 };
    const arrangements = { ...day.arrangements, toilets: 'School' };
    await cora.send('PUT', `/api/planting-days/${day.id}`, {
      title,
      onDay,
      kind,
      capacity,
      hours,
      arrangements,
      gathering,
      spotIds: [],
      version,
    });
    await cora.send('POST', `/api/planting-days/${day.id}/people`, helper('Ana'));
    const copy = await makeDay({ copyOf: day.id });
    expect([copy.hours.endMin, copy.arrangements.toilets, copy.people]).toEqual([840, 'School', []]);
  });
});

describe('who sees a day', () => {
  it('sees no name without being one who runs it', async () => {
    const day = await makeDay();
    await leo.send('POST', `/api/planting-days/${day.id}/people`, helper('Ana Secret', { together: 'word' }));
    const seen = await read(day.id, await Visitor.signedIn(town.url, 'vic'));
    expect(JSON.stringify(seen)).not.toMatch(/Ana|Secret|word/);
    expect(seen.people).toHaveLength(1);
    expect((await read(day.id, leo)).people[0]?.name).toBe('Ana Secret');
  });
  it('is told by no clock that goes ahead, and reopens nothing that is closed', async () => {
    const day = await makeDay();
    const ahead = { ...dayEvent('thunder', { note: '' }), at: '2099-01-01T00:00:00Z' };
    await leo.send('POST', `/api/planting-days/${day.id}/events`, ahead);
    await leo.send('POST', `/api/planting-days/${day.id}/events`, dayEvent('closed', { hours: 4, note: '' }));
    await leo.send(
      'POST',
      `/api/planting-days/${day.id}/events`,
      dayEvent('weather_decided', { advice: 'go', beginMin: null, why: 'Late word.' }),
    );
    const after = await read(day.id);
    expect([
      after.state,
      Date.parse(after.events.find(({ kind }) => kind === 'thunder')?.at ?? '') <= Date.now(),
    ]).toEqual(['closed', true]);
  });
});

describe('a phone whose clock is wrong', () => {
  it('says when it was by how far it is off, not by what it shows', async () => {
    const day = await makeDay();
    const ana = helper('Late Clock');
    await leo.send('POST', `/api/planting-days/${day.id}/people`, ana);
    // A year behind, an hour ago by its own clock.
    const year = 365 * 86_400_000;
    const hourAgo = Date.now() - 3_600_000;
    const came = {
      ...dayEvent('checked_in', { personId: ana.id }),
      at: new Date(hourAgo - year).toISOString(),
      aheadMs: -year,
    };
    expect((await leo.send('POST', `/api/planting-days/${day.id}/events`, came)).status).toBe(201);
    const { people } = await read(day.id, leo);
    expect(Math.abs(Date.parse(people[0]?.cameAt ?? '') - hourAgo)).toBeLessThan(60_000);
  });
});

describe('cards of a day', () => {
  it('are known as printed until the plan is another one', async () => {
    const spotId = await readySpot();
    const day = await makeDay({ spotIds: [spotId] });
    const card = async () => {
      const [tree] = (await read(day.id)).trees;
      return [tree?.carded, tree?.cardChanged];
    };
    expect(await card()).toEqual([false, false]);
    const printed = await fetch(`${town.url}/api/cards`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', ...headersOf(cora) },
      body: JSON.stringify({ spots: [spotId], layout: 'a5' }),
    });
    expect(printed.status).toBe(200);
    await printed.arrayBuffer();
    expect(await card()).toEqual([true, false]);
    const taller = { kind: 'stock' as const, facts: { ...container, ballHeightMm: 460 } as Stock };
    expect((await cora.send('POST', '/api/records', sending(spotId, taller, 3))).status).toBeLessThan(300);
    expect(await card()).toEqual([true, true]);
  });
});

describe('teams of a day', () => {
  it('are sought, kept, and refused where a minor stands without a guardian', async () => {
    const day = await makeDay({ spotIds: [await readySpot(), await readySpot()] });
    const guardian = helper('Lead One', { skill: 'leads' });
    const kid = helper('Kid', { minor: true, guardianId: guardian.id });
    const people = [guardian, kid, helper('Lead Two', { skill: 'leads' }), helper('Four')];
    for (const one of people) await leo.send('POST', `/api/planting-days/${day.id}/people`, one);
    const answer = await fetch(`${town.url}/api/planting-days/${day.id}/teams/seek`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', ...headersOf(cora) },
      body: JSON.stringify({ seed: 1, keepLocked: false }),
    });
    const lines = (await answer.text())
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as SeekProgress);
    const found = lines.at(-1);
    if (found?.kind !== 'found') throw new Error('no teams');
    expect(found.teams.flatMap(({ helperIds }) => helperIds).sort()).toEqual(people.map(({ id }) => id).sort());
    const keep = (teams: unknown, version: number) =>
      leo.send<DayDetail & Problem>('PUT', `/api/planting-days/${day.id}/teams`, {
        teams,
        locks: { helperIds: [], spotIds: [] },
        version,
      });
    const kept = await keep(found.teams, 1);
    expect(kept.body.teams).toEqual(found.teams);
    const torn = [{ leadId: people[2]?.id, helperIds: [people[2]?.id, kid.id], spotIds: [] }];
    expect((await keep(torn, 2)).status).toBe(400);
    expect((await keep([{ leadId: kid.id, helperIds: [kid.id, guardian.id], spotIds: [] }], 2)).status).toBe(400);
    expect((await keep(found.teams, 1)).status).toBe(409);
    expect((await read(day.id)).teams).toEqual(found.teams);
  });
  it('leave nobody without a waiver in them', async () => {
    const day = await makeDay();
    const [lead, unsigned] = [helper('Lead', { skill: 'leads' }), helper('No', { signedBy: null })];
    for (const one of [lead, unsigned]) await leo.send('POST', `/api/planting-days/${day.id}/people`, one);
    const teams = [{ leadId: lead.id, helperIds: [lead.id, unsigned.id], spotIds: [] }];
    const answer = await leo.send<Problem>('PUT', `/api/planting-days/${day.id}/teams`, {
      teams,
      locks: { helperIds: [], spotIds: [] },
      version: 1,
    });
    expect([answer.status, answer.body.issues?.[0]?.path]).toEqual([400, 'helperIds']);
  });
});

function headersOf(visitor: Visitor): Record<string, string> {
  const { cookie, token } = visitor.credentials();
  return { cookie, 'x-csrf-token': token };
}

describe('registering by the link', () => {
  it('holds a place, confirms it by the letter with a calendar, and gives a cancelled one to who waits', async () => {
    const day = await makeDay({ capacity: 1 });
    const link = await openLink(day.id);
    const [first, second] = [registration('First Come'), registration('Second Come')];
    for (const one of [first, second]) {
      const answer = await stranger.send('POST', `/api/open/days/${link}`, one);
      expect([answer.status, answer.body]).toEqual([202, {}]);
    }
    expect((await stranger.send<OpenDay>('GET', `/api/open/days/${link}`)).body.placesLeft).toBe(0);
    const [held] = await lettersTo('firstcome@green.example');
    const [waits] = await lettersTo('secondcome@green.example');
    expect([held?.subject, waits?.subject]).toEqual([
      'Please confirm: Mole Street',
      'On the waiting list: Mole Street',
    ]);
    const answer = (token: string | undefined, what: string) =>
      stranger.send<OpenRegistration>('POST', `/api/open/places/${token}`, { answer: what });
    expect((await answer(held?.token, 'confirm')).body.state).toBe('confirmed');
    expect((await answer(held?.token, 'confirm')).body.state).toBe('confirmed');
    expect((await lettersTo('firstcome@green.example'))[0]).toMatchObject({
      subject: 'See you there: Mole Street',
      calendar: true,
    });
    expect((await answer(waits?.token, 'confirm')).body.state).toBe('waiting');
    await answer(held?.token, 'cancel');
    const offered = (await lettersTo('secondcome@green.example')).find(({ subject }) =>
      subject.startsWith('Please confirm'),
    );
    expect((await answer(offered?.token, 'confirm')).body.state).toBe('confirmed');
    expect((await read(day.id)).people.map(({ name, state }) => [name, state])).toEqual([
      ['First Come', 'cancelled'],
      ['Second Come', 'confirmed'],
    ]);
  });
  it('never overbooks, whoever comes at once from one address', async () => {
    const day = await makeDay({ capacity: 60 });
    const link = await openLink(day.id);
    const all = await Promise.all(
      Array.from({ length: 200 }, (_, i) =>
        stranger.send('POST', `/api/open/days/${link}`, registration(`Person ${i}`)),
      ),
    );
    expect(new Set(all.map(({ status }) => status))).toEqual(new Set([202]));
    const { people } = await read(day.id);
    expect([
      people.filter(({ state }) => state === 'held').length,
      people.filter(({ state }) => state === 'waiting').length,
    ]).toEqual([60, 140]);
    // Two hundred letters are no part of the tests that come after.
    await town.db('mail').where({ day_id: day.id }).update({ next_try_at: '2099-01-01' });
  });
  it('tells the same person again by letter alone, and books them once', async () => {
    const day = await makeDay();
    const link = await openLink(day.id);
    const once = registration('Twice Asked');
    const first = await stranger.send('POST', `/api/open/days/${link}`, once);
    const again = await stranger.send('POST', `/api/open/days/${link}`, { ...once, id: randomUUID() });
    expect([again.status, again.body]).toEqual([first.status, first.body]);
    expect((await read(day.id)).people).toHaveLength(1);
    const letters = await lettersTo('twiceasked@green.example');
    expect(letters.map(({ subject }) => subject).sort()).toEqual([
      'Please confirm: Mole Street',
      'You are registered already: Mole Street',
    ]);
  });
  it('takes minors with their guardian, and tells the robot nothing', async () => {
    const day = await makeDay();
    const link = await openLink(day.id);
    await stranger.send(
      'POST',
      `/api/open/days/${link}`,
      registration('Mum', { minors: [{ id: randomUUID(), name: 'Kid', allergies: 'nuts' }] }),
    );
    const robot = await stranger.send(
      'POST',
      `/api/open/days/${link}`,
      registration('Robot', { website: 'http://x.example' }),
    );
    expect([robot.status, robot.body]).toEqual([202, {}]);
    const { people } = await read(day.id);
    expect(people.map(({ name, minor, waiverSignedBy }) => [name, minor, waiverSignedBy])).toEqual([
      ['Mum', false, 'Mum'],
      ['Kid', true, 'Mum'],
    ]);
    expect(people[1]?.guardianId).toBe(people[0]?.id);
  });
  it('opens nothing by another link, by one taken back, or after an old waiver', async () => {
    const day = await makeDay();
    const link = await openLink(day.id);
    const old = await stranger.send<Problem>(
      'POST',
      `/api/open/days/${link}`,
      registration('Late', { waiverVersion: 7 }),
    );
    expect(old.status).toBe(409);
    await cora.send('POST', `/api/planting-days/${day.id}/link`, { open: false });
    for (const token of [link, 'x'.repeat(32)]) {
      const answer = await stranger.send<Problem>('GET', `/api/open/days/${token}`);
      expect([answer.status, answer.body.title]).toEqual([404, 'This link is not valid']);
    }
  });
  it('keeps what was told in confidence from everybody but leads, from the audit trail and from backups without the key', async () => {
    const day = await makeDay();
    await stranger.send('POST', `/api/open/days/${await openLink(day.id)}`, registration('Secret Keeper'));
    const secrets = (who: Visitor) =>
      who.send<Record<string, PrivateFacts>>('GET', `/api/planting-days/${day.id}/private`);
    expect(Object.values((await secrets(leo)).body)[0]).toMatchObject({
      allergies: 'wasps',
      email: 'secretkeeper@green.example',
    });
    expect((await secrets(await Visitor.signedIn(town.url, 'vic'))).status).toBe(403);
    const { rows } = await town.db.raw<{ rows: { text: string }[] }>(
      `select coalesce(string_agg(row_to_json(p)::text, ''), '') || (select coalesce(string_agg(sealed::text, ''), '') from day_person_private) as text from day_person p`,
    );
    expect(rows[0]?.text).not.toMatch(/wasps|secretkeeper/);
    const keys = path.join(`${town.storageFolder}-keys`);
    await rm(path.join(keys, `${seasonOf(onDay)}.key`));
    expect((await secrets(leo)).body).toEqual({});
  });
});

describe('mail', () => {
  const queued = async (to: string) => {
    const id = randomUUID();
    await town.db('mail').insert({ id, about: 'day', to_address: to, to_shown: 'x', subject: 'Hello', body: 'Word' });
    return id;
  };
  const rowOf = (id: string) => town.db('mail').where({ id }).first('state', 'tries', 'to_address', 'body', 'problem');
  it('keeps neither address nor words of what was sent or refused for good', async () => {
    const [sent, bounced] = [await queued('a@green.example'), await queued('a@bounce.example')];
    const service = smtpMail(mail.smtpUrl, 'trees@sombra.invalid');
    await sendAll(service);
    expect(await rowOf(sent)).toMatchObject({ state: 'sent', to_address: null, body: null });
    expect(await rowOf(bounced)).toMatchObject({
      state: 'refused',
      to_address: null,
      problem: 'refused by the mail server, 550',
    });
    service.close();
  });
  it('tries again what passes, and sends it once', async () => {
    const id = await queued('b@busy.example');
    const service = smtpMail(mail.smtpUrl, 'trees@sombra.invalid');
    for (let i = 0; i < 3; i++) {
      await sendAll(service);
      if (i < 2) expect(await rowOf(id)).toMatchObject({ state: 'waiting', tries: i + 1 });
      await town.db('mail').where({ id }).update({ next_try_at: town.db.fn.now() });
    }
    expect(await rowOf(id)).toMatchObject({ state: 'sent' });
    expect((await mail.messages()).filter(({ to }) => to === 'b@busy.example')).toHaveLength(1);
    service.close();
  });
  it('waits where no server is reached', async () => {
    const id = await queued('c@green.example');
    const service = smtpMail('smtp://127.0.0.1:9', 'trees@sombra.invalid');
    await sendAll(service);
    expect(await rowOf(id)).toMatchObject({ state: 'waiting', problem: 'the mail server was not reached' });
    service.close();
  });
});

describe('what happens on a day', () => {
  it('is kept once, checks people in, calls off and tells everybody', async () => {
    const day = await makeDay();
    const ana = helper('Ana', {
      private: { email: 'ana@green.example', phone: '', emergencyContact: '', allergies: '' },
    });
    await leo.send('POST', `/api/planting-days/${day.id}/people`, ana);
    const keep = (one: object) => leo.send('POST', `/api/planting-days/${day.id}/events`, one);
    const came = dayEvent('checked_in', { personId: ana.id });
    expect([(await keep(came)).status, (await keep(came)).status]).toEqual([201, 201]);
    expect((await keep(dayEvent('checked_in', { personId: randomUUID() }))).status).toBe(404);
    await keep(dayEvent('weather_decided', { advice: 'call_off', beginMin: null, why: 'Thunder all morning.' }));
    const after = await read(day.id);
    expect([after.state, after.events.map(({ kind }) => kind), after.people[0]?.cameAt]).toEqual([
      'called_off',
      ['checked_in', 'weather_decided'],
      came.at,
    ]);
    expect((await lettersTo('ana@green.example'))[0]?.subject).toBe('Mole Street: weather');
  });
  it('teaches the pace once it is closed with its hours', async () => {
    const spotId = await readySpot();
    const day = await makeDay({ onDay: today, spotIds: [spotId] });
    const [tree] = day.trees;
    await town.db('programme').update({ tickets_since: '2099-01-01' });
    const planted = await leo.send('POST', '/api/records', sending(spotId, planting(today)));
    expect(planted.status).toBeLessThan(300);
    const hours = (tree?.ruledH ?? 0) * 1.5;
    await leo.send('POST', `/api/planting-days/${day.id}/events`, dayEvent('closed', { hours, note: '' }));
    const after = await read(day.id);
    expect(after.state).toBe('closed');
    expect(after.worked[0]?.workedH).toBeCloseTo(hours, 6);
    expect((after.worked[0]?.workedH ?? 0) / (after.worked[0]?.ruledH ?? 1)).toBeCloseTo(1.5, 1);
  });
});

describe('papers and ways of a day', () => {
  it('come as PDF, calendar, GPX and GeoJSON', async () => {
    const day = await makeDay({ spotIds: [await readySpot()] });
    for (const [file, type] of [
      ['sheets.pdf', 'application/pdf'],
      ['name-tags.pdf', 'application/pdf'],
      ['day.ics', 'text/calendar'],
      ['teams.gpx', 'application/gpx+xml'],
      ['teams.geojson', 'application/geo+json'],
    ]) {
      const answer = await fetch(`${town.url}/api/planting-days/${day.id}/${file}`, { headers: headersOf(leo) });
      expect([answer.status, answer.headers.get('content-type')?.split(';')[0]]).toEqual([200, type]);
    }
    const ics = await (
      await fetch(`${town.url}/api/planting-days/${day.id}/day.ics`, { headers: headersOf(leo) })
    ).text();
    expect(ics).toContain('SUMMARY:Test: Mole Street');
  });
});

describe('weather by the hour', () => {
  const service = (rainMm: number) => ({
    stations: () => Promise.resolve([{ id: 'a', name: 'Roof', position: [-25.4, 36.9] as [number, number] }]),
    hours: (_id: string, from: Date, hours: number) =>
      Promise.resolve(
        Array.from({ length: hours }, (_, i) => ({
          at: new Date(Math.floor(from.getTime() / 3_600_000) * 3_600_000 + i * 3_600_000).toISOString(),
          source: i < 72 ? ('recorded' as const) : ('forecast' as const),
          rainMm,
          temperatureC: 15,
          humidityPct: 70,
          gustMs: 4,
          thunderKm: null,
          soilC: 14,
        })),
      ),
  });
  it('is of the day in the zone of the programme, newest forecast first, measured before forecast', async () => {
    await readWeather(town.db, service(1), new Date());
    await town.db('weather_station').update({ read_at: '2020-01-01' });
    await readWeather(town.db, service(2), new Date());
    const day = await makeDay();
    expect([day.forecast.length, day.forecast[0]?.hour, day.forecast[9]?.rainMm, day.station?.name]).toEqual([
      24,
      0,
      2,
      'Roof',
    ]);
  });
  it('says on the station that the service is away, and keeps what was read', async () => {
    const away = { ...service(0), stations: () => Promise.reject(new Error('away')) };
    await town.db('weather_station').update({ read_at: '2020-01-01' });
    await expect(readWeather(town.db, away, new Date())).rejects.toThrow('away');
    expect(await town.db('weather_station').first('problem')).toMatchObject({
      problem: expect.stringContaining('not reached') as unknown,
    });
    expect((await town.db('weather_hour').count('* as n'))[0]).not.toEqual({ n: 0 });
  });
});

describe('ways on foot', () => {
  const line = (points: [number, number][]) => ({
    name: 'S',
    heightM: null,
    geometry: JSON.stringify({ type: 'LineString', coordinates: points }),
  });
  // A degree of longitude at 36.9° is about 89.2 km, one of latitude 111 km: an L of 89 m and 111 m.
  const corner: [number, number] = [-25.3, 36.9];
  const [west, north]: [number, number][] = [
    [-25.301, 36.9],
    [-25.3, 36.901],
  ];
  it('follow streets that only cross, where no end meets another', async () => {
    const across = line([
      [-25.302, 36.9],
      [-25.298, 36.9],
    ]);
    const up = line([
      [-25.3, 36.899],
      [-25.3, 36.902],
    ]);
    await town.db.transaction((trx) => replaceLayer(trx, 'street', [across, up], 'test'));
    const { metres, routed } = await walkMatrix(town.db, [west ?? corner, north ?? corner]);
    expect(routed).toBe(true);
    // Along two legs of the L rather than its slant of 143 m.
    expect(metres[0]?.[1]).toBeGreaterThan(197);
    expect(metres[0]?.[1]).toBeLessThan(203);
  });
  it('are a straight line and a third more where there is no street', async () => {
    await town.db.transaction((trx) => replaceLayer(trx, 'street', [], 'test'));
    const { metres, routed } = await walkMatrix(town.db, [west ?? corner, north ?? corner]);
    expect([routed, Math.round((metres[0]?.[1] ?? 0) / 1.35)]).toEqual([
      false,
      expect.closeTo(142.6, -0.5) as unknown as number,
    ]);
  });
});

describe('the key of a season', () => {
  it('opens what it sealed for that person alone, and goes with the season', async () => {
    const keys = new SeasonKeys(path.join(`${town.storageFolder}-other-keys`));
    const sealed = await keys.seal('2024', 'a', { phone: '1' });
    expect(await keys.unseal('2024', 'a', sealed)).toEqual({ phone: '1' });
    await expect(keys.unseal('2024', 'b', sealed)).rejects.toThrow();
    expect(await keys.destroyOver('2025-06-30')).toEqual([]);
    expect(await keys.destroyOver('2025-07-01')).toEqual(['2024']);
    expect(await keys.unseal('2024', 'a', sealed)).toBeNull();
  });
  it('is named by the July its season begins in', () => {
    expect([seasonOf('2026-06-30'), seasonOf('2026-07-01'), seasonOf('2027-03-01')]).toEqual(['2025', '2026', '2026']);
  });
});
