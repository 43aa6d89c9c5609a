import { useEffect, useRef, useState } from 'react';
import { v7 as newKey } from 'uuid';
import type { BodyOf } from '../../contract';
import type { Problem } from '../../core/result';
import { lampSeen, type LampWay } from '../../core/car/lamp/ways';
import { distance, parse, temperature, type Notation } from '../../core/measure/units';
import { celsiusAt, hoursFrom, nightsOf, type Hour } from '../../core/measure/weather';
import type { KnownVehicle } from '../../contract/views';
import { ask } from '../api';
import { shopNow, shopTime } from '../clock';
import { useDeeds } from '../deeds';
import { monitoringFrom, tpmsOf } from '../parts/Monitoring';
import { noWork, serviceOf } from '../parts/WorkDone';
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
type Errors = Partial<Record<keyof Entries, string>>;

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

/** What is entered to book a car in, and the booking itself. */
export function useBooking({ units, followUp, vehicle, plannedSet }: Beforehand) {
  const [entries, setEntries] = useState(() => ({ ...blank, ...vehicle, ...followUp?.vehicle }));
  const [lamp, setLamp] = useState<LampWay>();
  const [work, setWork] = useState(noWork);
  const [monitoring, setMonitoring] = useState(() => monitoringFrom(undefined, units));
  const [errors, setErrors] = useState<Errors>({});
  const { once, busy, problem } = useDeeds();
  /** The page of the job is on its way. */
  const [booked, setBooked] = useState(false);
  const form = useRef<HTMLFormElement>(null);
  const set = (name: keyof Entries) => (value: string) => {
    setEntries((now) => ({ ...now, [name]: value }));
    setErrors((now) => ({ ...now, [name]: undefined }));
  };
  const known = useKnownVehicle(entries, (found) =>
    setEntries((now) => ({
      ...now,
      plate: now.plate || (found.plate ?? ''),
      vin: now.vin || (found.vin ?? ''),
      label: now.label || found.label,
      modelYear: now.modelYear || String(found.modelYear ?? ''),
      profile: now.profile || (found.profile ?? ''),
    })),
  );
  const weather = useWeather();
  const [opened] = useState(shopNow);
  const outdoors = weather?.ok ? outdoorsFrom(weather.value.hours, opened) : undefined;
  const isNewKind = entries.profile === '' && !known;

  const bookIn = async () => {
    const read = readEntries(entries, units);
    setErrors(read.errors);
    const service = serviceOf(work);
    const own = tpmsOf(monitoring, units);
    if (Object.keys(read.errors).length > 0 || !service || (isNewKind && !own.tpms)) {
      // On a phone what is wrong may stand far above the button.
      requestAnimationFrame(() => form.current?.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus());
      return;
    }
    const body: Omit<BodyOf<'bookIn'>, 'key'> = {
      vehicle: {
        ...read.vehicle,
        ...(entries.profile ? { profile: entries.profile } : isNewKind && own.tpms && { tpms: own.tpms }),
      },
      ...read.counter,
      service,
      ...(isNewKind && entries.keepKindAs.trim() && { keepKindAs: entries.keepKindAs.trim() }),
      ...(followUp && { followUpOf: followUp.id }),
      ...(plannedSet && { plannedSet: plannedSet.id }),
      climate: { ...(entries.nowC === '' && outdoors), ...(read.nowC !== undefined && { nowC: read.nowC }) },
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
    entries,
    set,
    errors,
    known,
    isNewKind,
    monitoring,
    setMonitoring,
    lamp,
    setLamp,
    work,
    setWork,
    outdoors,
    problem: problem?.message,
    busy: booked || busy !== undefined,
    bookIn,
  };
}

/** The job that is open already, where that is why. */
const idOfOpenJob = ({ code, issues }: Problem): string | undefined =>
  code === 'already-open' ? issues?.[0]?.message : undefined;

/** The vehicle on file with this plate or VIN, looked up while they are typed. */
function useKnownVehicle(
  { plate, vin }: Pick<Entries, 'plate' | 'vin'>,
  onFound: (vehicle: KnownVehicle) => void,
): KnownVehicle | undefined {
  const [known, setKnown] = useState<KnownVehicle>();
  const found = useRef(onFound);
  useEffect(() => {
    found.current = onFound;
  });
  useEffect(() => {
    if (plate.trim().length < 3 && vin.trim().length < 11) return undefined;
    const timer = setTimeout(() => {
      const query: Record<string, string> = vin.trim().length >= 11 ? { vin } : { plate };
      void ask('vehicle', { query }).then((answer) => {
        if (!answer.ok || !answer.value.vehicle) return;
        setKnown(answer.value.vehicle);
        found.current(answer.value.vehicle);
      });
    }, lookUpMs);
    return () => clearTimeout(timer);
  }, [plate, vin]);
  return known;
}

/** What was typed, as it is sent; and what is wrong with it, field by field. */
function readEntries(entries: Entries, units: Notation) {
  const errors: Errors = {};
  if (entries.label.trim() === '') errors.label = 'Say which vehicle it is.';
  const modelYear = entries.modelYear === '' ? undefined : Number(entries.modelYear);
  if (modelYear !== undefined && !(Number.isInteger(modelYear) && modelYear >= 1950 && modelYear <= 2100))
    errors.modelYear = 'A year, as 2019.';
  const odometer = entries.odometer === '' ? undefined : parse(distance, entries.odometer, units.distance);
  if (odometer && !odometer.ok) errors.odometer = odometer.problem.message;
  const nowC = entries.nowC === '' ? undefined : parse(temperature, entries.nowC, units.temperature);
  if (nowC && !nowC.ok) errors.nowC = nowC.problem.message;
  return {
    errors,
    vehicle: {
      label: entries.label.trim(),
      ...(entries.vin.trim() && { vin: entries.vin }),
      ...(entries.plate.trim() && { plate: entries.plate.trim() }),
      ...(modelYear !== undefined && { modelYear }),
      ...(odometer?.ok && { odometerKm: odometer.value.base }),
    },
    counter: {
      ...(entries.complaint.trim() && { complaint: entries.complaint.trim() }),
      ...(entries.customer.trim() && { customer: entries.customer.trim() }),
      ...(entries.orderNumber.trim() && { orderNumber: entries.orderNumber.trim() }),
    },
    nowC: nowC?.ok ? nowC.value.base : undefined,
  };
}

/** The air of now and of the coldest hour tonight, where the service says both. */
function outdoorsFrom(hours: readonly Hour[], now: number) {
  const nowC = celsiusAt(hours, now);
  const [tonight] = nightsOf(hoursFrom(hours, now));
  return nowC === undefined || !tonight ? undefined : { nowC, overnightLowC: tonight.coldest.celsius };
}
