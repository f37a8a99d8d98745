export * from './derive.ts';
export * from './resultSet.ts';
export * from './container.ts';
