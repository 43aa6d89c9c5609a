import { judged, practice } from '../../../measure/figure';

/** How sensors answer the activation tool. Chances per try. */
export const answers = {
  pulsed: practice(0.95, 'most answer the first try'),
  continuous: practice(0.93, 'some families want this'),
  magnet: judged(0.75, 'old ones only'),
  deflation: judged(0.85, 'a pressure drop wakes nearly all, slowly'),
  /** After a miss the same trigger seldom does better; another one may. */
  againSame: judged(0.45, 'an antenna held in the same bad place'),
  againOther: practice(0.85, 'the reason to change the trigger'),
  endingBattery: judged(0.75, 'of what a sound one answers'),
  wrongType: judged(0.85, 'a tool set to the wrong family misses some'),
  toolWakesNone: judged(0.04, 'its battery, its antenna, or set to another car'),
  /** A sensor that was heard and has since gone silent. */
  diedSince: judged(0.08, 'broken between two tries, at a tire machine'),
} as const;

/** What an answer says of itself. */
export const replies = {
  lowFlagEnding: judged(0.7, 'an ending battery mostly says so, some only when it is too late'),
  lowFlagSound: judged(0.001, 'a wrong flag'),
  otherCarrierWrong: judged(0.98, 'a wrong part shows it'),
  otherCarrierRight: judged(0.0001, 'a slip of the tool'),
  /** Signal strength at the sidewall, dBm: sound, ending, and a neighbour's. */
  strengthDbm: {
    sound: practice(-50, 'antenna at the sidewall'),
    sd: judged(8, 'place and size of the wheel'),
  },
  endingDbm: { mean: judged(-72, 'a weak battery sends weakly'), sd: judged(9, 'more so in the cold') },
  neighbourDbm: { mean: practice(-68, 'more than twice as far'), sd: judged(9, 'depends on the bench') },
  /** A lone reply no stronger than this may come from elsewhere, dBm. */
  doubtfulDbm: judged(-65, 'as far from a neighbour as from the wheel itself'),
  endingIsWeak: judged(0.6, 'an ending battery is heard weakly, more often than not'),
  badPlace: judged(0.025, 'a sound sensor heard weakly: the antenna held wrong, and not tried again'),
  /** A neighbour is heard beside or instead of the wheel's own sensor. */
  neighbour: judged(0.03, 'wheels on a bench, or a spare in the trunk'),
  stranger: judged(0.004, 'another car beside it'),
  /** Two sensors that send one ID: cloned on purpose, and both on the car. */
  twins: judged(0.0005, 'a clone whose original was left in'),
} as const;

/** What a plain stem tells. */
export const stems = {
  rubber: {
    withSensor: practice(0.12, 'rubber-stem sensors exist'),
    without: practice(0.9, 'the plain stem'),
  },
  metal: {
    withSensor: practice(0.85, 'clamp-in stems mostly carry one'),
    without: practice(0.06, 'seldom fitted bare'),
  },
  damaged: {
    dead: judged(0.12, 'what breaks a stem breaks the sensor on it'),
    alive: judged(0.01, 'seen in time'),
  },
} as const;
