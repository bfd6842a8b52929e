export * from './stock';
export * from './mass';
export * from './receiving';
export * from './lifting-plan';
