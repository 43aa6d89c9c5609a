import type { Move, Station } from '.';

/** What the counter may do without having been at the car: all else is for those who work on it. */
const forAnybody: ReadonlySet<Move['kind']> = new Set(['placard', 'look-at-lamp', 'hand-over', 'done']);
const stationsForAnybody: ReadonlySet<Station> = new Set(['placard', 'follows', 'hand-over']);

export const needsTechnician = ({ kind }: Move): boolean => !forAnybody.has(kind);
export const stationNeedsTechnician = (station: Station): boolean => !stationsForAnybody.has(station);

export const technicianOnly = 'A technician or a manager does this, at the car.';
