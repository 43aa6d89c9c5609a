import { afterEach, expect, it, vi } from 'vitest';
import { backUpTonight, eachDay } from './keep';

afterEach(() => {
  vi.restoreAllMocks();
  vi.useRealTimers();
  vi.unstubAllEnvs();
});

it('what is done each night at three is done the next night after one that failed, until it is ended', async () => {
  vi.useFakeTimers({ now: new Date(2026, 10, 3, 12) });
  const said = vi.spyOn(process.stdout, 'write').mockReturnValue(true);
  const nights: number[] = [];
  const end = eachDay(3, () => {
    expect(new Date().getHours()).toBe(3);
    nights.push(new Date().getDate());
    return nights.length === 2 ? Promise.resolve() : Promise.reject(new Error('the folder is away'));
  });
  await vi.advanceTimersByTimeAsync(3 * 86_400_000);
  expect(nights).toEqual([4, 5, 6]);
  expect(said).toHaveBeenCalledTimes(2);
  end();
  await vi.advanceTimersByTimeAsync(3 * 86_400_000);
  expect(nights).toHaveLength(3);
});

it('a night whose folder and database are away is told, and nothing is thrown', async () => {
  const away = 'postgres://nobody:x@127.0.0.1:1/hacienda';
  vi.stubEnv('DATABASE_URL', away);
  const said: string[] = [];
  vi.spyOn(process.stdout, 'write').mockImplementation((text) => said.push(String(text)) > 0);
  await backUpTonight(away, '/dev/null/nights');
  expect(said.join('')).toMatch(
    /backup failed: The folder \/dev\/null\/nights cannot be written to \(ENOTDIR\)\.\n.*cannot be noted/,
  );
});
