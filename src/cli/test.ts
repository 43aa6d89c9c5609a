export const test = (_: readonly string[]): Promise<number> => Promise.resolve(1);
