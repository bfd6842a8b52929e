// Fetched once the page is at rest, or with the first record that lies here: opening does not wait for them.
export { recordReceiptSchema, sendRecordSchema, spotDetailSchema } from '@sombra/contract';
