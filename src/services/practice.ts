import type { BodyOf } from '../contract';
import { noPractice, noVinForPractice } from '../contract/refusals';
import { success, type Result } from '../core/result';
import type { PracticeCar, VisitView } from '../contract/views';
import type { Position } from '../core/names/wheel';
import * as bay from '../devices/bay';
import { readCar } from './car';
import { practiceBay } from './devices';
import { viewJob } from './jobs';
import { refuseUnless, type Person } from './people';

/** What hands do to a simulated car: see its dash, let air in, drive it. A real car has none of this. */

const practiceSpeedKmh = 62;
const practiceMinutes = 10;

async function inBay<Value>(
  jobId: string,
  work: (address: NonNullable<ReturnType<typeof practiceBay>>, vin: string) => Promise<Result<Value>>,
): Promise<Result<Value>> {
  const address = practiceBay();
  if (!address) return noPractice();
  const view = await viewJob(jobId);
  if (!view.ok) return view;
  const { vin } = view.value.job.vehicle;
  return vin ? work(address, vin) : noVinForPractice();
}

export const lookAt = (jobId: string): Promise<Result<PracticeCar>> => inBay(jobId, bay.lookAt);

/** What hands do there, for who may lay hands on a car. Problem: `not-allowed`. */
export function practise(
  id: string,
  body: BodyOf<'practise'>,
  who: Person,
): Promise<Result<PracticeCar | VisitView>> {
  const refusal = refuseUnless(who, 'change-a-car');
  if (refusal) return Promise.resolve(refusal);
  switch (body.do) {
    case 'drive':
      return drive(id, body.key, who);
    case 'night':
      return letNightPass(id, body.celsius);
    case 'air':
      return setAir(id, body.wheel, body.kPa);
    case 'fit':
      return fitSensor(id, body.wheel, body.serial);
    case 'cradle':
      return layInCradle(id, body.serials);
  }
}

const setAir = (jobId: string, wheel: Position, kPa: number): Promise<Result<PracticeCar>> =>
  inBay(jobId, (address, vin) => bay.setAir(address, vin, wheel, kPa));

const fitSensor = (jobId: string, wheel: Position, serial: string): Promise<Result<PracticeCar>> =>
  inBay(jobId, (address, vin) => bay.fit(address, vin, wheel, serial));

/** Lays these sensors of the box into the cradle, and takes all others out. */
const layInCradle = (jobId: string, serials: readonly string[]): Promise<Result<PracticeCar>> =>
  inBay(jobId, async (address, vin) => {
    const laid = await bay.layInCradle(address, serials);
    return laid.ok ? bay.lookAt(address, vin) : laid;
  });

/** The simulated universal sensors. Problem: `no-practice`. */
export function lookIntoBox(): Promise<Result<bay.Box>> {
  const address = practiceBay();
  return address ? bay.lookIntoBox(address) : Promise.resolve(noPractice());
}

/** Lets a night of this cold pass over the simulated car and drives it off in the morning. */
const letNightPass = (jobId: string, celsius: number): Promise<Result<PracticeCar>> =>
  inBay(jobId, (address, vin) => bay.letNightPass(address, vin, celsius, practiceSpeedKmh));

/** Drives above wake speed, reads the car on the way as a passenger would, and parks again. */
export async function drive(jobId: string, key: string, who: Person): Promise<Result<VisitView>> {
  return inBay(jobId, async (address, vin) => {
    const off = await bay.driveOff(address, vin, practiceSpeedKmh, practiceMinutes);
    if (!off.ok) return off;
    const read = await readCar(jobId, key, who);
    const parked = await bay.park(address, vin);
    if (!read.ok) return read;
    return parked.ok ? success(read.value) : parked;
  });
}
