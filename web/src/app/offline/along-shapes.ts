// The shape of the map alone, fetched where a square of it is asked for that was not taken along.
export { mapSchema } from '@sombra/contract';
