import type { z } from 'zod';
import type { Issue } from '.';

/** Zod's issues as dotted paths with short messages of our own: `placard.0.coldKPa`, "expected number". */
export const issuesOf = (error: z.ZodError): Issue[] =>
  error.issues.map((issue) => ({ path: issue.path.map(String).join('.'), message: messageOf(issue) }));

function messageOf(issue: z.core.$ZodIssue): string {
  switch (issue.code) {
    case 'invalid_type':
      return `expected ${issue.expected}`;
    case 'invalid_value':
      return `expected ${issue.values.map(String).join(' | ')}`;
    case 'invalid_union':
      return 'options' in issue && Array.isArray(issue.options)
        ? `expected ${issue.options.map(String).join(' | ')}`
        : 'fits none of what may stand here';
    case 'too_small':
      return sizeOf(issue.origin, 'at least', issue.minimum, issue.inclusive === false);
    case 'too_big':
      return sizeOf(issue.origin, 'at most', issue.maximum, issue.inclusive === false);
    case 'invalid_format':
      return `not written as ${formats[issue.format] ?? 'it has to be'}`;
    case 'not_multiple_of':
      return `not a multiple of ${issue.divisor}`;
    case 'unrecognized_keys':
      return `not known here: ${issue.keys.join(', ')}`;
    case 'invalid_key':
    case 'invalid_element':
      return 'has an entry that does not belong here';
    case 'custom':
      return issue.message;
  }
}

/** What is written by a rule, by zod's name for it. */
const formats: Readonly<Record<string, string>> = {
  date: 'a day, like 2026-03-31',
  datetime: 'a moment, like 2026-03-31T09:05:00Z',
  email: 'a mail address',
  url: 'an address of the web',
  uuid: 'a key: 8-4-4-4-12 hexadecimal digits',
};

/** "at least 3 entries", "more than 0", "not empty". */
function sizeOf(origin: string, bound: string, n: number | bigint, exclusive: boolean): string {
  const unit = { string: 'characters', array: 'entries', set: 'entries', map: 'entries' }[origin];
  if (unit && n === 1 && bound === 'at least') return 'empty: something has to stand here';
  if (exclusive) return `${bound === 'at least' ? 'more' : 'less'} than ${n}`;
  return [bound, n, unit].filter((part) => part !== undefined).join(' ');
}
