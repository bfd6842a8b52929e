import { addDaysTo, addMonthsTo, sayIsoDay, type Inspection } from '@sombra/core';
import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { v7 as uuidv7 } from 'uuid';
import { pdfText } from '../../testing/pdf-text';
import { container, loam, openTestTown, planting, sending, Visitor, type TestTown } from '../../testing/test-town';
import { programmeToday } from '../programme/today';

let town: TestTown;
let cora: Visitor;
let today: string;
beforeAll(async () => {
  town = await openTestTown();
  cora = await Visitor.signedIn(town.url, 'cora');
  today = await programmeToday(town.db);
});
afterAll(() => town.stop());

const look = (change: Partial<Inspection>): Inspection => ({
  inspectedOn: today,
  flareDepthMm: null,
  mulchDepthMm: null,
  mulchContact: null,
  stake: null,
  probe: null,
  circlingRoots: null,
  ...change,
});
const root = (fromDeg: number, toDeg: number, diameterMm: number, touch: 'pressing' | 'grown_in' = 'pressing') => ({
  arc: { fromDeg, toDeg },
  diameterMm,
  touch,
});

async function tree(ref: string, planted = true): Promise<{ spotId: string; treeId: string }> {
  const { spotId, treeId } = await town.addSpot(ref);
  const version = async () => (await cora.spot(spotId)).spot.version;
  await cora.record(sending(spotId, { kind: 'ground', facts: loam }, await version()));
  await cora.record(sending(spotId, { kind: 'stock', facts: container }, await version()));
  if (planted) {
    await cora.record(sending(spotId, planting(addDaysTo(today, -800))));
  }
  return { spotId, treeId };
}
const sheet = async (treeId: string) => {
  const { status, bytes } = await cora.bytes('GET', `/api/trees/${treeId}/referral.pdf`);
  return { status, text: status === 200 ? pdfText(bytes).join(' ') : '' };
};

it('tells an arborist what is asked, the roots one by one, what the crew could cut, and the history', async () => {
  const { spotId, treeId } = await tree('Q-0900');
  const roots = [root(350, 40, 18), root(30, 95, 26, 'grown_in'), root(200, 230, 12)];
  const anchors = [120, 250, 300].map((bearingDeg) => ({ bearingDeg, diameterMm: 30 }));
  await cora.record(
    sending(spotId, { kind: 'inspection', facts: look({ inspectedOn: addDaysTo(today, -400), flareDepthMm: 30 }) }),
  );
  await cora.record(
    sending(spotId, { kind: 'remedy', facts: { remedy: 'clear_to_flare', doneOn: addDaysTo(today, -390) } }),
  );
  await cora.record(
    sending(spotId, { kind: 'inspection', facts: look({ circlingRoots: roots, anchors, probe: 'moist' }) }),
  );
  const picture = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#456' } })
    .jpeg()
    .toBuffer();
  const { cookie, token } = cora.credentials();
  const put = await fetch(`${town.url}/api/spots/${spotId}/photos/${uuidv7()}?step=looks.collar`, {
    method: 'PUT',
    headers: { cookie, 'x-csrf-token': token, 'content-type': 'image/jpeg' },
    body: picture as BodyInit,
  });
  expect(put.status).toBe(201);
  const { status, text } = await sheet(treeId);
  expect(status).toBe(200);
  for (const words of [
    'Q-0900: for an arborist',
    'Act. 1 root grown into the trunk',
    'Refer to an arborist.',
    'Root 2: grown into the trunk.',
    'If you agree, the crew in season 1: root',
    'done: Clear soil to the flare.',
    'Photos',
    'Answer of the arborist',
  ]) {
    expect(text).toContain(words);
  }
});

it('is there for a tree that asks for none, and says so', async () => {
  const { spotId, treeId } = await tree('Q-0901');
  await cora.record(sending(spotId, { kind: 'inspection', facts: look({ probe: 'moist' }) }));
  const { text } = await sheet(treeId);
  expect(text).toContain('The newest look asks for no arborist');
  expect(text).not.toContain('Roots at the collar');
});

it('is refused for a tree that is not planted, that is none, and to nobody signed in', async () => {
  const { treeId } = await tree('Q-0902', false);
  const answers = await Promise.all([
    cora.send('GET', `/api/trees/${treeId}/referral.pdf`),
    cora.send('GET', `/api/trees/${randomUUID()}/referral.pdf`),
    cora.send('GET', '/api/trees/none/referral.pdf'),
    fetch(`${town.url}/api/trees/${treeId}/referral.pdf`),
  ]);
  expect(answers.map(({ status }) => status)).toEqual([400, 404, 400, 401]);
});

it('claims another tree within the warranty: until when, what was found, its history', async () => {
  const { spotId, treeId } = await tree('Q-0910');
  await cora.record(sending(spotId, { kind: 'inspection', facts: look({ flareDepthMm: 200 }) }));
  const { status, bytes } = await cora.bytes('GET', `/api/trees/${treeId}/claim.pdf`);
  const text = pdfText(bytes).join(' ');
  expect(status).toBe(200);
  expect(text).toContain('Q-0910: claim within the warranty');
  // Planted 800 days ago, a warranty of twelve months.
  expect(text).toContain(`The warranty ends on ${sayIsoDay(addMonthsTo(addDaysTo(today, -800), 12))}.`);
  expect(text).toContain('200 mm deep');
});
