import type { ConsentLink, KeptRules, OpenConsent, Problem, Surroundings } from '@sombra/contract';
import { unknownAssessment, type Assessment } from '@sombra/core';
import sharp from 'sharp';
import { v7 as uuidv7 } from 'uuid';
import { replaceLayer } from '../map/repository';
import { loam, openTestTown, sending, Visitor, type TestTown } from '../../testing/test-town';

let town: TestTown;
let cora: Visitor;
let iva: Visitor;
let ada: Visitor;
beforeAll(async () => {
  town = await openTestTown();
  [cora, iva, ada] = (await Promise.all(['cora', 'iva', 'ada'].map((name) => Visitor.signedIn(town.url, name)))) as [
    Visitor,
    Visitor,
    Visitor,
  ];
});
afterAll(() => town.stop());

const stranger = () => new Visitor(town.url);

describe("an owner's consent", () => {
  async function asked(): Promise<{ spotId: string; token: string; id: string }> {
    const { spotId } = await town.addSpot(`Y-${uuidv7().slice(-6)}`);
    const { body } = await cora.send<ConsentLink>('POST', `/api/spots/${spotId}/consents`, {
      id: uuidv7(),
      owner: 'R. Vale',
    });
    return { spotId, token: body.path.split('/').at(-1) ?? '', id: body.consent.id };
  }
  const yes = { agrees: true, signedBy: 'Rosa Vale', remark: 'by the gate, please' };

  it('is given by a link without signing in, once', async () => {
    const { spotId, token } = await asked();
    const page = await stranger().send<OpenConsent>('GET', `/api/open/consents/${token}`);
    expect(page.body).toMatchObject({ programme: 'Test', owner: 'R. Vale', place: 'Mole Street', state: 'asked' });
    const given = await stranger().send<OpenConsent>('POST', `/api/open/consents/${token}`, yes);
    expect([given.status, given.body.state]).toEqual([200, 'given']);
    const twice = await stranger().send('POST', `/api/open/consents/${token}`, { ...yes, agrees: false });
    expect([twice.status, twice.body.title]).toEqual([400, expect.stringContaining('answered already')]);
    expect((await cora.spot(spotId)).leave.consents).toMatchObject([
      { state: 'given', signedBy: 'Rosa Vale', remark: 'by the gate, please' },
    ]);
  });

  it('cannot be forged, guessed, answered late or after it was revoked', async () => {
    const { token, id } = await asked();
    const forged = token.replace(/.$/, (last) => (last === 'A' ? 'B' : 'A'));
    const other = token.replace(/^[^~]+/, uuidv7());
    for (const wrong of [forged, other, `${id}~2999-01-01~${token.split('~')[2]}`, 'nothing-at-all']) {
      expect((await stranger().send('GET', `/api/open/consents/${wrong}`)).status).toBe(404);
    }
    await cora.send('POST', `/api/consents/${id}/revoke`);
    expect((await stranger().send('POST', `/api/open/consents/${token}`, yes)).status).toBe(400);
    const late = await asked();
    await town.db('owner_consent').where({ id: late.id }).update({ expires_on: '2020-01-01' });
    expect((await stranger().send('POST', `/api/open/consents/${late.token}`, yes)).status).toBe(404);
  });

  it('is asked by the coordinator alone, and needs a name', async () => {
    const { spotId } = await town.addSpot('Y-0901');
    expect((await iva.send('POST', `/api/spots/${spotId}/consents`, { id: uuidv7(), owner: 'R. Vale' })).status).toBe(
      403,
    );
    expect((await cora.send('POST', `/api/spots/${spotId}/consents`, { id: uuidv7(), owner: '' })).status).toBe(400);
  });
});

describe('a road permit', () => {
  it('holds for the spots it names', async () => {
    const [a, b] = [await town.addSpot('R-0001'), await town.addSpot('R-0002')];
    const permit = {
      id: uuidv7(),
      number: 'SR 44/26',
      authority: 'Road office',
      validFrom: '2026-11-01',
      validUntil: '2027-03-31',
      spotIds: [a.spotId],
    };
    expect((await cora.send('POST', '/api/permits', permit)).status).toBe(201);
    expect((await cora.send('POST', '/api/permits', permit)).status).toBe(201);
    expect((await cora.spot(a.spotId)).leave.permits).toMatchObject([{ number: 'SR 44/26', authority: 'Road office' }]);
    expect((await cora.spot(b.spotId)).leave.permits).toEqual([]);
    const upside = await cora.send('POST', '/api/permits', { ...permit, id: uuidv7(), validUntil: '2026-10-01' });
    expect([upside.status, upside.body.issues?.[0]?.path]).toEqual([400, 'validUntil']);
  });
});

describe('photos', () => {
  it('are kept when they are pictures, and nothing else is', async () => {
    const { spotId } = await town.addSpot('P-0001');
    const id = uuidv7();
    const put = (bytes: Uint8Array) =>
      iva.send<Problem>('PUT', `/api/spots/${spotId}/photos/${id}`, bytes, { 'content-type': 'image/jpeg' });
    expect((await put(new TextEncoder().encode('<svg onload="">'))).body.title).toContain('none of JPG, PNG, WEBP');
    expect((await put(new Uint8Array([0xff, 0xd8, 0xff, 0xe0, 1, 2, 3]))).body.title).toContain('read whole');
    const jpeg = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#363' } })
      .jpeg()
      .toBuffer();
    expect((await put(jpeg)).status).toBe(201);
    expect((await put(jpeg)).status).toBe(201);
    const back = await cora.send('GET', `/api/photos/${id}`);
    expect([back.status, back.headers.get('content-type')]).toEqual([200, 'image/jpeg']);
  });
});

describe('surroundings read off the map', () => {
  it('are distances on the ellipsoid to the nearest of each thing', async () => {
    const { spotId } = await town.addSpot('M-0001');
    // At 36.9° north a thousandth of a degree is 110.98 m northward and 89.14 m eastward (WGS 84).
    const line = (dLat: number) => ({
      name: null,
      heightM: 7.5,
      geometry: JSON.stringify({
        type: 'LineString',
        coordinates: [
          [-25.4005, 36.9 + dLat],
          [-25.3995, 36.9 + dLat],
        ],
      }),
    });
    const across = {
      name: null,
      heightM: null,
      geometry: JSON.stringify({
        type: 'LineString',
        coordinates: [
          [-25.4002, 36.8995],
          [-25.4002, 36.9005],
        ],
      }),
    };
    const point = (dLng: number) => ({
      name: null,
      heightM: null,
      geometry: JSON.stringify({ type: 'Point', coordinates: [-25.4 + dLng, 36.9] }),
    });
    await replaceLayer(town.db, 'wire', [line(0.0001), line(0.0004)], 'test');
    await replaceLayer(town.db, 'kerb', [line(-0.00002), across], 'test');
    await replaceLayer(town.db, 'hydrant', [point(0.0001), point(0.0003)], 'test');
    const { body } = await cora.send<Surroundings>('GET', `/api/spots/${spotId}/surroundings`);
    const found = Object.fromEntries(body.distances.map(({ thing, distanceM }) => [thing, distanceM]));
    expect(found['wire']).toBeCloseTo(11.1, 1);
    expect(found['kerb']).toBeCloseTo(2.22, 1);
    expect(found['hydrant']).toBeCloseTo(8.91, 1);
    // The kerbs cross at right angles, 17.83 m west and 2.22 m south: so far along one, so far along the other.
    expect(found['junction']).toBeCloseTo(17.83 + 2.22, 1);
    expect(body.distances.find(({ thing }) => thing === 'wire')?.heightM).toBe(7.5);
    expect(found['building']).toBeUndefined();
    expect(body.layersMissing).toContain('building');
    expect(body.layersMissing).not.toContain('wire');
  });
});

describe('records of a place', () => {
  const seen: Assessment = { ...unknownAssessment('2026-11-20'), owner: 'road', privateLines: 'none' };

  it('lead from ground to match and on, and a verdict can be taken back', async () => {
    const { spotId } = await town.addSpot('G-0001');
    const version = async () => (await cora.spot(spotId)).spot.version;
    const stage = async () =>
      (await town.db('spot_period').where({ spot_id: spotId, until_day: null }).first<{ stage: string }>('stage'))
        .stage;
    await iva.record(sending(spotId, { kind: 'ground', facts: loam }, await version()));
    await iva.record(sending(spotId, { kind: 'assessment', facts: seen }, await version()));
    expect(await stage()).toBe('ground');
    const verdict = sending(spotId, {
      kind: 'verdict',
      facts: { decidedOn: '2026-11-21', verdict: 'plant', reason: 'clear' },
    });
    expect((await iva.record(verdict)).status).toBe(403);
    expect((await cora.record(verdict)).status).toBe(201);
    expect(await stage()).toBe('match');
    const choice = sending(spotId, {
      kind: 'choice',
      facts: { chosenOn: '2026-11-22', species: 'Quercus ilex', stockKind: 'container', caliperMm: 40, reason: '' },
    });
    expect((await cora.record(choice)).status).toBe(201);
    expect(await stage()).toBe('stock');
    expect((await cora.spot(spotId)).tree?.species).toBe('Quercus ilex');
    const back = { ...sending(spotId, { kind: 'retraction', facts: { reason: 'taken back at once' } }) };
    await cora.record({ ...back, record: { ...back.record, supersedes: choice.record.id } });
    expect(await stage()).toBe('match');
    expect((await cora.spot(spotId)).tree?.species).toBeNull();
  });

  it('asks surroundings to be based on the newest ones', async () => {
    const { spotId } = await town.addSpot('G-0002');
    const { spot } = await cora.spot(spotId);
    await cora.record(sending(spotId, { kind: 'assessment', facts: seen }, spot.version));
    const stale = await iva.record(
      sending(spotId, { kind: 'assessment', facts: { ...seen, owner: 'yard' } }, spot.version),
    );
    expect(stale.status).toBe(409);
  });

  it.each([
    [{ clearances: [{ thing: 'kerb', distanceM: -2, by: 'tape' }] }, 'record.facts.clearances.0.distanceM'],
    [
      {
        clearances: [
          { thing: 'kerb', distanceM: 1, by: 'tape' },
          { thing: 'kerb', distanceM: 2, by: 'tape' },
        ],
      },
      'record.facts.clearances',
    ],
    [{ soilPh: 7 }, 'record.facts.soilTestedOn'],
    [{ sunHours: 30 }, 'record.facts.sunHours'],
  ])('refuses %j by field', async (change, path) => {
    const { spotId } = await town.addSpot(`G-${uuidv7().slice(-6)}`);
    const sent = sending(spotId, { kind: 'assessment', facts: { ...seen, ...change } as Assessment }, 1);
    const { status, body } = await cora.send('POST', '/api/records', sent);
    expect([status, body.issues?.map((issue) => issue.path)]).toEqual([400, [path]]);
  });
});

describe('rules of the programme', () => {
  it('are changed by an administrator, one version after another', async () => {
    const { body: kept } = await cora.send<KeptRules>('GET', '/api/rules');
    const changed = { ...kept.rules, ground: { ...kept.rules.ground, wireHeadroomM: 2 } };
    expect((await cora.send('PUT', '/api/rules', changed)).status).toBe(403);
    const { body: next } = await ada.send<KeptRules>('PUT', '/api/rules', changed);
    expect(next).toMatchObject({
      madeBy: 'ada',
      rules: { ground: { version: kept.rules.ground.version + 1, wireHeadroomM: 2 } },
    });
    expect((await ada.send('PUT', '/api/rules', changed)).status).toBe(409);
    const { spotId } = await town.addSpot('S-0001');
    expect((await cora.spot(spotId)).rules.ground.wireHeadroomM).toBe(2);
  });

  it('refuse a large tree that may stand nearer than a small one, and a calendar that never opens', async () => {
    const { body: kept } = await ada.send<KeptRules>('GET', '/api/rules');
    const { ground } = kept.rules;
    const near = {
      ...kept.rules,
      ground: { ...ground, leastM: { ...ground.leastM, building: { small: 5, medium: 4, large: 3 } } },
    };
    const answer = await ada.send('PUT', '/api/rules', near);
    expect([answer.status, answer.body.issues?.[0]?.path]).toEqual([400, 'ground.leastM.building']);
    const odd = { ...kept.rules, ground: { ...ground, holidays: ['13-01'] } };
    expect((await ada.send('PUT', '/api/rules', odd)).body.issues?.[0]?.path).toBe('ground.holidays.0');
  });
});
