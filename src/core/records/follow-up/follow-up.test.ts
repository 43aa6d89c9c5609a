import { describe, expect, it } from 'vitest';
import { gauge, gauges, jobWith, minute } from '../../../../tests/support/car';
import type { Finding } from '../../judgement/assessment';
import { assess } from '../../judgement/diagnosis';
import { owedFor, standing, suggestedFor } from '.';

const today = '2026-10-14';
const finding = (code: Finding['code'], wheels: Finding['wheels'], probability = 0.9): Finding => ({
  code,
  wheels,
  probability,
  evidence: [],
  action: '',
});
const suggested = (more: object, ...findings: Finding[]) =>
  suggestedFor(jobWith([], more), { ...assess(jobWith([])), findings }, today);

describe('what a visit is followed by', () => {
  it('a leak in a week, a lamp in three days, a sensor that was declined with the next season (common practice)', () => {
    expect(suggested({}, finding('tire-leaking', ['RR']))).toMatchObject([
      { about: 'leak', wheel: 'RR', dueOn: '2026-10-21' },
    ]);
    expect(suggested({}, finding('waiting-for-drive', []))).toMatchObject([
      { about: 'lamp', wheel: null, dueOn: '2026-10-17' },
    ]);
    const declined = { replacement: { wheels: [], declined: ['LF'], at: minute(0), by: 'Anyone' } };
    expect(suggested(declined)).toMatchObject([{ about: 'sensor', wheel: 'LF', dueOn: '2027-03-13' }]);
  });

  it('not by what is only possible', () => {
    expect(suggested({}, finding('tire-leaking', ['RR'], 0.4))).toEqual([]);
  });

  it('by itself where a tire was found low and only filled: within the week, once', () => {
    const filled = jobWith([...gauges(1, { RR: 160 }), gauge(9, 'RR', 220)]);
    expect(owedFor(filled, today)).toMatchObject([{ about: 'leak', wheel: 'RR', dueOn: '2026-10-21' }]);
    const both = suggestedFor(
      filled,
      { ...assess(filled), findings: [finding('tire-leaking', ['RR'])] },
      today,
    );
    expect(both.filter(({ wheel }) => wheel === 'RR')).toHaveLength(1);
  });
});

describe('on a day', () => {
  it('it is overdue from the day after, due on its day, and to come before', () => {
    const stands = (dueOn: string) => standing({ dueOn, ended: null }, '2026-10-14');
    expect([stands('2026-10-13'), stands('2026-10-14'), stands('2026-10-15')]).toEqual([
      'overdue',
      'today',
      'to come',
    ]);
  });
});
