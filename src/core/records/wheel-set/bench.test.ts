import { describe, expect, it } from 'vitest';
import cars from '../../../../demo/cars.json' with { type: 'json' };
import { wakeOnBench } from '../../../standins/bench';
import { carSchema } from '../../../standins/car';
import { replySchema } from '../../job/schema';
import { benchReading, benchWords } from './bench';

const reply = (id: string, rssiDbm: number) => ({ id, rssiDbm });

describe('a set that is read on the bench', () => {
  it('is read wheel by wheel, one answer each', () => {
    expect(benchReading([reply('4B07C2D1', -50)], {})).toMatchObject({ kind: 'heard' });
    expect(benchReading([], {})).toEqual({ kind: 'silent' });
  });

  it('is not read where several answer alike: the wheel is carried away from the others (common practice: half a metre)', () => {
    const crowd = [reply('4B07C2D1', -50), reply('4B07D93A', -52), reply('4B11E0F6', -53)];
    const reading = benchReading(crowd, {});
    expect(reading).toEqual({ kind: 'cross-read', answers: 3 });
    expect(benchWords(reading)).toContain('half a metre');
  });

  it('takes the clear nearest of several', () => {
    expect(benchReading([reply('4B07C2D1', -48), reply('4B07D93A', -60)], {})).toMatchObject({
      reply: { id: '4B07C2D1' },
    });
  });

  it('holds no sensor at two wheels, however it is written', () => {
    expect(benchReading([reply('4b07 c2d1', -50)], { LF: '4B07C2D1' })).toEqual({
      kind: 'heard-before',
      at: 'LF',
    });
  });

  it('answers as physics has it: together in a stack, alone once apart', () => {
    let car = carSchema.parse(cars.find(({ vin }) => vin === '0HAVE1A96K1004417'));
    const wake = (wheel: 'LF') => {
      const woken = wakeOnBench(car, wheel);
      car = woken.car;
      return benchReading(
        woken.replies.map((one) => replySchema.parse(one)),
        {},
      );
    };
    expect(wake('LF')).toEqual({ kind: 'cross-read', answers: 4 });
    expect(wake('LF')).toMatchObject({ kind: 'heard', reply: { rssiDbm: -48 } });
  });
});
