import type { Job } from '../../job';

/** Sensors wake above about this speed, km/h (common practice), where the car's own figure is not known. */
export const usualWakeSpeedKmh = 40;

/** Whether a car at this speed should hear its sensors; below it they sleep, and silence is no fault. */
export function isAboveWakeSpeed(job: Pick<Job, 'vehicle'>, speedKmh: number | undefined): boolean {
  return (speedKmh ?? 0) > (job.vehicle.tpms.wakeSpeedKmh ?? usualWakeSpeedKmh);
}
