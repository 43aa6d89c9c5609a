import { describe, expect, it } from 'vitest';
import { gauge, heard, jobWith, registry } from '../../../../../tests/support/car';
import type { Observation } from '../../../job';
import { ledgerOf } from '../../../job/ledger';
import { evidenceOf } from '../evidence';
import { hearingParts, sensorParts, tireParts } from '../likelihoods';
import { Contents, Memo } from './memo';
import { wheelAt } from './sensed-tire';

const seen = (observations: Observation[]) => {
  const job = jobWith(observations);
  const evidence = evidenceOf(job, ledgerOf(job));
  const [position] = evidence.positions;
  if (!position) throw new RangeError('a car has positions');
  return { wheel: wheelAt(evidence, 0), position };
};

describe('what was seen, numbered by its content', () => {
  it('has one number for the same seen twice, in whatever object it stands', () => {
    const contents = new Contents();
    const observations = [gauge(1, 'LF', 220), heard(2, 'LF')];
    const one = seen(observations);
    const other = seen(observations);
    expect(one.wheel).not.toBe(other.wheel);
    expect(contents.of(one.wheel, tireParts)).toBe(contents.of(other.wheel, tireParts));
    expect(contents.of(one.wheel, sensorParts)).toBe(contents.of(other.wheel, sensorParts));
    expect(contents.of(one.position, hearingParts)).toBe(contents.of(other.position, hearingParts));
  });

  it('has another for the tire with a gauge reading more, and the same for its sensor', () => {
    const contents = new Contents();
    const before = seen([heard(2, 'LF')]).wheel;
    const after = seen([heard(2, 'LF'), gauge(3, 'LF', 220)]).wheel;
    expect(contents.of(after, tireParts)).not.toBe(contents.of(before, tireParts));
    expect(contents.of(after, sensorParts)).toBe(contents.of(before, sensorParts));
  });

  it('tells an ID that is not read from one that is read as none', () => {
    const contents = new Contents();
    const notRead = seen([]).position;
    const none = seen([registry(1, { LF: null })]).position;
    expect(contents.of(none, hearingParts)).not.toBe(contents.of(notRead, hearingParts));
  });
});

describe('a memo', () => {
  it('makes a thing once for what it rests on, and another for anything else', () => {
    const memo = new Memo<object>();
    let made = 0;
    const make = () => ({ n: (made += 1) });
    const first = memo.get('1,sound', make);
    expect(memo.get('1,sound', make)).toBe(first);
    expect(memo.get('1,off', make)).not.toBe(first);
    expect(made).toBe(2);
  });
});
