import { useCallback, useEffect, useState } from 'react';
import { useWatch } from 'react-hook-form';
import { v7 as newKey } from 'uuid';
import type { z } from 'zod';
import type { BodyOf } from '../../contract';
import type { Problem } from '../../core/result';
import { lampSeen, type LampWay } from '../../core/car/lamp/ways';
import { temperature, type Notation } from '../../core/measure/units';
import { typedAsOrEmpty } from '../../core/measure/units/schema';
import { celsiusAt, hoursFrom, nightsOf, type Hour } from '../../core/measure/weather';
import type { KnownVehicle } from '../../contract/views';
import { ask } from '../api';
import { shopNow, shopTime } from '../clock';
import { useDeeds } from '../deeds';
import { useFilled } from '../kit/Form';
import { text } from '../kit/typed';
import { carEntryIn, monitoringReads } from '../parts/car-entry';
import { monitoringFrom } from '../parts/Monitoring';
import { noWork } from '../parts/WorkDone';
import { useWeather } from '../parts/use-weather';

const lookUpMs = 300;
const blank = {
  plate: '',
  vin: '',
  label: '',
  modelYear: '',
  odometer: '',
  profile: '',
  complaint: '',
  customer: '',
  orderNumber: '',
  nowC: '',
  keepKindAs: '',
};
type Entries = typeof blank;

/** The job a booking follows up, and which car that was. */
interface FollowedUp {
  id: string;
  number: number;
  vehicle: Pick<Entries, 'plate' | 'vin' | 'label' | 'modelYear' | 'profile'>;
}

/** What is known of a booking before anything is typed. */
export interface Beforehand {
  units: Notation;
  followUp: FollowedUp | undefined;
  /** A vehicle on file, where it is known which. */
  vehicle: Partial<Entries> | undefined;
  /** The wheel set that is to go on when the car comes. */
  plannedSet: { id: string; label: string } | undefined;
}

const bookingIn = (units: Notation, isNewKind: (entry: { profile: string }) => boolean) =>
  carEntryIn(units)
    .extend({ nowC: typedAsOrEmpty(temperature, units), keepKindAs: text })
    .superRefine(monitoringReads(isNewKind));

/** What is entered to book a car in, and the booking itself. */
export function useBooking({ units, followUp, vehicle, plannedSet }: Beforehand) {
  const [lamp, setLamp] = useState<LampWay>();
  const { once, busy, problem } = useDeeds();
  /** The page of the job is on its way. */
  const [booked, setBooked] = useState(false);
  const [known, setKnown] = useState<KnownVehicle>();
  const form = useFilled(
    bookingIn(units, ({ profile }) => profile === '' && !known),
    {
      ...blank,
      ...vehicle,
      ...followUp?.vehicle,
      work: noWork,
      monitoring: monitoringFrom(undefined, units),
    },
  );
  const { control, getValues, setValue } = form;
  const [plate = '', vin = '', profile = ''] = useWatch({ control, name: ['plate', 'vin', 'profile'] });
  const take = useCallback(
    (found: KnownVehicle) => {
      setKnown(found);
      const { modelYear, ...said } = found;
      const onFile = { ...said, modelYear: String(modelYear ?? '') };
      for (const name of ['plate', 'vin', 'label', 'modelYear', 'profile'] as const)
        if (getValues(name) === '') setValue(name, onFile[name] ?? '');
    },
    [getValues, setValue],
  );
  useLookUp(plate, vin, take);
  const weather = useWeather();
  const [opened] = useState(shopNow);
  const outdoors = weather?.ok ? outdoorsFrom(weather.value.hours, opened) : undefined;

  const bookIn = async (read: z.infer<ReturnType<typeof bookingIn>>) => {
    const { monitoring, nowC, complaint, customer, orderNumber, keepKindAs } = read;
    const isNewKind = read.profile === '' && !known;
    const body: Omit<BodyOf<'bookIn'>, 'key'> = {
      vehicle: {
        label: read.label,
        ...(read.vin && { vin: read.vin }),
        ...(read.plate && { plate: read.plate }),
        ...(read.modelYear !== undefined && { modelYear: read.modelYear }),
        ...(read.odometer && { odometerKm: read.odometer.base }),
        ...(read.profile
          ? { profile: read.profile }
          : isNewKind && monitoring.tpms && { tpms: monitoring.tpms }),
      },
      ...(complaint && { complaint }),
      ...(customer && { customer }),
      ...(orderNumber && { orderNumber }),
      service: read.work,
      ...(isNewKind && keepKindAs && { keepKindAs }),
      ...(followUp && { followUpOf: followUp.id }),
      ...(plannedSet && { plannedSet: plannedSet.id }),
      climate: nowC ? { nowC: nowC.base } : { ...outdoors },
      observations: lamp ? [{ key: newKey(), observation: { ...lampSeen(lamp), at: shopTime() } }] : [],
    };
    const answer = await once('book in', (key) => ask('bookIn', { body: { key, ...body } }));
    // Somebody else booked it in meanwhile: that job is where to go on.
    const there = !answer || answer.ok ? answer?.value.id : idOfOpenJob(answer.problem);
    if (there === undefined) return;
    setBooked(true);
    window.location.assign(`/jobs/${there}`);
  };

  return {
    form,
    vin,
    known,
    isNewKind: profile === '' && !known,
    lamp,
    setLamp,
    outdoors,
    problem: problem?.message,
    busy: booked || busy !== undefined,
    bookIn,
  };
}

/** The job that is open already, where that is why. */
const idOfOpenJob = ({ code, issues }: Problem): string | undefined =>
  code === 'already-open' ? issues?.[0]?.message : undefined;

/** Looks for the vehicle on file with this plate or VIN while they are typed. */
function useLookUp(plate: string, vin: string, onFound: (vehicle: KnownVehicle) => void): void {
  useEffect(() => {
    if (plate.trim().length < 3 && vin.trim().length < 11) return undefined;
    const timer = setTimeout(() => {
      const query: Record<string, string> = vin.trim().length >= 11 ? { vin } : { plate };
      void ask('vehicle', { query }).then((answer) => {
        if (answer.ok && answer.value.vehicle) onFound(answer.value.vehicle);
      });
    }, lookUpMs);
    return () => clearTimeout(timer);
  }, [plate, vin, onFound]);
}

/** The air of now and of the coldest hour tonight, where the service says both. */
function outdoorsFrom(hours: readonly Hour[], now: number) {
  const nowC = celsiusAt(hours, now);
  const [tonight] = nightsOf(hoursFrom(hours, now));
  return nowC === undefined || !tonight ? undefined : { nowC, overnightLowC: tonight.coldest.celsius };
}
