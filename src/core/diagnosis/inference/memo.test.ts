import { describe, expect, it } from 'vitest';
import { gauge, heard, ids, jobWith, live, registry } from '../../../../tests/support/car';
import type { Observation } from '../../job';
import { ledgerOf } from '../../ledger';
import { Contents, Memo } from './memo';
import { evidenceOf } from '../evidence';

const seen = (observations: Observation[]) => {
  const job = jobWith(observations);
  const { wheels, positions } = evidenceOf(job, ledgerOf(job));
  const [wheel] = wheels;
  const [position] = positions;
  if (!wheel || !position) throw new RangeError('a car has wheels');
  return { wheel, position, wheels, positions };
};

describe('evidence, numbered by its content', () => {
  it('has one number for the same seen twice, in whatever object it stands', () => {
    const contents = new Contents();
    const observations = [gauge(1, 'LF', 220), heard(2, 'LF')];
    const one = seen(observations);
    const other = seen(observations);
    expect(one.wheel).not.toBe(other.wheel);
    expect(contents.ofTire(one.wheel)).toBe(contents.ofTire(other.wheel));
    expect(contents.ofSensor(one.wheel)).toBe(contents.ofSensor(other.wheel));
    expect(contents.ofHearing(one.position)).toBe(contents.ofHearing(other.position));
    expect(contents.ofShown(one.position)).toBe(contents.ofShown(other.position));
  });

  it('changes the number of the tire with a gauge assignment, and leaves that of its sensor', () => {
    const contents = new Contents();
    const before = seen([heard(2, 'LF')]).wheel;
    const after = seen([heard(2, 'LF'), gauge(3, 'LF', 220)]).wheel;
    expect(contents.ofTire(after)).not.toBe(contents.ofTire(before));
    expect(contents.ofSensor(after)).toBe(contents.ofSensor(before));
  });

  it('changes both with another reply, whose pressure is the tire’s and whose ID is the sensor’s', () => {
    const contents = new Contents();
    const one = seen([heard(2, 'LF', { kPa: 220 })]).wheel;
    const softer = seen([heard(2, 'LF', { kPa: 180 })]).wheel;
    const another = seen([heard(2, 'LF', { kPa: 220, id: ids.RR })]).wheel;
    expect(contents.ofTire(softer)).not.toBe(contents.ofTire(one));
    expect(contents.ofSensor(softer)).toBe(contents.ofSensor(one));
    expect(contents.ofSensor(another)).not.toBe(contents.ofSensor(one));
  });

  it('tells an ID that is not read from one that is read as none', () => {
    const contents = new Contents();
    const notRead = seen([]).position;
    const none = seen([registry(1, { LF: null })]).position;
    expect(contents.ofHearing(none)).not.toBe(contents.ofHearing(notRead));
  });

  it('tells what a car shows from what it holds', () => {
    const contents = new Contents();
    const one = seen([live(1, 'LF', 220, 80)]).position;
    const other = seen([live(1, 'LF', 200, 80)]).position;
    expect(contents.ofShown(one)).not.toBe(contents.ofShown(other));
    expect(contents.ofHearing(one)).toBe(contents.ofHearing(other));
  });
});

describe('a memo', () => {
  it('makes a thing once for what it rests on, and another for anything else', () => {
    const memo = new Memo<object>();
    let made = 0;
    const make = () => ({ n: (made += 1) });
    const first = memo.get([1, 'sound', 16], make);
    expect(memo.get([1, 'sound', 16], make)).toBe(first);
    for (const key of [
      [2, 'sound', 16],
      [1, 'off', 16],
      [1, 'sound', 1],
    ])
      expect(memo.get(key, make)).not.toBe(first);
    expect(made).toBe(4);
  });
});
