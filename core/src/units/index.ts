export * from './units';
export * from './typed';
