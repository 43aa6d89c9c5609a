import type { z } from 'zod';
import type { Issue } from '.';

/** Zod's issues as dotted paths with short messages: `placard.0.coldKPa`, "expected number". */
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
        : issue.message;
    default:
      return issue.message;
  }
}
