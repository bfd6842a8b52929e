import { storedFactsSchemas } from '@sombra/contract';
import { v7 as uuidv7 } from 'uuid';
import { container, loam, openTestTown, planting, sending, Visitor, type TestTown } from '../../testing/test-town';
import { problemOf } from './problems';
import { readStored, StoredDataError } from './stored';

let town: TestTown;
let cora: Visitor;
beforeAll(async () => {
  town = await openTestTown();
  cora = await Visitor.signedIn(town.url, 'cora');
});
afterAll(() => town.stop());

describe('what the database keeps as JSON', () => {
  it('is read by the schema it was kept under, and blamed on nobody outside where it does not fit', () => {
    const read = () => readStored(storedFactsSchemas.move, { movedOn: 'once' }, 'move m1');
    expect(read).toThrow(StoredDataError);
    expect(read).toThrow('stored move m1 does not fit its schema at movedOn');
    try {
      read();
    } catch (error) {
      expect(problemOf(error, 'r1')).toMatchObject({ ours: true, problem: { status: 500, reference: 'r1' } });
    }
  });

  it('still reads an override of a choice that no practice knows any more', () => {
    const facts = { decidedOn: '2026-01-05', path: 'berm.moat', value: 3, reason: 'an older word' };
    expect(readStored(storedFactsSchemas.override, facts, 'override o1')).toEqual(facts);
  });

  it('closes one spot alone where its facts were damaged', async () => {
    const [whole, broken] = [await town.addSpot('D-0001'), await town.addSpot('D-0002')];
    for (const { spotId } of [whole, broken]) {
      const version = async () => (await cora.spot(spotId)).spot.version;
      await cora.record(sending(spotId, { kind: 'ground', facts: loam }, await version()));
      await cora.record(sending(spotId, { kind: 'stock', facts: container }, await version()));
      await cora.record(sending(spotId, planting('2026-01-10')));
    }
    // Past the doors, which would refuse it.
    await town.db('field_record').insert({
      id: uuidv7(),
      kind: 'inspection',
      spot_id: broken.spotId,
      tree_id: broken.treeId,
      facts: JSON.stringify({ inspectedOn: '2026-02-10' }),
      recorded_at: '2026-02-10T10:00:00Z',
      happened_at: '2026-02-10T10:00:00Z',
      recorded_by: 'nobody',
      device: 'none',
    });
    expect((await cora.send('GET', `/api/spots/${broken.spotId}`)).status).toBe(500);
    expect((await cora.send('GET', `/api/spots/${whole.spotId}`)).status).toBe(200);
    expect((await cora.send('GET', '/api/desk')).status).toBe(200);
  });
});
