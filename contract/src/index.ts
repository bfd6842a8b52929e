export * from './problem';
export * from './measures';
export * from './records';
export * from './practice';
export * from './session';
export * from './spots';
export * from './imports';
export * from './files/spot-row';
