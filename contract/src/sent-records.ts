import { recordKinds, type FieldRecord } from '@sombra/core';
import * as z from 'zod';
import { entityId, instant, recordId, rowVersion } from './measures';
import { readFormat, recordFormat } from './record-formats';
import { fieldRecordSchema } from './records';

/** A clock may be this far off: a century. */
const mostAheadMs = 100 * 366 * 86_400_000;

/** A record whose device did not know the time: it stands where it arrived until somebody says when it was made. */
export const clockQuestionsSchema = z.array(
  z.object({
    recordId: z.uuid(),
    kind: z.enum(recordKinds),
    spotId: z.uuid(),
    ref: z.string(),
    recordedBy: z.string(),
    device: z.string(),
    deviceSaid: instant,
    receivedAt: instant,
  }),
);
export type ClockQuestion = z.infer<typeof clockQuestionsSchema>[number];
export const clockAnswerSchema = z.strictObject({ happenedAt: instant });

/** How far ahead of the server's the device knew its clock to be when it made something, ms; `null` where unknown. */
export const aheadMsSchema = z.int().min(-mostAheadMs).max(mostAheadMs).nullable().default(null);

const sentShape = z.strictObject({
  spotId: entityId,
  device: z.string().max(80),
  /** Missing in what was made before it was asked. */
  format: z.int().min(1).max(recordFormat).default(1),
  /** Version of the spot the facts were edited from; required for kinds that are `versioned`. */
  spotVersion: rowVersion.min(1).nullable(),
  aheadMs: aheadMsSchema,
  record: fieldRecordSchema,
});
/** A record sent by a device. Facts that others may be editing at a desk carry the version they were read at. */
export const sendRecordSchema = z.preprocess(readFormat, sentShape);
export type SendRecord = Omit<z.input<typeof sentShape>, 'record'> & { readonly record: FieldRecord };

export const recordReceiptSchema = z.object({
  id: recordId,
  /** False when this record was already here. */
  stored: z.boolean(),
  spotVersion: z.int(),
});
export type RecordReceipt = z.infer<typeof recordReceiptSchema>;

/** Records of one act on several spots: kept all together or not at all. */
export const sendBatchSchema = z.strictObject({ records: z.array(sendRecordSchema).min(1).max(500) });
export interface SendBatch {
  readonly records: readonly SendRecord[];
}

export const batchReceiptSchema = z.object({ receipts: z.array(recordReceiptSchema) });
export type BatchReceipt = z.infer<typeof batchReceiptSchema>;
