import { importLimits, type ImportPreview, type ImportProgress } from '@sombra/contract';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { v7 as uuidv7 } from 'uuid';
import { container, look, openTestTown, sending, Visitor, type TestTown } from '../../testing/test-town';

let town: TestTown;
let cora: Visitor;
beforeAll(async () => {
  town = await openTestTown();
  cora = await Visitor.signedIn(town.url, 'cora');
});
afterAll(() => town.stop());

const example = (name: string) => readFileSync(path.join(__dirname, '../../../examples', name));
const preview = (visitor: Visitor, file: Uint8Array | string, fileName = 'spots.csv') =>
  visitor.send<ImportPreview & { title: string }>('POST', `/api/imports/preview?fileName=${fileName}`, file, {
    'content-type': 'text/csv',
  });

async function importFile(visitor: Visitor, file: Uint8Array | string, id = uuidv7()): Promise<ImportProgress> {
  const { body } = await visitor.send<string>('POST', `/api/imports?fileName=spots.csv&id=${id}`, file, {
    'content-type': 'text/csv',
  });
  return JSON.parse(body.trim().split('\n').at(-1) ?? '') as ImportProgress;
}

const exported = async (visitor: Visitor, format: 'csv' | 'geojson') => {
  const { body } = await visitor.send<string | object>('GET', `/api/exports/trees.${format}`);
  return typeof body === 'string' ? body : JSON.stringify(body);
};

const header = 'ref,place,lng,lat';
const rowOf = (ref: string, more = '') => `${ref},Mole Street,-25.4,36.9${more}`;

describe('importing', () => {
  it('previews, imports, and changes nothing the second time', async () => {
    const csv = example('spots.csv');
    expect((await preview(cora, csv)).body.counts).toEqual({ new: 30, changed: 0, same: 0, bad: 0 });
    expect(await importFile(cora, csv)).toEqual({ kind: 'done', written: 30, same: 0, bad: 0 });
    const before = await exported(cora, 'csv');
    expect(await importFile(cora, csv)).toEqual({ kind: 'done', written: 0, same: 30, bad: 0 });
    expect(await exported(cora, 'csv')).toBe(before);
  });

  it('takes the same spots from GeoJSON for the same', async () => {
    expect((await preview(cora, example('spots.geojson'), 'spots.geojson')).body.counts).toEqual({
      new: 0,
      changed: 0,
      same: 30,
      bad: 0,
    });
  });

  it('does one act once, however often it is sent', async () => {
    const id = uuidv7();
    const file = `${header}\n${rowOf('ONCE-1')}\n`;
    const first = await importFile(cora, file, id);
    expect(first).toEqual({ kind: 'done', written: 1, same: 0, bad: 0 });
    expect(await importFile(cora, file, id)).toEqual(first);
  });

  it('writes a changed cell as a correction of the newest record', async () => {
    const csv = (slope: number) => `${header},soil,slope_pct\n${rowOf('CHG-1', `,loam,${slope}`)}\n`;
    await importFile(cora, csv(3));
    expect((await preview(cora, csv(7))).body.rows[0]).toMatchObject({ verdict: 'changed', writes: ['ground'] });
    await importFile(cora, csv(7));
    const { body } = await cora.send<{ lines: { spotId: string }[] }>('GET', '/api/spots?find=CHG-1');
    const { records } = await cora.spot(body.lines[0]?.spotId ?? '');
    expect(records).toHaveLength(2);
    expect(records[1]?.supersedes).toBe(records[0]?.id);
  });

  it('imports the good rows and names the faults of the others by row, column, value and limit', async () => {
    const file = [
      `${header},stock_kind,ball_diameter_mm,ball_height_mm,top_roots_depth_mm,caliper_mm,height_m`,
      rowOf('BAD-1', ',container,450,400,60,50,3'),
      rowOf('BAD-2', ',container,450,400,60,50,40000'),
      rowOf('BAD-3', ',container,wide,400,60,50,3'),
      rowOf('BAD-1', ',container,450,400,60,50,3'),
    ].join('\n');
    const { body } = await preview(cora, file);
    expect(body.counts).toEqual({ new: 1, changed: 0, same: 0, bad: 3 });
    expect(body.issues).toEqual([
      { row: 3, column: 'height_m', message: 'must be within 0.2–25 m', received: '40000' },
      { row: 4, column: 'ball_diameter_mm', message: 'must be a number, decimal point, no unit', received: 'wide' },
      { row: 5, column: 'ref', message: 'repeats row 2', received: 'BAD-1' },
    ]);
    expect(await importFile(cora, file)).toEqual({ kind: 'done', written: 1, same: 0, bad: 3 });
  });

  it('reads a file saved with semicolons and a byte order mark, and says which columns it leaves out', async () => {
    const file = `\ufeff${header.replaceAll(',', ';')};mood\nSEMI-1;Mole Street;-25.4;36.9;good\n`;
    const { body } = await preview(cora, file);
    expect(body.counts.new).toBe(1);
    expect(body.ignoredColumns).toEqual(['mood']);
  });

  it.each([
    ['another encoding', Buffer.from(`${header}\nÉ-1,Rua S\xe3o,-25.4,36.9\n`, 'latin1'), 'not UTF-8: line 2'],
    ['a missing column', 'ref,place,lng\nX,Y,1\n', 'column lat is missing'],
    ['no rows', `${header}\n`, 'no rows'],
    ['a quote left open', `${header}\n"X,Mole Street,-25.4,36.9\nY,Mole Street,-25.4,36.9\n`, 'not closed'],
    ['broken JSON', '{"type":"FeatureCollection","features":[', 'not valid JSON'],
    [
      '20,000 rows',
      `${header}\n${Array.from({ length: 20_000 }, (_, i) => rowOf(`M-${i}`)).join('\n')}\n`,
      `20000 rows; the limit is ${importLimits.rows}`,
    ],
  ])('refuses a file with %s, saying so', async (_name, file, words) => {
    const { status, body } = await preview(cora, file);
    expect(status).toBe(400);
    expect(body.title).toContain(words);
  });

  it('is for coordinators', async () => {
    const iva = await Visitor.signedIn(town.url, 'iva');
    expect((await preview(iva, `${header}\n${rowOf('NO-1')}\n`)).status).toBe(403);
  });

  it('cancels whole when the person hangs up', async () => {
    const file = `${header}\n${Array.from({ length: 3000 }, (_, i) => rowOf(`HANG-${i}`)).join('\n')}\n`;
    const abort = new AbortController();
    const { cookie, token } = cora.credentials();
    const response = await fetch(`${town.url}/api/imports?fileName=hang.csv&id=${uuidv7()}`, {
      method: 'POST',
      body: file,
      signal: abort.signal,
      headers: { cookie, 'x-csrf-token': token, 'content-type': 'text/csv' },
    });
    // The first sign of progress has come, the last has not: hang up.
    await response.body?.getReader().read();
    abort.abort();
    // The next import waits for the one that is rolling back.
    await importFile(cora, `${header}\n${rowOf('AFTER-1')}\n`);
    const { body } = await cora.send<{ total: number }>('GET', '/api/spots?find=HANG-');
    expect(body.total).toBe(0);
  });
});

describe('exporting and reading back', () => {
  it.each(['csv', 'geojson'] as const)('loses nothing through %s', async (format) => {
    const { body } = await cora.send<{ lines: { spotId: string }[] }>('GET', '/api/spots?find=L-0101');
    const spotId = body.lines[0]?.spotId ?? '';
    if (format === 'csv') {
      const planting = {
        plantedOn: '2026-01-10',
        flareAboveGradeMm: [70, 72.5, 81],
        holeWidthMm: 1740,
        firstWaterL: 72,
        stakes: 2,
        putBackMm: 40,
        practiceId: 'field-default',
        practiceVersion: 1,
      };
      const stock = { ...container, topRootsDepthMm: 90, surplusLeftMm: 20, firstBranchM: 1.4, graftHeightMm: 120 };
      const { version } = (await cora.spot(spotId)).spot;
      await cora.record(sending(spotId, { kind: 'stock', facts: stock }, version));
      await cora.record(sending(spotId, { kind: 'planting', facts: planting }));
      const roots = [{ arc: { fromDeg: 350, toDeg: 40 }, diameterMm: 18 }];
      await cora.record(
        sending(spotId, { kind: 'inspection', facts: { ...look('2026-02-10').facts, circlingRoots: roots } }),
      );
      await cora.record(sending(spotId, look('2026-04-10')));
      await cora.record(sending(spotId, { kind: 'remedy', facts: { remedy: 'cut_root', doneOn: '2026-02-12' } }));
    }
    const gone = await town.addSpot(`GONE-${format}`);
    await cora.send('POST', '/api/spots/withdraw', { spotIds: [gone.spotId], withdrawn: true });
    const file = await exported(cora, format);
    expect(file).toContain(`GONE-${format}`);
    // Read back where it came from, it says nothing new.
    expect(await importFile(cora, file)).toMatchObject({ kind: 'done', written: 0, bad: 0 });
    const other = await openTestTown();
    try {
      const visitor = await Visitor.signedIn(other.url, 'cora');
      expect(await importFile(visitor, file)).toMatchObject({ kind: 'done', bad: 0, same: 0 });
      expect(await exported(visitor, format)).toBe(file);
      const comparable = async (v: Visitor) =>
        (await v.spot(spotId)).records.map(
          ({ receivedAt: _arrival, recordedById: _person, deviceSaid: _said, ...record }) => record,
        );
      expect(await comparable(visitor)).toEqual(await comparable(cora));
      expect(await importFile(visitor, file)).toMatchObject({ kind: 'done', written: 0 });
    } finally {
      await other.stop();
    }
  });
});
