import { judged, practice } from './figure';

/** What a test costs in minutes of work, at one wheel where it has one. */
export const minutes = {
  lamp: practice(0.5, 'ignition on, look'),
  gauge: practice(0.5, 'cap off, read, cap on'),
  activation: practice(0.75, 'antenna to the sidewall, wait for the answer'),
  registry: practice(2, 'lead in, ignition on, read IDs and codes'),
  visual: practice(0.3, 'a look at tread, sidewall and stem'),
  display: practice(0.5, 'page through the cluster'),
  voltage: practice(0.5, 'on the lead'),
  drive: practice(12, 'out, above wake speed for some minutes, back'),
  reception: practice(20, 'a longer drive with the log running'),
  shift: practice(6, 'take 25 kPa off one tire, wait for the display, put it back'),
  wheelspeed: practice(12, 'a straight, steady drive with the lead in'),
  baseline: practice(10, 'store the reference and drive'),
} as const;

/**
 * What it costs, in minutes of shop time, to act on a finding that is not true (parts count as time), and to
 * leave one that is: mostly a car that comes back.
 */
export const stakes = {
  'tire-low': {
    wrong: judged(3, 'a fill that was not needed, seen at once'),
    missed: judged(45, 'leaves with a low tire'),
  },
  'tire-underinflated': {
    wrong: judged(2, 'a fill that was not needed'),
    missed: judged(5, 'wear, and the lamp soon'),
  },
  'tire-overinflated': { wrong: judged(3, 'air let out'), missed: judged(15, 'a hard tire') },
  'tire-leaking': { wrong: judged(12, 'a search for nothing'), missed: judged(18, 'flat again next week') },
  'sensor-silent': {
    wrong: judged(60, 'a sensor sold for nothing, and the tire off'),
    missed: judged(28, 'the lamp is back'),
  },
  'sensor-absent': { wrong: judged(60, 'a sensor sold for nothing'), missed: judged(28, 'the lamp is back') },
  'sensor-battery-low': {
    wrong: judged(60, 'a sensor sold too early'),
    missed: judged(6, 'back in some months'),
  },
  'sensor-inaccurate': {
    wrong: judged(60, 'a sensor sold for nothing'),
    missed: judged(6, 'a warning too early or late'),
  },
  'sensor-wrong-type': {
    wrong: judged(60, 'a sensor sold for nothing'),
    missed: judged(28, 'the lamp is back'),
  },
  'sensor-intermittent': {
    wrong: judged(60, 'a sensor sold for nothing'),
    missed: judged(15, 'the lamp is back at times'),
  },
  'id-not-registered': {
    wrong: judged(6, 'a write that was not needed'),
    missed: judged(28, 'the lamp is back'),
  },
  'id-mistyped': { wrong: judged(6, 'a write that was not needed'), missed: judged(28, 'the lamp is back') },
  'id-duplicate': { wrong: judged(6, 'a write that was not needed'), missed: judged(28, 'the lamp is back') },
  'positions-swapped': {
    wrong: judged(6, 'a write that was not needed'),
    missed: judged(15, 'the display blames the wrong wheel'),
  },
  'cross-read': {
    wrong: judged(3, 'a scan done once more'),
    missed: judged(20, 'an ID written to the wrong wheel'),
  },
  'other-set-registered': {
    wrong: judged(6, 'a write that was not needed'),
    missed: judged(28, 'the lamp is back'),
  },
  'receiver-fault': {
    wrong: judged(90, 'a module sold for nothing'),
    missed: judged(60, 'the lamp is back'),
  },
  'system-disabled': { wrong: judged(15, 'a search for nothing'), missed: judged(60, 'leaves unguarded') },
  'baseline-not-set': {
    wrong: judged(6, 'a reference stored again'),
    missed: judged(40, 'the lamp is back'),
  },
  'wheel-speed-sensor-fault': {
    wrong: judged(45, 'a sensor sold for nothing'),
    missed: judged(60, 'the lamps are back'),
  },
  'rolling-radius-off': {
    wrong: judged(15, 'tires compared for nothing'),
    missed: judged(28, 'the lamp is back'),
  },
  'waiting-for-drive': {
    wrong: judged(12, 'a drive for nothing'),
    missed: judged(30, 'handed over unproved'),
  },
} as const;
