import { judged } from '../../measure/figure';
import { answer, digitByDigit, emptyOnDrive, unlitLamp } from './answer';
import type { FindingRecord } from './record';

const needlessWrite = judged(6, 'a write that was not needed');
const lampIsBack = judged(20, 'the lamp is back');
const compared = {
  activation: answer(0.97, 0.01, digitByDigit),
  registry: answer(0.98, 0.005, digitByDigit),
} as const;

/** What can be the matter with the IDs the car holds, and with where it has them. */
export const idFindings = {
  'id-not-registered': {
    scope: 'position',
    title: 'ID unknown to the car',
    action: 'Register the scanned IDs in the car and read them back.',
    remedy: 'write',
    part: 'id',
    summedWith: 'sensor',
    prior: judged(0.008, 'a relearn forgotten, long ago'),
    after: {
      'tires-fitted': judged(2, 'a sensor replaced on the way and not learned'),
      'wheels-swapped': judged(2, 'one of them, beside a set the car never learned'),
      'sensor-replaced': judged(20, 'the one step after a new sensor, forgotten'),
    },
    stakes: { wrong: needlessWrite, missed: lampIsBack },
    asked: {
      ...compared,
      lamp: answer(0.77, 0.15, unlitLamp),
      drive: answer(0.95, 0.03, emptyOnDrive),
    },
  },
  'id-mistyped': {
    scope: 'position',
    title: 'ID one slip off',
    action: 'The car holds this ID with a slip: register the scanned IDs and read them back.',
    remedy: 'write',
    part: 'id',
    summedWith: 'sensor',
    prior: judged(0.003, 'only where IDs are typed by hand'),
    after: { 'sensor-replaced': judged(12, 'IDs are copied by hand from screen to screen') },
    stakes: { wrong: needlessWrite, missed: lampIsBack },
    asked: compared,
  },
  'id-duplicate': {
    scope: 'position',
    title: 'One ID twice',
    action: 'Wake both wheels again, apart from each other, and send what they answer.',
    remedy: 'write',
    stakes: { wrong: needlessWrite, missed: lampIsBack },
  },
  'positions-swapped': {
    scope: 'position',
    title: 'Positions swapped',
    action: 'The display blames the wrong wheel: register the IDs where the wheels are now.',
    remedy: 'write',
    part: 'order',
    prior: judged(0.01, 'wheels at other places than the car holds, with no work known'),
    after: {
      'tires-fitted': judged(6, 'wheels come off, and go back on another hub'),
      rotation: judged(35, 'the relearn is what is forgotten after a rotation'),
      'wheels-swapped': judged(12, 'put on in another order than last time'),
      'sensor-replaced': judged(3, 'two wheels exchanged while IDs were typed'),
      repair: judged(2, 'the wheel may have gone back elsewhere'),
    },
    stakes: { wrong: needlessWrite, missed: judged(15, 'the display blames the wrong wheel') },
    asked: {
      ...compared,
      display: answer(0.9, 0.05, 'where pressures differ; less where they are alike'),
      shift: answer(0.9, 0.03, 'the figure that moves is the tire'),
    },
  },
  'other-set-registered': {
    scope: 'car',
    title: 'Other wheel set registered',
    action: 'Register the IDs of the set that is on the car.',
    remedy: 'write',
    part: 'order',
    prior: judged(0.03, 'where another wheel set is on file: changed, and not relearned'),
    after: { 'wheels-swapped': judged(12, 'the car still holds the set that came off') },
    stakes: { wrong: needlessWrite, missed: lampIsBack },
    asked: { registry: answer(0.97, 0.01, 'the set is on file') },
  },
} as const satisfies Record<string, FindingRecord>;
