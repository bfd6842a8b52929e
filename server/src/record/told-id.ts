import type { IsoDate } from '@sombra/core';
import { createHash } from 'node:crypto';

/**
 * The id of a record that something without an account tells of a day: a UUIDv7 as every record has, of that day, and
 * else of a fingerprint of its name. Told again it is the same, so that it is kept once.
 */
export function toldId(name: string, day: IsoDate): string {
  const bytes = createHash('sha256').update(`${name}/${day}`).digest().subarray(0, 16);
  bytes.writeUIntBE(Date.parse(`${day}T12:00:00Z`), 0, 6);
  bytes.writeUInt8((bytes.readUInt8(6) & 0x0f) | 0x70, 6);
  bytes.writeUInt8((bytes.readUInt8(8) & 0x3f) | 0x80, 8);
  const hex = bytes.toString('hex');
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join('-');
}
