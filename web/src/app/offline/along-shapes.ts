// What comes along is checked by these: the shapes of half the contract, fetched where something is taken along.
export { deliveryListSchema, mapSchema, plantingDaysSchema, spotDetailSchema } from '@sombra/contract';
