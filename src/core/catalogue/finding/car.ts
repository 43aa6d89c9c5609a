import { judged } from '../../measure/figure';
import { answer } from './answer';
import type { FindingRecord } from './record';

/** What can be the matter with the car itself, or with the visit. */
export const carFindings = {
  'receiver-fault': {
    scope: 'car',
    title: 'The car hears nothing',
    action: "Check the receiver's supply, fuse and antenna before replacing any sensor.",
    remedy: 'part',
    work: { before: 'proof', label: () => 'Check the receiver' },
    part: 'receiver',
    prior: judged(0.006, 'receiver, antenna or supply: rare beside sensors'),
    stakes: { wrong: judged(90, 'a module sold for nothing'), missed: judged(60, 'the lamp is back') },
    asked: {
      registry: answer(0.55, 0.01, 'by its codes'),
      drive: answer(0.97, 0.01, 'none of them is heard'),
    },
  },
  'system-disabled': {
    scope: 'car',
    title: 'Lamp makes no check',
    action: 'Find out why the lamp stays dark at ignition on: bulb, cluster, or configuration. It must work.',
    remedy: 'hands',
    work: { before: 'proof', label: () => 'Find out why the lamp is dark' },
    part: 'lamp',
    prior: judged(0.004, 'bulb, cluster or configuration'),
    stakes: { wrong: judged(15, 'a search for nothing'), missed: judged(60, 'leaves unguarded') },
    asked: { lamp: answer(0.95, 0.001, 'the bulb check') },
  },
  'gauge-off': {
    scope: 'car',
    title: 'Gauge reads off',
    action:
      'Read the tires again with another gauge. Let no air in or out by this one, and use it no more until it was checked.',
    remedy: 'scan',
  },
  'waiting-for-drive': {
    scope: 'car',
    title: 'Waiting for the drive',
    action: 'Drive above the wake speed until the car has heard every wheel, then read it again.',
    remedy: 'drive',
    blamesNothing: true,
    stakes: { wrong: judged(12, 'a drive for nothing'), missed: judged(30, 'handed over unproved') },
    asked: { drive: answer(0.9, 0.05, 'the drive is what it waits for') },
  },
  'supply-voltage-low': {
    scope: 'car',
    title: 'Supply too low to write',
    action: 'Write nothing yet: connect a charger (an electric car is kept switched on) and measure again.',
    remedy: 'charger',
  },
  'baseline-not-set': {
    scope: 'car',
    title: 'System not reset',
    action: 'Set all tires to placard cold, then reset the system and drive.',
    remedy: 'hands',
    work: { before: 'proof', label: () => 'Reset the system' },
    part: 'reference',
    prior: judged(0.03, 'the reference was stored wrongly or not at all, with no work known'),
    stakes: { wrong: judged(6, 'a reference stored again'), missed: judged(40, 'the lamp is back') },
    asked: { baseline: answer(0.95, 0.1, 'the lamp stays out after storing') },
  },
  'wheel-speed-sensor-fault': {
    scope: 'car',
    title: 'Wheel-speed data down',
    action: 'Mend the wheel-speed sensor first; the tire warning lives on its data.',
    remedy: 'part',
    work: { before: 'proof', label: () => 'Check the wheel-speed sensors' },
    part: 'wheel-speed',
    prior: judged(0.01, 'rare; mostly known from its own lamp'),
    stakes: { wrong: judged(45, 'a sensor sold for nothing'), missed: judged(60, 'the lamps are back') },
  },
  'no-fault': {
    scope: 'car',
    title: 'All in order',
    action: 'Nothing to do: hand the car over.',
    remedy: 'none',
    blamesNothing: true,
  },
} as const satisfies Record<string, FindingRecord>;
