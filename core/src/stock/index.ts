export * from './stock';
export * from './mass';
