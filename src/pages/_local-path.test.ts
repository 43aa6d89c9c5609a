import { describe, expect, it } from 'vitest';
import { localPath } from './_http';

describe('where signing in leads to', () => {
  it('is a path of this app, as a browser reads it', () => {
    expect(localPath('/jobs/1?look=1')).toBe('/jobs/1?look=1');
    expect(localPath('/')).toBe('/');
  });

  it.each([
    null,
    '',
    'https://elsewhere.invalid/',
    '//elsewhere.invalid',
    '/\t/elsewhere.invalid',
    '/\\elsewhere.invalid',
    '\\\\elsewhere.invalid',
    '/\r\nset-cookie: a=b',
    'javascript:alert(1)',
    ' //elsewhere.invalid',
    'jobs',
    '/..//elsewhere.invalid',
    '/.//elsewhere.invalid',
    '/jobs/%2e%2e//elsewhere.invalid',
    '/jobs/..//elsewhere.invalid/%2e%2e',
    '/%2E//elsewhere.invalid',
    '/./\\elsewhere.invalid',
  ])('is the Yard for %j', (asked) => {
    expect(localPath(asked)).toBe('/');
  });
});
