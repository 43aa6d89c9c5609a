import { describe, expect, it } from 'vitest';
import { stateOf } from './backups';

const hourMs = 3_600_000;
const nowMs = Date.UTC(2026, 10, 3, 12);
const night = (hoursAgo: number, failed: string | null = null) => ({
  at: new Date(nowMs - hoursAgo * hourMs),
  failed,
});
const asked = { isAsked: true, nowMs, upS: 40 * 3600 };

describe('the state of the nightly backups', () => {
  it('is that of the last night', () => {
    expect(stateOf(night(9), asked)).toBe('good');
    expect(stateOf(night(9, 'the folder is away'), asked)).toBe('failed');
  });

  it('is overdue once none was tried for more than a day, not right after the server came up again', () => {
    expect(stateOf(night(27), asked)).toBe('overdue');
    expect(stateOf(undefined, asked)).toBe('overdue');
    expect(stateOf(night(27), { ...asked, upS: 600 })).toBe('good');
    expect(stateOf(undefined, { ...asked, upS: 600 })).toBe('to-come');
  });

  it('is off where nobody asked for any', () => {
    expect(stateOf(night(9), { ...asked, isAsked: false })).toBe('off');
  });
});
