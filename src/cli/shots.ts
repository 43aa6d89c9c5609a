export const shots = (): Promise<number> => Promise.resolve(1);
