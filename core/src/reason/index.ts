export * from './reason';
export * from './level';
