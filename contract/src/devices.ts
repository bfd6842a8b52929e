import * as z from 'zod';
import { entityId, instant } from './measures';
import { problemSchema } from './problem';

/** Bytes in base64url, as browsers and Node.js write them. */
const base64url = (most: number) =>
  z
    .string()
    .regex(/^[A-Za-z0-9_-]+$/, 'must be base64url')
    .max(most);

/** A public key on the curve P-256, as JSON Web Key. */
export const publicKeySchema = z.object({
  kty: z.literal('EC'),
  crv: z.literal('P-256'),
  x: base64url(43),
  y: base64url(43),
});
export type PublicKey = z.infer<typeof publicKeySchema>;

/** A browser on a phone or a desk; the key with which it signs never leaves it. */
export const registerDeviceSchema = z.strictObject({
  id: entityId,
  name: z.string().trim().max(80),
  key: publicKeySchema,
});
export type RegisterDevice = z.infer<typeof registerDeviceSchema>;

/** The public key to which what was not sent is sealed. */
export const sealingKeySchema = z.object({ id: z.uuid(), key: publicKeySchema });
export type SealingKey = z.infer<typeof sealingKeySchema>;

export const deviceSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  people: z.array(z.string()),
  firstSeenAt: instant,
  lastSeenAt: instant,
  /** Since when it is to be wiped on its next contact, and when it said that it was. */
  wipeAskedAt: instant.nullable(),
  wipedAt: instant.nullable(),
});
export type Device = z.infer<typeof deviceSchema>;
export const devicesSchema = z.array(deviceSchema);

/**
 * One unsent thing, sealed: AES-256-GCM under a key that HKDF-SHA-256 makes of ECDH on P-256 between a key made for this
 * one thing and the server's. The device signs `sealedText` with ECDSA P-256 and SHA-256.
 */
export const sealedSchema = z.strictObject({
  version: z.literal(1),
  /** Of the thing inside; sent twice it is kept once. */
  id: entityId,
  keyId: entityId,
  deviceId: entityId,
  made: publicKeySchema,
  iv: base64url(16),
  data: base64url(20_000_000),
  signature: base64url(90),
});
export type Sealed = z.infer<typeof sealedSchema>;

/** What is signed: all of it but the signature. */
export const sealedText = ({ version, id, keyId, deviceId, made, iv, data }: Omit<Sealed, 'signature'>): string =>
  [version, id, keyId, deviceId, made.x, made.y, iv, data].join('.');
export const sealedInfo = 'sombra sealed 1';

const envelope = {
  authorId: z.uuid(),
  madeAt: z.number(),
  /** How far the device knew its clock ahead of the server's as it sealed, ms. */
  aheadMs: z.int().nullable(),
};

/** What a seal holds: a record, or anything else on its way to one of the doors it may go to. */
export const sealedContentSchema = z.discriminatedUnion('what', [
  z.strictObject({ ...envelope, what: z.literal('record'), sent: z.unknown() }),
  z.strictObject({
    ...envelope,
    what: z.literal('parcel'),
    method: z.enum(['POST', 'PUT']),
    url: z.string().max(300),
    name: z.string().max(200),
    json: z.unknown().optional(),
    picture: z.strictObject({ type: z.string().max(40), base64: z.string() }).optional(),
  }),
]);
export type SealedContent = z.infer<typeof sealedContentSchema>;

/** `aside`: refused by the server, kept there for its author with the reason. */
export const sealedReceiptSchema = z.object({
  id: z.uuid(),
  result: z.enum(['stored', 'aside']),
  problem: problemSchema.nullable(),
});
export type SealedReceipt = z.infer<typeof sealedReceiptSchema>;

/** Something that came sealed and was refused: it waits for its author or a coordinator. */
export const asideSchema = z.object({
  id: z.uuid(),
  authorName: z.string(),
  name: z.string(),
  ref: z.string().nullable(),
  spotId: z.uuid().nullable(),
  madeAt: instant,
  arrivedAt: instant,
  problem: problemSchema,
});
export type Aside = z.infer<typeof asideSchema>;
export const asidesSchema = z.array(asideSchema);
/** `bin`: kept, and looked at no more. */
export const decideAsideSchema = z.strictObject({ decision: z.enum(['again', 'bin']) });

/** A file of sealed things, one a line, for where a phone cannot be brought to a network. */
export const sealedFileLimits = { bytes: 60_000_000, lines: 5000 } as const;

/** As a phone sends one it made smaller; a server takes no larger. */
export const mostPhotoBytes = 12 * 1024 * 1024;
