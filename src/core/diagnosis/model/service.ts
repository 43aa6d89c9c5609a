import { judged, practice } from './figure';

/**
 * What was done to the car lately makes some faults likelier, by these factors. They fade with the time
 * since: just after the work they hold in full.
 */
const none = {
  dead: judged(1, 'nothing done'),
  absent: judged(1, 'nothing done'),
  wrongType: judged(1, 'nothing done'),
  unregistered: judged(1, 'nothing done'),
  mistyped: judged(1, 'nothing done'),
  leaking: judged(1, 'nothing done'),
  moved: judged(1, 'nothing done'),
  otherSet: judged(1, 'nothing done'),
  oddRadius: judged(1, 'nothing done'),
};

export const service = {
  none,
  'tires-fitted': {
    ...none,
    dead: judged(4, 'the bead breaks a sensor that is in its way'),
    absent: judged(2, 'a broken one left out'),
    leaking: judged(2, 'bead and stem were open'),
    moved: judged(6, 'wheels come off, and go back on another hub'),
    unregistered: judged(2, 'a sensor replaced on the way and not learned'),
    oddRadius: judged(3, 'a tire of another make or size'),
  },
  rotation: {
    ...none,
    moved: judged(35, 'the relearn is what is forgotten after a rotation'),
  },
  'wheels-swapped': {
    ...none,
    absent: judged(15, 'a winter set without sensors'),
    wrongType: judged(4, 'wheels of another car or year'),
    unregistered: judged(5, 'a set the car never learned'),
    moved: judged(12, 'put on in another order than last time'),
    otherSet: judged(12, 'the car still holds the set that came off'),
    oddRadius: judged(3, 'another size on one wheel'),
  },
  'sensor-replaced': {
    ...none,
    dead: judged(2, 'wheel opened once more'),
    wrongType: judged(12, 'a part that fits and speaks another format'),
    unregistered: judged(20, 'the one step after a new sensor, forgotten'),
    mistyped: judged(12, 'IDs are copied by hand from screen to screen'),
    leaking: judged(2, 'stem and seal were opened'),
    moved: judged(3, 'two wheels exchanged while IDs were typed'),
  },
  repair: {
    ...none,
    dead: judged(2, 'the tire was off the rim'),
    leaking: judged(3, 'the repair itself may not hold'),
    moved: judged(2, 'the wheel may have gone back elsewhere'),
  },
} as const;

/** After so many hours half of what the work made likelier is left. */
export const serviceHalfLifeHours = practice(
  720,
  'a month: by then a customer has come back or the lamp is lived with',
);

/** No fault is made likelier than this by work alone. */
export const mostByService = judged(0.4, 'work makes a fault likely, never certain');
