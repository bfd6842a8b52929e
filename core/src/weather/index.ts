export * from './reference-et';
export * from './read-weather';
export * from './typical-year';
export * from './ice-load';
