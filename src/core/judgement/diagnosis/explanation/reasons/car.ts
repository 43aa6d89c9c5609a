import { allOf, type Placed } from '../../../../job';
import { doneWords, lampWords } from '../../../../job/words';
import { methodWords } from '../../../../relearn/procedure/words';
import { isAboveWakeSpeed } from '../../../../car/wake-speed';
import { compareRegistration } from '../../../../car/registration';
import { listWheels } from '../../../../names/wheel';
import { clause, where, type Clause, type Known, type Reason } from './clause';
import { answering } from './sensor';

/** Why something is said of the car itself. */

const codesAbout = ({ ledger }: Known, about: string): Placed<'dtc'>[] =>
  ledger.codes.filter(({ seen }) => seen.about === about);

const codeClauses = (known: Known, about: string, what: string): Clause[] =>
  codesAbout(known, about).map((placed) =>
    clause(
      `The car has code ${placed.seen.code}, ${placed.seen.status}${placed.seen.wheel ? `, for ${placed.seen.wheel}` : ''}: ${what}.`,
      placed,
    ),
  );

/** The lamp as it was seen. */
const lampClause = ({ ledger: { lamp } }: Known): Clause[] =>
  where(lamp, (placed) => clause(`Lamp ${lampWords[placed.seen.state]}.`, placed));

const lastStored = ({ job }: Known): Placed<'relearn'> | undefined =>
  allOf(job, 'relearn').findLast(({ seen }) => seen.method === 'reset');

export const carReasons = {
  'receiver-fault': {
    ofCar: (known) => {
      const { job, ledger } = known;
      const { words, wheels, seen } = answering(known);
      const registration = compareRegistration(job, ledger);
      const unheard = allOf(job, 'live').filter(
        ({ seen: live }) => isAboveWakeSpeed(job, live.speedKmh) && !live.kPa,
      );
      const blank = allOf(job, 'display').filter(({ seen: shown }) => !shown.kPa);
      const said = [
        ...codeClauses(known, 'receiver', 'the receiver'),
        ...(wheels.length > 0
          ? [clause(`${words} ${wheels.length > 1 ? 'answer' : 'answers'} the tool.`, ...seen)]
          : []),
        ...(registration?.ok ? [clause('The car holds their IDs.', ledger.registry, ...seen)] : []),
        ...(unheard.length > 0
          ? [
              clause(
                `It had nothing from ${listWheels([...new Set(unheard.map(({ seen: live }) => live.wheel))])} on the drive.`,
                ...unheard,
              ),
            ]
          : []),
        ...(unheard.length === 0 && blank.length > 0
          ? [
              clause(
                `The display shows nothing for ${listWheels([...new Set(blank.map(({ seen: shown }) => shown.wheel))])}.`,
                ...blank,
              ),
            ]
          : []),
      ];
      return said.length > 0 ? said : lampClause(known);
    },
  },
  'system-disabled': {
    ofCar: (known) =>
      where(known.ledger.lamp, (lamp) =>
        lamp.seen.bulbCheck === false
          ? clause('The lamp did not light for its check at ignition on.', lamp)
          : clause(`Lamp ${lampWords[lamp.seen.state]}.`, lamp),
      ),
  },
  'gauge-off': {
    ofCar: ({ gaugeOff, kPa }) =>
      where(gaugeOff, ({ offKPa, wheels, places, against }) => ({
        words: `At ${listWheels(wheels)} the gauge reads ${kPa(Math.abs(offKPa))} ${offKPa > 0 ? 'more' : 'less'} than ${against === 'sensors' ? 'the sensors say' : 'another gauge'}, at each by about as much.`,
        on: places,
      })),
  },
  'waiting-for-drive': {
    ofCar: ({ ledger: { relearn, live }, job }) =>
      where(relearn, (placed) => {
        const { outcome, method, at } = placed.seen;
        const since = Object.values(live).filter(
          ({ seen }) => Date.parse(seen.at) >= Date.parse(at) && isAboveWakeSpeed(job, seen.speedKmh),
        );
        const taught =
          outcome === 'waiting-for-drive'
            ? 'The relearn says that a drive is still to come'
            : `Taught: ${methodWords[method]}`;
        return since.length === 0
          ? clause(`${taught}; no drive is noted since.`, placed)
          : clause(`${taught}; on the drive since not every wheel was heard.`, placed, ...since);
      }),
  },
  'supply-voltage-low': {
    ofCar: ({ ledger: { voltage } }) =>
      where(voltage, (placed) => clause(`${placed.seen.volts.toFixed(2)} V with the engine off.`, placed)),
  },
  'baseline-not-set': {
    ofCar: (known) => {
      const { job, evidence } = known;
      const stored = lastStored(known);
      const done = doneWords(job);
      const gauged = allOf(job, 'gauge');
      const why = stored
        ? evidence.car.storedTooSoon
          ? [clause('The system was reset before the air was put right.', stored, ...gauged)]
          : stored.seen.outcome === 'done'
            ? [clause('The system was reset.', stored)]
            : [clause('The reset was not finished.', stored)]
        : [];
      const worked: Clause[] =
        done === ''
          ? []
          : [
              {
                words: `Done lately: ${done}${stored ? '' : '; no reset is on record since'}.`,
                on: [],
                told: 'service',
              },
            ];
      return [...why, ...codeClauses(known, 'baseline', 'the reference'), ...worked, ...lampClause(known)];
    },
  },
  'wheel-speed-sensor-fault': {
    ofCar: (known) => [
      ...codeClauses(known, 'wheel-speed', 'wheel-speed data'),
      ...where(known.ledger.lamp, (lamp) =>
        lamp.seen.otherLamps?.length
          ? clause('The lamps of the brakes are on with it.', lamp)
          : clause(`Lamp ${lampWords[lamp.seen.state]}.`, lamp),
      ),
    ],
  },
  'no-fault': {
    ofCar: (known) => {
      const { ledger } = known;
      const { wheels, seen } = answering(known);
      return [
        clause('No tire is short of its placard or over it.', ...Object.values(ledger.gauge)),
        ...(wheels.length > 0 ? [clause('Every sensor answers.', ...seen)] : []),
        ...(wheels.length > 0 && ledger.registry
          ? [clause('The car holds what answers.', ledger.registry, ...seen)]
          : []),
        ...where(ledger.lamp, (lamp) => clause('The lamp is off, and lights for its check.', lamp)),
      ];
    },
  },
} as const satisfies Record<string, Reason>;
