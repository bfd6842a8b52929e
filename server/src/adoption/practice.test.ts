import type { AdoptProgress, MeasuredSettlement, Practices, Problem, Session, User } from '@sombra/contract';
import { fieldDefault, presets, spotLife, withChoice } from '@sombra/core';
import { openDatabase } from '../platform/db';
import { Adoptions, directWalker } from './runs-service';
import { beginAdoption, walkAdoption } from './service';
import { rebuildAll } from '../record/derive';
import { container, loam, openTestTown, sending, Visitor, type TestTown } from '../../testing/test-town';

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
    const twin = { ...ours, id: 'twin', name: ` ${fieldDefault.name.toUpperCase()}` };
    const { status, body } = await cora.send<Problem>('PUT', '/api/practices', { practice: twin });
    expect([status, body.issues?.[0]?.path]).toEqual([400, 'practice.name']);
  });

  it('refuses a value outside its limits by name and limit', async () => {
    const odd = { ...ours, id: 'odd', flareAboveGrade: { ...ours.flareAboveGrade, baseMm: 400 } };
    const { status, body } = await cora.send('PUT', '/api/practices', { practice: odd });
    expect([status, JSON.stringify(body)]).toEqual([400, expect.stringContaining('within 0–150 mm')]);
  });

  it('keeps the versions of a shipped school apart, the newest first', async () => {
    const { practices } = await read();
    expect(practices.find(({ practice }) => practice.id === 'heavy-clay')?.practice.version).toBe(3);
    // A version nobody ever planted under is kept nowhere.
    expect((await cora.send('POST', '/api/practices/adopt', { id: 'heavy-clay', version: 1 })).status).toBe(404);
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
      return spotLife(detail.records, { practice: detail.practice });
    };
    const override = (value: unknown, reason = 'ponds in winter') =>
      sending(spotId, {
        kind: 'override',
        facts: { decidedOn: '2026-11-20', path: 'berm.where', value, reason } as never,
      });
    expect((await cora.send('POST', '/api/records', override('moat'))).status).toBe(400);
    expect((await cora.send('POST', '/api/records', override('none', ''))).status).toBe(400);
    // 50 mm/h from which water is slow, over the 25 from which it drains well: no practice could be adopted like that.
    const crossed = await cora.send<Problem>(
      'POST',
      '/api/records',
      sending(spotId, {
        kind: 'override',
        facts: { decidedOn: '2026-11-20', path: 'percolation.slowFromMmPerH', value: 50, reason: 'as told' },
      }),
    );
    expect([crossed.status, crossed.body.issues?.[0]?.path, crossed.body.title]).toEqual([
      400,
      'record.facts.value',
      expect.stringContaining('must be at most it drains slowly under (Drainage of the ground), 25, got 50'),
    ]);
    expect((await life()).plan).toMatchObject({ berm: { heightMm: 90 } });
    await cora.record(override('none'));
    expect(await life()).toMatchObject({ plan: { berm: null }, overrides: [{ reason: 'ponds in winter' }] });
  });
});

describe('adopting', () => {
  const adopt = (id: string) => cora.send<string>('POST', '/api/practices/adopt', { id, version: 1 });

  it('tells how far it is, spot by spot, and ends with the practices as they are then', async () => {
    const lines = (await adopt('native-soil')).body.trim().split('\n');
    const news = lines.map((line) => JSON.parse(line) as AdoptProgress);
    const { count } = (await town.db('spot').count().first()) as { count: string };
    expect(news.at(-2)).toEqual({ kind: 'progress', done: Number(count), of: Number(count) });
    expect(news.at(-1)).toMatchObject({ kind: 'done', practices: { current: { id: 'native-soil', version: 1 } } });
    await adopt('field-default');
  });

  it('changes nothing where it is refused', async () => {
    expect((await vic.send('POST', '/api/practices/adopt', { id: 'native-soil', version: 1 })).status).toBe(403);
    expect(await read()).toMatchObject({ current: { id: 'field-default', version: 1 }, adoption: null });
  });
});

describe('a change of practice given up half-way', () => {
  const bareRoot = { id: 'dormant-bare-root', version: 1 };
  let user: User;
  let ids: string[];
  beforeAll(async () => {
    for (let i = 0; i < 110; i++) await town.addSpot(`H-${String(i).padStart(4, '0')}`);
    ids = await town.db('spot').orderBy('id').pluck('id');
    const session = (await cora.send<Session>('GET', '/api/session')).body;
    if (!session.user) throw new Error('nobody is signed in');
    user = session.user;
  });

  /** Adopts until one chunk is done, then stops. */
  async function half(asked: { id: string; version: number }): Promise<void> {
    const stop = new AbortController();
    const walk = await beginAdoption(town.db, user, asked);
    const run = { signal: stop.signal, onProgress: () => stop.abort() };
    await expect(walkAdoption(town.db, walk, run)).rejects.toThrow('stopped');
    await town.db('adoption').update({ running: false });
  }
  const goesBy = async (id: string | undefined) => (await cora.spot(id ?? '')).practice.id;
  const adopt = (asked: { id: string; version: number }) => cora.send('POST', '/api/practices/adopt', asked);

  it('stands where it was: each spot shows the practice it goes by', async () => {
    await half(bareRoot);
    expect(await read()).toMatchObject({
      current: { id: 'field-default' },
      adoption: { ...bareRoot, done: 50, of: ids.length, running: false, askedBy: 'cora' },
    });
    expect(await Promise.all([ids[0], ids[49], ids[50], ids.at(-1)].map(goesBy))).toEqual([
      'dormant-bare-root',
      'dormant-bare-root',
      'field-default',
      'field-default',
    ]);
  });

  it('takes records meanwhile, by the practice of each spot, and says what is kept as it is', async () => {
    const version = (await cora.spot(ids[3] ?? '')).spot.version;
    expect((await cora.record(sending(ids[3] ?? '', { kind: 'ground', facts: loam }, version))).status).toBe(201);
    expect(await rebuildAll(town.db)).toEqual({ spots: ids.length, differing: [] });
  });

  it('lets no third practice in between', async () => {
    const { status, body } = await adopt({ id: 'native-soil', version: 1 });
    expect([status, body.title]).toEqual([409, expect.stringContaining('half done')]);
  });

  it('is taken back, also in two goes, and nothing of it is left', async () => {
    await half(bareRoot);
    expect((await read()).adoption?.done).toBe(100);
    await half({ id: 'field-default', version: 1 });
    expect((await read()).adoption?.done).toBe(50);
    expect(await goesBy(ids[49])).toBe('dormant-bare-root');
    expect(await goesBy(ids[50])).toBe('field-default');
    expect((await adopt({ id: 'field-default', version: 1 })).status).toBe(200);
    expect(await read()).toMatchObject({ current: { id: 'field-default' }, adoption: null });
    expect(await rebuildAll(town.db)).toEqual({ spots: ids.length, differing: [] });
  });

  it('is gone on with to its end', async () => {
    await half(bareRoot);
    expect((await adopt(bareRoot)).status).toBe(200);
    expect(await read()).toMatchObject({ current: bareRoot, adoption: null });
    expect(await goesBy(ids.at(-1))).toBe('dormant-bare-root');
    expect(await rebuildAll(town.db)).toEqual({ spots: ids.length, differing: [] });
    await adopt({ id: 'field-default', version: 1 });
  });

  it('is refused to a second person while somebody is at it, and waits for spots that others hold', async () => {
    const held = await town.db.transaction();
    await held('spot').where({ id: ids[0] }).forUpdate().select('id');
    const first = adopt(bareRoot);
    while ((await town.db('adoption').where({ running: true })).length === 0) await cora.spot(ids[1] ?? '');
    const { status, body } = await adopt({ id: 'native-soil', version: 1 });
    expect([status, body.title]).toEqual([409, expect.stringContaining('just now')]);
    await held.commit();
    expect((await first).status).toBe(200);
    await adopt({ id: 'field-default', version: 1 });
  });
});

describe('a change of practice whose page is closed', () => {
  const bareRoot = { id: 'dormant-bare-root', version: 1 };
  const fieldDefault1 = { id: 'field-default', version: 1 };
  const person = async (): Promise<User> => (await cora.send<Session>('GET', '/api/session')).body.user as User;
  const ended = async () => {
    while ((await read()).adoption) await new Promise((resolve) => setImmediate(resolve));
  };

  it('goes on to its end', async () => {
    const adoptions = new Adoptions(town.db, directWalker(town.db));
    const page = new AbortController();
    const told: string[] = [];
    const onProgress = ({ kind }: AdoptProgress) => {
      told.push(kind);
      page.abort();
    };
    await adoptions.adopt(await person(), bareRoot, { signal: page.signal, onProgress });
    expect(told).toEqual(['progress']);
    await ended();
    expect((await read()).current).toEqual(bareRoot);
    expect((await cora.send('POST', '/api/practices/adopt', fieldDefault1)).status).toBe(200);
  });

  it('is stopped by whoever may, and by nobody else', async () => {
    const held = await town.db.transaction();
    const last = (await town.db('spot').orderBy('id', 'desc').first<{ id: string }>('id')).id;
    await held('spot').where({ id: last }).forUpdate().select('id');
    const page = cora.send('POST', '/api/practices/adopt', bareRoot);
    while (((await read()).adoption?.done ?? 0) === 0) await cora.spot(last);
    expect((await vic.send('POST', '/api/practices/adopt/stop')).status).toBe(403);
    const stopped = cora.send<Practices>('POST', '/api/practices/adopt/stop');
    await held.commit();
    expect((await stopped).body.adoption ?? { ...bareRoot, running: false }).toMatchObject({
      ...bareRoot,
      running: false,
    });
    await page;
    expect((await cora.send('POST', '/api/practices/adopt', fieldDefault1)).status).toBe(200);
    expect(await read()).toMatchObject({ current: fieldDefault1, adoption: null });
  });

  it.each(['on', 'back'] as const)(
    'is taken up by the next process where one was killed on its way %s',
    async (way) => {
      const walk = await beginAdoption(town.db, await person(), bareRoot);
      const stop = new AbortController();
      await walkAdoption(town.db, walk, { signal: stop.signal, onProgress: () => stop.abort() }).catch(() => undefined);
      if (way === 'back') {
        await town.db('adoption').update({ running: false });
        await beginAdoption(town.db, await person(), fieldDefault1);
      }
      // As a kill leaves it, a while later.
      await town.db('adoption').update({ running: true, beat_at: new Date(Date.now() - 120_000) });
      const other = openDatabase(town.appUrl);
      const adoptions = new Adoptions(other, directWalker(other));
      const stopTakingUp = adoptions.keepTakingUp((error) => {
        throw error;
      });
      await ended();
      await stopTakingUp();
      await other.destroy();
      expect((await read()).current).toEqual(way === 'on' ? bareRoot : fieldDefault1);
      await cora.send('POST', '/api/practices/adopt', fieldDefault1);
      const { spots, differing } = await rebuildAll(town.db);
      expect([spots > 100, differing]).toEqual([true, []]);
    },
  );
});

describe('settlement of soil put back under balls', () => {
  it('is trained by the drops that were measured, and unknown before', async () => {
    expect((await cora.send('GET', '/api/practices/settlement')).body).toBeNull();
    // 100 mm put back, planted 50 mm proud, found 20 mm proud: sank 30.
    const { spotId } = await town.addSpot('P-0003');
    const version = async () => (await cora.spot(spotId)).spot.version;
    await cora.record(sending(spotId, { kind: 'ground', facts: loam }, await version()));
    await cora.record(sending(spotId, { kind: 'stock', facts: container }, await version()));
    await town.db('programme').update({ tickets_since: '2027-01-01' });
    const planting = {
      plantedOn: '2026-10-10',
      flareAboveGradeMm: [50],
      holeWidthMm: 1125,
      firstWaterL: 50,
      putBackMm: 100,
      practiceId: 'field-default',
      practiceVersion: 1,
    };
    await cora.record(sending(spotId, { kind: 'planting', facts: planting }));
    const look = {
      inspectedOn: '2026-11-10',
      flareDepthMm: -20,
      mulchDepthMm: null,
      mulchContact: null,
      stake: null,
      probe: null,
      circlingRoots: null,
    };
    await cora.record(sending(spotId, { kind: 'inspection', facts: look }));
    const { body } = await cora.send<NonNullable<MeasuredSettlement>>('GET', '/api/practices/settlement');
    // One drop of 0.3 beside five of the practice's 0.1.
    expect([body.drops, body.measuredShare]).toEqual([1, 0.3]);
    expect(body.share).toBeCloseTo((0.3 + 5 * 0.1) / 6, 9);
  });
});

describe('a planted tree', () => {
  it('keeps the practice it was planted under when the programme adopts another', async () => {
    const { spotId } = await town.addSpot('P-0004');
    const version = async () => (await cora.spot(spotId)).spot.version;
    await cora.record(sending(spotId, { kind: 'ground', facts: loam }, await version()));
    await cora.record(sending(spotId, { kind: 'stock', facts: container }, await version()));
    const planting = {
      plantedOn: '2026-10-10',
      flareAboveGradeMm: [40],
      holeWidthMm: 1125,
      firstWaterL: 60,
      practiceId: 'field-default',
      practiceVersion: 1,
    };
    await cora.record(sending(spotId, { kind: 'planting', facts: planting }));
    const found = async () =>
      (await town.db('decision').where({ spot_id: spotId, until_day: null }).pluck('remedy')) as string[];
    const before = await found();
    expect(before).not.toContain('replant_higher');
    // Heavy clay wants 75 mm above grade: this tree was never planted by it.
    await cora.send('POST', '/api/practices/adopt', { id: 'heavy-clay', version: 3 });
    expect(await found()).toEqual(before);
    const detail = await cora.spot(spotId);
    expect([detail.practice.id, detail.plantedUnder?.id]).toEqual(['heavy-clay', 'field-default']);
    await cora.send('POST', '/api/practices/adopt', { id: 'field-default', version: 1 });
  });
});
