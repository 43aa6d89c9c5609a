import type { SensorService } from './schemas/sensor-service';
import type { RunRecord } from '../relearn/run';
import type { Confirmation } from './repair-outcome';
import type { CarWrite, Header, Job, Observation, TakenBack } from '.';

/**
 * A job as it is kept: the header a person may correct, the observations in the order they were
 * recorded, each with the key its client made, the writes to the car, and what its parts turned out to be.
 */
export interface JobRecord {
  header: Header;
  entries: Entry[];
  writes: CarWrite[];
  runs: RunRecord[];
  services: SensorService[];
  confirmations: Confirmation[];
}

export interface Entry {
  key: string;
  observation: Observation;
  /** The key of the entry this one puts right. */
  replaces?: string;
  /** It was recorded by mistake. */
  takenBack?: TakenBack;
}

/** The open job file of a record. What was corrected stands apart, so that no reader judges by it. */
export function toJobFile({ header, entries, writes, runs, services, confirmations }: JobRecord): Job {
  const replacedBy = new Map(entries.flatMap(({ key, replaces }) => (replaces ? [[replaces, key]] : [])));
  const withKey = ({ key, observation }: Entry): Observation => ({ ...observation, key });
  const corrected = entries.flatMap((entry) => {
    const by = replacedBy.get(entry.key);
    const { takenBack } = entry;
    if (!by && !takenBack) return [];
    return [{ ...(by && { replacedBy: by }), ...(takenBack && { takenBack }), observation: withKey(entry) }];
  });
  return {
    ...header,
    observations: entries.filter(({ key, takenBack }) => !replacedBy.has(key) && !takenBack).map(withKey),
    ...(corrected.length > 0 && { corrected }),
    ...(writes.length > 0 && { carWrites: writes }),
    ...(runs.length > 0 && { runs }),
    ...(services.length > 0 && { sensorServices: services }),
    ...(confirmations.length > 0 && { confirmations }),
  };
}

/**
 * The inverse. `keyFor` makes a key of ours of one that stands in the file, or of a name for what has none: the
 * same for the same.
 */
export function fromJobFile(job: Job, keyFor: (theirs: string) => string): JobRecord {
  const {
    observations,
    corrected = [],
    carWrites = [],
    runs = [],
    sensorServices = [],
    confirmations = [],
    ...header
  } = job;
  let unnamed = 0;
  const entryOf = ({ key, ...observation }: Observation): Entry => ({
    key: keyFor(key ?? `entry ${(unnamed += 1)}`),
    observation,
  });
  const old = corrected.map(({ replacedBy, takenBack, observation }) => ({
    entry: { ...entryOf(observation), ...(takenBack && { takenBack }) },
    by: replacedBy === undefined ? undefined : keyFor(replacedBy),
  }));
  const replacedBy = new Map(old.flatMap(({ by, entry }) => (by === undefined ? [] : [[by, entry.key]])));
  const withReplaces = (entry: Entry): Entry => {
    const replaces = replacedBy.get(entry.key);
    return replaces ? { ...entry, replaces } : entry;
  };
  return {
    header,
    entries: [...old.map(({ entry }) => entry), ...observations.map(entryOf)].map(withReplaces),
    writes: carWrites.map((write) => ({ ...write, key: keyFor(write.key) })),
    services: sensorServices.map((service) => ({ ...service, key: keyFor(service.key) })),
    runs: runs.map((run) => ({ ...run, key: keyFor(run.key) })),
    confirmations: confirmations.map((said) => ({ ...said, key: keyFor(said.key) })),
  };
}
