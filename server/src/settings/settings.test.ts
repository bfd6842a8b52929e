import type { KeptRules, Problem, Programme, Session } from '@sombra/contract';
import { proposedWindows } from '@sombra/core';
import { v7 as uuidv7 } from 'uuid';
import { rebuildAll, renew } from '../record/derive';
import { derivedBy } from '../record/repository';
import { container, loam, openTestTown, sending, Visitor, type TestTown } from '../../testing/test-town';
import { makeSetUpCode } from './service';

const settings = {
  name: 'Leafy Harbour',
  timeZone: 'America/Argentina/Buenos_Aires',
  latDeg: -34.6,
  lngDeg: -58.4,
  elevationM: 25,
  currency: 'ARS',
  units: 'metric',
  holidays: ['05-25', '07-09'],
  windows: proposedWindows(-34.6),
};

describe('an empty programme', () => {
  let town: TestTown;
  beforeAll(async () => {
    town = await openTestTown({ empty: true });
  });
  afterAll(() => town.stop());

  const password = 'slow walks at dusk';
  const entry = (code: string, change: object = {}) => ({
    code,
    person: { id: uuidv7(), signIn: 'rosa', name: 'Rosa', units: 'metric', password },
    programme: settings,
    practice: { id: 'native-soil', version: 1 },
    ...change,
  });
  const setUp = (body: object) => new Visitor(town.url).send('POST', '/api/open/set-up', body);

  it('says that nobody has set it up, and opens nothing else', async () => {
    const stranger = new Visitor(town.url);
    expect(await stranger.arrive()).toMatchObject({ user: null, programme: null });
    expect((await stranger.send('GET', '/api/desk')).status).toBe(401);
  });

  it.each([
    ['no code', { code: '' }, 'code'],
    ['a time zone that is none', { programme: { ...settings, timeZone: 'Mars/Base' } }, 'programme.timeZone'],
    ['a place at the pole', { programme: { ...settings, latDeg: 80 } }, 'programme.latDeg'],
    [
      '31 February',
      { programme: { ...settings, windows: [{ stock: 'balled', from: '02-31', to: '03-01', because: '' }] } },
      'programme.windows.0.from',
    ],
    ['a practice nobody ships', { practice: { id: 'own', version: 1 } }, 'practice'],
    [
      'the commonest password',
      { person: { id: uuidv7(), signIn: 'rosa', name: 'Rosa', units: 'metric', password: 'password123' } },
      'password',
    ],
  ])('is not set up with %s', async (_case, change, path) => {
    const code = (await makeSetUpCode(town.db)) ?? '';
    const { status, body } = await setUp(entry(code, change));
    expect([status, body.issues?.[0]?.path]).toEqual([400, path]);
    expect(await town.db('programme')).toEqual([]);
    expect(await town.db('app_user')).toEqual([]);
  });

  it('is set up by the newest code, once, by one of several at once', async () => {
    const old = (await makeSetUpCode(town.db)) ?? '';
    const code = (await makeSetUpCode(town.db)) ?? '';
    expect((await setUp(entry(old))).status).toBe(400);
    const many = await Promise.all(
      ['a1', 'b2', 'c3'].map((signIn) => {
        const one = entry(code.toLowerCase().replaceAll('-', ' '));
        return setUp({ ...one, person: { ...one.person, signIn } });
      }),
    );
    expect(many.map(({ status }) => status).sort()).toEqual([201, 409, 409]);
    expect(await town.db('app_user').pluck('role')).toEqual(['administrator']);
    expect(await makeSetUpCode(town.db)).toBeNull();
  });

  it('then goes by what was set', async () => {
    const [{ sign_in: signIn }] = (await town.db('app_user').select<{ sign_in: string }[]>('sign_in')) as [
      { sign_in: string },
    ];
    const rosa = await Visitor.signedIn(town.url, signIn, password);
    expect((await rosa.arrive()).programme).toEqual({
      name: 'Leafy Harbour',
      demo: false,
      timeZone: settings.timeZone,
    });
    expect((await rosa.send('GET', '/api/programme')).body).toMatchObject({ ...settings, working: null, version: 1 });
    const { body } = await rosa.send<KeptRules>('GET', '/api/rules');
    expect([body.rules.match.currency, body.rules.ground.holidays]).toEqual(['ARS', settings.holidays]);
    expect((await rosa.send('GET', '/api/practices')).body).toMatchObject({
      current: { id: 'native-soil', version: 1 },
    });
    expect((await rosa.send('GET', '/api/map')).body).toMatchObject({ bounds: null, centre: [-58.4, -34.6] });
  });
});

describe('the programme', () => {
  let town: TestTown;
  let ada: Visitor;
  let cora: Visitor;
  beforeAll(async () => {
    town = await openTestTown();
    ada = await Visitor.signedIn(town.url, 'ada');
    cora = await Visitor.signedIn(town.url, 'cora');
  });
  afterAll(() => town.stop());
  const read = async () => (await ada.send<Programme>('GET', '/api/programme')).body;
  const save = ({ demo: _demo, working: _working, practice: _practice, ...programme }: Programme, by = ada) =>
    by.send<Programme & Problem>('PUT', '/api/programme', programme);

  it('is changed by an administrator, from the version that was read', async () => {
    const before = await read();
    expect((await save({ ...before, name: 'Mine' }, cora)).status).toBe(403);
    const answers = await Promise.all([save({ ...before, name: 'One' }), save({ ...before, name: 'Two' })]);
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409]);
    expect((await cora.send<Session>('GET', '/api/session')).body.programme?.name).toMatch(/One|Two/);
  });

  it('keeps holidays and currency as rules, in their versions', async () => {
    const { body: before } = await ada.send<KeptRules>('GET', '/api/rules');
    await save({ ...(await read()), holidays: ['2026-12-24'], currency: 'CHF' });
    const { body: after } = await ada.send<KeptRules>('GET', '/api/rules');
    expect(after.rules.ground).toMatchObject({ holidays: ['2026-12-24'], version: before.rules.ground.version + 1 });
    expect(after.rules.match.currency).toBe('CHF');
    await save({ ...(await read()), name: 'Three' });
    expect((await ada.send<KeptRules>('GET', '/api/rules')).body.rules.ground.version).toBe(after.rules.ground.version);
  });

  it('keeps what it holds of causes otherwise, and refuses what cannot be', async () => {
    const { rules } = (await ada.send<KeptRules>('GET', '/api/rules')).body;
    const put = (likelyPct: object, by = ada) =>
      by.send<KeptRules & Problem>('PUT', '/api/rules', { ...rules, causes: { parts: {}, likelyPct } });
    const over = await put({ probe_dry: { too_dry: 80 } });
    expect(over.status).toBe(400);
    expect(over.body.issues).toMatchObject([{ path: 'causes.likelyPct.probe_dry.too_dry' }]);
    expect((await put({ wilting: { too_dry: 100 } })).status).toBe(400);
    expect((await put({ wilting: { bad_luck: 20 } })).status).toBe(400);
    expect((await put({ wilting: { too_dry: 20 } }, cora)).status).toBe(403);
    const { body } = await put({ wilting: { too_dry: 20 } });
    expect(body.rules.causes).toEqual({ parts: {}, likelyPct: { wilting: { too_dry: 20 } } });
  });

  it('refuses holidays that leave no working day', async () => {
    const all = Array.from({ length: 12 }, (_, m) => Array.from({ length: 31 }, (_, d) => [m + 1, d + 1])).flat();
    const holidays = all.map((day) => day.map((part) => String(part).padStart(2, '0')).join('-')).slice(0, 200);
    expect((await save({ ...(await read()), holidays: [...holidays, 'noon'] })).status).toBe(400);
  });

  it('works every spot out again after other windows, and says while it does', async () => {
    const { spotId } = await town.addSpot('W-0001');
    const version = async () => (await cora.spot(spotId)).spot.version;
    await cora.record(sending(spotId, { kind: 'ground', facts: loam }, await version()));
    await cora.record(sending(spotId, { kind: 'stock', facts: container }, await version()));
    const because = 'As told';
    const { body } = await save({
      ...(await read()),
      windows: [{ stock: 'container', from: '03-01', to: '03-02', because }],
    });
    expect(body.windows).toHaveLength(1);
    while ((await read()).working) await cora.spot(spotId);
    expect((await derivedBy(town.db)).version).toBeGreaterThan(0);
    expect((await cora.spot(spotId)).windows).toMatchObject([{ from: '03-01', because }]);
    expect((await rebuildAll(town.db)).differing).toEqual([]);
  });

  it('goes on after an update where it was left, a spot standing as it stood until its turn', async () => {
    for (let i = 0; i < 120; i++) await town.addSpot(`U-${String(i).padStart(4, '0')}`);
    const ids: string[] = await town.db('spot').orderBy('id').pluck('id');
    const { version } = await derivedBy(town.db);
    // As an older Sombra left it: by an older version, and each spot at another level.
    await town.db('derived_by').update({ version: 1, at_spot: null });
    await town.db('spot_period').whereNull('until_day').update({ level: 'urgent' });
    const urgent = async (): Promise<string[]> =>
      town.db('spot_period').whereNull('until_day').where({ level: 'urgent' }).orderBy('spot_id').pluck('spot_id');
    // Somebody holds a spot of the second chunk: there it waits, and there it is left.
    const held = await town.db.transaction();
    await held('spot').where({ id: ids[60] }).forUpdate().select('id');
    const stop = new AbortController();
    const first = renew(town.db, 'renewal', { signal: stop.signal });
    while ((await read()).working?.done !== 50) await cora.spot(ids[0] ?? '');
    expect(await urgent()).toEqual(ids.slice(50));
    stop.abort();
    await held.commit();
    await expect(first).rejects.toThrow(/abort/i);
    expect((await read()).working).toEqual({ done: 100, of: ids.length });
    expect(await urgent()).toEqual(ids.slice(100));
    // Two servers at it at once do no spot twice, and leave none out.
    await Promise.all([renew(town.db, 'renewal'), renew(town.db, 'renewal')]);
    expect([await urgent(), (await read()).working, (await derivedBy(town.db)).version]).toEqual([[], null, version]);
  });
});
