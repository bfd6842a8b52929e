export * from './reference-et';
export * from './read-weather';
