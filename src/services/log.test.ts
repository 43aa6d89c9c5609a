import { describe, expect, it } from 'vitest';
import { traceOf } from './log';

describe('what is written down of an error', () => {
  it('of the database is its kind and the rule it broke, nothing that somebody entered', () => {
    const parent = Object.assign(new Error('Key (name)=(Ada Secret) already exists.'), {
      code: '23505',
      constraint: 'technicians_name',
      sql: 'INSERT … VALUES (…)',
      parameters: ['Ada Secret'],
    });
    // As the library that speaks to the database makes them.
    class RuleBroken extends Error {
      parent = parent;
    }
    const trace = traceOf(new RuleBroken('Ada Secret is there'));
    expect(trace).toMatchObject({ error: 'RuleBroken', code: '23505', rule: 'technicians_name' });
    expect(JSON.stringify(trace)).not.toContain('Secret');
  });

  it('of the program is its message and where it happened', () => {
    expect(traceOf(new TypeError('x is not a function'))).toMatchObject({
      error: 'TypeError',
      message: 'x is not a function',
      at: [
        expect.stringContaining('log.test.ts'),
        ...Array.from({ length: 7 }, () => expect.any(String) as unknown),
      ],
    });
    expect(traceOf('Ada Secret')).toEqual({ error: 'string' });
  });
});
