import { z } from 'zod';
import { monitoredWheels } from '../../../core/job/placard';
import { figure, pressure, type Notation } from '../../../core/measure/units';
import { typedAs, typedAsOrEmpty } from '../../../core/measure/units/schema';
import { walkingOrder } from '../../../core/names/wheel';
import { shopTime } from '../../clock';
import { Button } from '../../kit/Button';
import { ChoiceIn, Form, PicksIn, TextIn, useFilled } from '../../kit/Form';
import styles from '../../kit/Forms.module.css';
import { figureTyped } from '../../kit/typed';
import { byWheel, nothingByWheel } from '../../parts/by-wheel';
import type { Sheet } from '../use-sheet';

/** What a car shows of itself, typed: its pressures on the road, the figures of its lamp, its supply. */

const liveIn = (units: Notation) =>
  z
    .object({
      speedKmh: figureTyped('How fast it went, in km/h.', (kmh) => kmh >= 0 && kmh <= 400),
      wheels: byWheel(typedAsOrEmpty(pressure, units)),
      batteries: z.enum(['not-shown', 'shown']),
      low: z.array(z.enum(walkingOrder)),
    })
    .refine(({ wheels }) => Object.values(wheels).some((read) => read !== undefined), {
      path: ['speedKmh'],
      message: 'Type what it shows at one wheel at least.',
    });

export function Live({ sheet: { job, units, record, close } }: { sheet: Sheet }) {
  const on = monitoredWheels(job);
  const form = useFilled(liveIn(units), {
    speedKmh: '',
    wheels: nothingByWheel,
    batteries: 'not-shown',
    low: [],
  });
  const { control: of } = form;
  return (
    <Form
      form={form}
      className={styles.form}
      onRead={({ speedKmh, wheels, batteries, low }) => {
        const at = shopTime();
        for (const wheel of on) {
          const read = wheels[wheel];
          if (!read) continue;
          const battery = low.includes(wheel) ? ('low' as const) : ('ok' as const);
          record({
            kind: 'live',
            at,
            wheel,
            kPa: read.base,
            speedKmh,
            ...(batteries === 'shown' && { battery }),
            source: 'hand',
          });
        }
        close();
      }}
    >
      <TextIn
        of={of}
        name="speedKmh"
        label="At, km/h"
        hint="A passenger reads. Standing, most sensors sleep, and what is shown may be old."
        inputMode="decimal"
      />
      <div className={styles.row}>
        {on.map((wheel) => (
          <TextIn
            key={wheel}
            of={of}
            name={`wheels.${wheel}`}
            label={`${wheel}, ${units.pressure}`}
            inputMode="decimal"
          />
        ))}
      </div>
      <ChoiceIn
        of={of}
        name="batteries"
        label="The batteries of the sensors"
        options={[
          { value: 'not-shown', label: 'not shown' },
          { value: 'shown', label: 'it says which are low' },
        ]}
      />
      {form.watch('batteries') === 'shown' && (
        <PicksIn
          of={of}
          name="low"
          label="Low at (none where all are ok)"
          options={on.map((value) => ({ value, label: value }))}
        />
      )}
      <div>
        <Button weight="main" type="submit">
          It shows these
        </Button>
      </div>
    </Form>
  );
}

const lampIn = (units: Notation) =>
  z
    .object({
      lowOnKPa: typedAs(pressure, units, 'The figure at which it comes on.'),
      lowOffKPa: typedAsOrEmpty(pressure, units),
    })
    .refine(({ lowOnKPa, lowOffKPa }) => !lowOffKPa || lowOffKPa.base >= lowOnKPa.base, {
      path: ['lowOffKPa'],
      message: 'It goes out at or above the figure at which it comes on.',
    });

/** At which pressures the car itself says its lamp comes on and goes out. */
export function LampFigures({ sheet: { job, units, busy, edit, close } }: { sheet: Sheet }) {
  const { tpms } = job.vehicle;
  const shown = (kPa: number | undefined) => (kPa === undefined ? '' : figure(pressure, kPa, units));
  const form = useFilled(lampIn(units), {
    lowOnKPa: shown(tpms.lowOnKPa),
    lowOffKPa: shown(tpms.lowOffKPa),
  });
  const { control: of } = form;
  return (
    <Form
      form={form}
      className={styles.form}
      onRead={async ({ lowOnKPa: on, lowOffKPa: off }) => {
        const figures = { lowOnKPa: on.base, ...(off && { lowOffKPa: off.base }) };
        if (await edit({ vehicle: { tpms: { ...tpms, ...figures } } })) close();
      }}
    >
      <div className={styles.row}>
        <TextIn of={of} name="lowOnKPa" label={`Lamp on at, ${units.pressure}`} inputMode="decimal" />
        <TextIn
          of={of}
          name="lowOffKPa"
          label={`Lamp off at, ${units.pressure} (may be empty)`}
          inputMode="decimal"
        />
      </div>
      <div>
        <Button weight="main" type="submit" busy={busy}>
          The car says these
        </Button>
      </div>
    </Form>
  );
}

const supply = z.object({
  volts: figureTyped('Between 0 and 60 V.', (volts) => volts > 0 && volts <= 60),
  engine: z.enum(['on', 'off']),
});

export function Supply({ sheet: { record, close } }: { sheet: Sheet }) {
  const form = useFilled(supply, { volts: '', engine: 'off' });
  const { control: of } = form;
  return (
    <Form
      form={form}
      className={styles.form}
      onRead={(read) => {
        record({ kind: 'voltage', at: shopTime(), ...read, source: 'hand' });
        close();
      }}
    >
      <TextIn of={of} name="volts" label="Volts" inputMode="decimal" />
      <ChoiceIn
        of={of}
        name="engine"
        label="Engine"
        options={[
          { value: 'off', label: 'off' },
          { value: 'on', label: 'on' },
        ]}
      />
      <div>
        <Button weight="main" type="submit">
          Save the voltage
        </Button>
      </div>
    </Form>
  );
}
