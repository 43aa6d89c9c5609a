import { judged } from '../../measure/figure';
import { answer, emptyOnDrive, unlitLamp } from './answer';
import type { FindingRecord } from './record';

const soldForNothing = judged(60, 'a sensor sold for nothing');
const lampIsBack = judged(20, 'the lamp is back');
const firstTry = 'of the first try; later ones by how often they are answered';

/** What can be the matter with the sensor in a wheel, and with how it was heard. */
export const sensorFindings = {
  'sensor-silent': {
    scope: 'sensor',
    title: 'Sensor silent',
    action: "Replace the sensor with one of the car's frequency and family, and register its ID.",
    remedy: 'part',
    work: { before: 'writing', label: (at) => `Replace the ${at} sensor` },
    caution: 'wheel-work',
    part: 'sensor',
    summedWith: 'sensor',
    prior: judged(
      0.02,
      'age unknown; half of the lamps of a shop are pressure, and most of the rest one sensor',
    ),
    after: {
      'tires-fitted': judged(4, 'the bead breaks a sensor that is in its way'),
      'sensor-replaced': judged(2, 'wheel opened once more'),
      repair: judged(2, 'the tire was off the rim'),
    },
    stakes: { wrong: judged(60, 'a sensor sold for nothing, and the tire off'), missed: lampIsBack },
    asked: {
      lamp: answer(0.77, 0.15, unlitLamp),
      activation: answer(0.99, 0.05, firstTry),
      registry: answer(0.6, 0.02, 'by its codes'),
      drive: answer(0.97, 0.03, emptyOnDrive),
    },
  },
  'sensor-absent': {
    scope: 'sensor',
    title: 'No sensor in this wheel',
    action: "Offer to fit a sensor of the car's family and register its ID.",
    remedy: 'part',
    work: { before: 'writing', label: (at) => `Fit a sensor at ${at}` },
    caution: 'wheel-work',
    part: 'sensor',
    summedWith: 'sensor',
    prior: judged(0.004, 'rare: a wheel bought without, and nobody said'),
    after: {
      'tires-fitted': judged(2, 'a broken one left out'),
      'wheels-swapped': judged(4, 'one wheel of a set without, beside a whole set'),
    },
    stakes: { wrong: soldForNothing, missed: lampIsBack },
    asked: {
      visual: answer(0.9, 0.12, 'the plain stem'),
      activation: answer(0.99, 0.05, firstTry),
      drive: answer(0.97, 0.03, emptyOnDrive),
    },
  },
  'sensor-battery-low': {
    scope: 'sensor',
    title: 'Sensor battery ending',
    action: 'Replace the sensor before it falls silent; ask about the whole set if the others are as old.',
    remedy: 'part',
    caution: 'wheel-work',
    part: 'sensor',
    summedWith: 'sensor',
    prior: judged(0.03, 'age unknown: of ten years about the last four months'),
    stakes: { wrong: judged(60, 'a sensor sold too early'), missed: judged(6, 'back in some months') },
    asked: { activation: answer(0.8, 0.01, 'an ending battery mostly says so') },
  },
  'sensor-inaccurate': {
    scope: 'sensor',
    title: 'Sensor reads wrong',
    action: 'Gauge and wake it once more; if it still differs, replace the sensor.',
    remedy: 'part',
    work: { before: 'proof', label: (at) => `Check the ${at} sensor against the gauge` },
    caution: 'wheel-work',
    part: 'sensor',
    // Whether it reads as it should shows in the tire it speaks of.
    summedWith: 'tire',
    prior: judged(0.015, 'drifts are rarer than silences'),
    stakes: { wrong: soldForNothing, missed: judged(6, 'a warning too early or late') },
    asked: {
      gauge: answer(0.9, 0.02, 'beside a scan of the same stop'),
      activation: answer(0.9, 0.02, 'beside a gauge reading of the same stop'),
    },
  },
  'sensor-wrong-type': {
    scope: 'sensor',
    title: 'Wrong sensor for this car',
    action: "The car cannot hear it: fit a sensor of the car's frequency and family.",
    remedy: 'part',
    work: { before: 'writing', label: (at) => `Replace the ${at} sensor` },
    caution: 'wheel-work',
    part: 'sensor',
    summedWith: 'sensor',
    prior: judged(0.003, 'rare unless a sensor was replaced: it looks alike and fits'),
    after: {
      'wheels-swapped': judged(2, 'one of another year, beside a whole set'),
      'sensor-replaced': judged(12, 'a part that fits and speaks another format'),
    },
    stakes: { wrong: soldForNothing, missed: lampIsBack },
    asked: {
      activation: answer(0.97, 0.002, 'the answer names its format'),
      drive: answer(0.95, 0.03, emptyOnDrive),
    },
  },
  'sensor-intermittent': {
    scope: 'sensor',
    title: 'Sensor drops out',
    action: 'Log reception once more on a drive; if it is the same one, replace it.',
    remedy: 'part',
    work: { before: 'proof', label: (at) => `Log the ${at} sensor once more` },
    caution: 'wheel-work',
    part: 'sensor',
    summedWith: 'sensor',
    prior: judged(0.012, 'a weak battery or a bad place of the wheel'),
    stakes: { wrong: soldForNothing, missed: judged(15, 'the lamp is back at times') },
    asked: { reception: answer(0.9, 0.03, 'sixty check-ins tell a third missed') },
  },
  'cross-read': {
    scope: 'sensor',
    title: 'Heard a neighbour',
    action:
      'The reading, not the sensor: move the other wheels away or the antenna closer and wake it again.',
    remedy: 'scan',
    stakes: {
      wrong: judged(3, 'a scan done once more'),
      missed: judged(20, 'an ID written to the wrong wheel'),
    },
    asked: { activation: answer(0.95, 0.05, 'done again with the others away') },
  },
  'sensors-asleep': {
    scope: 'sensor',
    title: 'Sensors asleep',
    action: 'No fault while standing: drive above the wake speed and read again.',
    remedy: 'drive',
    blamesNothing: true,
  },
} as const satisfies Record<string, FindingRecord>;
