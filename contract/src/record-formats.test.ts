import { recordKinds } from '@sombra/core';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { recordFormat } from './record-formats';
import { sendRecordSchema, type SendRecord } from './sent-records';

const formats = Array.from({ length: recordFormat }, (_, i) => i + 1);
/** Records as devices sent them in a format; a sample stays as it was when its format was today's. */
const samples = (format: number): SendRecord[] =>
  JSON.parse(readFileSync(path.join(__dirname, `../testing/sent-format-${format}.json`), 'utf8')) as SendRecord[];

describe.each(formats)('a record of format %d', (format) => {
  it('is kept in a sample of every kind there was', () => {
    const kinds = new Set<string>(samples(format).map(({ record }) => record.kind));
    // Kinds that came later stand in samples of later formats alone.
    const since: Partial<Record<string, number>> = {
      not_done: 2,
      both_stand: 2,
      watering: 3,
      device: 3,
      site_water: 3,
      sensor: 3,
      hazard: 3,
      hazard_closed: 3,
      signed_off: 3,
      arborist_answer: 3,
      declined: 3,
      claim: 3,
      pest_told: 3,
      resident_told: 3,
      removal: 3,
    };
    expect([...kinds].sort()).toEqual([...recordKinds].filter((kind) => (since[kind] ?? 1) <= format).sort());
  });
  it.each(samples(format).map((sent) => [sent.record.kind, sent] as const))('is read: %s', (_kind, sent) => {
    const read = sendRecordSchema.parse(sent);
    expect(read.record).toEqual(sent.record);
    expect([read.format, read.aheadMs]).toEqual([format, sent.aheadMs ?? null]);
  });
});

it('of a format to come is refused at its format', () => {
  const [sent] = samples(1);
  const parsed = sendRecordSchema.safeParse({ ...sent, format: recordFormat + 1 });
  expect(parsed.error?.issues.map(({ path: at }) => at.join('.'))).toEqual(['format']);
});
it.each([0, -1, 1.5, '2', null])('of no format is refused: %j', (format) => {
  expect(sendRecordSchema.safeParse({ ...samples(1)[0], format }).success).toBe(false);
});
