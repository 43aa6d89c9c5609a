import { practice } from '../../../measure/figure';

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
  baseline: practice(10, 'reset the system and drive'),
} as const;
