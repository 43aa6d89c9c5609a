import { describe, expect, it } from 'vitest';
import { answerUnclear, busyJudging, offline } from '../contract/refusals';
import { failure, success, type Result } from '../core/result';
import { createDeeds } from './deeds';

function deedsWith(...answers: Result<string>[]) {
  let made = 0;
  const sent: string[] = [];
  const deeds = createDeeds(() => `key ${(made += 1)}`);
  const press = (of = 'wake LF') =>
    deeds.once(of, (key) => {
      sent.push(key);
      return Promise.resolve(answers.shift() ?? success('done'));
    });
  return { deeds, press, sent };
}

describe('a deed', () => {
  it.each([
    ['no answer came', offline()],
    ['the answer was unclear', answerUnclear()],
    ['the shop was held up', failure('busy', 'Held up.')],
    ['nobody was signed in any more', failure('not-signed-in', 'Sign in.')],
  ])('is the same one when it is pressed again after %s', async (_, answer) => {
    const { press, sent } = deedsWith(answer);
    await press();
    await press();
    await press();
    expect(sent).toEqual(['key 1', 'key 1', 'key 2']);
  });

  it('that was refused is another when it is pressed again', async () => {
    const { press, sent } = deedsWith(failure('stale', 'Somebody changed it.'));
    await press();
    await press();
    expect(sent).toEqual(['key 1', 'key 2']);
  });

  it('is another where another thing is meant', async () => {
    const { press, sent } = deedsWith(offline());
    await press('wake LF');
    await press('wake RF');
    await press('wake LF');
    expect(sent).toEqual(['key 1', 'key 2', 'key 1']);
  });

  it('pressed while one is under way does nothing', async () => {
    const { deeds, sent, press } = deedsWith();
    const first = press();
    expect(deeds.state().busy).toBe('Saving…');
    expect(await press()).toBeUndefined();
    await first;
    expect(sent).toHaveLength(1);
    expect(deeds.state().busy).toBeUndefined();
  });

  it('says why it was not done, until it is pressed again', async () => {
    const { deeds, press } = deedsWith(busyJudging());
    await press();
    expect(deeds.state().problem?.message).toBeTruthy();
    await press();
    expect(deeds.state().problem).toBeUndefined();
  });
});
