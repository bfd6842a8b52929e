// Fetched with the first record that lies here: an empty outbox opens without the shapes of all records.
export { recordReceiptSchema, sendRecordSchema, spotDetailSchema } from '@sombra/contract';
