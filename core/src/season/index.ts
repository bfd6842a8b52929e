export * from './weeks';
export * from './planting-windows';
