export * from './people';
export * from './town';
export * from './seed';
