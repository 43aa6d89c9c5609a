import fc from 'fast-check';
import { walkingOrder } from '../../src/core/names/wheel';

/** Arbitrary job files: all kinds of observations, corrections, writes, and keys of other programs. */
const wheel = fc.constantFrom(...walkingOrder);
const at = fc
  .date({ min: new Date('2025-01-01'), max: new Date('2025-12-31'), noInvalidDate: true })
  .map((date) => date.toISOString());
const kPa = fc.integer({ min: 0, max: 500 });
const celsius = fc.integer({ min: -40, max: 90 });
const id = fc.string({ unit: fc.constantFrom(...'0123456789ABCDEF'), minLength: 1, maxLength: 9 });
/** PostgreSQL keeps no NUL in JSON text, and no lone surrogate; nobody types either. */
const text = fc.string({ unit: fc.constantFrom(...'abc ÄéÑ"\\/{}漢0'), minLength: 1, maxLength: 12 });
const extra = fc.option(
  fc.dictionary(fc.constantFrom('note', 'x-other', 'color'), fc.oneof(text, fc.integer(), fc.boolean())),
  { nil: {} },
);

const reply = fc.record(
  {
    id,
    kPa,
    tempC: celsius,
    frequencyMHz: fc.constantFrom(315, 433.92),
    family: fc.constantFrom('kestrel', 'plover'),
    battery: fc.constantFrom('ok', 'low'),
  },
  { requiredKeys: ['id'] },
);
const entries = fc.array(fc.record({ wheel, id: fc.option(id) }), { maxLength: 5 });

const gauge = fc.record(
  {
    kind: fc.constant('gauge'),
    at,
    wheel,
    kPa,
    tire: fc.constantFrom('cold', 'warm'),
    typed: text,
    tireC: celsius,
    tireCUncertaintyK: fc.integer({ min: 0, max: 20 }),
    uncertaintyKPa: fc.integer({ min: 0, max: 20 }),
    trusted: fc.boolean(),
  },
  { requiredKeys: ['kind', 'at', 'wheel', 'kPa', 'tire'] },
);

/** What the job says around the observations: load, tires, repairs, earlier visits, weather. */
const surroundings = fc.record(
  {
    loadCase: fc.constantFrom('usual', 'full'),
    fitted: fc.constantFrom(
      [{ position: 'front', size: '205/55R16 91V', maxKPa: 240 }],
      [{ position: 'rear', size: 'no size' }],
    ),
    repairs: fc.array(fc.record({ wheel, at }), { maxLength: 2 }),
    history: fc.array(gauge, { maxLength: 6 }),
    climate: fc.record(
      { nowC: celsius, overnightLowC: celsius, altitudeM: fc.integer({ min: -400, max: 5000 }) },
      { requiredKeys: [] },
    ),
  },
  { requiredKeys: [] },
);

const observation = fc.oneof(
  fc.record({
    kind: fc.constant('lamp'),
    at,
    state: fc.constantFrom('off', 'steady', 'flash-then-steady'),
    bulbCheck: fc.boolean(),
  }),
  gauge,
  fc.record({
    kind: fc.constant('activation'),
    at,
    wheel,
    trigger: fc.constantFrom('pulsed', 'magnet'),
    replies: fc.array(reply, { maxLength: 3 }),
  }),
  fc.record({ kind: fc.constant('registry'), at, entries }),
  fc.record({
    kind: fc.constant('live'),
    at,
    wheel,
    kPa: fc.option(kPa),
    speedKmh: fc.integer({ min: 0, max: 130 }),
  }),
  fc.record({ kind: fc.constant('display'), at, wheel, kPa: fc.option(kPa) }),
  fc.record({
    kind: fc.constant('dtc'),
    at,
    code: fc.constantFrom('C1B04', 'C1B31'),
    status: fc.constantFrom('active', 'stored'),
  }),
  fc.record({
    kind: fc.constant('voltage'),
    at,
    volts: fc.integer({ min: 9, max: 15 }),
    engine: fc.constantFrom('on', 'off'),
  }),
);

const keyed = fc.tuple(observation, fc.uuid(), extra).map(([seen, key, more]) => ({ ...more, ...seen, key }));

const carWrite = fc.record(
  {
    kind: fc.constant('registry'),
    key: fc.uuid(),
    askedAt: at,
    asked: entries,
    before: entries,
    answer: fc.constantFrom('yes', 'no', 'lost'),
    answeredAt: at,
    readBackAt: at,
    readBack: entries,
  },
  { requiredKeys: ['kind', 'key', 'askedAt', 'asked', 'before'] },
);

const confirmation = fc.record({
  key: fc.uuid(),
  at,
  by: text,
  parts: fc.constantFrom(
    [],
    [{ part: 'receiver', was: 'in-order' }],
    [{ part: 'sensor', wheel: 'LR', was: 'sensor-silent' }],
  ),
});

/** Job files as this app exports them: every observation has its key, corrected ones stand apart. */
export const exportedJob = fc
  .record({
    observations: fc.uniqueArray(keyed, { selector: ({ key }) => key, maxLength: 12 }),
    corrections: fc.nat({ max: 3 }),
    old: fc.uniqueArray(keyed, { selector: ({ key }) => key, minLength: 3, maxLength: 3 }),
    carWrites: fc.uniqueArray(carWrite, { selector: ({ key }) => key, maxLength: 2 }),
    confirmations: fc.uniqueArray(confirmation, { selector: ({ key }) => key, maxLength: 2 }),
    label: text,
    visitKey: fc.uuid(),
    extra,
    surroundings,
  })
  .map(
    ({
      observations,
      corrections,
      old,
      carWrites,
      confirmations,
      label,
      visitKey,
      extra: more,
      surroundings: around,
    }) => {
      const corrected = observations.slice(0, corrections).flatMap(({ key, kind }, place) => {
        const before = old[place];
        return before ? [{ replacedBy: key, observation: { ...before, kind: before.kind, of: kind } }] : [];
      });
      return {
        ...more,
        ...around,
        format: 'hacienda.job/1',
        vehicle: { label, ...more, tpms: { kind: 'direct', ...more } },
        placard: [{ position: 'front', coldKPa: 230, ...more }],
        visit: { key: visitKey, complaint: label },
        observations,
        ...(corrected.length > 0 && { corrected }),
        ...(carWrites.length > 0 && { carWrites }),
        ...(confirmations.length > 0 && { confirmations }),
      };
    },
  );
