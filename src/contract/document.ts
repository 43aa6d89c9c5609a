import type { Job } from '../core/job';
import { parseJob } from '../core/job/schema';
import { success, type Result } from '../core/result';
import { noJobFile, noText, notJson } from './refusals';

/** Documents as they come in: JSON, of text that is text. */

/**
 * Nobody types these, no sheet shows them and no database stores all of them: control characters but tab and new line, and
 * half of a pair.
 */
const notText = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f]|\p{Surrogate}/u;
export const isText = (text: string): boolean => !notText.test(text);

/** How such characters stand in a JSON document: as escapes, or beyond ASCII as they are. */
const mayHideThem = /\\u00[0189]|\\u007f|\\[bf]|\\ud[89a-f]|[\u007f-\u009f]/i;

/** Problems: `not-json`, and `invalid-input` for text that is none. */
export function parseJson(text: string): Result<unknown> {
  let isAllText = true;
  const look = (key: string, value: unknown) => {
    if (!isText(key) || (typeof value === 'string' && !isText(value))) isAllText = false;
    return value;
  };
  try {
    const document: unknown = mayHideThem.test(text) ? JSON.parse(text, look) : JSON.parse(text);
    return isAllText ? success(document) : noText();
  } catch {
    return notJson();
  }
}

/** A job file. Problem: `invalid-job` for what is none, JSON or not. */
export function parseJobFile(text: string): Result<Job> {
  const document = parseJson(text);
  if (document.ok) return parseJob(document.value);
  return noJobFile(document.problem.code === 'not-json' ? 'not JSON' : 'a character that no text has');
}
